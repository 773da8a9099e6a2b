"""Setting up a trial, and reading both places of it at once."""

from __future__ import annotations

from datetime import datetime

from django.db import transaction

from cloche.apps.gardens import clock
from cloche.apps.gardens.flows.evidence import note_change_at
from cloche.apps.gardens.models import Hotbed, User
from cloche.apps.readings.flows.record import Measured, record_reading
from cloche.apps.warming.models import CoverTrial


def begin(trial: CoverTrial) -> CoverTrial:
    """From now on readings of both places are its pairs."""
    trial.save()
    return trial


def end(trial: CoverTrial) -> None:
    """Later readings are none of its pairs."""
    trial.ended_on = clock.today(trial.covered.garden.timezone)
    trial.save(update_fields=["ended_on"])


@transaction.atomic
def read_pair(trial: CoverTrial, at: datetime, covered_c: float, bare_c: float, person: User) -> None:
    """Both readings or none; raises AlreadyThere. Each stands in its place's own record."""
    for place, value in ((trial.covered, covered_c), (trial.bare, bare_c)):
        record_reading(place, Measured(at, trial.depth_m, value), person)


@transaction.atomic
def build_hotbed(bed: Hotbed) -> Hotbed:
    """Write down what it is built of; its heat follows."""
    bed.save()
    note_change_at(bed.place)
    return bed
