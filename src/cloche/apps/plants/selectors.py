"""Queries on plantings, their patches and the cold they survived."""

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
    """Return the plantings in a garden's current places with their events."""
    rows = Planting.objects.filter(place__in=Place.objects.filter(garden=garden), removed_at__isnull=True)
    events = Prefetch("events", PlantEvent.objects.order_by("on", "id"))
    return rows.select_related("place", "packet", "sowing").prefetch_related(events)


def current_in(garden: Garden, today: date) -> QuerySet[Planting]:
    """Return the plantings that are planned or standing."""
    return plantings_in(garden).filter(Q(ended_on=None) | Q(ended_on__gt=today))


def events_in(garden: Garden) -> QuerySet[PlantEvent]:
    """Return the events of plantings in a garden's current places."""
    rows = PlantEvent.objects.filter(planting__place__in=Place.objects.filter(garden=garden), planting__removed_at__isnull=True)
    return rows.select_related("planting__place").order_by("on", "id")


def plantings_at(place: Place) -> list[Planting]:
    """Return the plantings of a place by position."""
    return list(plantings_in(place.garden).filter(place=place))


def shape_of(place: Place, units: Units | None = None) -> BedShape:
    """Return a bed's size, or an unsaved default: a hotbed's as built, another bed's from its description.

    The default grid is one foot for people who work in inches.
    """
    stored = BedShape.objects.filter(place=place).first()
    if stored is not None:
        return stored
    built = Hotbed.objects.filter(place=place).first() if place.kind == "hotbed" else None
    shape = BedShape(place=place, width_m=min(max(built.width_m if built else place.width_m, 0.2), 20.0))
    shape.length_m = built.length_m if built else shape.length_m
    shape.square_m = M_PER_FOOT if units is not None and units.length == "in" else shape.square_m
    return shape


def set_out_at(place: Place, today: date) -> list[Planting]:
    """Return the plantings that stand in a place today."""
    return list(current_in(place.garden, today).filter(place=place, planted_on__lte=today))


def next_spot(place: Place, shape: BedShape) -> tuple[float, float] | None:
    """Return the first free square of a bed, or None."""
    laid = [box for planting in plantings_at(place) if planting.ended_on is None and (box := box_of(planting))]
    step = shape.square_m
    for row in range(max(int(shape.width_m / step + HAIR_M), 1)):
        for column in range(max(int(shape.length_m / step + HAIR_M), 1)):
            x, y = column * step, row * step
            if not any(overlap((x, y, step, step), box) for box in laid):
                return round(x, 3), round(y, 3)
    return None


def box_of(planting: Planting) -> Box | None:
    """Return the rectangle of a planting on the plan, or None."""
    return (
        None
        if planting.x_m is None or planting.y_m is None
        else (planting.x_m, planting.y_m, planting.length_m, planting.width_m)
    )


def overlap(box: Box, other: Box) -> bool:
    """Return whether two rectangles overlap by more than rounding."""
    along = box[0] + box[2] > other[0] + HAIR_M and other[0] + other[2] > box[0] + HAIR_M
    return along and box[1] + box[3] > other[1] + HAIR_M and other[1] + other[3] > box[1] + HAIR_M


COLD = (PlantEvent.Kind.STOOD, PlantEvent.Kind.DIED)


class ColdNight(NamedTuple):
    """What a cold night did to a number of plants."""

    planting_id: int
    place: str
    kind: str
    number: int
    lowest_c: float
    on: date


@dataclass(frozen=True)
class ColdSeen:
    """Cold nights observed for a crop, and its limit after them."""

    crop_key: str
    events: list[ColdNight]
    limit: LearnedLimit


def cold_seen(garden: Garden) -> list[ColdSeen]:
    """Return the observations of every crop that has any."""
    seen: dict[str, list[ColdNight]] = defaultdict(list)
    rows = events_in(garden).filter(kind__in=COLD, lowest_c__isnull=False, cause__in=("", PlantEvent.Cause.FROST))
    columns = ("planting__crop_key", "planting_id", "planting__place__name", "kind", "number", "lowest_c", "on")
    for key, planting_id, place, kind, number, lowest_c, on in rows.values_list(*columns):
        seen[key].append(ColdNight(planting_id, place, kind, number or 1, lowest_c, on))
    return [ColdSeen(key, events, limit_of(key, _nights(events))) for key, events in sorted(seen.items())]


def learned_limits(garden: Garden) -> dict[str, float]:
    """Return the learned frost limit of established plants by crop [°C]."""
    return {seen.crop_key: round(seen.limit.limit_c, 2) for seen in cold_seen(garden)}


def _nights(events: list[ColdNight]) -> list[Seen]:
    """Combine what survived and what died in the same night."""
    by_night: dict[tuple[int, int], list[int]] = defaultdict(lambda: [0, 0])
    for event in events:
        by_night[event.planting_id, round(event.lowest_c)][event.kind == PlantEvent.Kind.DIED] += event.number
    return [Seen(float(low), stood, died) for (_pk, low), (stood, died) in by_night.items()]
