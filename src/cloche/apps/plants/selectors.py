"""Read plantings, their patches, and what cold they stood."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from datetime import date
from typing import NamedTuple

from django.db.models import Prefetch, Q, QuerySet

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Hotbed, Place
from cloche.apps.plants.models import BedShape, PlantEvent, Planting
from cloche.bridge.services.years import LearnedLimit, Seen, limit_of
from cloche.bridge.values.units import M_PER_FOOT, Units

Box = tuple[float, float, float, float]
"""Corner and sides [m]."""
HAIR_M = 0.005


def plantings_in(garden: Garden) -> QuerySet[Planting]:
    """Plantings of a garden's current places, with what happened to them."""
    rows = Planting.objects.filter(place__in=Place.objects.filter(garden=garden), removed_at__isnull=True)
    events = Prefetch("events", PlantEvent.objects.order_by("on", "id"))
    return rows.select_related("place", "packet", "sowing").prefetch_related(events)


def current_in(garden: Garden, today: date) -> QuerySet[Planting]:
    """Those that are meant or stand there."""
    return plantings_in(garden).filter(Q(ended_on=None) | Q(ended_on__gt=today))


def events_in(garden: Garden) -> QuerySet[PlantEvent]:
    """What happened to plantings of a garden's current places."""
    rows = PlantEvent.objects.filter(planting__place__in=Place.objects.filter(garden=garden), planting__removed_at__isnull=True)
    return rows.select_related("planting__place").order_by("on", "id")


def plantings_at(place: Place) -> list[Planting]:
    """Plantings of a place, by where they lie."""
    return list(plantings_in(place.garden).filter(place=place))


def shape_of(place: Place, units: Units | None = None) -> BedShape:
    """A bed's size, or the usual one, not kept yet: a hotbed's as it was built, another as wide as the place is described.
    units: of who looks, whose squares have a foot where they think in inches."""
    stored = BedShape.objects.filter(place=place).first()
    if stored is not None:
        return stored
    built = Hotbed.objects.filter(place=place).first() if place.kind == "hotbed" else None
    shape = BedShape(place=place, width_m=min(max(built.width_m if built else place.width_m, 0.2), 20.0))
    shape.length_m = built.length_m if built else shape.length_m
    shape.square_m = M_PER_FOOT if units is not None and units.length == "in" else shape.square_m
    return shape


def set_out_at(place: Place, today: date) -> list[Planting]:
    """What stands in a place today."""
    return list(current_in(place.garden, today).filter(place=place, planted_on__lte=today))


def next_spot(place: Place, shape: BedShape) -> tuple[float, float] | None:
    """The first square of a bed on which nothing lies; None where all are taken."""
    laid = [box for planting in plantings_at(place) if planting.ended_on is None and (box := box_of(planting))]
    step = shape.square_m
    for row in range(max(int(shape.width_m / step + HAIR_M), 1)):
        for column in range(max(int(shape.length_m / step + HAIR_M), 1)):
            x, y = column * step, row * step
            if not any(overlap((x, y, step, step), box) for box in laid):
                return round(x, 3), round(y, 3)
    return None


def box_of(planting: Planting) -> Box | None:
    """Where it lies on the plan; None while it does not."""
    return (
        None
        if planting.x_m is None or planting.y_m is None
        else (planting.x_m, planting.y_m, planting.length_m, planting.width_m)
    )


def overlap(box: Box, other: Box) -> bool:
    """Whether two rectangles share ground, but for a hair."""
    along = box[0] + box[2] > other[0] + HAIR_M and other[0] + other[2] > box[0] + HAIR_M
    return along and box[1] + box[3] > other[1] + HAIR_M and other[1] + other[3] > box[1] + HAIR_M


COLD = (PlantEvent.Kind.STOOD, PlantEvent.Kind.DIED)


class ColdNight(NamedTuple):
    """What so many plants of a planting did in a night's cold."""

    planting_id: int
    place: str
    kind: str
    number: int
    lowest_c: float
    on: date


@dataclass(frozen=True)
class ColdSeen:
    """Nights of a kind, by day, and its limit after them."""

    crop_key: str
    events: list[ColdNight]
    limit: LearnedLimit


def cold_seen(garden: Garden) -> list[ColdSeen]:
    """Of every kind of which anything was seen."""
    seen: dict[str, list[ColdNight]] = defaultdict(list)
    rows = events_in(garden).filter(kind__in=COLD, lowest_c__isnull=False, cause__in=("", PlantEvent.Cause.FROST))
    columns = ("planting__crop_key", "planting_id", "planting__place__name", "kind", "number", "lowest_c", "on")
    for key, planting_id, place, kind, number, lowest_c, on in rows.values_list(*columns):
        seen[key].append(ColdNight(planting_id, place, kind, number or 1, lowest_c, on))
    return [ColdSeen(key, events, limit_of(key, _nights(events))) for key, events in sorted(seen.items())]


def learned_limits(garden: Garden) -> dict[str, float]:
    """Grown plants' limit by crop, of those of which anything was seen [°C]."""
    return {seen.crop_key: round(seen.limit.limit_c, 2) for seen in cold_seen(garden)}


def _nights(events: list[ColdNight]) -> list[Seen]:
    """What stood a night and what died of it beside it are one night's word."""
    by_night: dict[tuple[int, int], list[int]] = defaultdict(lambda: [0, 0])
    for event in events:
        by_night[event.planting_id, round(event.lowest_c)][event.kind == PlantEvent.Kind.DIED] += event.number
    return [Seen(float(low), stood, died) for (_pk, low), (stood, died) in by_night.items()]
