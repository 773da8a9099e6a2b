"""Ten minutes of bad luck: readings by HTTP, by MQTT and from two browsers, while parts are killed, the disk fills and the
network drops; then rest. What was acknowledged must be there once, and every place must come to a fresh forecast.

`./run bench faults [MINUTES [SEED]]`
"""

from __future__ import annotations

import contextlib
import os
import random
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from uuid import uuid4

import psycopg
import requests

from bench.running import CHROMIUM, Person, Running
from bench.wire import Wire
from cloche.supervisor.ports import free_port

MINUTES, SEED = 10.0, 7
PAUSE_S = (3.0, 9.0)
"""Between two faults."""
PLACES, HTTP_DEVICES, MQTT_DEVICES, BROWSERS = 6, 4, 2, 2
HEALTH_S, REST_S = 5.0, 240.0
"""How long a health check may take; how long after the last fault all must be fresh."""
START = datetime(2026, 11, 1, tzinfo=UTC)


class Storm:
    """The application in a storm, what was sent to it, and what it acknowledged."""

    def __init__(self, minutes: float, seed: int) -> None:
        self.random, self.minutes = random.Random(seed), minutes  # noqa: S311 - luck, no secret
        self.home = Path(tempfile.mkdtemp(prefix="cloche-"))
        self.small = os.geteuid() == 0 and _mount(self.home)
        self.broker_port, self.weather_port = free_port(), free_port()
        self.broker = self._broker()
        self.weather = self._weather()
        given = {"CLOCHE_MQTT_URL": f"mqtt://127.0.0.1:{self.broker_port}", "CLOCHE_LEAST_FREE_MB": "60"}
        given["CLOCHE_WEATHER_URL"] = f"http://127.0.0.1:{self.weather_port}"
        self.running = Running(self.home, **given)
        self.wire = Wire("127.0.0.1", self.running.port)
        self.tokens, self.garden, self.bed_ids = _settle(self.running.url)
        self.ending = threading.Event()
        self.sent: Counter[str] = Counter()
        self.acknowledged: dict[str, list[datetime]] = {token: [] for token in self.tokens}
        self.stops: list[str] = []
        self.faults: Counter[str] = Counter()
        self.health: Counter[str] = Counter()

    def _broker(self) -> subprocess.Popen[bytes]:
        folder = Path(tempfile.mkdtemp(prefix="cloche-broker-"))
        folder.chmod(0o777)
        given = folder / "mosquitto.conf"
        given.write_text(
            f"listener {self.broker_port} 127.0.0.1\nallow_anonymous true\npersistence true\npersistence_location {folder}/\n"
            "max_queued_messages 0\n"
        )
        tool = shutil.which("mosquitto", path="/usr/sbin:/usr/bin") or "mosquitto"
        return subprocess.Popen([tool, "-c", str(given)], stderr=subprocess.DEVNULL)  # noqa: S603 - our own words

    def _weather(self) -> subprocess.Popen[bytes]:
        command = [sys.executable, "-W", "ignore", "-m", "cloche.demo.weather_service", "--port", str(self.weather_port)]
        return subprocess.Popen(command, stderr=subprocess.DEVNULL, stdout=subprocess.DEVNULL)  # noqa: S603

    # Who sends

    def by_http(self, number: int) -> None:
        """A device that sends a few values at a time, and again until they are answered."""
        token, at = self.tokens[number], 0
        while not self.ending.is_set():
            part = [START + timedelta(minutes=at + n) for n in range(5)]
            if self._post(token, part):
                self.acknowledged[token] += part
                at += 5
                self.sent["http"] += 5
            self.ending.wait(0.4)

    def _post(self, token: str, part: list[datetime]) -> bool:
        values: Any = [{"temperature": 9.5, "at": at.isoformat()} for at in part]
        heads = {"Authorization": f"Bearer {token}"}
        try:
            answer = requests.post(f"{self.wire.url}/api/v1/readings", json={"readings": values}, headers=heads, timeout=20)
            return answer.status_code == 200 and not answer.json()["refused"]
        except (requests.RequestException, ValueError):
            return False

    def by_mqtt(self, number: int) -> None:
        """A device behind the broker; what the broker has acknowledged must come in in the end."""
        from cloche.demo.probe import ByMqtt

        token, at = self.tokens[number], 0
        way = ByMqtt(f"mqtt://127.0.0.1:{self.broker_port}", token)
        while not self.ending.is_set():
            part = [START + timedelta(minutes=at + n) for n in range(5)]
            if way({"readings": [{"temperature": 9.5, "at": at.isoformat()} for at in part]}):
                self.acknowledged[token] += part
                at += 5
                self.sent["mqtt"] += 5
            self.ending.wait(0.4)
        way.close()

    def by_browser(self, number: int) -> None:
        """Somebody who walks round and round, with a phone that keeps what it could not send."""
        from playwright.sync_api import Error, sync_playwright

        with sync_playwright() as play:
            browser = play.chromium.launch(executable_path=CHROMIUM, args=["--no-sandbox", "--disable-gpu"])
            page = browser.new_page()
            while not self.ending.is_set() and not _signed_in(page, self.wire.url):
                self.ending.wait(1)
            while not self.ending.is_set():
                key = str(uuid4())
                with contextlib.suppress(Error):
                    page.evaluate(PUT, self._stop(key, number))
                    self.stops.append(key)
                self.ending.wait(1.5)
            self._empty(page)
            browser.close()

    def _stop(self, key: str, number: int) -> dict[str, Any]:
        bed = self.random.choice(self.bed_ids)
        minute = len(self.stops) * BROWSERS + number
        at = (START - timedelta(days=40) + timedelta(minutes=minute)).isoformat()
        entry = {"key": key, "place": str(bed), "temperature": "9.5", "at": at, "degree": "C", "length": "cm"}
        given = {"key": key, "garden": int(self.garden), "person": "rowan", "place": bed, "placeName": "Bed", "at": at}
        return given | {"state": "waiting", "message": "", "entry": entry}

    def _empty(self, page: Any) -> None:
        """The storm is over: what still waits on the device is sent."""
        from playwright.sync_api import Error

        for _ in range(60):
            with contextlib.suppress(Error):
                page.goto(f"{self.wire.url}/g/{self.garden}/ground/", timeout=20_000)
                if page.evaluate("clocheWaiting.send().then(() => clocheWaiting.all()).then((all) => all.length)") == 0:
                    return
            time.sleep(2)

    # What goes wrong

    def kill(self, what: str, how: signal.Signals = signal.SIGKILL) -> None:
        """One process of a part."""
        pids = self.running.parts(what)
        if pids:
            with contextlib.suppress(ProcessLookupError):
                os.kill(pids[0] if "postgres" in what else self.random.choice(pids), how)

    def kill_weather(self) -> None:
        """Away for some seconds."""
        self.weather.kill()
        self.weather.wait()
        self.ending.wait(4)
        self.weather = self._weather()

    def fill_the_disk(self) -> None:
        """To the last byte, for some seconds."""
        filler = self.home / "filler"
        with contextlib.suppress(OSError), filler.open("wb") as out:
            while True:
                out.write(b"\0" * 1_000_000)
                out.flush()
        self.ending.wait(8)
        filler.unlink(missing_ok=True)

    def drop_the_network(self) -> None:
        """For some seconds."""
        self.wire.cut()
        self.ending.wait(5)
        self.wire.mend()

    def bad_luck(self) -> None:
        """One fault after another until the time is over."""
        faults: dict[str, Callable[[], None]] = {
            f"kill -9 {what}": lambda what=what: self.kill(what)  # type: ignore[misc]
            for what in ("manage web", "manage work", "manage listen", "bin/postgres -D")
        }
        faults |= {
            f"TERM {what}": lambda what=what: self.kill(what, signal.SIGTERM)  # type: ignore[misc]
            for what in ("manage web", "manage work", "manage listen", "bin/postgres -D")
        }
        faults |= {"kill -9 weather": self.kill_weather, "network dropped": self.drop_the_network}
        if self.small:
            faults["disk full"] = self.fill_the_disk
        end, order = time.monotonic() + self.minutes * 60, list[str]()
        while time.monotonic() < end:
            if not order:
                order = self.random.sample(sorted(faults), len(faults))
            name = order.pop()
            faults[name]()
            self.faults[name] += 1
            self.ending.wait(self.random.uniform(*PAUSE_S))

    def ask_health(self) -> None:
        """Twice a second: is it alive? A caller waits while a part is started again; nobody is refused."""
        while not self.ending.is_set():
            try:
                answer = requests.get(f"{self.running.url}/healthz/", timeout=HEALTH_S)
                self.health["answered" if answer.status_code == 200 else str(answer.status_code)] += 1
            except requests.RequestException as lost:
                self.health[type(lost).__name__] += 1
            self.ending.wait(0.5)

    # What came of it

    def rest(self) -> float:
        """Until every place is fresh and nothing waits; returns how long it took [s], or infinity."""
        begun = time.monotonic()
        while time.monotonic() - begun < REST_S:
            with contextlib.suppress(requests.RequestException, ValueError):
                given = requests.get(f"{self.running.url}/readyz/", timeout=20).json()["checks"]
                if given["forecasts"]["stale"] == 0 and given["queue"]["waiting"] + given["queue"]["doing"] == 0:
                    return time.monotonic() - begun
            time.sleep(1)
        return float("inf")

    def count(self) -> dict[str, int]:
        """By the database itself."""
        with self._database() as connection:
            ask = connection.execute
            kept = {(row[0], row[1]) for row in ask(KEPT).fetchall()}
            visits = {str(row[0]) for row in ask("SELECT key FROM readings_visit").fetchall()}
            twice = sum(ask(query).fetchone()[0] for query in TWICE)  # type: ignore[index]
            stuck = ask("SELECT count(*) FROM procrastinate_jobs").fetchone()
            aside = ask("SELECT count(*) FROM loggers_refusedmessage").fetchone()
        names = {token: f"Logger {n}" for n, token in enumerate(self.tokens)}
        wanted = {(names[token], at) for token, times in self.acknowledged.items() for at in times}
        missing = len(wanted - kept) + len(set(self.stops) - visits)
        counts = {"acknowledged": len(wanted) + len(self.stops), "missing": missing, "twice": twice}
        return counts | {"jobs left": stuck[0] if stuck else 0, "kept aside": aside[0] if aside else 0}

    @contextlib.contextmanager
    def _database(self) -> Iterator[psycopg.Connection[Any]]:
        own = self.home / "own"
        port, password = (own / "port").read_text(), (own / "db" / "password").read_text().strip()
        with psycopg.connect(host="127.0.0.1", port=port, user="cloche", dbname="cloche", password=password) as connection:
            yield connection

    def memory(self) -> dict[str, float]:
        """The most that a process of each part has taken so far [MB]."""
        figures: dict[str, float] = {}
        for what in ("manage web", "manage work", "manage listen"):
            for pid in self.running.parts(what):
                with contextlib.suppress(OSError):
                    given = Path(f"/proc/{pid}/status").read_text().split("VmHWM:")[1].split()[0]
                    figures[what] = max(figures.get(what, 0.0), int(given) / 1000)
        return figures

    def close(self) -> None:
        """Leave nothing behind."""
        self.ending.set()
        self.running.stop()
        for process in (self.broker, self.weather):
            process.kill()
            process.wait()
        self.wire.close()
        if self.small:
            subprocess.run(["umount", "-l", str(self.home)], check=False)  # noqa: S603, S607
        shutil.rmtree(self.home, ignore_errors=True)


