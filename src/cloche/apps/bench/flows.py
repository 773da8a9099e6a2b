"""Heat, lamps and rooms written down: the forecasts of the places that they concern are worked out anew."""

from __future__ import annotations

from datetime import date, timedelta

from django.db import transaction

from cloche.apps.bench.texts import TURNED_DOWN_K
from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows import note_change_at, note_change_in
from cloche.apps.places.models import HeatPeriod, HotbedFill, HotbedNote, HotbedTray, Lamp, Place, Room, RoomAir
from cloche.apps.shared import clock

Dated = HeatPeriod | HotbedTray | Lamp
"""What is at a place from one day to another."""


@transaction.atomic
def keep(period: Dated) -> None:
    """Keep a heat source, a lamp, or the hotbed below."""
    period.save()
    note_change_at(period.place)


@transaction.atomic
def keep_place(place: Place) -> None:
    """Keep in which room and by which window it stands."""
    place.save(update_fields=["room", "window_aspect_deg", "window_shade", "window_away_m"])
    note_change_at(place)


@transaction.atomic
def switch_off(period: Dated, today: date) -> None:
    """Yesterday was its last day; what came today goes altogether."""
    if period.first >= today:
        period.delete()
    else:
        period.last = today - timedelta(days=1)
        period.save()
    note_change_at(period.place)


@transaction.atomic
def remove(period: Dated) -> None:
    """As if it had never been there."""
    period.delete()
    note_change_at(period.place)


@transaction.atomic
def turn_down(period: HeatPeriod, today: date) -> HeatPeriod:
    """Set-points a couple of degrees lower from today on."""
    lower = HeatPeriod.objects.get(pk=period.pk)
    lower.start_c -= TURNED_DOWN_K
    lower.stop_c -= TURNED_DOWN_K
    if period.first < today:
        period.last = today - timedelta(days=1)
        period.save()
        lower.pk, lower.first, lower.last = None, today, None
        lower._state.adding = True
    lower.save()
    note_change_at(period.place)
    return lower


@transaction.atomic
def keep_room(room: Room) -> None:
    """Keep a room; its places feel it."""
    room.save()
    for place in room.places.all():
        note_change_at(place)


@transaction.atomic
def remove_room(room: Room) -> None:
    """Off the list; what stood there stands in a usual room. It can be put back."""
    places = list(room.places.all())
    room.removed_at = clock.now()
    room.save(update_fields=["removed_at"])
    for place in places:
        place.room = None
        place.save(update_fields=["room"])
        note_change_at(place)


def put_back_room(room: Room) -> bool:
    """Undo that; not while another room has taken its name."""
    if Room.objects.filter(garden=room.garden, name__iexact=room.name, removed_at__isnull=True).exists():
        return False
    room.removed_at = None
    room.save(update_fields=["removed_at"])
    return True


@transaction.atomic
def note_air(air: RoomAir) -> None:
    """Air that was read in a room; a second reading of the same moment replaces the first."""
    RoomAir.objects.filter(room=air.room, what=air.what, at=air.at).delete()
    air.save()
    for place in air.room.places.all():
        note_change_at(place)


@transaction.atomic
def remove_air(air: RoomAir) -> None:
    """Take it back."""
    places = list(air.room.places.all())
    air.delete()
    for place in places:
        note_change_at(place)


@transaction.atomic
def keep_rules(garden: Garden) -> None:
    """By which rules the bench is run."""
    garden.save(update_fields=["heat_off_rule", "bring_in_c", "price_kwh"])
    note_change_in(garden)


@transaction.atomic
def fill_again(fill: HotbedFill) -> None:
    """A hotbed was filled upon what was there; its heat follows."""
    fill.save()
    note_change_at(fill.place)


@transaction.atomic
def remove_line(row: HotbedFill | HotbedNote) -> None:
    """A fill or a line of the diary, as if it had never been."""
    row.delete()
    if isinstance(row, HotbedFill):
        note_change_at(row.place)
