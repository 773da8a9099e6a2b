"""How long after a reading is kept the page of its place shows the new forecast: one reading, then a round of ten places.

`./run bench after`
"""

from __future__ import annotations

import re
import shutil
import statistics
import tempfile
import time
from pathlib import Path

from bench.heavy import demo_person, until_fresh
from bench.running import WAITS_S, Person, Running, reading_form

ONE_S, ROUND_S, IN_A_ROUND, LOOK_S = 3.0, 10.0, 10, 0.1
STALE = "being worked out again"


def main() -> int:
    """Print the figures; 1 where one is too long."""
    home = Path(tempfile.mkdtemp(prefix="cloche-"))
    running = Running(home, mode="demo")
    try:
        person = demo_person(running.url)
        garden = re.findall(r"/g/(\d+)/", person.session.get(running.url, timeout=WAITS_S).url)[0]
        until_fresh(running.url)
        page = person.session.get(f"{running.url}/g/{garden}/ground/", timeout=WAITS_S).text
        places = list(dict.fromkeys(re.findall(rf"/g/{garden}/places/(\d+)/", page)))[:IN_A_ROUND]
        alone = [_alone(person, garden, place) for place in places]
        until_fresh(running.url)
        begun = time.perf_counter()
        for number, place in enumerate(places):
            _read(person, garden, place, 9.0 + number / 10)
        after = [_shown_s(person, garden, place, begun) for place in places]
    finally:
        running.stop()
        shutil.rmtree(home, ignore_errors=True)
    print("| | median s | longest s | limit |\n|---|---|---|---|")
    rows = (
        (f"one reading, of {len(places)} places in turn", alone, ONE_S),
        (f"a round of {len(places)} places", after, ROUND_S),
    )
    for name, took, limit in rows:
        print(f"| {name} | {statistics.median(took):.1f} | {max(took):.1f} | {limit:.0f} |")
    return int(max(alone) > ONE_S or max(after) > ROUND_S)


def _alone(person: Person, garden: str, place: str) -> float:
    _read(person, garden, place, 8.0)
    return _shown_s(person, garden, place, time.perf_counter())


def _read(person: Person, garden: str, place: str, value_c: float) -> None:
    """As the form of the place's page sends it; a second one of the same minute lies a centimetre deeper."""
    page = f"{person.url}/g/{garden}/places/{place}/"
    form = person.session.get(page, timeout=WAITS_S).text
    filled = reading_form(form) | {"temperature": f"{value_c:g}"}
    filled["depth"] = f"{float(filled['depth']) + (value_c > 8.5):g}"
    answer = person.session.post(f"{page}readings/", filled, timeout=WAITS_S)
    if "is written down" not in answer.text:
        raise AssertionError(f"the reading was not kept: {answer.status_code}")


def _shown_s(person: Person, garden: str, place: str, begun: float) -> float:
    """Until the ground of the place is no longer said to be worked out [s after begun]."""
    while STALE in person.session.get(f"{person.url}/g/{garden}/places/{place}/ground/", timeout=WAITS_S).text:
        time.sleep(LOOK_S)
    return time.perf_counter() - begun
