"""A hundred thousand requests that nobody means, over all addresses: forms, files, the loggers' API, the broker. Never a
fault of our own, never a process lost, never more memory than is stated. Repeatable by its seed.

`./run bench fuzz [COUNT [SEED]]`
"""

from __future__ import annotations

import contextlib
import io
import json
import multiprocessing
import os
import re
import shutil
import subprocess
import tempfile
import time
import zipfile
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from typing import Any

import requests
from hypothesis import HealthCheck, Phase, Verbosity, given, seed, settings
from hypothesis import strategies as st

from bench.running import Person, Running
from cloche.supervisor.ports import free_port

COUNT, SEED, PROCESSES = 100_000, 7, 3
SHARES = {"api": 0.66, "addresses": 0.18, "mqtt": 0.15, "files": 0.01}
MOST_MB = {"manage web": 450.0, "manage work": 1300.0, "manage listen": 250.0}
"""What a process may take at most, in all of it."""
SHOWN = 12
TEXTS = ["", "0", "-1", "1", "²", "\x00", "nan", "inf", "1e400", "9" * 60, "5,5", "0001-01-01", "9999-12-31", "2026-04-22"]
TEXTS += [
    "Mars/Olympus",
    "Europe/Vienna",
    "a\r\nBcc: x",
    "\u202e",
    "🌱" * 30,
    "'; DROP TABLE",
    "<script>",
    "../../etc",
    "24:61",
]
TEXTS += ["open", "frame", "fleece", "pea", "carrot", "watered", "owner", "minimum", "closed", "hours", "on", "C", "F", "cm"]
TEXTS += ["[" * 900, "7a"]


@dataclass
class Target:
    """What a fuzzing process must know of the application."""

    url: str
    garden: str
    tokens: list[str]
    broker_port: int
    addresses: list[tuple[str, list[str]]] = field(default_factory=list)


@dataclass
class Findings:
    """How it went: answers by kind and status, and the first faults."""

    answers: Counter[str] = field(default_factory=Counter)
    faults: list[str] = field(default_factory=list)

    def note(self, kind: str, status: int, what: Callable[[], str]) -> None:
        """One answer."""
        self.answers[f"{kind} {status}"] += 1
        if status >= 500 and len(self.faults) < SHOWN:
            self.faults.append(f"{kind} {status}: {what()}"[:600])


def driven(strategy: Any, count: int, number: int, send: Callable[[Any], None]) -> None:
    """Draw so many by hypothesis and send each; the same again for the same number."""

    @seed(number)
    @settings(
        max_examples=count,
        deadline=None,
        database=None,
        phases=[Phase.generate],
        verbosity=Verbosity.quiet,
        suppress_health_check=list(HealthCheck),
    )
    @given(strategy)
    def run(value: Any) -> None:
        send(value)

    run()


