"""How Cloche is, in numbers, for programs that watch. Prometheus's own format, at an address of its own."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from django.db import close_old_connections, connection
from prometheus_client import CollectorRegistry
from prometheus_client.core import GaugeMetricFamily, Metric
from prometheus_client.multiprocess import MultiProcessCollector

from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import Place
from cloche.apps.upkeep import health
from cloche.apps.work.guard import is_away

NUMBERS = {
    ("disk", "free_mb"): ("cloche_disk_free_megabytes", "Free on the disk of the data"),
    ("database", "apart_s"): ("cloche_clock_apart_seconds", "Between the clocks of database and application"),
    ("migrations", "left"): ("cloche_migrations_left", "Changes that the database lacks"),
    ("queue", "waiting"): ("cloche_jobs_waiting", "Jobs that could be done"),
    ("queue", "doing"): ("cloche_jobs_doing", "Jobs in hand"),
    ("queue", "oldest_s"): ("cloche_job_oldest_seconds", "Age of the oldest job that waits"),
    ("workers", "alive"): ("cloche_workers_alive", "Workers heard of lately"),
    ("forecasts", "stale"): ("cloche_forecasts_stale", "Places whose forecast is not of today"),
    ("forecasts", "oldest_stale_h"): ("cloche_forecast_oldest_stale_hours", "Age of the oldest of them"),
    ("forecasts", "failing"): ("cloche_forecasts_failing", "Places that could not be worked out"),
    ("failures", "count"): ("cloche_failures", "Pieces of work that failed and wait"),
    ("weather", "oldest_h"): (
        "cloche_weather_oldest_hours",
        "Since weather came, of the garden that waits longest",
    ),
    ("mail", "failing"): ("cloche_letters_failing", "Letters that could not be sent"),
    ("listener", "aside"): ("cloche_messages_aside", "Loggers' messages that could not be taken"),
    ("backups", "age_h"): ("cloche_backup_age_hours", "Since the last backup that was restored on trial"),
    ("backups", "size_mb"): ("cloche_backup_megabytes", "Its size"),
}


class Health:
    """Asked anew for each look."""

    def collect(self) -> Iterator[Metric]:
        """Whether each thing is well, its numbers, and how much there is."""
        _fresh_connection()
        results = health.checks()
        well = GaugeMetricFamily("cloche_well", "1 where it is well", labels=["what"])
        for check in results:
            well.add_metric([check.name], float(check.well))
        yield well
        facts = {(check.name, name): value for check in results for name, value in check.facts.items()}
        for key, (name, text) in NUMBERS.items():
            if isinstance(value := facts.get(key), int | float):
                yield GaugeMetricFamily(name, text, value=float(value))
        if any(check.name == "database" and check.well for check in results):
            yield GaugeMetricFamily("cloche_gardens", "Gardens", value=Garden.objects.count())
            yield GaugeMetricFamily("cloche_places", "Places", value=Place.objects.count())
            yield GaugeMetricFamily("cloche_people", "People", value=User.objects.filter(is_active=True).count())
        else:
            is_away()
        _fresh_connection()


def _fresh_connection() -> None:
    """As between two requests."""
    if not connection.in_atomic_block:
        close_old_connections()


def registry(folder: str = "") -> CollectorRegistry:
    """All that is told. folder: where the web's processes keep their counts."""
    collectors = CollectorRegistry()
    collectors.register(Health())  # type: ignore[arg-type]
    if folder:
        counts: Any = MultiProcessCollector
        counts(collectors, path=folder)
    return collectors
