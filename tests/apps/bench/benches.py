"""A tray with a stored forecast, for the bench's tests: no engine is asked."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.sowings.models import Sowing
from cloche_engine.results import MODEL_VERSION, FrostDates, HeatOutlook, LightOutlook, SowingOutlook
from tests.conftest import NOW
from tests.factories import make_place
from tests.stored import stored_forecast

TODAY = NOW.date()
BEHIND_D, AHEAD_D = 21, 14


def make_tray(garden: Garden, name: str = "Shelf", roots_c: float = 18.0, **values: Any) -> Place:
    """A tray in a room of 17 °C with its forecast stored."""
    stored = {key: values.pop(key) for key in ("heat", "light", "alarm", "around_c") if key in values}
    place = make_place(garden, name, **({"kind": "tray", "seed_depth_m": 0.02} | values))
    store(place, roots_c, **stored)
    return place


def store(place: Place, roots_c: float, around_c: float = 17.0, **more: Any) -> None:
    """Its forecast: the same all along."""
    hours, days = [roots_c] * 24 * (BEHIND_D + AHEAD_D), [roots_c] * 300
    ground = stored_forecast(
        day=TODAY,
        start=NOW.replace(hour=0) - timedelta(days=BEHIND_D),
        depth_m=place.seed_depth_m,
        near_low_c=[v - 1 for v in hours],
        near_mid_c=hours,
        near_high_c=[v + 1 for v in hours],
        far_low_c=days,
        far_mid_c=days,
        far_high_c=days,
        field_depths_m=[0.0, 0.03, 0.06],
        field_c=[hours[::2]] * 3,
        outside_c=hours,
        around_c=[around_c] * AHEAD_D,
        readings_used=4,
        band_k={1: 1.0, 3: 1.0, 7: 1.0, 14: 1.0},
        spread_start=NOW.replace(hour=0) - timedelta(days=1),
        spread_depths_m=[0.02],
        spread_k=[[0.5] * 24],
        **more,
    )
    frosts = FrostDates(spring=None, autumn=None, lowest_c=-9.0, years=0)
    Forecast.objects.update_or_create(
        place=place,
        defaults={
            "made_at": NOW,
            "day": TODAY,
            "input_revision": place.input_revision,
            "model_version": MODEL_VERSION,
            "ground": ground,
            "frosts": frosts,
        },
    )


def heated(duty: float = 0.4, without_c: float = 17.0, **values: Any) -> HeatOutlook:
    """A heater that is on for a share of the day."""
    usual = {"watts": 20.0, "ruled": (21.0, 23.0), "holds": 1.0}
    return HeatOutlook([(duty,) * 3] * AHEAD_D, [duty * 0.48] * AHEAD_D, without_c=[without_c] * AHEAD_D, **(usual | values))


def lit(window: float = 0.0, lamp: float = 0.0) -> LightOutlook:
    """Light a day."""
    return LightOutlook([(window,) * 3] * 2 * AHEAD_D, [lamp] * 2 * AHEAD_D)


def sown(place: Place, crop_key: str, ago_d: int, half_ago_d: int | None = None, seeds: int = 40, **values: Any) -> Sowing:
    """A sowing; half of it up so many days ago (ahead: negative), if it is worked out."""
    outlook = None
    if half_ago_d is not None:
        half = TODAY - timedelta(days=half_ago_d)
        curve = [0.0] * (ago_d - half_ago_d) + [40.0] + [85.0] * 30
        band: tuple[date, date, date] = (half, half, half)
        most = half + timedelta(days=3)
        whole = (0.0, 1.0, 0.0, 1.0)
        outlook = SowingOutlook([curve] * 3, band, band, (most, most, most), None, 0.85, [0.8, 0.9, 0.95], whole, whole)
    usual = {"sown_on": TODAY - timedelta(days=ago_d), "depth_m": 0.01, "seeds": seeds, "outlook": outlook}
    return Sowing.objects.create(place=place, crop_key=crop_key, **(usual | values))
