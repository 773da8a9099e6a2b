"""Write sowings, their counts and the steps of raised plants."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date, timedelta

from django.db import transaction

from cloche.apps.gardens.models import User
from cloche.apps.places.flows import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.shared import clock
from cloche.apps.sowings import selectors
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.bridge.services.beds import pooled_pace, pooled_stand
from cloche_engine.crops.seeds import FRESH_RATE
from cloche_engine.inputs import SownBatch
from cloche_engine.results import SowingOutlook


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


def followed(place: Place, everything: list[Sowing], today: date) -> Iterator[SownBatch]:
    """Sowings of a place that still stand there, those that are up for good too; everything: the garden's sowings, which tell
    of its seed."""
    for sowing in everything:
        recent = today - timedelta(days=selectors.FOLLOWED_D) <= sowing.sown_on
        if sowing.place_id == place.pk and recent:
            packet = sowing.packet
            yield SownBatch(
                number=sowing.pk,
                crop_key=sowing.crop_key,
                sown_on=sowing.sown_on,
                depth_m=sowing.depth_m,
                seeds=sowing.seeds,
                rate=selectors.viability(packet, today, everything).rate if packet else FRESH_RATE,
                values=dict(packet.values) if packet else {},
                counts=tuple((count.on, count.up) for count in sowing.counts.all()),
                over=sowing.finished,
                outlook=sowing.outlook,
                before=tuple((step.on, tuple(step.left_c)) for step in sowing.steps.all() if step.left_c),
            )


def keep_outlooks(outlooks: dict[int, SowingOutlook]) -> None:
    """Store what was worked out."""
    for pk, outlook in outlooks.items():
        Sowing.objects.filter(pk=pk).update(outlook=outlook)


def pace_of(everything: list[Sowing]) -> tuple[float, float]:
    """How much slower than the laboratory a garden's soil is, by all its sowings that were counted: middle and log SD."""
    pooled = [s.outlook.pace for s in everything if s.outlook and s.seeds and len(s.counts.all())]
    return pooled_pace(pooled)


def stand_of(everything: list[Sowing]) -> tuple[float, float]:
    """How much more of what lives comes through in a garden than in others, by all its sowings that were counted."""
    pooled = [s.outlook.stand for s in everything if s.outlook and s.seeds and len(s.counts.all())]
    return pooled_stand(pooled)


MOVES = (Step.Kind.MOVED, Step.Kind.BROUGHT_IN, Step.Kind.PUT_OUT, Step.Kind.PLANTED)
"""What leads from one place to another."""


class NotTheLast(ValueError):
    """Only the last of several moves can be taken back: the others lead on from it."""


@transaction.atomic
def take_step(step: Step) -> Step:
    """Write it down; where it leads elsewhere the sowing stands there from then on."""
    sowing = step.sowing
    if step.place is not None and step.place != sowing.place:
        step.left = sowing.place
        sowing.sown_in = sowing.sown_in or sowing.place
        sowing.place = step.place
    if step.cell_m is not None:
        sowing.cell_m = step.cell_m
    step.save()
    sowing.save(update_fields=["place", "sown_in", "cell_m"])
    _note({step.left, sowing.place})
    return step


@transaction.atomic
def take_back(step: Step) -> None:
    """As if it had never been. Raises NotTheLast where a later move leads on from it."""
    sowing = step.sowing
    moves = [step for step in sowing.steps.all() if step.left_id is not None]
    if step.left is not None:
        if moves[-1].pk != step.pk:
            raise NotTheLast
        sowing.place = step.left
        if len(moves) == 1:
            sowing.sown_in = None
    here = step.place
    step.delete()
    potted = [step.cell_m for step in sowing.steps.all() if step.cell_m is not None]
    sowing.cell_m = potted[-1] if potted else sowing.cell_m
    sowing.save(update_fields=["place", "sown_in", "cell_m"])
    _note({here, sowing.place})


def _note(places: set[Place | None]) -> None:
    for place in places:
        if place is not None:
            note_change_at(place)