def fuzz_api(target: Target, count: int, number: int, findings: Findings) -> None:
    """By the published description, with everything it allows and much it does not; and bodies that are none."""
    import schemathesis
    from schemathesis.core.result import Ok

    schema = schemathesis.openapi.from_dict(requests.get(f"{target.url}/api/v1/openapi.json", timeout=30).json())
    operations = [result.ok() for result in schema.get_all_operations() if isinstance(result, Ok)]
    params: dict[str, Any] = {"session": requests.Session(), "n": 0}

    def send(case: Any) -> None:
        params["n"] += 1
        token = target.tokens[params["n"] % len(target.tokens)]
        heads = {"Authorization": f"Bearer {token}"}
        try:
            answer = case.call(base_url=target.url, headers=heads, session=params["session"], timeout=30)
        except (requests.RequestException, ValueError, UnicodeError) as odd:
            findings.answers[f"api not sent ({type(odd).__name__})"] += 1
            return
        findings.note("api", answer.status_code, lambda: f"{case.method} {case.path} {case.body!r}")

    each, rest = max(count // 20, 1), max(count - count // 20 * len(operations), 1)
    for index, operation in enumerate(operations):
        driven(operation.as_strategy(), each, number + index, send)
    paths = st.sampled_from(["readings", "reading", "readings.csv", "device"])
    driven(st.tuples(paths, st.binary(max_size=300) | bodies()), rest, number + 99, _raw(target, findings, params))


def _raw(target: Target, findings: Findings, params: dict[str, Any]) -> Callable[[tuple[str, bytes]], None]:
    def send(drawn: tuple[str, bytes]) -> None:
        path, body = drawn
        params["n"] += 1
        heads = {
            "Authorization": f"Bearer {target.tokens[params['n'] % len(target.tokens)]}",
            "Content-Type": "application/json",
        }
        answer = params["session"].post(f"{target.url}/api/v1/{path}", data=body, headers=heads, timeout=30)
        findings.note("api", answer.status_code, lambda: f"{path} {body[:200]!r}")

    return send


def bodies() -> st.SearchStrategy[bytes]:
    """Messages that are nearly right."""
    value = st.one_of(st.floats(), st.booleans(), st.none(), st.sampled_from(TEXTS), st.integers())
    reading = st.fixed_dictionaries({"temperature": value}, optional={"at": value, "channel": value, "more": value})
    more = {"unit": value, "sent_at": value}
    whole = st.fixed_dictionaries({"readings": st.lists(reading, max_size=4) | value}, optional=more)
    return whole.map(lambda params: json.dumps(params).encode())


def fuzz_mqtt(target: Target, count: int, number: int, findings: Findings) -> None:
    """To the broker; whether the listener lives is seen when a good message after all of them comes in."""
    from paho.mqtt import client as mqtt

    client = mqtt.Client(mqtt.CallbackAPIVersion.VERSION2)
    client.connect("127.0.0.1", target.broker_port)
    client.loop_start()
    tokens = st.sampled_from([*target.tokens, "guessed", "\ud800"])
    nearly = st.tuples(bodies(), tokens).map(lambda pair: json.dumps(json.loads(pair[0]) | {"token": pair[1]}).encode())

    def send(payload: bytes) -> None:
        client.publish("cloche/readings", payload, qos=1).wait_for_publish(30)
        findings.answers["mqtt sent"] += 1

    driven(st.binary(max_size=200) | nearly, count, number, send)
    client.disconnect()
    client.loop_stop()


class Somebody:
    """A person who is signed in, and signs in again when something they sent has signed them out."""

    def __init__(self, target: Target) -> None:
        self.target, self.session = target, requests.Session()
        self.sign_in()

    def sign_in(self) -> None:
        """As the owner."""
        self.session.get(f"{self.target.url}/sign-in/", timeout=30)
        self.send("POST", "/sign-in/", {"username": "rowan", "password": "spade-and-fork"})

    def send(self, method: str, path: str, data: Any = None, files: Any = None) -> requests.Response:
        """With the token that forms carry; redirects are not followed."""
        heads = {"X-CSRFToken": str(self.session.cookies.get("csrftoken")), "Referer": self.target.url}
        url = self.target.url + path
        return self.session.request(method, url, data=data, files=files, headers=heads, timeout=60, allow_redirects=False)


def fuzz_addresses(target: Target, count: int, number: int, findings: Findings) -> None:
    """Every address by every method, with the fields that its page has, filled with what nobody means."""
    somebody = Somebody(target)
    everything = sorted({name for _, names in target.addresses for name in names})
    value = st.sampled_from(TEXTS) | st.text(max_size=20) | st.integers().map(str) | st.floats().map(str)

    @st.composite
    def request(draw: Any) -> tuple[str, str, dict[str, str]]:
        path, names = draw(st.sampled_from(target.addresses))
        some = draw(st.lists(st.sampled_from(names or everything), max_size=8, unique=True))
        return draw(st.sampled_from(["GET", "POST", "POST"])), path, {name: draw(value) for name in some}

    def send(drawn: tuple[str, str, dict[str, str]]) -> None:
        method, path, fields = drawn
        try:
            sent = {"data": fields} if method == "POST" else {}
            query = "" if method == "POST" else "?" + requests.models.RequestEncodingMixin._encode_params(fields)
            answer = somebody.send(method, path + query, **sent)
        except (requests.RequestException, UnicodeError) as odd:
            findings.answers[f"addresses not sent ({type(odd).__name__})"] += 1
            return
        findings.note("addresses", answer.status_code, lambda: f"{method} {path} {fields!r}")
        if answer.status_code == 302 and "/sign-in/" in answer.headers.get("Location", ""):
            somebody.sign_in()

    driven(request(), count, number, send)


def fuzz_files(target: Target, count: int, number: int, findings: Findings) -> None:
    """Tables, sheets, typical years and archives with bytes turned, cut off, or made up."""
    somebody = Somebody(target)
    kinds = st.sampled_from(sorted(_samples()))

    def send(drawn: tuple[str, int, int, bytes, str]) -> None:
        name, at, cut, made_up, kind = drawn
        data = bytearray(_samples()[name])
        data[at % len(data)] ^= 0x55
        data = data[: len(data) - cut % 50]
        sent = bytes(data) if at % 4 else made_up
        path = "/gardens/bring/" if name.endswith(".zip") else f"/g/{target.garden}/files/"
        answer = somebody.send("POST", path, {"kind": kind}, {"file": (name, sent)})
        findings.note("files", answer.status_code, lambda: f"{path} {name} {sent[:80]!r}")
        if answer.status_code == 302 and "incoming" in (there := answer.headers["Location"]):
            page = somebody.send("GET", there)
            findings.note("files", page.status_code, lambda: f"{there} after {name}")
            fields = dict.fromkeys(re.findall(r'name="([^"]+)"', page.text), "") | {"take": "on", "leave_bad": "on"}
            findings.note("files", somebody.send("POST", there, fields).status_code, lambda: f"{there} {fields}")

    numbers = st.integers(0, 10_000)
    roles = st.sampled_from(["readings", "weather", "x"])
    driven(st.tuples(kinds, numbers, numbers, st.binary(max_size=400), roles), count, number, send)


@cache
def _samples() -> dict[str, bytes]:
    import openpyxl  # type: ignore[import-untyped]

    table = "place,taken_at,depth [cm],soil temperature [°C],note\n" + "Bed 0,2026-04-22T07:30:00+02:00,5,9.5,=1+1\n" * 20
    book, out = openpyxl.Workbook(), io.BytesIO()
    for line in table.splitlines():
        book.active.append(line.split(","))
    book.save(out)
    zipped = io.BytesIO()
    with zipfile.ZipFile(zipped, "w") as packed:
        packed.writestr("datapackage.json", '{"cloche_format": 2}')
        packed.writestr("garden.csv", "name\nx\n")
    epw = b"LOCATION,Town,-,AUT,-,1,48.0,15.0,1.0,300.0\n" + b"1999,1,1,1,0," * 60
    samples = {"a.csv": table.encode(), "b.csv": table.encode("utf-16"), "a.xlsx": out.getvalue()}
    return samples | {"a.zip": zipped.getvalue(), "a.epw": epw}


RUNS = {"api": fuzz_api, "addresses": fuzz_addresses, "mqtt": fuzz_mqtt, "files": fuzz_files}


def share(params: tuple[str, Target, int, int]) -> Findings:
    """One kind, in a process of its own."""
    kind, target, count, number = params
    findings = Findings()
    RUNS[kind](target, count, number, findings)
    return findings


def addresses(url: str, garden: str, person: Person) -> list[tuple[str, list[str]]]:
    """Every address of the application with something in its places, and the fields of its page."""
    os.environ["DJANGO_SETTINGS_MODULE"] = "cloche.config.settings.bench"
    import django

    django.setup()
    from django.urls import URLPattern, get_resolver

    routes = []

    def walk(patterns: Any, before: str) -> None:
        for pattern in patterns:
            route = before + str(pattern.pattern)
            if isinstance(pattern, URLPattern):
                routes.append("/" + route)
            elif "api/v1" not in route:
                walk(pattern.url_patterns, route)

    walk(get_resolver().url_patterns, "")
    paths = [_filled(route, garden) for route in routes if "sign-out" not in route and "password" not in route]
    return [(path, _fields(person, url + path)) for path in sorted(set(paths))]


def _filled(route: str, garden: str) -> str:
    values = {"garden_id": garden, "crop_key": "pea", "day": "2026-04-22", "token": "x", "kind": "readings"}

    def filled_in(match: re.Match[str]) -> str:
        name = match.group(1).rpartition(":")[2]
        return values.get(name, "6f0a4b0e-0000-4000-8000-000000000001" if "uuid" in match.group(1) else "1")

    return re.sub(r"<([^>]+)>", filled_in, route)


def _fields(person: Person, url: str) -> list[str]:
    with contextlib.suppress(requests.RequestException):
        page = person.session.get(url, timeout=30)
        return sorted(set(re.findall(r'name="([A-Za-z0-9_-]+)"', page.text)) - {"csrfmiddlewaretoken", "viewport"})
    return []


def main(count: float = COUNT, number: float = SEED) -> int:
    """Print the table; 1 where there was a fault of our own, a process lost or too much memory."""
    home, broker_port = Path(tempfile.mkdtemp(prefix="cloche-")), free_port()
    folder = Path(tempfile.mkdtemp(prefix="cloche-broker-"))
    (folder / "mosquitto.conf").write_text(f"listener {broker_port} 127.0.0.1\nallow_anonymous true\n")
    tool = shutil.which("mosquitto", path="/usr/sbin:/usr/bin") or "mosquitto"
    broker = subprocess.Popen([tool, "-c", str(folder / "mosquitto.conf")], stderr=subprocess.DEVNULL)  # noqa: S603
    running = Running(home, CLOCHE_MQTT_URL=f"mqtt://127.0.0.1:{broker_port}")
    try:
        target = _target(running, broker_port)
        before = {what: running.parts(what) for what in MOST_MB}
        begun = time.perf_counter()
        jobs = [(kind, target, int(count * part), int(number) * 1000 + n) for n, (kind, part) in enumerate(SHARES.items())]
        with multiprocessing.get_context("spawn").Pool(PROCESSES) as pool:
            all_findings = pool.map(share, jobs, chunksize=1)
        took = time.perf_counter() - begun
        alive = _listens(target)
        same = {what: running.parts(what) == pids for what, pids in before.items()}
        memory = {what: max(_most_mb(pid) for pid in running.parts(what)) for what in MOST_MB}
        said = (home / "said.log").read_text(errors="replace")
    finally:
        running.stop()
        broker.kill()
        for path in (home, folder):
            shutil.rmtree(path, ignore_errors=True)
    return _print(all_findings, took, alive, same, memory, said)


def _target(running: Running, broker_port: int) -> Target:
    person = Person(running.url)
    garden = person.settle()
    beds = [person.bed(garden, f"Bed {n}") for n in range(3)]
    tokens = [person.logger(garden, f"Logger {n}", beds[n % 3]) for n in range(40)]
    return Target(running.url, garden, tokens, broker_port, addresses(running.url, garden, person))


def _listens(target: Target) -> bool:
    """Whether a good message still comes in after all the others."""
    from cloche.demo.probe import ByMqtt

    token = target.tokens[-1]  # of a device that no address in `_filled` names
    way = ByMqtt(f"mqtt://127.0.0.1:{target.broker_port}", token)
    params: Any = {"readings": [{"temperature": 9.5, "at": "2026-11-03T04:05:06Z"}]}
    way(params)
    heads = {"Authorization": f"Bearer {token}"}
    for _ in range(60):
        answer = requests.get(f"{target.url}/api/v1/device", headers=heads, timeout=30)
        if answer.status_code == 200:
            again = requests.post(f"{target.url}/api/v1/readings", json=params, headers=heads, timeout=30).json()
            if again.get("known") == 1:
                return True
        time.sleep(1)
    return False


def _most_mb(pid: int) -> float:
    return int(Path(f"/proc/{pid}/status").read_text().split("VmHWM:")[1].split()[0]) / 1000


def _print(
    all_findings: list[Findings], took: float, alive: bool, same: dict[str, bool], memory: dict[str, float], said: str
) -> int:
    answers = sum((findings.answers for findings in all_findings), Counter[str]())
    faults = [fault for findings in all_findings for fault in findings.faults]
    ours = sum(count for name, count in answers.items() if name.split()[1].startswith("5"))
    print(f"{sum(answers.values()):,} requests in {took:.0f} s\n\n| answer | times |\n|---|---|")
    for name, times in sorted(answers.items()):
        print(f"| {name} | {times} |")
    print(f"\n| | |\n|---|---|\n| faults of our own | {ours} |\n| listener takes a good message after all | {alive} |")
    lost = [what for what, still in same.items() if not still]
    print(f"| processes lost | {', '.join(lost) or 0} |")
    for what, most in memory.items():
        print(f"| most memory, {what} | {most:.0f} MB of {MOST_MB[what]:.0f} |")
    for fault in faults:
        print(f"\n    {fault}")
    tracebacks = said.count("Traceback (most recent call last)")
    print(f"\n{tracebacks} tracebacks in the log.")
    too_much = any(most > MOST_MB[what] for what, most in memory.items())
    return 1 if ours or lost or too_much or not alive else 0
