"""What was seen under a place's covers besides its soil: on rounds, and whatever later rooms know of it."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from datetime import datetime, timedelta

from cloche.apps.loggers.selectors import HourPoint, hours_between, hours_in
from cloche.apps.places.models import Place, RoomAir
from cloche.apps.readings.seen import air_under
from cloche.apps.shared import clock
from cloche.bridge.values.inputs import Under

EVERY_H, MOST_HOURS = 3, 80
"""Of a logger in the air every third hour tells as much as every one: the others err with it."""

Source = Callable[[Place, datetime], Iterable[Under]]

SOURCES: list[Source] = []
"""Rooms that know only of this one and those before it add what they know, when the application starts."""


def seen_under(place: Place, since: datetime) -> tuple[Under, ...]:
    """All of it since a moment, oldest first."""
    measured = [
        *air_under(place, since),
        *_logged(place, since),
        *_in_room(place, since),
        *(reading for source in SOURCES for reading in source(place, since)),
    ]
    return tuple(sorted(measured, key=lambda reading: reading.at))


def _logged(place: Place, since: datetime) -> list[Under]:
    """The latest hours of loggers that hang in the air there."""
    return _some("air", hours_between([place.pk], since, clock.now(), in_air=True))


def _some(what: str, hours: list[HourPoint]) -> list[Under]:
    some = [hour for hour in hours if hour.taken_at.hour % EVERY_H == 0][-MOST_HOURS:]
    return [Under(what, hour.taken_at, hour.taken_at, hour.temperature_c) for hour in some]


def _in_room(place: Place, since: datetime) -> list[Under]:
    """Air that was read, or logged, in the room in which it stands."""
    if place.room is None:
        return []
    rows = place.room.air.filter(at__gte=since).order_by("at")
    read = [Under(row.what, row.at, row.since or row.at - timedelta(days=1), row.temperature_c) for row in rows]
    return read + _some(RoomAir.What.NOW, hours_in(place.room, since, clock.now()))
