"""Letters when something wants a hand: once each, to whom it concerns, in their language."""

from datetime import timedelta
from typing import Any

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.accounts.letters import LETTER
from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.upkeep import pages
from cloche.apps.upkeep.flows.alerts import alert_round
from cloche.apps.upkeep.models import Alert, Backup
from cloche.apps.work import guard
from cloche.apps.work.models import Failure
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place

MINUTE, DAY = timedelta(minutes=1), timedelta(days=1)


@pytest.fixture
def rowan(garden: Garden, person: User) -> User:
    """Came first, so that the computer is theirs to keep."""
    person.email = "rowan@example.org"
    person.save()
    return person


def letters() -> list[dict[str, str]]:
    return [job.args for job in ProcrastinateJob.objects.filter(task_name=LETTER).order_by("id")]


def fail(garden: Garden, name: str, times: int) -> Failure:
    place = make_place(garden, name)
    at = {"first_at": NOW, "last_at": NOW, "next_at": NOW}
    return Failure.objects.create(
        key=f"place-{place.pk}", task="forecasts.work_out", garden=garden, place=place, count=times, text="Why not.", **at
    )


def test_nothing_is_written_while_all_is_well(rowan: User) -> None:
    assert alert_round(NOW) == 0
    assert not Alert.objects.exists()


def test_what_lasts_is_told_once_and_again_only_after_a_well_day(rowan: User, garden: Garden) -> None:
    failure = fail(garden, "North bed", 3)
    assert alert_round(NOW) == 0, "what is over by itself in a moment is nobody's business"
    assert alert_round(NOW + 11 * MINUTE) == 1
    (letter,) = letters()
    assert letter["email"] == "rowan@example.org"
    assert letter["subject"] == "Cloche: 1 thing needs attention for Test plot"
    assert "The forecast for North bed failed 3 times in a row. Why not." in letter["text"]
    assert alert_round(NOW + 60 * MINUTE) == 0
    assert alert_round(NOW + 3 * DAY) == 0, "however long it lasts"
    failure.delete()
    alert_round(NOW + 3 * DAY + MINUTE)
    failure = fail(garden, "South bed", 3)
    Failure.objects.filter(pk=failure.pk).update(place=garden.places.get(name="North bed"))
    assert alert_round(NOW + 3 * DAY + 60 * MINUTE) == 0, "what comes and goes sends no letter each time"
    Failure.objects.all().delete()
    alert_round(NOW + 4 * DAY)
    alert_round(NOW + 6 * DAY)
    assert not Alert.objects.exists()
    Failure.objects.all().delete()
    fail(garden, "Third bed", 4)
    alert_round(NOW + 7 * DAY)
    assert alert_round(NOW + 7 * DAY + 11 * MINUTE) == 1


def test_one_try_that_failed_is_none(rowan: User, garden: Garden) -> None:
    fail(garden, "North bed", 2)
    alert_round(NOW)
    assert alert_round(NOW + DAY) == 0


def test_a_gardens_troubles_go_to_its_owners_alone(rowan: User, garden: Garden) -> None:
    other = make_garden(make_person("willow", email="willow@example.org"), "Other")
    Membership.objects.create(garden=other, user=make_person("ash", email="ash@example.org"), role="helper")
    fail(other, "Their bed", 5)
    alert_round(NOW)
    assert alert_round(NOW + 11 * MINUTE) == 1
    assert [letter["email"] for letter in letters()] == ["willow@example.org"]


def test_the_computers_troubles_go_to_whoever_keeps_it(
    rowan: User, garden: Garden, settings: Any, tmp_path: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    make_garden(make_person("willow", email="willow@example.org"), "Other")
    settings.CLOCHE_BACKUPS = str(tmp_path)
    Backup.objects.create(made_at=NOW, failure="The disk was away.")
    monkeypatch.setattr(guard, "free_bytes", lambda: 700_000_000)
    alert_round(NOW)
    assert alert_round(NOW + 11 * MINUTE) == 1
    (letter,) = letters()
    assert letter["email"] == "rowan@example.org"
    assert letter["subject"] == "Cloche: 2 things need attention for the computer that Cloche runs on"
    assert "The nightly backup failed: The disk was away." in letter["text"]
    assert "Only 700 MB of disk space are free." in letter["text"]
    assert f"/g/{garden.pk}/garden/runs/" in letter["text"]


def test_a_probe_that_fell_silent_is_told(rowan: User, garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    garden.devices.create(name="Logger", fingerprint="x", made_at=NOW)
    monkeypatch.setattr(pages, "silences_by_probe", lambda garden, now: {7: "Logger in North bed has been silent since 06:00."})
    alert_round(NOW)
    assert alert_round(NOW + 11 * MINUTE) == 1
    assert "Logger in North bed has been silent" in letters()[0]["text"]


def test_who_has_no_confirmed_address_gets_none_and_the_others_do(rowan: User, garden: Garden, settings: Any) -> None:
    settings.CLOCHE_MAIL_URL = "smtp://mail.example.org"
    fail(garden, "North bed", 3)
    alert_round(NOW)
    assert alert_round(NOW + 11 * MINUTE) == 0
    assert letters() == []


def test_each_reads_it_in_their_language(rowan: User, garden: Garden) -> None:
    ash = make_person("ash", email="ash@example.org", language="en-us")
    Membership.objects.create(garden=garden, user=ash, role="owner")
    fail(garden, "North bed", 3)
    alert_round(NOW)
    assert alert_round(NOW + 11 * MINUTE) == 2
    assert [letter["text"].splitlines()[0] for letter in letters()] == ["rowan,", "ash,"]


def test_gardens_with_nothing_that_could_be_amiss_are_not_asked(rowan: User, garden: Garden) -> None:
    alert_round(NOW)
    with CaptureQueriesContext(connection) as few:
        alert_round(NOW)
    for number in range(5):
        make_garden(rowan, f"Quiet {number}")
    with CaptureQueriesContext(connection) as many:
        alert_round(NOW)
    assert len(many) == len(few)
