"""A simulated logger: it measures a soil that does not exist, keeps what was not answered, and speaks HTTP or MQTT.

`python -m cloche.demo.probe --url http://127.0.0.1:8000 --token T --days 2 --faults`
"""

from __future__ import annotations

import argparse
import json
import math
import random
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any
from urllib.parse import urlsplit

import requests

FAILS = ("", "stuck", "dead", "flat")
"""How a simulated thermostat can fail: it never stops, it never heats, its probe lies outside the mix."""
Send = Callable[[dict[str, Any]], bool]
BATCH = 2000
TRAY_FOLLOWS = timedelta(hours=3)
FAULTS = (-127.0, 85.0)


@dataclass
class SimulatedThermostat:
    """A tray on a heater with a thermostat.

    `start_c` and `stop_c` are its limits, `room_c` the air (a little warmer by day), `lift_k` the rise with the heat always
    on, `fails` one of FAILS from a time on.
    """

    start_c: float = 20.0
    stop_c: float = 23.0
    room_c: float = 16.0
    lift_k: float = 9.0
    fails: str = ""
    fails_at: datetime | None = None
    soil_c: float = 20.0
    on: bool = True

    def at(self, when: datetime, after: timedelta) -> float:
        """Return the tray's temperature some time after the last call."""
        failed = self.fails if self.fails_at is None or when >= self.fails_at else ""
        if failed == "flat":
            return self.room_c
        self.on = self.soil_c < self.start_c or (self.on and self.soil_c <= self.stop_c)
        heated = failed == "stuck" or (self.on and failed != "dead")
        room = self.room_c + 1.5 * math.sin(2 * math.pi * (when.hour - 11) / 24)
        towards = room + self.lift_k * heated
        self.soil_c += (towards - self.soil_c) * (1 - math.exp(-after / TRAY_FOLLOWS))
        return self.soil_c


@dataclass
class SimulatedProbe:
    """A simulated logger.

    `every` is its interval, `ahead` the error of its clock, and `faults` the share of invalid values.
    """

    channel: str = "1"
    every: timedelta = timedelta(minutes=10)
    ahead: timedelta = timedelta(0)
    faults: float = 0.0
    seed: int = 1
    thermostat: SimulatedThermostat | None = None
    waiting: list[dict[str, Any]] = field(default_factory=list)

    def measure(self, start: datetime, end: datetime) -> int:
        """Measure a period and queue the values; return how many."""
        before = len(self.waiting)
        self.waiting += list(self._values(start, end))
        return len(self.waiting) - before

    def _values(self, start: datetime, end: datetime) -> Iterator[dict[str, Any]]:
        chance = random.Random(self.seed)  # noqa: S311 - made-up soil
        at = start
        while at < end:
            odd = chance.random()
            soil = self.thermostat.at(at, self.every) if self.thermostat else self._soil(at)
            value = chance.choice(FAULTS) if odd < self.faults else soil + chance.gauss(0, 0.06)
            yield {"channel": self.channel, "at": (at + self.ahead).isoformat(), "temperature": round(value, 2)}
            at += self.every

    @staticmethod
    def _soil(at: datetime) -> float:
        """Return soil temperature from a yearly and a daily wave."""
        day = at.timetuple().tm_yday + at.hour / 24
        return 10.0 + 8.0 * math.sin(2 * math.pi * (day - 115) / 365) + 2.0 * math.sin(2 * math.pi * (at.hour - 11) / 24)

    def send(self, way: Send, now: datetime, batch: int = BATCH) -> bool:
        """Send queued values, oldest first, and return whether the queue is empty."""
        while self.waiting:
            part = self.waiting[:batch]
            if not way({"readings": part, "sent_at": (now + self.ahead).isoformat()}):
                return False
            del self.waiting[: len(part)]
        return True


def by_http(url: str, token: str, timeout_s: float = 20.0) -> Send:
    """Return a sender over HTTP; any answer but 200 counts as none."""

    def way(words: dict[str, Any]) -> bool:
        heading = {"Authorization": f"Bearer {token}"}
        try:
            answer = requests.post(f"{url}/api/v1/readings", json=words, headers=heading, timeout=timeout_s)
        except requests.RequestException:
            return False
        return answer.status_code == 200

    return way


class ByMqtt:
    """Sender through a broker, whose acknowledgement is the answer."""

    def __init__(self, url: str, token: str, timeout_s: float = 20.0) -> None:
        from paho.mqtt import client as mqtt

        parts = urlsplit(url)
        self.token, self.timeout_s = token, timeout_s
        self.client = mqtt.Client(mqtt.CallbackAPIVersion.VERSION2)
        if parts.username:
            self.client.username_pw_set(parts.username, parts.password)
        self.client.connect(parts.hostname or "127.0.0.1", parts.port or 1883)
        self.client.loop_start()

    def __call__(self, words: dict[str, Any]) -> bool:
        """Publish and wait for the broker."""
        published = self.client.publish("cloche/readings", json.dumps(words | {"token": self.token}), qos=1)
        try:
            published.wait_for_publish(self.timeout_s)
        except (ValueError, RuntimeError):
            return False
        return published.is_published()

    def close(self) -> None:
        """Disconnect from the broker."""
        self.client.disconnect()
        self.client.loop_stop()


def main() -> None:
    """Measure and send once or forever."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--url", default="http://127.0.0.1:8000", help="http://… or mqtt://…")
    parser.add_argument("--token", required=True)
    parser.add_argument("--channel", default="1")
    parser.add_argument("--every", type=float, default=600.0, help="seconds")
    parser.add_argument("--days", type=float, default=0.0, help="what it already holds")
    parser.add_argument("--ahead", type=float, default=0.0, help="seconds that its clock runs ahead")
    parser.add_argument("--faults", action="store_true", help="one value in fifty is a fault's code")
    parser.add_argument("--thermostat", action="store_true", help="a tray on a heater that is held between 20 and 23 °C")
    parser.add_argument("--fails", choices=FAILS, default="", help="how its controller fails, from now on")
    parser.add_argument("--once", action="store_true")
    args = parser.parse_args()
    every, ahead = timedelta(seconds=args.every), timedelta(seconds=args.ahead)
    tray = SimulatedThermostat(fails=args.fails, fails_at=_now()) if args.thermostat or args.fails else None
    probe = SimulatedProbe(args.channel, every, ahead, 0.02 if args.faults else 0.0, thermostat=tray)
    way: Send = (ByMqtt if args.url.startswith("mqtt") else by_http)(args.url, args.token)
    at = _now() - timedelta(days=args.days)
    while True:
        probe.measure(at, _now())
        at = max(at, _now())
        if not probe.send(way, _now()):
            print(f"{len(probe.waiting)} values wait")  # noqa: T201 - a program of its own
        if args.once:
            return
        time.sleep(args.every)


def _now() -> datetime:
    return datetime.now(UTC)


if __name__ == "__main__":
    main()
