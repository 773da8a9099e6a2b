"""Nightly backups, made of a real database with PostgreSQL's own programs."""

from __future__ import annotations

import stat
from collections.abc import Iterator
from datetime import date, datetime, timedelta
from pathlib import Path
from typing import Any

import psycopg
import pytest
from django.core.management import CommandError, call_command
from django.db import connection
from django.test import Client
from django.urls import reverse
from hypothesis import given
from hypothesis import strategies as st

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import clock
from cloche.apps.upkeep import health
from cloche.apps.upkeep.flows import backups
from cloche.apps.upkeep.flows.backups import DAYS, MONTHS, WEEKS, kept
from cloche.apps.upkeep.models import Backup
from tests.factories import make_garden, make_person

TODAY = date(2026, 11, 28)
PROGRAMS = sorted(Path("/usr/lib/postgresql").glob("*/bin/pg_dump"))[-1].parent


@pytest.fixture
def folder(tmp_path: Path, settings: Any, transactional_db: None) -> Iterator[Path]:
    """Where they go, and beside the tests' database the one for trials."""
    settings.CLOCHE_BACKUPS, settings.CLOCHE_PG_BIN = str(tmp_path / "nights"), str(PROGRAMS)
    name = f"{connection.settings_dict['NAME']}_check"
    _in_postgres(f'DROP DATABASE IF EXISTS "{name}"', f'CREATE DATABASE "{name}"')
    yield tmp_path / "nights"
    _in_postgres(f'DROP DATABASE IF EXISTS "{name}"')


def _in_postgres(*orders: str) -> None:
    known = connection.settings_dict
    where = {"host": known["HOST"], "port": known["PORT"], "user": known["USER"], "password": known["PASSWORD"]}
    with psycopg.connect(dbname="postgres", autocommit=True, **where) as session:
        for order in orders:
            session.execute(order)


def checked(name: str = "backups") -> health.Check:
    return next(check for check in health.checks() if check.name == name)


def test_one_is_made_proved_and_its_owners_alone(folder: Path) -> None:
    garden = make_garden(make_person("rowan"))
    done = backups.back_up()
    file = folder / done.file
    assert stat.S_IMODE(file.stat().st_mode) == 0o600
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700
    assert done.proved_at is not None
    assert [path.name for path in folder.iterdir()] == [done.file]
    assert checked().well
    # What was tried out takes no room afterwards, and it brings back what was there.
    scratch = f"{connection.settings_dict['NAME']}_check"
    with pytest.raises(psycopg.errors.UndefinedTable):
        backups._counts(scratch)
    backups._run(["pg_restore", "--no-owner", "-d", scratch, "--exit-on-error", str(file)])
    with backups._session(scratch) as session:
        assert session.execute("SELECT id, name FROM gardens_garden").fetchall() == [(garden.pk, garden.name)]


