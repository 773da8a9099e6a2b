"""Read what raised plants rest on: their rooms, what warms them, what it costs, and their lives so far."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.db.models import Exists, OuterRef, Prefetch, Q, QuerySet

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import HeatPeriod, HotbedTray, Lamp, Place, Room
from cloche_engine.crops.catalogue import Crop
from cloche_engine.light.habit import Habit, habit_of
from cloche_engine.places.kinds import BENCH_KINDS, BENCHES, place_kinds
from cloche_engine.results import HeatOutlook, LightOutlook

MOVABLE = tuple(kind for kind in BENCHES if kind != "box")
"""Kinds of place that can be set upon a hotbed."""


def raised_on(garden: Garden) -> QuerySet[Place]:
    """Return places for raising plants and places with heat or lamps."""
    warmed, lit = (Exists(of.objects.filter(place=OuterRef("pk"))) for of in (HeatPeriod, Lamp))
    return (
        garden.places.filter(Q(kind__in=BENCH_KINDS) | warmed | lit)
        .select_related("room", "garden")
        .prefetch_related(
            Prefetch("heat_periods", HeatPeriod.objects.order_by("first", "id")),
            Prefetch("lamps", Lamp.objects.order_by("first", "id")),
            Prefetch("on_hotbeds", HotbedTray.objects.filter(hotbed__removed_at__isnull=True).select_related("hotbed")),
        )
    )


def hotbeds_for(place: Place) -> QuerySet[Place]:
    """Return hotbeds on which a tray could stand, none if the place is not a tray."""
    beds = place.garden.places.filter(kind="hotbed")
    return beds if place.kind in MOVABLE else beds.none()


def rooms_in(garden: Garden) -> QuerySet[Room]:
    """Return the rooms of a garden."""
    return garden.rooms.filter(removed_at__isnull=True)


def there(period: HeatPeriod | HotbedTray | Lamp, today: date) -> bool:
    """Return whether a period includes today."""
    return period.first <= today and (period.last is None or today <= period.last)


def hotbed_below(place: Place, today: date) -> Place | None:
    """Return the hotbed on which a place stands today."""
    return next((stay.hotbed for stay in place.on_hotbeds.all() if there(stay, today)), None)


def heat_on(place: Place, today: date) -> HeatPeriod | None:
    """Return what warms a place today, the latest of several sources."""
    return next((heat_period for heat_period in reversed(place.heat_periods.all()) if there(heat_period, today)), None)


def is_heated(place: Place, today: date) -> bool:
    """Return whether a mat, cable or other electric heater warms a place today, recorded or else usual for its kind."""
    periods = [period for period in place.heat_periods.all() if period.source != HeatPeriod.Kind.HOUSE]
    return any(there(period, today) for period in periods) if periods else has_heater(place)


def has_heater(place: Place) -> bool:
    """Return whether a place has an electric heater at all, in use or not."""
    usual = place_kinds()[place.kind].heat in ("mat", "cable")
    return usual or any(period.source != HeatPeriod.Kind.HOUSE for period in place.heat_periods.all())


def lamps_on(place: Place, today: date) -> list[Lamp]:
    """Return the lamps over a place today."""
    return [lamp for lamp in place.lamps.all() if there(lamp, today)]


def planting_from(garden: Garden, keys: set[str]) -> dict[str, tuple[date, Place]]:
    """Return for each crop the first day and place for planting out, apart from places for raising."""
    if not keys:
        return {}
    rows = CropOutlook.objects.filter(
        place__garden=garden, place__removed_at__isnull=True, crop_key__in=keys, method=CropOutlook.Method.TRANSPLANTED
    )
    by_crop: dict[str, tuple[date, Place]] = {}
    rows = rows.exclude(place__kind__in=BENCHES).select_related("place").only("crop_key", "windows", "place")
    for row in rows:
        for window in row.windows[:1]:
            if row.crop_key not in by_crop or window.earliest < by_crop[row.crop_key][0]:
                by_crop[row.crop_key] = (window.earliest, row.place)
    return by_crop


LOOKED_D = 7


@dataclass(frozen=True)
class Climate:
    """Conditions of the coming week.

    Attributes
    ----------
    air_c, roots_c : float
        Mean at the leaves and at seed depth [°C].
    window_mol, lamp_mol : float or None
        Daylight and lamp light a day [mol/m²], None in a room whose window and lamps are unknown.
    heat : HeatOutlook or None
        Operation of the heater.
    """

    air_c: float
    roots_c: float
    window_mol: float | None
    lamp_mol: float
    heat: HeatOutlook | None

    @property
    def mol(self) -> float | None:
        """Total daily light [mol/m²]."""
        return None if self.window_mol is None else self.window_mol + self.lamp_mol


def climate_of(ground: Ground) -> Climate:
    """Return means over the coming week."""
    data = ground.data
    around = data.around_c[:LOOKED_D]
    roots = data.far_mid_c[:LOOKED_D]
    roots_c = sum(roots) / len(roots)
    air_c = sum(around) / len(around) if around else roots_c
    light = data.light
    return Climate(air_c, roots_c, _window(light), _lamp(light), data.heat)


def _window(light: LightOutlook | None) -> float | None:
    return sum(day[1] for day in light.window[:LOOKED_D]) / LOOKED_D if light else None


def _lamp(light: LightOutlook | None) -> float:
    return sum(light.lamp[:LOOKED_D]) / LOOKED_D if light else 0.0


def leaves_c(climate: Climate) -> float:
    """Return the effective temperature of the leaves: the air plus half of any excess at the roots [°C]."""
    return climate.air_c + max(climate.roots_c - climate.air_c, 0.0) / 2


def habit(climate: Climate, crop: Crop) -> Habit | None:
    """Return how seedlings of a crop will grow, None if the light is unknown."""
    return None if climate.mol is None else habit_of(climate.mol, leaves_c(climate), crop.season)
