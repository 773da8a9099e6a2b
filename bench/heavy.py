"""Eight heavy questions at once: what light pages and the loggers' API take meanwhile.

`./run bench heavy [SECONDS]`
"""

from __future__ import annotations

import re
import shutil
import statistics
import tempfile
import threading
import time
from collections import Counter
from pathlib import Path
from typing import Any

import requests

from bench.running import Person, Running

SECONDS, ASKING, OPENED = 40.0, 8, 6
LIGHT_MS, API_MS = 500.0, 1000.0
LIGHT = ("today", "ground/", "weather/", "garden/", "sowings/", "healthz")


class Asking:
    """Somebody who asks heavy questions one after another."""

    def __init__(self, person: Person, garden: str, covers: list[str], beds: list[str], ending: threading.Event) -> None:
        self.person, self.garden, self.covers, self.beds, self.ending = person, garden, covers, beds, ending
        self.answers: Counter[str] = Counter()

    def run(self, number: int) -> None:
        """Half of them where a cover buys most, half what each cover would buy on a bed."""
        turn = 0
        while not self.ending.is_set():
            turn += 1
            if number % 2:
                path = f"/g/{self.garden}/covers/mine/{self.covers[(turn + number) % len(self.covers)]}/where/"
            else:
                bed = self.beds[(turn + number) % len(self.beds)]
                path = f"/g/{self.garden}/covers/?place={bed}&on={self.on}&warm=14&crop=carrot"
            answer = self.person.session.get(self.person.url + path, headers={"HX-Request": "true"}, timeout=120)
            waiting = "still to come" in answer.text or "another question" in answer.text
            self.answers["asked again in a moment" if waiting else str(answer.status_code)] += 1
            self.ending.wait(2 if waiting else 0.1)

    on = ""


def main(seconds: float = SECONDS) -> int:
    """Print the table; 1 where a light page or the API took too long."""
    home = Path(tempfile.mkdtemp(prefix="cloche-"))
    running = Running(home, mode="demo")
    try:
        figures, answers = _storm(running, seconds)
    finally:
        running.stop()
        shutil.rmtree(home, ignore_errors=True)
    print(f"{ASKING} heavy questions at once for {seconds:.0f} s: {dict(answers)}\n")
    print("| | answers | median ms | 95th percentile | longest | limit |\n|---|---|---|---|---|---|")
    slow = False
    for name, given in figures.items():
        limit = API_MS if name == "loggers' API" else LIGHT_MS
        p95 = statistics.quantiles(given, n=20)[-1]
        slow |= max(given) > limit
        print(f"| {name} | {len(given)} | {statistics.median(given):.0f} | {p95:.0f} | {max(given):.0f} | {limit:.0f} |")
    return int(slow)


def _storm(running: Running, seconds: float) -> tuple[dict[str, list[float]], Counter[str]]:
    person = demo_person(running.url)
    garden = _matched(r"/g/(\d+)/", person.session.get(running.url, timeout=60).url)
    until_fresh(running.url)
    covers = re.findall(
        rf"/g/{garden}/covers/mine/(\d+)/where/", person.session.get(f"{running.url}/g/{garden}/covers/mine/").text
    )
    form = person.session.get(f"{running.url}/g/{garden}/covers/", timeout=60).text
    beds = re.findall(r'<option value="(\d+)"', form.split('name="place"')[1].split("</select>")[0])
    Asking.on = _matched(r'name="on" value="([^"]+)"', form)
    token = person.logger(garden, "Bench", int(beds[0]))
    for _ in range(OPENED):
        # Both web processes have read what pages show: the first view after a start is another question.
        for page in LIGHT:
            person.session.get(_address(running.url, garden, page), timeout=60)
    ending, asking = threading.Event(), list[Asking]()
    threads = []
    for number in range(ASKING):
        asker = Asking(demo_person(running.url), garden, sorted(set(covers)), beds, ending)
        asking.append(asker)
        threads.append(threading.Thread(target=asker.run, args=(number,)))
    for thread in threads:
        thread.start()
    figures = _measure(person, garden, token, seconds)
    ending.set()
    for thread in threads:
        thread.join()
    return figures, sum((asker.answers for asker in asking), Counter[str]())


def _measure(person: Person, garden: str, token: str, seconds: float) -> dict[str, list[float]]:
    times: dict[str, list[float]] = {"light pages": [], "loggers' API": []}
    end, turn = time.monotonic() + seconds, 0
    while time.monotonic() < end:
        page = LIGHT[turn % len(LIGHT)]
        address = _address(person.url, garden, page)
        taken = _ms(lambda address=address: person.session.get(address, timeout=60))  # type: ignore[misc]
        times["light pages"].append(taken)
        times.setdefault(f"of them {page.strip('/')}", []).append(taken)
        times["loggers' API"].append(_ms(lambda turn=turn: _value(person.url, token, turn)))  # type: ignore[misc]
        turn += 1
        time.sleep(0.1)
    return times


def _address(url: str, garden: str, page: str) -> str:
    return url + ("/healthz/" if page == "healthz" else f"/g/{garden}/" + ("" if page == "today" else page))


def _value(url: str, token: str, turn: int) -> requests.Response:
    values: Any = {
        "readings": [{"temperature": 9.5, "at": f"2025-01-{turn // 1440 + 1:02}T{turn // 60 % 24:02}:{turn % 60:02}:00Z"}]
    }
    heads = {"Authorization": f"Bearer {token}"}
    return requests.post(f"{url}/api/v1/readings", json=values, headers=heads, timeout=60)


def _ms(ask: object) -> float:
    begun = time.perf_counter()
    answer: requests.Response = ask()  # type: ignore[operator]
    answer.raise_for_status()
    return (time.perf_counter() - begun) * 1000


def demo_person(url: str) -> Person:
    """Somebody who has signed in to the demo."""
    person = Person(url)
    person.send("/sign-in/", username="demo", password="demo-garden")  # noqa: S106 - what the demo says on its screen
    person.session.headers["Referer"] = url
    return person


def until_fresh(url: str) -> None:
    """Wait, three minutes at most, until every forecast is fresh and nothing is queued."""
    for _ in range(180):
        given = requests.get(f"{url}/readyz/", timeout=60).json()["checks"]
        if given["forecasts"]["stale"] == 0 and given["queue"]["waiting"] == 0:
            return
        time.sleep(1)


def _matched(pattern: str, text: str) -> str:
    match = re.search(pattern, text)
    assert match is not None, pattern
    return match.group(1)
