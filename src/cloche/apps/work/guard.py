"""Protection of requests and jobs from a database that is full or unavailable."""

from __future__ import annotations

import logging
import shutil
import time
from collections.abc import Callable
from typing import Any

from django.conf import settings
from django.db import DatabaseError, InterfaceError, OperationalError, close_old_connections, connection
from procrastinate.job_context import JobContext
from psycopg.errors import DiskFull

from cloche.apps.work import counts, failures, queue

log = logging.getLogger("cloche.work")


def guarded(call_next: Callable[[], Any], context: JobContext, worker: Any) -> Any:
    """Queue middleware that marks a job as running, runs it and records the result.

    Raises nothing from the task itself.

    A job that failed is gone from the queue like one that succeeded: when it is tried again stands in its failure.
    """
    close_old_connections()
    job = context.job
    key = job.queueing_lock or job.task_name
    try:
        with queue.in_hand(job.id or 0), counts.counted() as seconds:
            result = call_next()
        failures.mended(key)
        _count(job, seconds[0])
        return result
    except (OperationalError, InterfaceError) as fault:
        # Neither a database that is gone nor a disk that is full is held against the work.
        if is_away() or isinstance(fault.__cause__, DiskFull):
            log.warning("%s could not be stored; the rounds find what is still due: %s", key, str(fault).strip())
            return None
        _note(key, job, fault)
    except Exception as fault:  # noqa: BLE001 - whatever a piece of work meets stays with it
        _note(key, job, fault)
    finally:
        close_old_connections()
    return None


def _count(job: Any, seconds: float) -> None:
    """Record a job's processor time; failure to do so is ignored, since only a number is lost."""
    try:
        owner = queue.whose(job.task_kwargs)
        if "garden_id" in owner:
            counts.note(owner["garden_id"], job.task_name, seconds)
    except DatabaseError as fault:
        log.warning("what %s took could not be written down: %s", job.task_name, str(fault).strip())
        is_away()


def is_away() -> bool:
    """Return whether the connection is lost, closing it so that the next can open."""
    if connection.connection is not None and not connection.connection.closed and connection.is_usable():
        return False
    connection.close()
    return True


def _note(key: str, job: Any, fault: Exception) -> None:
    if isinstance(fault, failures.Foreseen):
        log.warning("%s: %s", key, fault)
    else:
        log.error("%s failed", key, exc_info=fault)
    try:
        owner = queue.whose(job.task_kwargs)
        failures.note(key, fault, task=job.task_name, **owner)
    except DatabaseError as also:
        log.warning("the failure of %s could not be written down: %s", key, str(also).strip())
        is_away()


LOOKED_EVERY_S = 2.0
_LAST: dict[str, float] = {}


def free_bytes() -> int:
    """Return free disk space where the data are stored."""
    path = settings.STATE
    while not path.exists():
        path = path.parent
    return shutil.disk_usage(path).free


def is_full() -> bool:
    """Return whether free disk space is too low for safe writing, checked every two seconds."""
    now = time.monotonic()
    if now - _LAST.get("at", -1e9) >= LOOKED_EVERY_S:
        _LAST.update(at=now, free=free_bytes())
    return _LAST["free"] < settings.CLOCHE_LEAST_FREE_BYTES
