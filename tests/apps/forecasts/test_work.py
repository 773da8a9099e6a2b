"""Work outside requests, as it is in a bad week: workers killed, the database restarted, two workers at once."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from django.conf import settings
from django.core.management import call_command
from django.db import connection, connections
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.forecasts import tasks
from cloche.apps.forecasts.models import CropOutlook, Forecast
from cloche.apps.forecasts.status import stale_places
from cloche.apps.places.flows import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.readings.models import Reading
from cloche.bridge.services.crops import of_garden
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, read_twice_daily

pytestmark = pytest.mark.django_db(transaction=True)
TRIES = 450


def until(done: Callable[[], bool], what: str) -> None:
    """Wait for something that another process does."""
    for _ in range(TRIES):
        if done():
            return
        time.sleep(0.2)
    pytest.fail(f"waited in vain for {what}")


@pytest.fixture
def worker() -> Iterator[Callable[[], subprocess.Popen[bytes]]]:
    """Starts workers as processes of their own on the tests' database."""
    running: list[subprocess.Popen[bytes]] = []

    def start() -> subprocess.Popen[bytes]:
        own = {"CLOCHE_DB_NAME": connection.settings_dict["NAME"], "PYTHONPATH": "src", "OPENBLAS_NUM_THREADS": "1"}
        words = ["setpriv", "--pdeathsig", "KILL", sys.executable, "-W", "ignore", "-m", "cloche.manage", "work"]
        running.append(subprocess.Popen(words, env=os.environ | own))  # noqa: S603 - our own words
        return running[-1]

    yield start
    for worker in running:
        worker.kill()
        worker.wait()


@pytest.fixture
def bed() -> Place:
    place = make_place(make_garden(make_person("rowan")))
    read_twice_daily(place, 5, NOW, 8.0, 12.0)
    return place


def being_done() -> bool:
    return ProcrastinateJob.objects.filter(task_name="forecasts.work_out", status="doing").exists()


def whole(place: Place) -> bool:
    """A forecast is there with every crop, or nothing is."""
    keys = set(CropOutlook.objects.filter(place=place, better=True).values_list("crop_key", flat=True))
    return len(keys) in (0, len(of_garden([])))


def test_a_worker_killed_half_way_loses_nothing(bed: Place, worker: Callable[[], subprocess.Popen[bytes]]) -> None:
    note_change_at(bed)
    process = worker()
    until(being_done, "a worker to begin")
    process.send_signal(signal.SIGKILL)
    process.wait()
    assert not Forecast.objects.exists()
    assert whole(bed)
    note_change_at(bed)  # a newer job of the same place waits: the old one gives way to it
    worker()  # whose own round finds what was lost
    until(lambda: Forecast.objects.filter(place=bed).exists(), "the forecast")
    assert whole(bed)
    assert Reading.objects.filter(place=bed).count() == 10


@pytest.mark.alone
def test_the_database_restarted_half_way_loses_nothing(bed: Place, worker: Callable[[], subprocess.Popen[bytes]]) -> None:
    note_change_at(bed)
    process = worker()
    until(being_done, "a worker to begin")
    connections.close_all()
    restart_database()
    until(lambda: answers() and whole(bed), "the database")
    assert Reading.objects.filter(place=bed).count() == 10
    until(lambda: Forecast.objects.filter(place=bed).exists(), "the forecast")
    assert process.poll() is None
    assert whole(bed)


def test_a_session_that_is_ended_under_a_job_leaves_nothing_stuck(
    bed: Place, worker: Callable[[], subprocess.Popen[bytes]]
) -> None:
    note_change_at(bed)
    process = worker()
    until(being_done, "a worker to begin")
    note_change_at(bed)  # and a newer one waits
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity "
            "WHERE datname = current_database() AND pid <> pg_backend_pid()"
        )
    until(lambda: not stale_places(), "the forecast in spite of it")
    assert process.poll() is None
    assert whole(bed)


def test_two_workers_share_the_work_and_none_is_done_twice(bed: Place, worker: Callable[[], subprocess.Popen[bytes]]) -> None:
    other = make_place(bed.garden, "South bed")
    for place in (bed, other):
        note_change_at(place)
    worker(), worker()
    until(lambda: Forecast.objects.count() == 2, "both forecasts")
    made = dict(Forecast.objects.values_list("place_id", "made_at"))
    until(lambda: not being_done(), "the workers to be done")
    assert dict(Forecast.objects.values_list("place_id", "made_at")) == made
    assert whole(bed)
    assert whole(other)


def test_looking_round_finds_what_nobody_queued(bed: Place, now: object) -> None:
    assert stale_places() == [bed.pk]
    assert tasks.look_round() == 1
    assert tasks.look_round() == 0  # it is waiting already
    call_command("work", once=True)
    assert stale_places() == []


def answers() -> bool:
    try:
        connection.ensure_connection()
    except Exception:  # noqa: BLE001 - whatever a database that is starting says
        connections.close_all()
        return False
    return True


def restart_database() -> None:
    """Fast stop and start of the tests' own cluster, as its owner."""
    data = Path(settings.STATE) / "db" / "data"
    tool = sorted(Path("/usr/lib/postgresql").glob("*/bin/pg_ctl"))[-1]
    words = [str(tool), "-D", str(data), "-m", "fast", "-w", "-s", "-l", str(data.parent / "log"), "restart"]
    if os.geteuid() == 0:
        words = ["runuser", "-u", "postgres", "--", *words]
    subprocess.run(words, check=True, cwd="/", timeout=60)  # noqa: S603 - our own words
