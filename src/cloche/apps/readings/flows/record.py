"""Recording, correcting and removing soil readings. Every change can be taken back."""

from __future__ import annotations

from dataclasses import asdict, dataclass, fields
from datetime import datetime
from typing import Any

from django.db import transaction
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import User
from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.readings.models import Reading
from cloche.apps.shared import clock
from cloche.apps.shared.history import before_it


@dataclass(frozen=True)
class Measured:
    """What was read on the probe."""

    taken_at: datetime
    depth_m: float
    temperature_c: float
    note: str = ""

    @classmethod
    def of(cls, reading: Any) -> Measured:
        """What a reading, or one as it was, says."""
        return cls(**{each.name: getattr(reading, each.name) for each in fields(cls)})

    def write_to(self, reading: Reading) -> None:
        """Put into a reading, not yet stored."""
        for name, value in asdict(self).items():
            setattr(reading, name, value)


class AlreadyThere(ValueError):
    """A current reading of the same place, instant and depth exists."""

    def __init__(self, existing: Reading) -> None:
        super().__init__(_("There is already a reading at that time and depth."))
        self.existing = existing


@transaction.atomic
def record_reading(place: Place, measured: Measured, person: User | None) -> Reading:
    """Store one reading; raises AlreadyThere and stores nothing if there is one at that instant and depth."""
    _refuse_second(place, measured)
    reading = Reading.objects.create(place=place, entered_by=person, **asdict(measured))
    note_change_at(place)
    return reading


@transaction.atomic
def correct_reading(reading: Reading, measured: Measured) -> Reading:
    """Change a reading, keeping what it was; raises AlreadyThere."""
    _refuse_second(reading.place, measured, besides=reading)
    measured.write_to(reading)
    reading.save()
    note_change_at(reading.place)
    return reading


@transaction.atomic
def remove_reading(reading: Reading) -> None:
    """Mark a reading as removed."""
    reading.removed_at = clock.now()
    reading.save()
    note_change_at(reading.place)


@transaction.atomic
def take_back(reading: Reading) -> Reading:
    """Undo the last change of a reading: its state before that change stands again. Raises AlreadyThere."""
    last = reading.history.order_by("-history_id").first()
    before = before_it(last) if last else None
    if before is None:
        return reading
    state = Measured.of(before)
    if before.removed_at is None:
        _refuse_second(reading.place, state, besides=reading)
    state.write_to(reading)
    reading.removed_at = before.removed_at
    reading.save()
    note_change_at(reading.place)
    return reading


def _refuse_second(place: Place, measured: Measured, besides: Reading | None = None) -> None:
    twin = Reading.objects.current().filter(place=place, taken_at=measured.taken_at, depth_m=measured.depth_m)
    existing = twin.exclude(pk=besides.pk).first() if besides else twin.first()
    if existing:
        raise AlreadyThere(existing)