PUT = "async (stop) => { await clocheWaiting.put(stop); clocheWaiting.send(); }"
KEPT = """
SELECT d.name, r.at FROM loggers_reading r JOIN loggers_probe p ON p.id = r.probe_id JOIN loggers_device d ON d.id = p.device_id
"""
TWICE = (
    "SELECT count(*) FROM (SELECT 1 FROM readings_reading WHERE removed_at IS NULL "
    "GROUP BY place_id, taken_at, depth_m HAVING count(*) > 1) AS doubled",
    "SELECT count(*) FROM (SELECT probe_id, date_trunc('hour', at, 'UTC') AS hour, count(*) AS n FROM loggers_reading "
    "GROUP BY 1, 2) AS r FULL JOIN loggers_hour AS s ON s.probe_id = r.probe_id AND s.hour = r.hour "
    "WHERE r.n IS DISTINCT FROM s.number",
)


def _mount(home: Path) -> bool:
    words = ["mount", "-t", "tmpfs", "-o", "size=700m", "tmpfs", str(home)]
    return subprocess.run(words, check=False, stderr=subprocess.DEVNULL).returncode == 0  # noqa: S603 - our own words


def _signed_in(page: Any, url: str) -> bool:
    from playwright.sync_api import Error

    try:
        page.goto(f"{url}/sign-in/", timeout=10_000)
        page.get_by_label("Name").fill("rowan")
        page.get_by_label("Password").fill("spade-and-fork")
        page.keyboard.press("Enter")
        page.wait_for_url("**/g/**", timeout=20_000)
    except Error:
        return False
    return True


