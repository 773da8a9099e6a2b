"""Backup and restore by their own commands while values come in."""

import shutil
import tempfile
import threading
import time
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
import requests

from bench.running import PORTION, WAITS_S, Person, Running, post, settle, with_tables_made
from cloche.demo.probe import SimulatedProbe


@pytest.fixture(scope="module")
def home() -> Iterator[Path]:
    # Not pytest's own folder: the database's user must be able to reach it.
    place = Path(tempfile.mkdtemp(prefix="cloche-"))
    yield place
    shutil.rmtree(place, ignore_errors=True)


@pytest.fixture(scope="module")
def running(home: Path) -> Iterator[Running]:
    """One application for both: its first start takes long."""
    app = Running(with_tables_made(home))
    yield app
    app.stop()


@pytest.fixture(scope="module")
def token(running: Running) -> str:
    """Of a logger in the one garden."""
    return settle(running.url)


def test_a_backup_is_its_owners_alone_and_never_half(home: Path, running: Running) -> None:
    file = home / "garden.backup"
    running.command("backup", str(file))
    assert file.stat().st_mode & 0o077 == 0
    whole = file.read_bytes()
    with pytest.raises(AssertionError, match="could not be written"):
        running.command("backup", str(home / "no-such-folder" / "garden.backup"))
    assert file.read_bytes() == whole
    assert [path.name for path in home.glob("*.part")] == []


def test_the_nightly_one_comes_by_itself_and_is_tried_out(home: Path, running: Running) -> None:
    folder, waited = home / "own" / "backups", time.monotonic() + WAITS_S
    while not (files := list(folder.glob("cloche-*.backup"))) and time.monotonic() < waited:
        time.sleep(0.5)
    assert files, "no backup was made"
    assert {path.stat().st_mode & 0o077 for path in [folder, *files]} == {0}
    checks = requests.get(f"{running.url}/readyz/", timeout=WAITS_S).json()["checks"]
    assert checks["backups"]["well"]
    assert checks["backups"]["size_mb"] > 0


def test_who_forgot_a_password_is_let_in_again(running: Running, token: str) -> None:
    running.command("password", "rowan", typed="apple-and-pear\n" * 2)
    assert "/g/" in Person(running.url).send("/sign-in/", username="rowan", password="apple-and-pear").url
    with pytest.raises(AssertionError, match="nobody"):
        running.command("password", "nobody-of-that-name", typed="apple-and-pear\n" * 2)


def test_a_backup_taken_while_values_come_in_holds_every_answered_one_and_none_by_half(
    home: Path, running: Running, token: str
) -> None:
    probe = SimulatedProbe(every=timedelta(minutes=1))
    probe.measure(datetime.now(UTC) - timedelta(days=60), datetime.now(UTC))
    parts = [probe.waiting[i : i + PORTION] for i in range(0, len(probe.waiting) // PORTION * PORTION, PORTION)]
    answered = 0
    try:
        ending = threading.Event()

        def pour() -> None:
            nonlocal answered
            for part in parts:
                if ending.is_set():
                    return
                assert post(running.url, token, part)["kept"] == PORTION
                answered += 1

        pouring = threading.Thread(target=pour)
        pouring.start()
        while answered < 3:
            time.sleep(0.02)
        before = answered
        running.command("backup", str(home / "garden.backup"))
        after = answered + 1  # one may have been on its way
        ending.set()
        pouring.join()
    finally:
        running.stop()
    assert 3 <= before < after, "nothing came in while the backup was taken"
    assert "is kept in" in running.command("restore", str(home / "garden.backup"))
    running.start()
    try:
        given = [post(running.url, token, part) for part in parts[: after + 2]]
    finally:
        running.stop()
    held = [answer["known"] for answer in given]
    assert set(held) <= {0, PORTION}, "a portion was kept by half"
    assert before <= held.count(PORTION) <= after
    assert held == sorted(held, reverse=True)
