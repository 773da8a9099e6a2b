"""Questions about the bench: what stands on it, what warms and lights it today."""

from __future__ import annotations

from datetime import date

from django.db.models import Exists, OuterRef, Prefetch, Q, QuerySet

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import HeatPeriod, HotbedTray, Lamp, Place, Room
from cloche.bridge.services.planting import BENCH_KINDS, BENCHES

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
