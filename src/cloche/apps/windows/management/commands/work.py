"""Do what is queued, until told to stop: forecasts, questions to the weather provider. Any number may run, on any machine."""

from __future__ import annotations

import asyncio
import contextlib
import logging
import signal
import time
from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.db import OperationalError, close_old_connections
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued, ConnectorException

from cloche.apps.readings.tasks import ask_round
from cloche.apps.windows.tasks import look_round

log = logging.getLogger("cloche.work")
PAUSE_S, POLL_S, PATIENCE_S = 2.0, 1.0, 5.0
"""Before the database is tried again; between looks into the queue; for a job in hand when told to stop."""


class Command(BaseCommand):
    """`work` runs until it is ended; `work --once` does what is queued and returns."""

    help = __doc__
    ending = False

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--once", action="store_true")

    def handle(self, *args: Any, once: bool, **options: Any) -> None:
        while not self.ending:
            try:
                _begin()
                with app.replace_connector(app.connector.get_worker_connector()):  # type: ignore[attr-defined]
                    asyncio.run(self._serve(once))
                if once:
                    return
            except (OperationalError, ConnectorException) as lost:
                log.warning("the database does not answer, trying again: %s", str(lost).strip())
            close_old_connections()
            if not self.ending:
                time.sleep(PAUSE_S)

    async def _serve(self, once: bool) -> None:
        """Work until there is nothing left (once), the database is lost, or a signal comes."""
        async with app.open_async():
            # Looking every second is as quick as being told, and has no listener to lose.
            worker = asyncio.ensure_future(
                app.run_worker_async(
                    wait=not once,
                    listen_notify=False,
                    fetch_job_polling_interval=POLL_S,
                    delete_jobs="successful",
                    install_signal_handlers=False,
                    shutdown_graceful_timeout=PATIENCE_S,
                )
            )
            for told in (signal.SIGTERM, signal.SIGINT):
                with contextlib.suppress(ValueError, RuntimeError):  # only a process's main thread hears signals
                    asyncio.get_running_loop().add_signal_handler(told, self._end, worker)
            with contextlib.suppress(asyncio.CancelledError):
                await worker

    def _end(self, worker: asyncio.Future[None]) -> None:
        self.ending = True
        worker.cancel()


def _begin() -> None:
    """What a start is good for: forecasts of a new day, fresh weather."""
    for task in (ask_round, look_round):
        try:
            task.defer()
        except AlreadyEnqueued:
            continue