def _settle(url: str) -> tuple[list[str], str, list[int]]:
    """Somebody new with a garden, its beds, and a logger in each; returns tokens, the garden and the beds."""
    person = Person(url)
    garden = person.settle()
    beds = [person.bed(garden, f"Bed {n}") for n in range(PLACES)]
    tokens = [person.logger(garden, f"Logger {n}", bed) for n, bed in enumerate(beds)]
    return tokens, garden, beds


def main(minutes: float = MINUTES, seed: float = SEED) -> int:
    """Print the table; 1 where anything is missing, twice or stuck."""
    storm = Storm(minutes, int(seed))
    senders = [threading.Thread(target=storm.by_http, args=(n,)) for n in range(HTTP_DEVICES)]
    senders += [threading.Thread(target=storm.by_mqtt, args=(HTTP_DEVICES + n,)) for n in range(MQTT_DEVICES)]
    browsers = [threading.Thread(target=storm.by_browser, args=(n,)) for n in range(BROWSERS)]
    watching = threading.Thread(target=storm.ask_health)
    try:
        for thread in (*senders, *browsers, watching):
            thread.start()
        storm.bad_luck()
        storm.ending.set()
        for thread in (*senders, watching, *browsers):
            thread.join(180)
        rested = storm.rest()
        counts, memory = storm.count(), storm.memory()
    finally:
        storm.close()
    unanswered = sum(count for name, count in storm.health.items() if name != "answered")
    print(f"{minutes:g} minutes, seed {seed:g}: {sum(storm.faults.values())} faults\n\n| fault | times |\n|---|---|")
    for name, times in sorted(storm.faults.items()):
        print(f"| {name} | {times} |")
    if not storm.small:
        print("| disk full | not tried: no right to mount a small disk |")
    sent = f"{storm.sent['http']}, {storm.sent['mqtt']}, {len(storm.stops)}"
    print(f"\n| | |\n|---|---|\n| sent by HTTP, by MQTT, from browsers | {sent} |")
    for name, value in counts.items():
        print(f"| {name} | {value} |")
    stuck = rested == float("inf")
    print(f"| stuck places | {'some' if stuck else 0} |\n| all fresh after the last fault, s | {rested:.0f} |")
    print(f"| health checks answered, unanswered | {storm.health['answered']}, {unanswered} {dict(storm.health)} |")
    print(f"| most memory of a process, MB | {', '.join(f'{k} {v:.0f}' for k, v in memory.items())} |")
    return 1 if counts["missing"] or counts["twice"] or stuck else 0
