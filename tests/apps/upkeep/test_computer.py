"""What each garden takes of the computer: counted where the work is done, shown to whoever keeps it."""

from __future__ import annotations

from datetime import timedelta
from types import SimpleNamespace
from typing import Any

import pytest
from django.db import OperationalError
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, User
from cloche.apps.gardens.selectors import keeper_of_computer
from cloche.apps.upkeep.computer import LOOKED_D, computer_page
from cloche.apps.work import counts, guard, turns
from cloche.apps.work.models import Failure, Worked
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, make_reading


def run(garden: Garden, work: Any, name: str = "weather.ask") -> Any:
    job = SimpleNamespace(id=0, task_name=name, queueing_lock=f"{name}-{garden.pk}", task_kwargs={"garden_id": garden.pk})
    return guard.guarded(work, SimpleNamespace(job=job), None)  # type: ignore[arg-type]


@pytest.fixture
def in_a_worker(monkeypatch: pytest.MonkeyPatch) -> None:
    """The queue's own rows are not what is looked at here, and the test's session stays open."""
    monkeypatch.setattr(guard, "close_old_connections", lambda: None)


def test_work_is_added_up_by_garden_kind_and_day(garden: Garden, in_a_worker: None) -> None:
    busy = lambda: sum(i * i for i in range(300_000))  # noqa: E731
    assert run(garden, busy) == busy()
    run(garden, busy)
    run(garden, lambda: None, "forecasts.work_out")
    rows = {row.task: row for row in Worked.objects.filter(garden=garden)}
    assert {task: row.count for task, row in rows.items()} == {"weather.ask": 2, "forecasts.work_out": 1}
    assert rows["weather.ask"].seconds > rows["forecasts.work_out"].seconds
    assert rows["weather.ask"].day == turns.database_now().date()


def test_work_that_failed_is_a_failure_and_a_number_that_cannot_be_kept_is_none(
    garden: Garden, in_a_worker: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fail() -> None:
        raise ZeroDivisionError

    run(garden, fail)
    assert Failure.objects.count() == 1
    assert not Worked.objects.exists()

    def away(*given: Any) -> None:
        raise OperationalError("gone")

    monkeypatch.setattr(counts, "note", away)
    monkeypatch.setattr(guard, "is_away", lambda: True)
    assert run(garden, lambda: 5) == 5
    assert not Failure.objects.exists(), "the work itself was done"


def test_what_is_old_is_pruned(garden: Garden) -> None:
    today = turns.database_now().date()
    for back in (counts.KEPT_D + 1, 3):
        Worked.objects.create(garden=garden, day=today - timedelta(days=back), task="x")
    assert counts.prune() == 1


def test_the_keeper_sees_every_garden_in_numbers_the_dearest_first(signed_in: Client, garden: Garden, person: User) -> None:
    other = make_garden(make_person("later"), "Secret plot")
    make_reading(make_place(garden), NOW)
    day = turns.database_now().date()
    for back in range(1, LOOKED_D + 1):
        Worked.objects.create(garden=other, day=day - timedelta(days=back), task="a", count=9, seconds=300.0)
    Worked.objects.create(garden=garden, day=day - timedelta(days=1), task="a", count=1, seconds=21.0)
    Worked.objects.create(garden=garden, day=day, task="a", count=1, seconds=9999.0)
    page = computer_page(day, 2)
    assert page.headline == "2 gardens use 5 minutes of computing time a day here."
    assert "That is 0.2% of what this computer can do." in page.sub
    assert [(line.name, line.seconds, line.places, line.readings) for line in page.gardens] == [
        ("Secret plot", "5 minutes", "0", "0"),
        ("Test plot", "3.0 seconds", "1", "1"),
    ]
    assert keeper_of_computer() == person
    shown = signed_in.get(reverse("computer", args=[garden.pk]))
    assert "Secret plot" in shown.content.decode()
    assert reverse("computer", args=[garden.pk]) in signed_in.get(reverse("how_it_runs", args=[garden.pk])).content.decode()


def test_on_the_first_day_nothing_is_counted_yet(garden: Garden) -> None:
    page = computer_page(turns.database_now().date(), 2)
    assert page.headline == "The computing time of each garden is measured from today on."
    assert [line.seconds for line in page.gardens] == ["–"]


def test_nobody_else_has_that_page(client: Client, garden: Garden) -> None:
    later = make_person("later")
    theirs = make_garden(later, "Second")
    client.force_login(later, backend="allauth.account.auth_backends.AuthenticationBackend")
    assert client.get(reverse("computer", args=[theirs.pk])).status_code == 404
    assert reverse("computer", args=[theirs.pk]) not in client.get(reverse("how_it_runs", args=[theirs.pk])).content.decode()
