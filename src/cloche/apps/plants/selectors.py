"""Questions about plantings. Light: pages ask them."""

from __future__ import annotations

from datetime import date

from django.db.models import Prefetch, Q, QuerySet

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Hotbed, Place
from cloche.apps.plants.models import BedShape, PlantEvent, Planting
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
    found = BedShape.objects.filter(place=place).first()
    if found is not None:
        return found
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
    laid = [box for one in plantings_at(place) if one.ended_on is None and (box := box_of(one))]
    step = shape.square_m
    for row in range(max(int(shape.width_m / step + HAIR_M), 1)):
        for column in range(max(int(shape.length_m / step + HAIR_M), 1)):
            x, y = column * step, row * step
            if not any(overlap((x, y, step, step), box) for box in laid):
                return round(x, 3), round(y, 3)
    return None


def box_of(one: Planting) -> Box | None:
    """Where it lies on the plan; None while it does not."""
    return None if one.x_m is None or one.y_m is None else (one.x_m, one.y_m, one.length_m, one.width_m)


def overlap(one: Box, other: Box) -> bool:
    """Whether two rectangles share ground, but for a hair."""
    along = one[0] + one[2] > other[0] + HAIR_M and other[0] + other[2] > one[0] + HAIR_M
    return along and one[1] + one[3] > other[1] + HAIR_M and other[1] + other[3] > one[1] + HAIR_M
