"""What `./run start` starts is kept running: parts that are killed come back, nobody is root, no slow caller holds a thread,
a full disk is a sentence and no end, and a pulled plug is a pause."""

import os
import shutil
import signal
import socket
import subprocess
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
import requests

from bench.running import WAITS_S, Person, Running, post, ready, settle, until, with_tables_made

HELD_UP_S = 20
"""Less than what a slow caller is given."""
FULL = "The disk of this computer is full."
HANGS = "The database of this computer is not responding."
ROOT = os.geteuid() == 0


@pytest.fixture(scope="module")
def running() -> Iterator[Running]:
    """One application for all of these, its data on a small disk of their own where that can be had."""
    place = Path(tempfile.mkdtemp(prefix="cloche-"))
    small = ROOT and subprocess.run(["mount", "-t", "tmpfs", "-o", "size=500m", "tmpfs", str(place)]).returncode == 0  # noqa: S603, S607
    app = Running(with_tables_made(place), CLOCHE_LEAST_FREE_MB="100" if small else "1")
    app.small = small  # type: ignore[attr-defined]
    yield app
    app.stop()
    if small:
        subprocess.run(["umount", str(place)], check=True)  # noqa: S603, S607
    shutil.rmtree(place, ignore_errors=True)


@pytest.fixture(scope="module")
def token(running: Running) -> str:
    return settle(running.url)


def reading(number: int) -> list[dict[str, Any]]:
    return [{"temperature": 9.5, "at": f"2026-11-01T{number // 60:02}:{number % 60:02}:00Z"}]


@pytest.mark.skipif(not ROOT, reason="only where it is started by root is there anything to give up")
def test_nothing_that_people_reach_is_root(running: Running, token: str) -> None:
    for what in ("manage web", "manage work", "bin/postgres"):
        pids = running.parts(what)
        assert pids, what
        for pid in pids:
            assert os.stat(f"/proc/{pid}").st_uid != 0, what


@pytest.mark.parametrize("how", [signal.SIGKILL, signal.SIGTERM])
@pytest.mark.parametrize("what", ["manage web", "manage work", "bin/postgres"])
def test_a_part_that_is_killed_comes_back(running: Running, token: str, what: str, how: signal.Signals) -> None:
    until(lambda: ready(running.url), "it to be ready")
    before = set(running.parts(what))
    # Not the children of a database: its first process is the one that all depend on.
    for pid in before if what != "bin/postgres" else {min(before)}:
        os.kill(pid, how)
    until(lambda: len(set(running.parts(what)) - before) >= 1 and ready(running.url), f"{what} to be back")
    assert running.process.poll() is None
    assert "it is started again in" in (running.home / "said.log").read_text()


def test_twelve_slow_senders_and_as_many_slow_readers_hold_nobody_up(running: Running, token: str) -> None:
    until(lambda: ready(running.url), "it to be ready")
    slow = []
    for n in range(24):
        caller = socket.create_connection(("127.0.0.1", running.port))
        heading = f"POST /api/v1/readings HTTP/1.1\r\nHost: 127.0.0.1:{running.port}\r\nContent-Length: 900000\r\n"
        caller.sendall((heading if n % 2 else heading + "X-Slow: ").encode())
        slow.append(caller)
    try:
        for _ in range(20):
            assert requests.get(f"{running.url}/healthz/", timeout=HELD_UP_S).status_code == 200
        assert post(running.url, token, reading(1))["kept"] == 1
    finally:
        for caller in slow:
            caller.close()


def spooled() -> int:
    return len([name for name in os.listdir(tempfile.gettempdir()) if name.endswith(".upload")])


@pytest.mark.parametrize("path", ["/sign-in/", "/gardens/bring/", "/g/1/files/", "/g/1/round/send/"])
def test_a_large_body_from_a_stranger_is_refused_before_it_is_received(running: Running, path: str) -> None:
    until(lambda: ready(running.url), "it to be ready")
    before = spooled()
    with socket.create_connection(("127.0.0.1", running.port), timeout=WAITS_S) as caller:
        heading = f"POST {path} HTTP/1.1\r\nHost: 127.0.0.1:{running.port}\r\nContent-Length: 200000000\r\n"
        caller.sendall((heading + "Content-Type: multipart/form-data; boundary=x\r\n\r\n--x\r\n").encode())
        answer = caller.recv(4096)  # at the heading: nothing more of it was sent
    assert answer.startswith(b"HTTP/1.1 413"), answer[:80]
    assert spooled() == before


