"""Recording readings, one at a time or all of a round's stop."""

from __future__ import annotations

from dataclasses import asdict, dataclass, field, fields
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import IntegrityError, transaction
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import User
from cloche.apps.places.flows import note_change_at, note_operation
from cloche.apps.places.models import Place
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.shared import clock
from cloche.apps.shared.history import before_it
from cloche.apps.shared.words import lazy


@dataclass(frozen=True)
class Text:
    """A text field stored with a reading.

    `label` is shown in the form, `meaning` describes it in the archive, `most` is its maximum length, and `later` marks a
    field that older archives lack.
    """

    label: str
    meaning: str
    most: int
    later: bool = False


@dataclass(frozen=True)
class Measured:
    """Values of one reading.

    A text field listed here appears in the form, the archive and the CSV export; only the table needs its column.
    """

    taken_at: datetime
    depth_m: float
    temperature_c: float
    note: str = field(default="", metadata={"text": Text(lazy("Note"), "Note.", 200)})

    @classmethod
    def of(cls, reading: Any) -> Measured:
        """Return the values of a reading or of one of its earlier states."""
        return cls(**{each.name: getattr(reading, each.name) for each in fields(cls)})

    def write_to(self, reading: Reading) -> None:
        """Copy the values to a reading without saving it."""
        for name, value in asdict(self).items():
            setattr(reading, name, value)


TEXTS: dict[str, Text] = {each.name: each.metadata["text"] for each in fields(Measured) if "text" in each.metadata}
"""What stands beside a reading's number, by name."""


class AlreadyThere(ValueError):
    """Raised where a reading of the same place, time and depth exists."""

    def __init__(self, existing: Reading) -> None:
        super().__init__(_("There is already a reading at that time and depth."))
        self.existing = existing


@transaction.atomic
def record_reading(place: Place, measured: Measured, person: User | None) -> Reading:
    """Store a reading. Raises AlreadyThere and stores nothing if one exists at that time and depth."""
    _refuse_second(place, measured)
    reading = Reading.objects.create(place=place, entered_by=person, **asdict(measured))
    note_change_at(place)
    return reading


@transaction.atomic
def correct_reading(reading: Reading, measured: Measured) -> Reading:
    """Correct a reading; its history keeps the earlier values. Raises AlreadyThere."""
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
    """Undo the last change of a reading. Raises AlreadyThere."""
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


@dataclass(frozen=True)
class Seen:
    """Observations of one stop.

    `soil` holds pairs of depth [m] and temperature [°C]; `works` keys of cloche_engine.soil.bed.Work.
    """

    key: UUID
    at: datetime
    soil: tuple[tuple[float, float], ...] = ()
    air_c: float | None = None
    air_low_c: float | None = None
    air_high_c: float | None = None
    moisture: str = ""
    snow_m: float | None = None
    note: str = ""
    losses: str = ""
    works: tuple[str, ...] = ()
    photo: bytes | None = None


class KeyTaken(ValueError):
    """Raised where the device's key already belongs to a visit elsewhere."""


def record_visit(place: Place, seen: Seen, person: User | None, replace: bool = False) -> tuple[Visit, bool]:
    """Store a stop completely or not at all.

    Returns the visit and True, or an existing visit with the same key and False.

    replace: correct a reading that somebody else wrote down for the same place, minute and depth. Without it AlreadyThere is
    raised then, unless the two agree or both are this person's. Raises KeyTaken.
    """
    known = _known(place, seen)
    if known:
        return known, False
    try:
        with transaction.atomic():
            return _keep(place, seen, person, replace), True
    except IntegrityError:
        # Sent twice at the same moment: the other one was quicker.
        known = _known(place, seen)
        if known is None:
            raise
        return known, False


def _known(place: Place, seen: Seen) -> Visit | None:
    known = Visit.objects.filter(key=seen.key).select_related("place").first()
    if known and known.place.garden_id != place.garden_id:
        raise KeyTaken
    return known


def _keep(place: Place, seen: Seen, person: User | None, replace: bool) -> Visit:
    visit = Visit.objects.create(
        key=seen.key,
        place=place,
        at=seen.at,
        made_by=person,
        air_c=seen.air_c,
        air_low_c=seen.air_low_c,
        air_high_c=seen.air_high_c,
        moisture=seen.moisture,
        snow_m=seen.snow_m,
        note=seen.note,
        losses=seen.losses,
        photo=seen.photo,
    )
    for depth_m, temperature_c in seen.soil:
        _keep_reading(visit, Measured(seen.at, depth_m, temperature_c, seen.note), person, replace)
    visit.operations.set([note_operation(place, work, seen.at) for work in seen.works])
    if not seen.soil and not seen.works:
        note_change_at(place)
    return visit


def _keep_reading(visit: Visit, measured: Measured, person: User | None, replace: bool) -> None:
    try:
        with transaction.atomic():
            reading = record_reading(visit.place, measured, person)
    except AlreadyThere as twin:
        same = abs(twin.existing.temperature_c - measured.temperature_c) < 0.006
        own = (
            person is not None and twin.existing.entered_by_id == person.pk
        )  # who reads again within a minute corrects themselves
        if not (same or own or replace):
            raise
        if same:
            return  # theirs stands for both, and stays theirs
        reading = correct_reading(twin.existing, measured)
    Reading.objects.filter(pk=reading.pk).update(visit=visit)


@transaction.atomic
def take_visit_back(visit: Visit) -> None:
    """Undo a stop with its readings and operations; their history stays."""
    if visit.removed_at is not None:
        return
    for reading in visit.readings.filter(removed_at__isnull=True):
        if reading.entered_by_id == visit.made_by_id:
            remove_reading(reading)
        else:
            take_back(reading)  # somebody else's, which gave way: it stands again as they wrote it
    for operation in visit.operations.all():
        operation.delete()
    visit.removed_at = clock.now()
    visit.save()
    note_change_at(visit.place)
