"""What is counted of the work: who is alive, and how long it took for which garden."""

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
    """This part is alive now."""
    Heartbeat.objects.update_or_create(part=part, defaults={"at": database_now()})


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
    where: dict[str, Any] = {"garden_id": garden_id, "day": database_now().date(), "task": task}
    Worked.objects.get_or_create(**where)
    Worked.objects.filter(**where).update(count=F("count") + 1, seconds=F("seconds") + seconds)


def prune() -> int:
    """What is older than a year and a month is no use."""
    return Worked.objects.filter(day__lt=database_now().date() - timedelta(days=KEPT_D)).delete()[0]
