"""The queue of work done outside requests. It lives in the database: what is put in with a write is there when the write is.

A job is only a hint that something is due. What is due stands in the tables themselves, and the rounds of the workers
(apps.upkeep.rounds) find it again whatever becomes of a job.
"""

from __future__ import annotations

import logging
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from functools import cache
from typing import Any

from django.db import connection, transaction
from procrastinate import App
from procrastinate.contrib.django import app
from procrastinate.contrib.django.django_connector import DjangoConnector
from procrastinate.exceptions import AlreadyEnqueued

from cloche.apps.work import failures
from cloche.apps.work.models import Failure

log = logging.getLogger("cloche.work")
IN_HAND, HEALING = 0x50C2, 0x50C3
"""Classes of advisory locks: a job that a live session works on; the one who heals."""
GRACE_S = 6.0
SOON, NIGHTLY, LATER = 10, -5, -10
"""Priorities: what somebody looks at now, before all (0, what came by itself); what a new day asks of every place; questions
that a person waits for behind what all rest on."""
RAISE = "UPDATE procrastinate_jobs SET priority = %s WHERE queueing_lock = %s AND status = 'todo' AND priority < %s"


def put(task: str, key: str, priority: int = 0, **arguments: Any) -> bool:
    """Queue a task by name unless one with the same key is waiting; tasks of a key run one after another.

    A waiting task moves up when requested with higher priority. The queue is named after the app before the task's dot.

    Returns whether it was put in.
    """
    job = _through_django().configure_task(
        task, queue=queue_of(task), queueing_lock=key, lock=key, priority=priority, allow_unknown=True
    )
    try:
        # A savepoint: being there already must not spoil the write that asks.
        with transaction.atomic():
            job.defer(**arguments)
    except AlreadyEnqueued:
        with connection.cursor() as cursor:
            cursor.execute(RAISE, [priority, key, priority])
        return False
    return True


def queue_of(task: str) -> str:
    """Return a task's queue: weather.ask waits in the queue "weather", and a worker can be limited to it."""
    return task.partition(".")[0]


@cache
def _through_django() -> App:
    """Return the queue on Django's connection, also within a worker, so that a task is queued in the same transaction as its
    cause.
    """
    return app.with_connector(DjangoConnector())


def all_queues() -> list[str]:
    """Return the names of all queues."""
    return sorted({queue_of(name) for name in app.tasks if not name.startswith("builtin:")} - {"procrastinate"})


def put_due(task: str, due: Mapping[str, dict[str, Any]], priority: int = 0) -> int:
    """Queue due work by key except what failed lately; return how many."""
    waiting = failures.waiting()
    return sum(put(task, key, priority, **arguments) for key, arguments in due.items() if key not in waiting)


@contextmanager
def in_hand(job_id: int) -> Iterator[None]:
    """Hold a lock while a job runs; it ends with the session however that ends."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_lock(%s, %s)", [IN_HAND, _number(job_id)])
    try:
        yield
    finally:
        if connection.connection is not None and not connection.connection.closed:
            with connection.cursor() as cursor:
                cursor.execute("SELECT pg_advisory_unlock(%s, %s)", [IN_HAND, _number(job_id)])


@transaction.atomic
def heal(grace_s: float = GRACE_S) -> int:
    """Requeue jobs marked as running that no live session works on; return how many.

    In one transaction each is dropped, and asked for anew unless a newer one of its key waits already. What was lost with the
    whole database, in a power cut say, is not held against the work. grace_s: between a job's start and its session's saying
    so. Returns how many were lost.
    """
    if not _alone():
        return 0
    lost = [job for job in _doing(grace_s) if _let_go(job["id"])]
    for job in lost:
        log.warning("a lost worker left %s %s: taken up again", job["task_name"], job["args"])
        _drop(job["id"])
        _again(job)
    return len(lost)


def _drop(job_id: int) -> None:
    with connection.cursor() as cursor:
        cursor.execute("SELECT procrastinate_finish_job_v1(%s, 'failed', true)", [job_id])


def _again(job: dict[str, Any]) -> None:
    key = job["queueing_lock"]
    if key is None or job["task_name"] not in app.tasks:
        return
    if job["outlived"] or _is_due(failures.note_lost(key, task=job["task_name"], **whose(job["args"]))):
        put(job["task_name"], key, job["priority"], **job["args"])


def _is_due(failure: Failure) -> bool:
    return failure.next_at <= failure.last_at


def whose(arguments: dict[str, Any]) -> dict[str, Any]:
    """Return the garden or place of a job, if it still exists."""
    from django.apps import apps

    owner = {}
    for name, model in (("garden_id", "gardens.Garden"), ("place_id", "places.Place")):
        pk = arguments.get(name)
        manager = apps.get_model(model)._base_manager
        if isinstance(pk, int) and manager.filter(pk=pk).exists():
            owner[name] = pk
            if name == "place_id":
                owner["garden_id"] = manager.values_list("garden_id", flat=True).get(pk=pk)
    return owner


def _alone() -> bool:
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_try_advisory_xact_lock(%s, 0)", [HEALING])
        return bool(cursor.fetchone()[0])


DOING = """
SELECT id, task_name, queueing_lock, priority, args, (
  SELECT max(event.at) FROM procrastinate_events AS event WHERE event.job_id = job.id AND event.type = 'started'
) < pg_postmaster_start_time() AS outlived FROM procrastinate_jobs AS job
WHERE status = 'doing' AND NOT EXISTS (
  SELECT 1 FROM procrastinate_events AS event WHERE event.job_id = job.id AND event.type = 'started'
  AND abs(extract(epoch FROM clock_timestamp() - event.at)) < %(grace)s
) ORDER BY id FOR UPDATE SKIP LOCKED
"""


def _doing(grace_s: float) -> list[dict[str, Any]]:
    with connection.cursor() as cursor:
        cursor.execute(DOING, {"grace": grace_s})
        names = [column.name for column in cursor.description]
        return [dict(zip(names, row, strict=True)) | {"args": _object(row[4])} for row in cursor.fetchall()]


def _object(value: Any) -> dict[str, Any]:
    import json

    parsed = json.loads(value) if isinstance(value, str) else value
    return dict(parsed)


def _let_go(job_id: int) -> bool:
    """Return whether no session holds the job, locked until this transaction ends."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_try_advisory_xact_lock(%s, %s)", [IN_HAND, _number(job_id)])
        return bool(cursor.fetchone()[0])


def _number(job_id: int) -> int:
    return job_id % 2_147_483_647
