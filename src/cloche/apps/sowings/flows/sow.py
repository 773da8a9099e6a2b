"""Writing down a sowing, its counts and its end."""

from __future__ import annotations

from datetime import date

from django.db import transaction

from cloche.apps.gardens.models import User
from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.shared import clock
from cloche.apps.sowings.models import Count, Intention, Sowing


@transaction.atomic
def intend(place: Place, crop_key: str, sow_on: date, person: User) -> Intention:
    """Mean to sow on a day; the same meant twice is one, moved."""
    before = Intention.objects.filter(place=place, crop_key=crop_key, made=None, dropped_at=None).first()
    intention = before or Intention(place=place, crop_key=crop_key, entered_by=person)
    intention.sow_on = sow_on
    intention.save()
    return intention


def drop_intention(intention: Intention) -> None:
    """Give it up."""
    intention.dropped_at = clock.now()
    intention.save(update_fields=["dropped_at"])


@transaction.atomic
def sow(sowing: Sowing, person: User | None) -> Sowing:
    """Write it down; the place's forecast then follows it, and what was meant is made."""
    sowing.entered_by = person
    sowing.save()
    meant = Intention.objects.filter(place=sowing.place, crop_key=sowing.crop_key, made=None, dropped_at=None).first()
    if meant is not None:
        meant.made = sowing
        meant.save(update_fields=["made"])
    note_change_at(sowing.place)
    return sowing


@transaction.atomic
def correct(sowing: Sowing) -> Sowing:
    """Keep what was written wrong the first time, put right; where it was and where it is are both worked out again."""
    before = Sowing.objects.select_related("place").get(pk=sowing.pk)
    sowing.outlook = None
    sowing.save()
    for place in {before.place, sowing.place}:
        note_change_at(place)
    return sowing


@transaction.atomic
def count(sowing: Sowing, on: date, up: int) -> Count:
    """Write down how many are up; a second count of a day replaces the first."""
    kept, _ = Count.objects.update_or_create(sowing=sowing, on=on, defaults={"up": up})
    note_change_at(sowing.place)
    return kept


@transaction.atomic
def remove_count(sowing: Sowing, on: date) -> bool:
    """Take a count back; returns whether there was one."""
    gone, _ = Count.objects.filter(sowing=sowing, on=on).delete()
    if gone:
        note_change_at(sowing.place)
    return bool(gone)


@transaction.atomic
def finish(sowing: Sowing, finished: bool) -> None:
    """Nothing more is expected of it; or, again, something is."""
    sowing.finished = finished
    sowing.save(update_fields=["finished"])
    note_change_at(sowing.place)


@transaction.atomic
def remove(sowing: Sowing) -> None:
    """Take it off; it can be put back."""
    sowing.removed_at = clock.now()
    sowing.save(update_fields=["removed_at"])
    note_change_at(sowing.place)


@transaction.atomic
def put_back(sowing: Sowing) -> None:
    """Undo a removal."""
    sowing.removed_at = None
    sowing.save(update_fields=["removed_at"])
    note_change_at(sowing.place)
