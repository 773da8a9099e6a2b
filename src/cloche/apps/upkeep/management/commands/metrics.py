"""Serve metrics on this computer until stopped."""

from __future__ import annotations

import signal
import threading
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from prometheus_client import start_http_server

from cloche.apps.upkeep.health import registry


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        ended = threading.Event()
        signal.signal(signal.SIGTERM, lambda *_: ended.set())
        folder = settings.STATE / "metrics"
        server, _thread = start_http_server(
            int(settings.CLOCHE_METRICS_PORT), addr="127.0.0.1", registry=registry(str(folder) if folder.is_dir() else "")
        )
        ended.wait()
        server.shutdown()
