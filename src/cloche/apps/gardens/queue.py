"""The queue of work done outside requests. It lives in the database: what is put in with a write is there when the write is."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued


def put(task: str, key: str, **words: Any) -> bool:
    """Queue a task by name unless one of the same key is waiting; those of a key run one after another.

    Returns whether it was put in.
    """
    job = app.configure_task(task, queueing_lock=key, lock=key, allow_unknown=True)
    try:
        # A savepoint: being there already must not spoil the write that asks.
        with transaction.atomic():
            job.defer(**words)
    except AlreadyEnqueued:
        return False
    return True
