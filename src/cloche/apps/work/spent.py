"""What the background work of each garden takes of this computer, by the day."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import timedelta
from time import process_time
from typing import Any

from django.db import transaction
from django.db.models import F

from cloche.apps.work import moments
from cloche.apps.work.models import Worked

KEPT_D = 400


@contextmanager
def counted() -> Iterator[list[float]]:
    """Seconds of the processor that something took, in a list of one, once it is over."""
    begun, spent = process_time(), [0.0]
    try:
        yield spent
    finally:
        spent[0] = process_time() - begun


@transaction.atomic
def note(garden_id: int, task: str, seconds: float) -> None:
    """Add a piece of work to its garden's day."""
    where: dict[str, Any] = {"garden_id": garden_id, "day": moments.database_now().date(), "task": task}
    Worked.objects.get_or_create(**where)
    Worked.objects.filter(**where).update(count=F("count") + 1, seconds=F("seconds") + seconds)


def prune() -> int:
    """What is older than a year and a month is no use."""
    return Worked.objects.filter(day__lt=moments.database_now().date() - timedelta(days=KEPT_D)).delete()[0]
