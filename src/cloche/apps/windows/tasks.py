"""Work done outside requests: forecasts, and looking for those that are due.

The engine is loaded by the worker that first runs one, not by every process that can ask for one.
"""

from __future__ import annotations

import logging

from asgiref.sync import async_to_sync
from procrastinate.contrib.django import app

from cloche.apps.gardens import clock
from cloche.apps.gardens.flows.evidence import ask_for

log = logging.getLogger("cloche.forecast")
STALLED_S = 40


@app.task(name="windows.work_out", retry=3)
def work_out(place_id: int) -> None:
    """Make one place's forecast new, if it still needs it."""
    from cloche.apps.windows.flows import refresh

    refresh.refresh_if_stale(place_id)


@app.periodic(cron="* * * * *")
@app.task(name="windows.look_round", queueing_lock="look-round")
def look_round(timestamp: int = 0) -> int:
    """Queue every place whose forecast is due: a new day, a new engine, a change that nobody queued. Returns how many.

    Work that a killed worker left behind is taken up again.
    """
    from cloche.apps.windows.flows import refresh

    for job in async_to_sync(_stalled)():
        log.warning("taking up again what a lost worker left: %s %s", job.task_name, job.task_kwargs)
        app.job_manager.retry_job_by_id(job_id=job.id, retry_at=clock.real_now())
    return sum(ask_for(pk) for pk in refresh.stale_places())


async def _stalled() -> list:  # type: ignore[type-arg]
    return list(await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=STALLED_S))