def test_a_full_disk_is_said_on_every_page_and_heals(running: Running, token: str) -> None:
    if not running.small:  # type: ignore[attr-defined]
        pytest.skip("a small disk of one's own needs the right to mount one")
    until(lambda: ready(running.url), "it to be ready")
    filler = running.home / "filler"
    with filler.open("wb") as out:
        try:
            while True:
                out.write(b"\0" * 1_000_000)
                out.flush()
        except OSError:
            pass  # it is full to the last byte
    heads = {"Authorization": f"Bearer {token}"}

    def refused() -> bool:
        given = requests.post(f"{running.url}/api/v1/readings", json={"readings": reading(2)}, headers=heads, timeout=WAITS_S)
        return given.status_code == 503 and "disk" in given.text

    until(refused, "writing to be refused")
    assert requests.get(f"{running.url}/healthz/", timeout=WAITS_S).status_code == 200
    until(lambda: not ready(running.url), "it to be told")
    until(lambda: FULL in requests.get(f"{running.url}/sign-in/", timeout=WAITS_S).text, "the sentence on a page")
    filler.unlink()
    until(lambda: all(ready(running.url) and not refused() for _ in range(20)), "all of it to heal")
    assert post(running.url, token, reading(2))["known"] == 1


def test_a_database_that_hangs_is_a_sentence_on_every_page_and_all_comes_back(running: Running, token: str) -> None:
    """A disk that answers no more, a machine that swaps: its processes are there and say nothing."""
    until(lambda: ready(running.url), "it to be ready")
    person = Person(running.url)
    person.send("/sign-in/", username="rowan", password="spade-and-fork")
    first = min(running.parts("bin/postgres"))
    # One for each connection, and those that write: they show no more to whom they belong.
    held = [first, *map(int, Path(f"/proc/{first}/task/{first}/children").read_text(encoding="ascii").split())]
    for pid in held:
        os.kill(pid, signal.SIGSTOP)
    try:
        for path in ("/", "/g/1/today/", "/g/1/windows/"):
            given = person.session.get(running.url + path, timeout=WAITS_S)
            assert given.status_code == 503, path
            assert HANGS in given.text, path
        heads = {"Authorization": f"Bearer {token}"}
        sent = requests.post(f"{running.url}/api/v1/readings", json={"readings": reading(5)}, headers=heads, timeout=WAITS_S)
        assert sent.status_code == 503
        for caller in (person.session, requests):
            assert caller.get(f"{running.url}/healthz/", timeout=WAITS_S).status_code == 200
            assert caller.get(f"{running.url}/readyz/", timeout=WAITS_S).status_code == 503
    finally:
        for pid in held:
            os.kill(pid, signal.SIGCONT)

    def taken() -> bool:
        again = requests.post(f"{running.url}/api/v1/readings", json={"readings": reading(5)}, headers=heads, timeout=WAITS_S)
        return again.status_code == 200 and person.session.get(f"{running.url}/", timeout=WAITS_S).status_code == 200

    # Each web finds out for itself that it is back.
    until(lambda: all(ready(running.url) and taken() for _ in range(10)), "all of it to be back")
    assert post(running.url, token, reading(5))["known"] == 1


def test_after_a_pulled_plug_it_is_up_with_all_that_was_answered_and_fresh_forecasts_come(running: Running, token: str) -> None:
    until(lambda: ready(running.url), "it to be ready")
    assert post(running.url, token, reading(3))["kept"] + post(running.url, token, reading(4))["kept"] == 2
    running.pull_the_plug()
    until(lambda: running.parts("") == [], "all of it to be gone")
    running.start()
    assert post(running.url, token, [*reading(3), *reading(4)]) == {"kept": 0, "known": 2, "faulty": 0, "refused": []}
    fresh = {"stale": 0, "failing": 0}

    def forecasts() -> dict[str, int]:
        given = requests.get(f"{running.url}/readyz/", timeout=WAITS_S).json()["checks"].get("forecasts", {})
        return {name: given.get(name, -1) for name in fresh}

    until(lambda: forecasts() == fresh, "fresh forecasts")


def test_told_to_stop_it_leaves_nothing_behind(running: Running) -> None:
    running.stop()
    until(lambda: running.parts("") == [], "all to be gone")
    with socket.socket() as free:
        assert free.connect_ex(("127.0.0.1", running.port)) != 0
    running.start()
    person = Person(running.url)
    assert person.session.get(f"{running.url}/sign-in/", timeout=WAITS_S).status_code == 200
