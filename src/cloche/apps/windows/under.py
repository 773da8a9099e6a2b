"""What was seen under a place's covers besides its soil: on rounds, and whatever later rooms know of it."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from datetime import datetime

from cloche.apps.gardens.models import Place
from cloche.apps.readings.seen import air_under
from cloche.bridge.evidence import Under

Teller = Callable[[Place, datetime], Iterable[Under]]

TELLERS: list[Teller] = []
"""Rooms that know only of this one and those before it add what they know, when the application starts."""


def seen_under(place: Place, since: datetime) -> tuple[Under, ...]:
    """All of it since a moment, oldest first."""
    found = [*air_under(place, since), *(one for tell in TELLERS for one in tell(place, since))]
    return tuple(sorted(found, key=lambda one: one.at))