def test_a_file_that_does_not_hold_everything_is_none(folder: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    make_garden(make_person("rowan"))
    run = backups._run

    def without_gardens(words: list[str]) -> None:
        run([*words, "--exclude-table-data=gardens_garden"] if words[0] == "pg_dump" else words)

    monkeypatch.setattr(backups, "_run", without_gardens)
    with pytest.raises(backups.NotBackedUp, match="gardens_garden"):
        backups.back_up()
    assert list(folder.iterdir()) == []
    assert "gardens_garden" in Backup.objects.get().failure
    assert not checked().well


def test_what_fails_is_said_and_leaves_nothing_by_half(folder: Path, settings: Any) -> None:
    settings.CLOCHE_PG_BIN = "/nowhere"
    with pytest.raises(CommandError):
        call_command("back_up")
    assert list(folder.iterdir()) == []
    assert Backup.objects.get().failure
    settings.CLOCHE_PG_BIN = str(PROGRAMS)
    call_command("back_up")
    assert checked().well


def test_what_a_killed_one_left_goes_with_the_next(folder: Path) -> None:
    folder.mkdir()
    (folder / "cloche-20261127-030000.backup.part").write_bytes(b"half")
    done = backups.back_up()
    assert [path.name for path in folder.iterdir()] == [done.file]


def test_without_room_none_is_begun(folder: Path, settings: Any) -> None:
    settings.CLOCHE_LEAST_FREE_BYTES = 10**18
    with pytest.raises(backups.NotBackedUp, match="no room"):
        backups.back_up()


def test_each_is_copied_and_a_second_folder_that_is_gone_spoils_nothing(folder: Path, settings: Any, tmp_path: Path) -> None:
    second = tmp_path / "stick"
    second.mkdir()
    settings.CLOCHE_BACKUPS_TOO = str(second)
    done = backups.back_up()
    assert (second / done.file).read_bytes() == (folder / done.file).read_bytes()
    assert stat.S_IMODE((second / done.file).stat().st_mode) == 0o600
    settings.CLOCHE_BACKUPS_TOO = str(tmp_path / "pulled out")
    again = backups.back_up()
    assert (folder / again.file).exists()
    assert "pulled out" in again.copy_failure
    assert not checked().well


def test_the_page_says_when_and_that_it_was_tried(folder: Path, client: Client) -> None:
    person = make_person("rowan")
    garden = make_garden(person)
    client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
    url = reverse("how_it_runs", args=[garden.pk])
    assert "first backup will be made within minutes" in client.get(url).content.decode()
    backups.back_up()
    assert "successful test restore" in client.get(url).content.decode()
    Backup.objects.create(made_at=clock.real_now() + timedelta(minutes=1), failure="the stick is full")
    assert "The backup after it failed: the stick is full" in client.get(url).content.decode()


def test_only_the_first_of_a_day_remains_to_be_thinned(folder: Path) -> None:
    folder.mkdir()
    names = [f"cloche-{TODAY - timedelta(days=back):%Y%m%d}-{hour:02}0000.backup" for back in range(60) for hour in (3, 5)]
    for name in [*names, "mine.backup", "cloche-notes.txt"]:
        (folder / name).write_text("x")
    backups._thin(folder, datetime.combine(TODAY, datetime.min.time()).astimezone())
    left = sorted(file.name for file in folder.iterdir())
    assert {"mine.backup", "cloche-notes.txt"} <= set(left)
    days = [name[7:15] for name in left if name.startswith("cloche-2")]
    assert len(days) == len(set(days))
    assert all("-050000" in name for name in left if name.startswith("cloche-2"))


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("last_h", "hour", "due"),
    [(None, 12, True), (30, 4, True), (30, 2, False), (2, 4, False), (50, 23, True)],
)
def test_it_is_due_once_a_night(last_h: int | None, hour: int, due: bool) -> None:
    now = datetime(2026, 11, 28, hour, 30).astimezone()
    if last_h is not None:
        Backup.objects.create(made_at=now - timedelta(hours=last_h), file="x")
    assert backups._is_due(now) is due


@pytest.mark.django_db
def test_invented_gardens_are_not_backed_up(settings: Any) -> None:
    assert settings.CLOCHE_BACKUPS == ""
    backups.backup_round()
    assert not backups.is_wanted()
    assert checked() == health.Check("backups", True, {"wanted": False})
    with pytest.raises(CommandError, match="no folder"):
        call_command("back_up")
    assert Garden.objects.count() == 0


@given(st.sets(st.integers(0, 900)))
def test_a_week_of_days_a_month_of_weeks_a_year_of_months(back: set[int]) -> None:
    days = {TODAY - timedelta(days=n) for n in back}
    days_kept = kept(days, TODAY)
    assert days_kept <= days
    assert {day for day in days if day > TODAY - timedelta(days=DAYS)} <= days_kept
    assert len(days_kept) <= DAYS + WEEKS + MONTHS
    if days:
        assert max(days) in days_kept
    # Thinned night by night it keeps as much as thinned at once from then on.
    assert kept(days_kept, TODAY) == days_kept


def test_a_year_of_nights_leaves_about_twenty() -> None:
    left: set[date] = set()
    for night in range(400):
        today = TODAY + timedelta(days=night)
        left = kept(left | {today}, today)
    assert DAYS + WEEKS + MONTHS - 5 <= len(left) <= DAYS + WEEKS + MONTHS
    months = {(day.year, day.month) for day in left}
    assert len(months) >= MONTHS
