"""Health checks for the status page, alerts and metrics."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cache
from typing import Any

from django.conf import settings
from django.db import DatabaseError, InterfaceError, close_old_connections, connection
from django.db.migrations.executor import MigrationExecutor
from django.db.models import Max, Min
from procrastinate.contrib.django.models import ProcrastinateJob, ProcrastinateWorker
from prometheus_client import CollectorRegistry
from prometheus_client.core import GaugeMetricFamily, Metric
from prometheus_client.multiprocess import MultiProcessCollector

from cloche.apps.forecasts.models import Forecast
from cloche.apps.forecasts.status import stale_places
from cloche.apps.gardens.models import Garden, User
from cloche.apps.loggers.models import RefusedMessage
from cloche.apps.places.models import Place
from cloche.apps.shared import clock
from cloche.apps.today.flows import MAIL
from cloche.apps.today.models import DigestWish
from cloche.apps.upkeep.flows import backups
from cloche.apps.upkeep.models import Backup
from cloche.apps.weather.asking import provider
from cloche.apps.weather.models import WeatherReport
from cloche.apps.work import guard, turns
from cloche.apps.work.guard import is_away
from cloche.apps.work.models import Failure, Heartbeat

BEATS_WITHIN_S, QUEUE_WITHIN_S, LISTENS_WITHIN_S = 25.0, 900.0, 120.0
WEATHER_WITHIN_H, STALE_WITHIN_H = 6.0, 26.0
BACKUP_WITHIN_H = 50.0


@dataclass(frozen=True)
class Check:
    """Result of a health check with its figures."""

    name: str
    well: bool
    facts: dict[str, Any]


def checks() -> list[Check]:
    """Run all checks; without a database the others fail as well."""
    results = [_disk(), _clock()]
    try:
        return [*results, _database(), *(check() for check in DATABASE_CHECKS)]
    except (DatabaseError, InterfaceError) as lost:
        is_away()
        return [*results, Check("database", False, {"message": str(lost).strip()[:200]})]


def _disk() -> Check:
    return Check("disk", not guard.is_full(), {"free_mb": guard.free_bytes() // 1_000_000})


def _clock() -> Check:
    return Check("clock", clock.is_believable(), {"now": clock.real_now().isoformat(timespec="seconds")})


def _database() -> Check:
    now = turns.database_now()
    apart_s = abs((now - clock.real_now()).total_seconds())
    return Check("database", True, {"apart_s": round(apart_s, 1)})


def _migrations() -> Check:
    left = migrations_left()
    if left:
        migrations_left.cache_clear()  # they may be made while this process runs; once made they stay made
    return Check("migrations", not left, {"left": left})


@cache
def migrations_left() -> int:
    """Return the number of migrations not yet applied."""
    executor = MigrationExecutor(connection)
    return len(executor.migration_plan(executor.loader.graph.leaf_nodes()))


def _queue() -> Check:
    """Check the age of the oldest job that is ready to run."""
    waiting = ProcrastinateJob.objects.filter(status="todo")
    begun = waiting.filter(procrastinateevent__type="deferred").aggregate(at=Min("procrastinateevent__at"))["at"]
    age_s = _age_s(begun, turns.database_now())
    doing = ProcrastinateJob.objects.filter(status="doing").count()
    return Check("queue", age_s < QUEUE_WITHIN_S, {"waiting": waiting.count(), "doing": doing, "oldest_s": round(age_s)})


def _workers() -> Check:
    now = turns.database_now()
    beats = [_age_s(at, now) for at in ProcrastinateWorker.objects.values_list("last_heartbeat", flat=True)]
    alive = sum(1 for age in beats if age < BEATS_WITHIN_S)
    return Check("workers", alive > 0, {"alive": alive, "latest_s": round(min(beats)) if beats else None})


def _forecasts() -> Check:
    """Check the age of forecasts: a stale one is renewed within minutes, so one two days old means trouble."""
    due = stale_places()
    oldest = Forecast.objects.filter(place__in=due).aggregate(at=Min("made_at"))["at"]
    age_h = _age_s(oldest, clock.now()) / 3600
    failing = Failure.objects.filter(place__isnull=False).count()
    facts = {"stale": len(due), "oldest_stale_h": round(age_h, 1), "failing": failing}
    return Check("forecasts", age_h < STALE_WITHIN_H and not failing, facts)


def _failures() -> Check:
    worst = Failure.objects.aggregate(most=Max("count"))
    facts = {"count": Failure.objects.count(), "most_tries": worst["most"] or 0, "next": _next_try()}
    return Check("failures", not facts["count"], facts)


def _next_try() -> str | None:
    at: datetime | None = Failure.objects.aggregate(at=Min("next_at"))["at"]
    return at.isoformat(timespec="seconds") if at else None


def _weather() -> Check:
    if provider() is None:
        return Check("weather", True, {"asked": False})
    report = WeatherReport.objects.filter(received_at__isnull=False).aggregate(at=Min("received_at"))["at"]
    silent = Garden.objects.count() - WeatherReport.objects.filter(received_at__isnull=False).count()
    age_h = _age_s(report, clock.now()) / 3600
    return Check("weather", age_h < WEATHER_WITHIN_H, {"asked": True, "oldest_h": round(age_h, 1), "never_heard": silent})


def _mail() -> Check:
    failing = Failure.objects.filter(task=MAIL).count()
    return Check("mail", not failing, {"wanted": DigestWish.objects.count(), "failing": failing})


def _backups() -> Check:
    """Check that last night's backup exists, was restored as a test, and was copied if a second folder is set."""
    if not backups.is_wanted():
        return Check("backups", True, {"wanted": False})
    last = Backup.objects.filter(failure="").first()
    tried = Backup.objects.first()
    age_h = _age_s(last.made_at if last else None, clock.real_now()) / 3600
    facts = {
        "wanted": True,
        "age_h": round(age_h, 1) if last else None,
        "size_mb": round(last.size_bytes / 1e6, 1) if last else None,
        "copied": last is not None and last.copied_at is not None,
        "failure": tried.failure if tried else "",
    }
    whole = not facts["failure"] and (not settings.CLOCHE_BACKUPS_TOO or last is None or bool(facts["copied"]))
    return Check("backups", age_h < BACKUP_WITHIN_H and whole, facts)


