"""Keep every place's forecast up to its evidence and its day, until told to stop."""

from __future__ import annotations

import logging
import signal
import time
from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.db import OperationalError, close_old_connections

from cloche.apps.windows.flows.refresh import refresh_stale

log = logging.getLogger("cloche.forecast")
PAUSE_S = 1.0


class Command(BaseCommand):
    """`keep_forecasts` runs until it is ended; `keep_forecasts --once` does what is due and returns."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--once", action="store_true")

    def handle(self, *args: Any, once: bool, **options: Any) -> None:
        ending = []
        signal.signal(signal.SIGTERM, lambda *_: ending.append(True))
        while not ending:
            try:
                done = refresh_stale()
            except OperationalError as lost:
                log.warning("the database does not answer, trying again: %s", lost)
                done = 0
            if once:
                return
            close_old_connections()
            if not done:
                time.sleep(PAUSE_S)
