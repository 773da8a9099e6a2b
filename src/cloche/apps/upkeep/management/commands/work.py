"""Run queued jobs and periodic work until stopped. Any number of workers can run on machines that reach the database."""

from __future__ import annotations

import asyncio
import contextlib
import logging
import signal
import time
from argparse import ArgumentTypeError
from typing import Any

from asgiref.sync import sync_to_async
from django.core.management.base import BaseCommand, CommandParser
from django.db import InterfaceError, OperationalError, close_old_connections
from procrastinate.contrib.django import app
from procrastinate.exceptions import ConnectorException

from cloche.apps.upkeep.rounds import ROUNDS, Rounds
from cloche.apps.work import guard, queue
from cloche.apps.work.guard import guarded

log = logging.getLogger("cloche.work")
PAUSE_S, POLL_S, PATIENCE_S, ROUND_S, LAST_S = 2.0, 1.0, 5.0, 2.0, 30
"""Before the database is tried again; between looks into the queue; for a job in hand when told to stop; between two looks
at which rounds are due; and after so long it ends, told to stop, in any case."""


class Command(BaseCommand):
    """Run a worker: `work` until stopped, `work --once` for all that is due now.

    `--queues weather,today` limits it to those queues; `--without-rounds` leaves periodic work to `rounds`.
    """

    help = __doc__
    ending = False
    queues: list[str] | None = None

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--once", action="store_true")
        parser.add_argument("--queues", type=_names, help="Rooms whose tasks it does, with commas between; all if left out.")
        parser.add_argument("--without-rounds", action="store_true")

    def handle(self, *args: Any, once: bool, queues: list[str] | None, without_rounds: bool, **options: Any) -> None:
        rounds = Rounds(() if without_rounds else ROUNDS)
        self.queues = queues
        while not self.ending:
            if guard.is_full() and not once:
                time.sleep(PAUSE_S)
                continue
            try:
                rounds.make_due(time.monotonic())
                with app.replace_connector(app.connector.get_worker_connector()):  # type: ignore[attr-defined]
                    asyncio.run(self._serve(rounds, once))
                if once:
                    return
            except (OperationalError, InterfaceError, ConnectorException) as lost:
                log.warning("the database does not answer, trying again: %s", str(lost).strip())
            close_old_connections()
            if not self.ending:
                time.sleep(PAUSE_S)

    async def _serve(self, rounds: Rounds, once: bool) -> None:
        """Work until there is nothing left (once), the database is lost, the disk is full, or a signal comes."""
        async with app.open_async():
            only: dict[str, Any] = {"queues": self.queues} if self.queues else {}
            # Looking every second is as quick as being told, and has no listener to lose.
            worker = asyncio.ensure_future(
                app.run_worker_async(
                    wait=not once,
                    **only,
                    listen_notify=False,
                    fetch_job_polling_interval=POLL_S,
                    delete_jobs="always",
                    install_signal_handlers=False,
                    shutdown_graceful_timeout=PATIENCE_S,
                    task_middleware=[guarded],
                )
            )
            making = asyncio.ensure_future(self._rounds(rounds, worker)) if not once else None
            for stop in (signal.SIGTERM, signal.SIGINT):
                with contextlib.suppress(ValueError, RuntimeError):  # only a process's main thread hears signals
                    asyncio.get_running_loop().add_signal_handler(stop, self._end, worker)
            with contextlib.suppress(asyncio.CancelledError):
                await worker
            if making is not None:
                making.cancel()
                await asyncio.gather(making, return_exceptions=True)

    async def _rounds(self, rounds: Rounds, worker: asyncio.Future[None]) -> None:
        """Beside the work, in a thread and with a connection of their own: no job that hangs keeps them waiting."""
        while not worker.done():
            await asyncio.sleep(ROUND_S)
            await sync_to_async(rounds.make_due, thread_sensitive=False)(time.monotonic())
            if guard.is_full():
                log.warning("the disk is full: work waits until there is room")
                worker.cancel()

    def _end(self, worker: asyncio.Future[None]) -> None:
        self.ending = True
        signal.alarm(LAST_S)  # whatever it still waits for, a database that is gone among it
        worker.cancel()


def _names(text: str) -> list[str]:
    names = [name.strip() for name in text.split(",") if name.strip()]
    unknown = set(names) - set(queue.all_queues())
    if unknown or not names:
        raise ArgumentTypeError(f"no such queue: {', '.join(sorted(unknown))}; there are {', '.join(queue.all_queues())}")
    return names
