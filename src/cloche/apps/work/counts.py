"""Heartbeats and processor time of workers."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import timedelta
from time import process_time
from typing import Any

from django.db import transaction
from django.db.models import F

from cloche.apps.work.models import Heartbeat, Worked
from cloche.apps.work.turns import database_now


def beat(part: str) -> None:
    """Record that a part is alive."""
    Heartbeat.objects.update_or_create(part=part, defaults={"at": database_now()})


KEPT_D = 400


@contextmanager
def counted() -> Iterator[list[float]]:
    """Measure processor time [s], put into a one-element list at the end."""
    begun, spent = process_time(), [0.0]
    try:
        yield spent
    finally:
        spent[0] = process_time() - begun


@transaction.atomic
def note(garden_id: int, task: str, seconds: float) -> None:
    """Add processor time to a garden's day."""
    where: dict[str, Any] = {"garden_id": garden_id, "day": database_now().date(), "task": task}
    Worked.objects.get_or_create(**where)
    Worked.objects.filter(**where).update(count=F("count") + 1, seconds=F("seconds") + seconds)


def prune() -> int:
    """Delete records over thirteen months old and return how many."""
    return Worked.objects.filter(day__lt=database_now().date() - timedelta(days=KEPT_D)).delete()[0]
