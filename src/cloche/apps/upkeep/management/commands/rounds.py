"""Look again and again for what is due, and queue it, until told to stop: where workers are kept for the queue alone.

Any number may run: what is due is queued once.
"""

from __future__ import annotations

import signal
import threading
import time
from typing import Any

from django.core.management.base import BaseCommand

from cloche.apps.upkeep.rounds import Rounds

PAUSE_S = 2.0


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        ended, rounds = threading.Event(), Rounds()
        for signum in (signal.SIGTERM, signal.SIGINT):
            signal.signal(signum, lambda *_: ended.set())
        while not ended.is_set():
            rounds.make_due(time.monotonic())
            ended.wait(PAUSE_S)
