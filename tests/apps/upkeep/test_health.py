"""Health that tells the truth: alive is not ready, and the owner reads in words what a program reads in numbers."""

from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from django.db import connection
from django.test import Client
from django.urls import reverse
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.gardens.models import Garden
from cloche.apps.shared import clock
from cloche.apps.upkeep import health
from cloche.apps.work import counts, failures, guard, turns
from cloche.apps.work.models import Heartbeat
from tests.factories import make_person, make_place, wants_mail


def beat() -> None:
    """One worker, heard from just now."""
    with connection.cursor() as cursor:
        cursor.execute("DELETE FROM procrastinate_workers")
        cursor.execute("INSERT INTO procrastinate_workers (last_heartbeat) VALUES (clock_timestamp())")


@pytest.fixture
def worker(db: None) -> None:
    beat()


def given(client: Client) -> tuple[int, dict[str, Any]]:
    answer = client.get("/readyz/")
    return answer.status_code, answer.json()["checks"]


def test_alive_asks_nothing_of_the_database(client: Client, db: None) -> None:
    with connection.execute_wrapper(lambda *about: pytest.fail("the database was asked")):
        assert client.get("/healthz/").json() == {"ok": True}


def test_with_everything_well_it_is_ready(client: Client, garden: Garden, worker: None) -> None:
    status, checks = given(client)
    assert status == 200
    assert all(check["well"] for check in checks.values())
    assert set(checks) >= {"database", "migrations", "queue", "workers", "forecasts", "disk", "weather", "mail", "clock"}


@pytest.mark.parametrize("what", ["disk", "clock", "workers", "queue", "migrations", "database"])
def test_what_makes_it_unready(
    client: Client, garden: Garden, worker: None, monkeypatch: pytest.MonkeyPatch, what: str
) -> None:
    if what == "disk":
        monkeypatch.setattr(guard, "is_full", lambda: True)
    elif what == "clock":
        monkeypatch.setattr(clock, "is_believable", lambda: False)
    elif what == "workers":
        with connection.cursor() as cursor:
            cursor.execute("UPDATE procrastinate_workers SET last_heartbeat = clock_timestamp() - interval '5 minutes'")
    elif what == "queue":
        make_place(garden)
        from cloche.apps.places.flows import note_change_in

        note_change_in(garden)
        with connection.cursor() as cursor:
            cursor.execute("UPDATE procrastinate_events SET at = clock_timestamp() - interval '1 hour'")
    elif what == "migrations":
        health.migrations_left.cache_clear()
        monkeypatch.setattr(health, "migrations_left", _two)
    else:
        monkeypatch.setattr(turns, "database_now", _away)
    status, checks = given(client)
    assert status == 503
    assert not checks[what]["well"]


def _two() -> int:
    return 2


_two.cache_clear = lambda: None  # type: ignore[attr-defined]


def _away() -> Any:
    from django.db import InterfaceError

    raise InterfaceError("gone")


def test_a_failing_place_is_told_and_makes_nothing_unready(client: Client, garden: Garden, worker: None) -> None:
    place = make_place(garden)
    failures.note(f"place-{place.pk}", ValueError("x"), task="forecasts.work_out", garden_id=garden.pk, place_id=place.pk)
    status, checks = given(client)
    assert status == 200
    assert (checks["forecasts"]["well"], checks["forecasts"]["failing"]) == (False, 1)
    assert checks["failures"] == checks["failures"] | {"well": False, "count": 1, "most_tries": 1}


def test_a_listener_that_is_wanted_must_be_heard(client: Client, garden: Garden, worker: None, settings: Any) -> None:
    settings.CLOCHE_MQTT_URL = "mqtt://127.0.0.1"
    assert not given(client)[1]["listener"]["well"]
    counts.beat("listener")
    assert given(client)[1]["listener"]["well"]
    Heartbeat.objects.update(at=turns.database_now() - timedelta(hours=1))
    assert not given(client)[1]["listener"]["well"]


def page(client: Client, garden: Garden) -> str:
    return client.get(reverse("how_it_runs", args=[garden.pk])).content.decode()


def test_the_owner_reads_it_in_words(signed_in: Client, garden: Garden, worker: None) -> None:
    make_place(garden)
    assert "Not up to date: North bed; they are being calculated now." in page(signed_in, garden)
    refresh_stale()
    beat()  # the forecast may take longer than a worker may be silent
    ProcrastinateJob.objects.all().delete()
    shown = page(signed_in, garden)
    assert "All is well." in shown
    assert "The forecast is up to date." in shown
    assert "1 worker is running, and nothing is waiting." in shown
    assert "of disk space free" in shown


def test_what_failed_is_told_with_its_next_try_and_can_be_tried_at_once(
    signed_in: Client, garden: Garden, worker: None
) -> None:
    place = make_place(garden)
    row = failures.note("place", ValueError("secret <b>"), task="forecasts.work_out", garden_id=garden.pk, place_id=place.pk)
    shown = page(signed_in, garden)
    assert "The forecast for North bed failed, tried at" in shown
    assert failures.OWN_FAULT in shown
    assert "Next try at" in shown
    assert "secret &lt;b&gt;" in shown
    assert "place" in failures.waiting()
    signed_in.post(reverse("try_again", args=[garden.pk, row.pk]))
    assert failures.waiting() == set()
    assert "Trying again at once." in page(signed_in, garden)


def test_only_the_owner_has_the_page(client: Client, garden: Garden) -> None:
    for role in ("grower", "helper", "viewer"):
        person = make_person(role)
        garden.memberships.create(user=person, role=role)
        client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
        assert client.get(reverse("how_it_runs", args=[garden.pk])).status_code == 404


def test_mail_and_restarts_are_told(signed_in: Client, garden: Garden, worker: None, settings: Any, tmp_path: Path) -> None:
    settings.STATE = tmp_path
    (tmp_path / "parts.json").write_text('{"The web (1)": {"restarts": 2, "last": "was ended by SIGKILL"}}')
    wants_mail(garden.memberships.get(), "rowan@example.org")
    shown = page(signed_in, garden)
    assert "Processes that stopped unexpectedly were restarted: the web (1) 2 times." in shown
    assert "1 person has the day’s jobs sent by email." in shown