def _listener() -> Check:
    if not settings.CLOCHE_MQTT_URL:
        return Check("listener", True, {"wanted": False})
    at = Heartbeat.objects.filter(part="listener").aggregate(at=Max("at"))["at"]
    age_s = _age_s(at, turns.database_now()) if at else None
    facts = {"wanted": True, "latest_s": None if age_s is None else round(age_s), "aside": RefusedMessage.objects.count()}
    return Check("listener", age_s is not None and age_s < LISTENS_WITHIN_S, facts)


DATABASE_CHECKS: tuple[Callable[[], Check], ...] = (
    _migrations,
    _queue,
    _workers,
    _forecasts,
    _failures,
    _weather,
    _mail,
    _listener,
    _backups,
)
UNREADY = {"disk", "clock", "database", "migrations", "workers", "queue"}
"""What makes an installation unready to be used; the others are told, and are somebody's to see to."""


def is_ready(results: list[Check]) -> bool:
    """Return whether the installation is usable."""
    return all(check.well for check in results if check.name in UNREADY)


def restarts() -> dict[str, dict[str, Any]]:
    """Return the parts that the supervisor has restarted since its own start."""
    file = settings.STATE / "parts.json"
    try:
        facts = json.loads(file.read_text(encoding="utf-8"))
    except (OSError, ValueError):
        return {}  # nothing was ever started again, or it is being written this moment
    return facts if isinstance(facts, dict) else {}


def _age_s(at: datetime | None, now: datetime) -> float:
    """Return the age in seconds; times in the future, left by a wrong clock, count as now."""
    return 0.0 if at is None else max((now - at) / timedelta(seconds=1), 0.0)


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
    """Metrics collector that runs the checks on each scrape."""

    def collect(self) -> Iterator[Metric]:
        """Yield the result and figures of each check, and the amounts stored."""
        _fresh_connection()
        results = checks()
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
    """Close stale connections, as between two requests."""
    if not connection.in_atomic_block:
        close_old_connections()


def registry(folder: str = "") -> CollectorRegistry:
    """Return the registry of all metrics.

    `folder` holds the counters of the web processes.
    """
    collectors = CollectorRegistry()
    collectors.register(Health())  # type: ignore[arg-type]
    if folder:
        counts: Any = MultiProcessCollector
        counts(collectors, path=folder)
    return collectors
