"""Rooms in words."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from django.utils.translation import gettext as _

from cloche.apps.bench.selectors import rooms_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Room, RoomAir
from cloche.apps.shared import words
from cloche.bridge.values.units import Units

SHOWN_AIR = 12


@dataclass(frozen=True)
class RoomLine:
    """A room: what it is, how warm, what stands there."""

    room: Room
    what: str
    places: list[str]


def room_lines(garden: Garden, units: Units) -> list[RoomLine]:
    """All of a garden."""
    return [
        RoomLine(room, _what(room, units), [place.name for place in room.places.filter(removed_at__isnull=True)])
        for room in rooms_in(garden)
    ]


def _what(room: Room, units: Units) -> str:
    kind = str(Room.Kind(room.kind).label)
    if room.night_c is None or room.day_c is None:
        return kind
    night, day = (units.temperature_text(value, 0) for value in (room.night_c, room.day_c))
    return _("{kind}, {night} at night to {day} by day").format(kind=kind, night=night, day=day)


def logger_lines(room: Room, units: Units, now: datetime) -> list[str]:
    """What hangs there and what it said last."""
    zone, lines = room.garden.timezone, []
    for probe in room.probes.filter(until__isnull=True).select_related("device"):
        heard = _("nothing yet")
        if probe.last_at and probe.last_c is not None:
            local = probe.last_at.astimezone(zone)
            heard = _("{value}, {day} {clock}").format(
                value=units.temperature_text(probe.last_c),
                day=words.day(local.date(), now.astimezone(zone).date()),
                clock=words.clock(local),
            )
        lines.append(_("{logger} hangs here: {heard}.").format(logger=probe.device.name, heard=heard))
    return lines


def air_lines(room: Room, units: Units) -> list[tuple[int, str]]:
    """The latest readings of its air."""
    zone = room.garden.timezone
    lines = []
    for air in room.air.all()[:SHOWN_AIR]:
        local = air.at.astimezone(zone)
        text = _("{day}, {clock}: {value}, {what}").format(
            day=words.day(local.date()),
            clock=words.clock(local),
            value=units.temperature_text(air.temperature_c),
            what=RoomAir.What(air.what).label,
        )
        lines.append((air.pk, text))
    return lines
