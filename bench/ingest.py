"""How fast loggers' values come in, against the database's own limit, and whether any are lost when the server is."""

from __future__ import annotations

import os
import socket
import statistics
import subprocess
import sys
import threading
import time
from datetime import UTC, datetime, timedelta
from typing import Any

import requests

VALUES, PORTION = 100_000, 2_000
YEAR, LINES = 52_560, 20_000
"""Values of a logger that reads every ten minutes, and lines of CSV at a time."""
DEVICES, EACH = 20, 1_000
PATIENCE_S = 60.0
START = datetime(2022, 1, 1, tzinfo=UTC)


class Server:
    """The web as it is run, two processes on a socket of ours that outlives them."""

    def __init__(self) -> None:
        self.socket = socket.create_server(("127.0.0.1", 0), backlog=512)
        self.url = f"http://127.0.0.1:{self.socket.getsockname()[1]}"
        self.start()

    def start(self) -> None:
        """Start, and wait until it answers."""
        command = [sys.executable, "-W", "ignore", "-m", "cloche.manage", "web", "--fd", str(self.socket.fileno())]
        fds, env = (self.socket.fileno(),), os.environ | {"PYTHONWARNINGS": "ignore"}
        self.running = [subprocess.Popen(command, pass_fds=fds, env=env) for _ in range(2)]  # noqa: S603 - our own words
        for _ in range(200):
            try:
                requests.get(f"{self.url}/healthz/", timeout=1)
                return
            except requests.RequestException:
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def kill(self) -> None:
        """As if the power went: all its processes at once."""
        for process in self.running:
            process.kill()
        for process in self.running:
            process.wait()


def values(count: int, channel: str = "1") -> list[dict[str, Any]]:
    """So many values, ten minutes apart."""
    return [
        {"channel": channel, "at": (START + i * timedelta(minutes=10)).isoformat(), "temperature": 8.0 + (i % 97) / 10}
        for i in range(count)
    ]


def make_devices(count: int) -> list[str]:
    """Devices with a probe each, in a garden of their own; returns their tokens."""
    from cloche.apps.gardens.models import Garden
    from cloche.apps.loggers.flows.devices import deploy, let_device_in
    from cloche.apps.places.models import Place
    from cloche.apps.shared import clock

    garden = Garden.objects.create(name=f"Bench {clock.real_now():%H%M%S%f}", latitude_deg=48.0, longitude_deg=15.0)
    tokens = []
    for i in range(count):
        place = Place.objects.create(garden=garden, name=f"Bed {i}", walking_order=i)
        device, token = let_device_in(garden, f"Logger {i}", "C", None)
        deploy(device, "1", place, 0.05)
        tokens.append(token)
    return tokens


def bulk(server: Server) -> tuple[float, float, float]:
    """100,000 values by one device in portions: seconds, median and 95th percentile of a portion's answer [s]."""
    (token,) = make_devices(1)
    heads, taken, given = {"Authorization": f"Bearer {token}"}, [], values(VALUES)
    begun = time.perf_counter()
    for start in range(0, VALUES, PORTION):
        sent = time.perf_counter()
        answer = requests.post(
            f"{server.url}/api/v1/readings", json={"readings": given[start : start + PORTION]}, headers=heads, timeout=60
        )
        answer.raise_for_status()
        assert answer.json()["kept"] == PORTION
        taken.append(time.perf_counter() - sent)
    cut = statistics.quantiles(taken, n=20)
    return time.perf_counter() - begun, statistics.median(taken), cut[-1]


def by_csv(server: Server) -> float:
    """A year of a logger as CSV, as many lines at a time as are accepted: seconds."""
    (token,) = make_devices(1)
    heads, taken = {"Authorization": f"Bearer {token}", "Content-Type": "text/csv"}, 0
    lines = [f"{value['at']},{value['channel']},{value['temperature']}" for value in values(YEAR)]
    begun = time.perf_counter()
    for start in range(0, YEAR, LINES):
        body = "\n".join(["at,channel,temperature", *lines[start : start + LINES]])
        answer = requests.post(f"{server.url}/api/v1/readings.csv", data=body, headers=heads, timeout=60)
        answer.raise_for_status()
        taken += answer.json()["kept"]
    assert taken == YEAR
    return time.perf_counter() - begun


