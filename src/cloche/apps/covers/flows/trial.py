"""Setting up a trial, and reading both places of it at once."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime

from django.db import transaction

from cloche.apps.covers.models import CoverTrial
from cloche.apps.covers.selectors import pairs_of
from cloche.apps.gardens.models import User
from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Hotbed, Place
from cloche.apps.readings.flows.record import Measured, record_reading
from cloche.apps.shared import clock
from cloche.bridge.values.inputs import Under


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


MOST_GAINS = 60


def gains_of(place: Place, since: datetime) -> Iterator[Under]:
    """How much warmer a trial's covered place was than its bare bed, at each pair of readings since a moment."""

    for trial in CoverTrial.objects.filter(covered=place).select_related("covered__garden", "bare__garden"):
        for pair in [pair for pair in pairs_of(trial, max(since.date(), trial.begun_on)) if pair.at >= since][-MOST_GAINS:]:
            yield Under("gain", pair.at, pair.at, pair.warmer_k, trial.depth_m)
