"""Trying failed work again before its time."""

from __future__ import annotations

from cloche.apps.gardens.models import Garden
from cloche.apps.work import moments


def try_now(garden: Garden, failure_id: int) -> bool:
    """The next round takes it up; returns whether there is such a failure. How often it failed is not forgotten."""
    return bool(garden.failures.filter(pk=failure_id).update(next_at=moments.database_now()))
