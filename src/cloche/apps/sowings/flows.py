"""Changes to sowings, counts and the steps of raised plants."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date, timedelta

from django.db import transaction
from django.db.models import Q

from cloche.apps.gardens.models import User
from cloche.apps.places.flows import note_change_at, set_thermostat
from cloche.apps.places.models import HeatPeriod, Place
from cloche.apps.shared import clock
from cloche.apps.sowings import selectors
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.bridge.services.beds import pooled_pace, pooled_stand
from cloche_engine.crops.seeds import FRESH_RATE
from cloche_engine.inputs import SownBatch
from cloche_engine.results import SowingOutlook


@transaction.atomic
def intend(place: Place, crop_key: str, sow_on: date, person: User) -> Intention:
    """Plan a sowing for a day; planning the same one again moves it."""
    before = Intention.objects.filter(place=place, crop_key=crop_key, made=None, dropped_at=None).first()
    intention = before or Intention(place=place, crop_key=crop_key, entered_by=person)
    intention.sow_on = sow_on
    intention.save()
    return intention


def drop_intention(intention: Intention) -> None:
    """Cancel a planned sowing."""
    intention.dropped_at = clock.now()
    intention.save(update_fields=["dropped_at"])


@transaction.atomic
def sow(sowing: Sowing, person: User | None) -> Sowing:
    """Store a sowing, schedule its place's forecast, and fulfil a matching planned sowing."""
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
    """Save a corrected sowing and recalculate both its old and its new place."""
    before = Sowing.objects.select_related("place").get(pk=sowing.pk)
    sowing.outlook = None
    sowing.save()
    for place in {before.place, sowing.place}:
        note_change_at(place)
    return sowing


@transaction.atomic
def count(sowing: Sowing, on: date, up: int) -> Count:
    """Store how many are up; a second count on the same day replaces the first."""
    kept, _ = Count.objects.update_or_create(sowing=sowing, on=on, defaults={"up": up})
    note_change_at(sowing.place)
    return kept


@transaction.atomic
def remove_count(sowing: Sowing, on: date) -> bool:
    """Remove a count; return whether there was one."""
    gone, _ = Count.objects.filter(sowing=sowing, on=on).delete()
    if gone:
        note_change_at(sowing.place)
    return bool(gone)


@transaction.atomic
def finish(sowing: Sowing, finished: bool) -> None:
    """Mark a sowing as finished, or reopen it."""
    sowing.finished = finished
    sowing.save(update_fields=["finished"])
    note_change_at(sowing.place)


@transaction.atomic
def remove(sowing: Sowing) -> None:
    """Remove a sowing; it can be restored."""
    sowing.removed_at = clock.now()
    sowing.save(update_fields=["removed_at"])
    note_change_at(sowing.place)


@transaction.atomic
def put_back(sowing: Sowing) -> None:
    """Restore a removed sowing."""
    sowing.removed_at = None
    sowing.save(update_fields=["removed_at"])
    note_change_at(sowing.place)


def followed(place: Place, everything: list[Sowing], today: date) -> Iterator[SownBatch]:
    """Yield the sowings still standing in a place, including fully emerged ones.

    `everything` holds all sowings of the garden, whose counts inform on its seed.
    """
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
    """Store calculated outlooks."""
    for pk, outlook in outlooks.items():
        Sowing.objects.filter(pk=pk).update(outlook=outlook)


def pace_of(everything: list[Sowing]) -> tuple[float, float]:
    """Return how much slower than in the laboratory seed emerges in a garden: median factor and log SD from all counted
    sowings.
    """
    pooled = [s.outlook.pace for s in everything if s.outlook and s.seeds and len(s.counts.all())]
    return pooled_pace(pooled)


def stand_of(everything: list[Sowing]) -> tuple[float, float]:
    """Return how field emergence in a garden compares with the usual: median factor and log SD from all counted sowings."""
    pooled = [s.outlook.stand for s in everything if s.outlook and s.seeds and len(s.counts.all())]
    return pooled_stand(pooled)


MOVES = (Step.Kind.MOVED, Step.Kind.BROUGHT_IN, Step.Kind.PUT_OUT, Step.Kind.PLANTED)
"""What leads from one place to another."""


class NotTheLast(ValueError):
    """Raised where a move is undone that later moves depend on."""


@transaction.atomic
def take_step(step: Step) -> Step:
    """Store a step; after a move the sowing stands in the new place, and a thermostat turned down is set lower."""
    sowing = step.sowing
    if step.start_c is not None:
        # Named with the step, so that undoing it finds the thermostat after later moves too.
        step.place = step.place or sowing.place
        thermostat = _thermostat_at(step.place, step.on)
        if thermostat is not None:
            step.start_before_c = thermostat.start_c
            set_thermostat(thermostat, step.start_c, step.on)
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
    """Remove a step. Raises NotTheLast where a later move depends on it."""
    sowing = step.sowing
    moves = [step for step in sowing.steps.all() if step.left_id is not None]
    if step.left is not None:
        if moves[-1].pk != step.pk:
            raise NotTheLast
        sowing.place = step.left
        if len(moves) == 1:
            sowing.sown_in = None
    here = step.place
    if step.start_before_c is not None and here is not None:
        thermostat = _thermostat_at(here, step.on)
        if thermostat is not None and thermostat.start_c == step.start_c:
            set_thermostat(thermostat, step.start_before_c, step.on)
    step.delete()
    potted = [step.cell_m for step in sowing.steps.all() if step.cell_m is not None]
    sowing.cell_m = potted[-1] if potted else sowing.cell_m
    sowing.save(update_fields=["place", "sown_in", "cell_m"])
    _note({here, sowing.place})


def _thermostat_at(place: Place, on: date) -> HeatPeriod | None:
    there = Q(last__isnull=True) | Q(last__gte=on)
    return place.heat_periods.filter(there, control=HeatPeriod.Control.THERMOSTAT, first__lte=on).last()


def _note(places: set[Place | None]) -> None:
    for place in places:
        if place is not None:
            note_change_at(place)
