"""One stop of a round: everything that was seen and done at a place, kept whole and once."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from django.db import IntegrityError, transaction

from cloche.apps.gardens.models import User
from cloche.apps.places.flows.operations import note_operation
from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.readings.flows import record
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.shared import clock


@dataclass(frozen=True)
class Seen:
    """What one comes away with. soil: pairs of depth [m] and temperature [°C]; works: keys of core.soil.bed.Work."""

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
    """That key belongs to a visit elsewhere."""


def record_visit(place: Place, seen: Seen, person: User | None, replace: bool = False) -> tuple[Visit, bool]:
    """Keep a stop whole or not at all; one that is here already is returned as it is, with False.

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
        _keep_reading(visit, record.Measured(seen.at, depth_m, temperature_c, seen.note), person, replace)
    visit.operations.set([note_operation(place, work, seen.at) for work in seen.works])
    if not seen.soil and not seen.works:
        note_change_at(place)
    return visit


def _keep_reading(visit: Visit, measured: record.Measured, person: User | None, replace: bool) -> None:
    try:
        with transaction.atomic():
            reading = record.record_reading(visit.place, measured, person)
    except record.AlreadyThere as twin:
        same = abs(twin.existing.temperature_c - measured.temperature_c) < 0.006
        own = (
            person is not None and twin.existing.entered_by_id == person.pk
        )  # who reads again within a minute corrects themselves
        if not (same or own or replace):
            raise
        if same:
            return  # theirs stands for both, and stays theirs
        reading = record.correct_reading(twin.existing, measured)
    Reading.objects.filter(pk=reading.pk).update(visit=visit)


@transaction.atomic
def take_visit_back(visit: Visit) -> None:
    """Undo a stop: its readings, its operations and itself are off; history keeps them."""
    if visit.removed_at is not None:
        return
    for reading in visit.readings.filter(removed_at__isnull=True):
        if reading.entered_by_id == visit.made_by_id:
            record.remove_reading(reading)
        else:
            record.take_back(reading)  # somebody else's, which gave way: it stands again as they wrote it
    for operation in visit.operations.all():
        operation.delete()
    visit.removed_at = clock.now()
    visit.save()
    note_change_at(visit.place)
