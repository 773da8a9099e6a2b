"""Growers on their morning's round, and loggers that send meanwhile: what took how long, and what was answered for."""

from __future__ import annotations

import threading
import time
from collections import defaultdict
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta
from itertools import count, cycle
from typing import Any, Self

import requests

from bench.made_up import LOGGED, PASSWORD
from bench.running import Person, reading_form

AT_ONCE, PAUSE_S, PATIENCE_S, AGAIN = 4, 0.2, 5.0, 50
"""Growers; between two messages, until one is given up [s]; how often each is sent: a value that is known asks for no work, and
shows as well as a new one whether it is answered for."""
BEGIN = datetime(2026, 1, 1, tzinfo=UTC)


class Morning:
    """Several growers at once, each of whom signs in, looks at Today and walks the beds of one garden."""

    def __init__(self, url: str, gardens: list[dict[str, Any]]) -> None:
        self.url, self.gardens = url, gardens
        self.took_ms: dict[str, list[float]] = defaultdict(list)
        self.answered: list[tuple[int, float]] = []
        """Places, and what was read there [°C]: no two are alike."""
        self.values = count(400)

    def run(self, seconds: float) -> None:
        """Until so long is over and the rounds begun are ended."""
        end = time.monotonic() + seconds
        waiting = iter(self.gardens)
        lock = threading.Lock()

        def walk() -> None:
            while time.monotonic() < end:
                with lock:
                    garden = next(waiting, None)
                if garden is None:
                    return
                self._round(garden)

        with ThreadPoolExecutor(AT_ONCE) as growers:
            for walked in [growers.submit(walk) for _ in range(AT_ONCE)]:
                walked.result()

    def _round(self, garden: dict[str, Any]) -> None:
        person = Person(self.url)
        person.send("/sign-in/", username=garden["name"], password=PASSWORD)
        person.session.headers["Referer"] = self.url
        root = f"/g/{garden['garden']}"
        self._look(person, "Today", f"{root}/")
        for place in garden["places"]:
            form = self._look(person, "a place", f"{root}/places/{place}/")
            value = next(self.values) / 100
            typed = reading_form(form) | {"temperature": f"{value:.2f}"}
            begun = time.perf_counter()
            answer = person.session.post(f"{self.url}{root}/places/{place}/readings/", typed, timeout=60)
            self.took_ms["a reading kept"].append(1000 * (time.perf_counter() - begun))
            if "is written down" not in answer.text:
                raise AssertionError(f"the reading was not kept: {answer.status_code}")
            self.answered.append((place, value))
        self._look(person, "the garden's ground", f"{root}/ground/")

    def _look(self, person: Person, name: str, path: str) -> str:
        begun = time.perf_counter()
        answer = person.session.get(self.url + path, timeout=60)
        self.took_ms[name].append(1000 * (time.perf_counter() - begun))
        answer.raise_for_status()
        return answer.text


class Sending:
    """A logger after another sends a value, again and again until it is answered for."""

    def __init__(self, url: str, gardens: list[dict[str, Any]]) -> None:
        self.url, self.gardens = url, gardens
        self.answered: list[tuple[int, str]] = []
        """Places, and the instants that were answered for."""
        self.longest_s = 0.0
        self.ending = threading.Event()
        self.thread = threading.Thread(target=self._run)

    def __enter__(self) -> Self:
        self.thread.start()
        return self

    def __exit__(self, *_: object) -> None:
        self.ending.set()
        self.thread.join()

    def _run(self) -> None:
        last = time.monotonic()
        senders = (garden for garden in cycle(self.gardens) for _ in range(AGAIN))
        for number, garden in enumerate(senders):
            number //= AGAIN
            at = (BEGIN + timedelta(minutes=number)).isoformat()
            body = {"readings": [{"channel": LOGGED, "temperature": 8.0 + number % 7 / 10, "at": at}]}
            while not self._sent(garden["token"], body):
                if self.ending.is_set():
                    return
                time.sleep(PAUSE_S)
            self.longest_s, last = max(self.longest_s, time.monotonic() - last), time.monotonic()
            self.answered.append((garden["places"][0], at))
            if self.ending.wait(PAUSE_S):
                return

    def _sent(self, token: str, body: dict[str, Any]) -> bool:
        """Whether it is answered for. A fault of what was sent ends all."""
        try:
            heads = {"Authorization": f"Bearer {token}"}
            answer = requests.post(f"{self.url}/api/v1/readings", json=body, headers=heads, timeout=PATIENCE_S)
        except requests.RequestException:
            return False
        if 400 <= answer.status_code < 500 and answer.status_code != 429:
            raise AssertionError(f"refused: {answer.status_code} {answer.text[:300]}")
        return answer.status_code == 200