def copy() -> tuple[float, float]:
    """The same rows by COPY into the same table [s], and bytes a reading that table and index take."""
    from django.db import connection

    from cloche.apps.loggers.models import Probe

    make_devices(1)
    probe = Probe.objects.latest("pk").pk
    rows = [(START + i * timedelta(minutes=10), probe, 8.0 + (i % 97) / 10, 0, 0) for i in range(VALUES)]
    begun = time.perf_counter()
    with (
        connection.cursor() as cursor,
        cursor.copy("COPY loggers_reading (at, probe_id, temperature_c, shift_s, fault) FROM STDIN") as pipe,
    ):
        for row in rows:
            pipe.write_row(row)
    took = time.perf_counter() - begun
    return took, bytes_a_reading()


def bytes_a_reading() -> float:
    """Of all partitions with their indexes, after a vacuum."""
    from django.db import connection

    with connection.cursor() as cursor:
        cursor.execute("VACUUM ANALYZE loggers_reading")
        cursor.execute(
            "SELECT sum(pg_total_relation_size(inhrelid)) FROM pg_inherits WHERE inhparent = 'loggers_reading'::regclass"
        )
        size = cursor.fetchone()[0]
        cursor.execute("SELECT count(*) FROM loggers_reading")
        return float(size) / float(cursor.fetchone()[0])


def storm(server: Server, devices: int = DEVICES, each: int = EACH) -> tuple[float, int, int]:
    """Many devices at once, the server killed and started again in the middle: seconds, values lost, hours wrongly summed."""
    from django.db import connection

    from cloche.apps.loggers.models import Device, LoggedReading

    tokens = make_devices(devices)
    garden = Device.objects.latest("pk").garden
    threads = [threading.Thread(target=_device, args=(server, token, each)) for token in tokens]
    begun = time.perf_counter()
    for thread in threads:
        thread.start()
    while LoggedReading.objects.filter(probe__place__garden=garden).count() < devices * each / 3:
        if time.perf_counter() - begun > PATIENCE_S:
            raise RuntimeError("nothing comes in")
        time.sleep(0.02)
    server.kill()
    server.start()
    for thread in threads:
        thread.join()
    took = time.perf_counter() - begun
    lost = devices * each - LoggedReading.objects.filter(probe__place__garden=garden).count()
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT count(*) FROM (SELECT probe_id, date_trunc('hour', at, 'UTC') h, count(*) n "
            "FROM loggers_reading GROUP BY 1, 2) r "
            "FULL JOIN loggers_hour s ON s.probe_id = r.probe_id AND s.hour = r.h "
            "JOIN loggers_probe p ON p.id = coalesce(r.probe_id, s.probe_id) JOIN places_place g ON g.id = p.place_id "
            "WHERE g.garden_id = %s AND r.n IS DISTINCT FROM s.number",
            [garden.pk],
        )
        wrong = cursor.fetchone()[0]
    return took, lost, wrong


def _device(server: Server, token: str, count: int) -> None:
    """A simulated probe that keeps what was not answered and sends it again."""
    from cloche.apps.shared import clock
    from cloche.demo.probe import SimulatedProbe, by_http

    probe = SimulatedProbe()
    probe.measure(START, START + count * timedelta(minutes=10))
    way = by_http(server.url, token)
    while not probe.send(way, clock.now(), batch=50):
        time.sleep(0.2)


def main() -> int:
    """Print the figures; exit 1 when anything is lost or doubled."""
    from django.core.management import call_command

    call_command("ready", verbosity=0)
    server = Server()
    try:
        took, median, p95 = bulk(server)
        year = by_csv(server)
        limit, size = copy()
        print("| | values/s | median of a portion ms | p95 ms |\n|---|---|---|---|")
        print(f"| HTTP, portions of {PORTION} | {VALUES / took:,.0f} | {median * 1000:.0f} | {p95 * 1000:.0f} |")
        print(f"| a year as CSV, {LINES} lines at a time | {YEAR / year:,.0f} | | |")
        print(f"| COPY into the same table | {VALUES / limit:,.0f} | | |")
        print(f"\nStorage: {size:.0f} bytes a reading, index included")
        took, lost, wrong = storm(server)
        print(f"\n{DEVICES} devices at once, {EACH} values each, server killed in the middle: {took:.1f} s, ", end="")
        print(f"{lost} lost or doubled, {wrong} hours wrongly summed")
    finally:
        server.kill()
    return 1 if lost or wrong else 0
