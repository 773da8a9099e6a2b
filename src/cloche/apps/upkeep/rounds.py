"""What every worker sees to again and again, by a clock that nobody can set.

Each round finds in the tables what is due and queues it, so that nothing hangs on a single job, on a table of times, or on
another round: each stands in its own guard.
"""

from __future__ import annotations

import logging
from collections.abc import Callable
from dataclasses import dataclass, field

from django.db import InterfaceError, OperationalError, close_old_connections

from cloche.apps.forecasts.tasks import look_round
from cloche.apps.loggers.flows.devices import prune_aside
from cloche.apps.readings.flows.watched import folder_round
from cloche.apps.readings.tasks import file_round
from cloche.apps.records.tasks import archive_round
from cloche.apps.shared import clock
from cloche.apps.today.flows import send_due
from cloche.apps.upkeep.flows.alerts import alert_round
from cloche.apps.upkeep.flows.backups import backup_round
from cloche.apps.weather.tasks import ask_round
from cloche.apps.work import counts, failures, guard, queue

log = logging.getLogger("cloche.work")


@dataclass(frozen=True)
class Round:
    """Periodic work: `name` identifies its failures and `every_s` is its interval."""

    name: str
    every_s: float
    run: Callable[[], object]


ROUNDS = (
    Round("heal", 10, queue.heal),
    Round("forecasts", 10, look_round),
    Round("files", 30, file_round),
    Round("folder", 30, folder_round),
    Round("archives", 30, archive_round),
    Round("weather", 60, ask_round),
    Round("mail", 60, lambda: send_due(clock.now())),
    Round("alerts", 300, lambda: alert_round(clock.now())),
    Round("backup", 300, backup_round),
    Round("pruning", 300, lambda: (failures.prune(), prune_aside(), counts.prune())),
)


@dataclass
class Rounds:
    """Time of the last run of each round by the monotonic clock; at first all are due."""

    rounds: tuple[Round, ...] = ROUNDS
    made: dict[str, float] = field(default_factory=dict)

    def make_due(self, monotonic_s: float) -> list[str]:
        """Run due rounds and return their names; none while the disk is full, since each of them writes."""
        if guard.is_full():
            return []
        due = [task for task in self.rounds if monotonic_s - self.made.get(task.name, -1e9) >= task.every_s]
        close_old_connections()
        for task in due:
            self.made[task.name] = monotonic_s
            _make(task)
        close_old_connections()
        return [task.name for task in due]


def _make(task: Round) -> None:
    key = f"round-{task.name}"
    try:
        task.run()
        failures.mended(key)
    except (OperationalError, InterfaceError) as fault:
        if guard.is_away():
            log.warning("the database is away; the round of %s waits: %s", task.name, str(fault).strip())
            return
        _note(key, fault)
    except Exception as fault:  # noqa: BLE001 - one round's fault keeps no other from being made
        _note(key, fault)


def _note(key: str, fault: Exception) -> None:
    log.error("%s failed", key, exc_info=fault)
    try:
        failures.note(key, fault, task=key)
    except (OperationalError, InterfaceError):
        guard.is_away()
