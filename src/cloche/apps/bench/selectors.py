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
from cloche_engine.places.kinds import BENCH_KINDS, BENCHES
from cloche_engine.results import HeatOutlook, LightOutlook

MOVABLE = tuple(kind for kind in BENCHES if kind != "box")
"""Kinds of place that can be set upon a hotbed."""


def raised_on(garden: Garden) -> QuerySet[Place]:
    """Places on which plants are raised, or that are heated or lit."""
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
    """Hotbeds upon which a tray could stand; none for what is no tray."""
    beds = place.garden.places.filter(kind="hotbed")
    return beds if place.kind in MOVABLE else beds.none()


def rooms_in(garden: Garden) -> QuerySet[Room]:
    """Its rooms."""
    return garden.rooms.filter(removed_at__isnull=True)


def there(period: HeatPeriod | HotbedTray | Lamp, today: date) -> bool:
    """Whether it is there today."""
    return period.first <= today and (period.last is None or today <= period.last)


def hotbed_below(place: Place, today: date) -> Place | None:
    """The hotbed on which it stands today."""
    return next((stay.hotbed for stay in place.on_hotbeds.all() if there(stay, today)), None)


def heat_on(place: Place, today: date) -> HeatPeriod | None:
    """What warms it today: of several the one that came last."""
    return next((heat_period for heat_period in reversed(place.heat_periods.all()) if there(heat_period, today)), None)


def lamps_on(place: Place, today: date) -> list[Lamp]:
    """What lights it today."""
    return [lamp for lamp in place.lamps.all() if there(lamp, today)]


def planting_from(garden: Garden, keys: set[str]) -> dict[str, tuple[date, Place]]:
    """By crop, the first day on which it may be planted out anywhere but on a bench, and where."""
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
    """Of the coming week. air_c: mean about the leaves [°C]; roots_c: at seed depth; window_mol, lamp_mol: daily light, None
    where neither window nor lamp is told; heat: what the heater does."""

    air_c: float
    roots_c: float
    window_mol: float | None
    lamp_mol: float
    heat: HeatOutlook | None

    @property
    def mol(self) -> float | None:
        """All its light a day."""
        return None if self.window_mol is None else self.window_mol + self.lamp_mol


def climate_of(ground: Ground) -> Climate:
    """Means over the coming week."""
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
    """Warmth that drives the leaves: the air, and half of what warm roots are above it."""
    return climate.air_c + max(climate.roots_c - climate.air_c, 0.0) / 2


def habit(climate: Climate, crop: Crop) -> Habit | None:
    """What warmth and light will make of a crop's seedlings; None where the light is not told."""
    return None if climate.mol is None else habit_of(climate.mol, leaves_c(climate), crop.season)
