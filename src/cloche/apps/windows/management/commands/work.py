"""Do what is queued, until told to stop: forecasts, questions to the weather provider. Any number may run, on any machine."""

from __future__ import annotations

import logging
import time
from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.db import OperationalError, close_old_connections
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued, ConnectorException

from cloche.apps.readings.tasks import ask_round
from cloche.apps.windows.tasks import look_round

log = logging.getLogger("cloche.work")
PAUSE_S = 2.0


class Command(BaseCommand):
    """`work` runs until it is ended; `work --once` does what is queued and returns."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--once", action="store_true")

    def handle(self, *args: Any, once: bool, **options: Any) -> None:
        while True:
            try:
                _begin()
                with app.replace_connector(app.connector.get_worker_connector()) as open_app:  # type: ignore[attr-defined]
                    open_app.run_worker(wait=not once, delete_jobs="successful", listen_notify=not once)
                return
            except (OperationalError, ConnectorException) as lost:
                log.warning("the database does not answer, trying again: %s", str(lost).strip())
                close_old_connections()
                time.sleep(PAUSE_S)


def _begin() -> None:
    """What a start is good for: forecasts of a new day, fresh weather."""
    for task in (ask_round, look_round):
        try:
            task.defer()
        except AlreadyEnqueued:
            continue
