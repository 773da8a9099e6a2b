"""Backup and restore by their own commands while values come in; and the first steps of somebody new, over HTTP alone."""

import os
import re
import shutil
import signal
import socket
import subprocess
import tempfile
import threading
import time
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
import requests

from cloche.demo.probe import SimulatedProbe

ROOT = Path(__file__).parents[2]
RUN = str(ROOT / "run")
PORTION = 100


@pytest.fixture
def home() -> Iterator[Path]:
    # Not pytest's own folder: the database's user must be able to reach it.
    place = Path(tempfile.mkdtemp(prefix="cloche-"))
    yield place
    shutil.rmtree(place, ignore_errors=True)


def free_port() -> int:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


class Running:
    """`./run start` with data of its own."""

    def __init__(self, home: Path) -> None:
        port = free_port()
        self.url = f"http://127.0.0.1:{port}"
        keep = {k: v for k, v in os.environ.items() if not k.startswith(("CLOCHE_", "DJANGO_", "PYTHONPATH"))}
        self.env = keep | {"CLOCHE_HOME": str(home)}
        command = [RUN, "start", "--port", str(port)]
        self.process = subprocess.Popen(command, env=self.env, start_new_session=True, stdout=subprocess.DEVNULL)  # noqa: S603
        for _ in range(600):
            try:
                requests.get(f"{self.url}/healthz/", timeout=1)
                return
            except requests.RequestException:
                time.sleep(0.1)
        raise AssertionError("it did not start")

    def stop(self) -> None:
        if self.process.poll() is None:
            os.kill(self.process.pid, signal.SIGTERM)
            self.process.wait(60)

    def command(self, *words: str) -> str:
        done = subprocess.run([RUN, *words], env=self.env, capture_output=True, text=True, timeout=120)  # noqa: S603
        assert done.returncode == 0, done.stderr
        return done.stderr


class Person:
    """Somebody with a browser and no script in it."""

    def __init__(self, url: str) -> None:
        self.url, self.session = url, requests.Session()

    def send(self, path: str, **typed: Any) -> requests.Response:
        page = self.session.get(self.url + path, timeout=30)
        token = re.search(r'name="csrfmiddlewaretoken" value="([^"]+)"', page.text)
        assert token is not None, page.url
        answer = self.session.post(page.url, typed | {"csrfmiddlewaretoken": token.group(1)}, timeout=30)
        assert answer.status_code == 200, (path, answer.status_code)
        return answer


def settle(url: str) -> str:
    """From nothing to a token; returns it."""
    person = Person(url)
    who = {"username": "rowan", "password1": "spade-and-fork", "password2": "spade-and-fork"}
    person.send("/welcome/", **who, temperature_unit="C", length_unit="cm")
    site = {"latitude_deg": "48.2", "longitude_deg": "15.6", "elevation_m": "300", "timezone_name": "Europe/Vienna"}
    place = person.send("/gardens/new/", name="Plot", **site).url
    person.session.headers["Referer"] = url
    bed = {"name": "North bed", "kind": "open", "seed_depth": "5", "texture": "loam", "slope_deg": "0", "aspect_deg": "180.0"}
    person.send(place.removeprefix(url), **bed)
    garden = place.split("/")[4]
    page = person.send(f"/g/{garden}/loggers/", name="Logger", unit="C")
    token = re.search(r'id="token">([^<]+)<', page.text)
    assert token is not None
    loggers = person.session.get(f"{url}/g/{garden}/loggers/", timeout=30).text
    device = re.search(r"/loggers/(\d+)/probes/", loggers)
    bed_id = re.search(r'<option value="(\d+)">North bed', loggers)
    assert device is not None
    assert bed_id is not None
    csrf = re.search(r'name="csrfmiddlewaretoken" value="([^"]+)"', loggers)
    assert csrf is not None
    probe = {"channel": "1", "place": bed_id.group(1), "depth": "", "csrfmiddlewaretoken": csrf.group(1)}
    stuck = person.session.post(f"{url}/g/{garden}/loggers/{device.group(1)}/probes/", probe, timeout=30)
    assert "North bed" in stuck.text
    return token.group(1)


def post(url: str, token: str, part: list[dict[str, Any]]) -> dict[str, int]:
    heads = {"Authorization": f"Bearer {token}"}
    answer = requests.post(f"{url}/api/v1/readings", json={"readings": part}, headers=heads, timeout=30)
    assert answer.status_code == 200, answer.text
    return dict(answer.json())


def test_a_backup_taken_while_values_come_in_holds_every_answered_one_and_none_by_half(home: Path) -> None:
    probe = SimulatedProbe(every=timedelta(minutes=1))
    probe.measure(datetime.now(UTC) - timedelta(days=60), datetime.now(UTC))
    parts = [probe.waiting[i : i + PORTION] for i in range(0, len(probe.waiting) // PORTION * PORTION, PORTION)]
    running = Running(home)
    answered = 0
    try:
        token = settle(running.url)
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
    running = Running(home)
    try:
        told = [post(running.url, token, part) for part in parts[: after + 2]]
    finally:
        running.stop()
    held = [one["known"] for one in told]
    assert set(held) <= {0, PORTION}, "a portion was kept by half"
    assert before <= held.count(PORTION) <= after
    assert held == sorted(held, reverse=True)
