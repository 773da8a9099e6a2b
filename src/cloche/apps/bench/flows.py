"""Heat, lamps and rooms written down: the forecasts of the places that they concern are worked out anew."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from django.db import transaction

from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows import note_change_at, note_change_in, save_cover, save_place
from cloche.apps.places.models import (
    BenchCheck,
    CoverPeriod,
    HeatPeriod,
    HotbedFill,
    HotbedNote,
    HotbedTray,
    Lamp,
    Place,
    Room,
    RoomAir,
    TuberTray,
)
from cloche.apps.shared import clock
from cloche.apps.sowings.models import Sowing

Dated = HeatPeriod | HotbedTray | Lamp
"""What is at a place from one day to another."""


@transaction.atomic
def keep(period: Dated) -> None:
    """Save a heat source, a lamp, or the hotbed below a tray."""
    period.save()
    note_change_at(period.place)


HOLDS_K = 1.0
"""A thermostat switches so far below and above the temperature that it is to hold."""


@transaction.atomic
def keep_bench(garden: Garden, plan: dict[str, Any], stands: dict[str, Any]) -> Place:
    """Save a planned bench as a place, with its cable on a thermostat and a lid if one is planned.

    Raises ValidationError if the garden is full or the cable too strong.
    """
    today = clock.today(garden.timezone)
    place = save_place(
        Place(
            garden=garden,
            name=stands["name"],
            kind="box",
            within=stands["within"],
            room=stands["room"],
            width_m=max(plan["width"], 0.1),
            seed_depth_m=min(0.03, plan["mix"]),
        )
    )
    cable = HeatPeriod(
        place=place,
        source=HeatPeriod.Kind.CABLE,
        first=today,
        cable_m=plan["cable_m"],
        cable_w_m=plan["cable_w_m"],
        length_m=plan["length"],
        width_m=plan["width"],
        control=HeatPeriod.Control.THERMOSTAT,
        start_c=plan["hold"] - HOLDS_K,
        stop_c=plan["hold"] + HOLDS_K,
        over_m=plan["over"],
        under_m=plan["under"],
        filling=plan["filling"],
        filling_wet=plan["wet"],
    )
    cable.full_clean()
    keep(cable)
    if plan["lid"]:
        save_cover(CoverPeriod(place=place, cover="lid", first=today))
    return place


def plant_tubers(tray: TuberTray, on: date | None) -> None:
    """Record the day on which a tray of seed potatoes was planted; None: it was not."""
    tray.planted_on = on
    tray.save(update_fields=["planted_on"])


def tick(place: Place, item: str, on: date, done: bool) -> None:
    """Record that a check of a heater has been done, or that it has not."""
    if done:
        BenchCheck.objects.update_or_create(place=place, item=item, defaults={"on": on})
    else:
        for check in place.bench_checks.filter(item=item):
            check.delete()


@transaction.atomic
def keep_place(place: Place) -> None:
    """Save the room and window of a place, or the house it stands in."""
    place.save(update_fields=["within", "room", "window_aspect_deg", "window_shade", "window_away_m"])
    note_change_at(place)


@transaction.atomic
def switch_off(period: Dated, today: date) -> None:
    """End a period yesterday, or delete it if it began today."""
    if period.first >= today:
        period.delete()
    else:
        period.last = today - timedelta(days=1)
        period.save()
    note_change_at(period.place)


@transaction.atomic
def remove(period: Dated) -> None:
    """Delete a period."""
    period.delete()
    note_change_at(period.place)


@transaction.atomic
def keep_room(room: Room) -> None:
    """Save a room and update the forecasts of its places."""
    room.save()
    for place in room.places.all():
        note_change_at(place)


@transaction.atomic
def remove_room(room: Room) -> None:
    """Remove a room. Its places count as standing in a usual room until it is restored."""
    places = list(room.places.all())
    room.removed_at = clock.now()
    room.save(update_fields=["removed_at"])
    for place in places:
        place.room = None
        place.save(update_fields=["room"])
        note_change_at(place)


def put_back_room(room: Room) -> bool:
    """Restore a room, unless another one has its name."""
    if Room.objects.filter(garden=room.garden, name__iexact=room.name, removed_at__isnull=True).exists():
        return False
    room.removed_at = None
    room.save(update_fields=["removed_at"])
    return True


@transaction.atomic
def note_air(air: RoomAir) -> None:
    """Save an air reading, replacing one for the same moment."""
    RoomAir.objects.filter(room=air.room, what=air.what, at=air.at).delete()
    air.save()
    for place in air.room.places.all():
        note_change_at(place)


@transaction.atomic
def remove_air(air: RoomAir) -> None:
    """Delete an air reading."""
    places = list(air.room.places.all())
    air.delete()
    for place in places:
        note_change_at(place)


@transaction.atomic
def keep_rules(garden: Garden) -> None:
    """Save the rules for raising plants."""
    garden.save(update_fields=["heat_off_rule", "bring_in_c", "price_kwh"])
    note_change_in(garden)


def choose_heat_off_rule(sowing: Sowing, rule: str) -> None:
    """Save when a sowing comes off the heat; an empty rule follows the garden's. No forecast depends on it."""
    sowing.heat_off_rule = rule
    sowing.save(update_fields=["heat_off_rule"])


@transaction.atomic
def fill_again(fill: HotbedFill) -> None:
    """Save a further filling of a hotbed and update its heat."""
    fill.save()
    note_change_at(fill.place)


@transaction.atomic
def write_note(note: HotbedNote) -> None:
    """Save a diary entry; a core temperature teaches the forecast."""
    note.save()
    if note.core_c is not None:
        note_change_at(note.place)


@transaction.atomic
def remove_line(row: HotbedFill | HotbedNote) -> None:
    """Delete a filling or a diary entry."""
    row.delete()
    if isinstance(row, HotbedFill) or row.core_c is not None:
        note_change_at(row.place)
