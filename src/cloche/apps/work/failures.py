"""Failures of background work: recorded, retried at growing intervals, cleared on success and pruned."""

from __future__ import annotations

import logging
import traceback
from collections.abc import Collection
from datetime import datetime, timedelta

from django.db import transaction
from django.utils.translation import gettext_noop as noop

from cloche.apps.work import turns
from cloche.apps.work.models import Failure

log = logging.getLogger("cloche.work")
WAITS = [timedelta(minutes=m) for m in (1, 5, 30, 120, 360, 1440)]
LOST_WAITS = [timedelta(0), timedelta(0), timedelta(0), *WAITS]
LONGEST = WAITS[-1]
KEPT = timedelta(days=30)
MOST_ROWS = 2_000
"""Beyond these the oldest are pruned: a record of faults must not become one."""
OWN_FAULT = noop("This is a fault in Cloche.")
LOST, LOST_AGAIN = noop("The worker ended half way."), noop("The worker ended half way, more than once.")
"""Stored as they stand here, and translated for whoever reads them."""


class Foreseen(Exception):
    """Raised for an expected failure; the message is shown to people.

    longest: beyond which waiting for the next try does not grow.
    """

    longest = LONGEST


@transaction.atomic
def note(key: str, fault: BaseException, *, task: str, garden_id: int | None = None, place_id: int | None = None) -> Failure:
    """Record a failure and schedule the next attempt."""
    text = str(fault) if isinstance(fault, Foreseen) else OWN_FAULT
    row = _row(key, task, garden_id, place_id)
    row.count += 1
    wait = min(WAITS[min(row.count, len(WAITS)) - 1], getattr(fault, "longest", LONGEST))
    return _save(row, wait, text, _where(fault))


@transaction.atomic
def note_lost(key: str, *, task: str, garden_id: int | None = None, place_id: int | None = None) -> Failure:
    """Record a worker that died; the first time is retried at once, since the power may simply have failed."""
    row = _row(key, task, garden_id, place_id)
    row.lost += 1
    text = LOST_AGAIN if row.lost > 1 else LOST
    return _save(row, LOST_WAITS[min(row.lost, len(LOST_WAITS)) - 1], text, "worker lost")


def mended(key: str) -> None:
    """Clear the failures of work that succeeded."""
    Failure.objects.filter(key=key).delete()


def inputs_changed(keys: Collection[str]) -> None:
    """Make failed work due at once after its inputs have changed; its count is kept until it succeeds."""
    Failure.objects.filter(key__in=keys).update(next_at=turns.database_now())


def discard_obsolete(task: str, keys: Collection[str]) -> None:
    """Delete a task's failures other than those of these keys."""
    Failure.objects.filter(task=task).exclude(key__in=keys).delete()


def waiting() -> set[str]:
    """Return keys of work that is not to be retried yet."""
    now = turns.database_now()
    # What failed in the future failed before a clock was set back: that is due.
    return set(Failure.objects.filter(last_at__lte=now, next_at__gt=now).values_list("key", flat=True))


def prune() -> int:
    """Delete failures over a month old and the oldest beyond a limit; return how many."""
    gone, _ = Failure.objects.filter(place__removed_at__isnull=False).delete()
    old, _ = Failure.objects.filter(last_at__lt=turns.database_now() - KEPT).delete()
    beyond = list(Failure.objects.order_by("-last_at").values_list("pk", flat=True)[MOST_ROWS:])
    more, _ = Failure.objects.filter(pk__in=beyond).delete()
    return gone + old + more


def _row(key: str, task: str, garden_id: int | None, place_id: int | None) -> Failure:
    failure = Failure.objects.select_for_update().filter(key=key).first()
    return failure or Failure(key=key, task=task, garden_id=garden_id, place_id=place_id, first_at=turns.database_now())


def _save(row: Failure, wait: timedelta, text: str, detail: str) -> Failure:
    now: datetime = turns.database_now()
    row.last_at, row.next_at = now, now + wait
    row.text, row.detail = text[:300], detail.replace("\x00", "")[:2000]
    row.save()
    return row


def _where(fault: BaseException) -> str:
    """Describe an exception and its origin in one line."""
    frames = traceback.extract_tb(fault.__traceback__)
    place = f" at {frames[-1].filename.rpartition('/')[2]}:{frames[-1].lineno}" if frames else ""
    sentence = str(fault).encode("utf-8", "replace").decode()
    return f"{type(fault).__name__}: {sentence}{place}"
