"""The application as it is started by its own command, and the first steps of somebody new, over HTTP alone."""

import contextlib
import fcntl
import os
import re
import shutil
import signal
import subprocess
import time
from collections.abc import Callable
from hashlib import sha256
from pathlib import Path
from typing import Any

import requests

from cloche.supervisor.ports import free_port

ROOT = Path(__file__).parents[1]
RUN = str(ROOT / "run")
PORTION = 100
CHROMIUM = "/usr/bin/chromium-headless-shell"
"""Debian's Chromium without a window of its own: the whole browser draws that too, where nobody sees it."""
WAITS_S = 180.0
"""For one answer: a machine that does other things besides is no finding."""
TRIES = 3000


def rests_on() -> str:
    """Of everything that a fresh database is made from."""
    digest = sha256((ROOT / "requirements" / "test.txt").read_bytes())
    for path in sorted((ROOT / "src").rglob("migrations/*.py")):
        digest.update(path.read_bytes())
    return digest.hexdigest()[:12]


def with_tables_made(home: Path) -> Path:
    """A folder for data in which the tables are made and nothing else is: a copy of what one command makes once for all."""
    state = Path(os.environ["CLOCHE_STATE"])
    made = state / f"begun-{rests_on()}"
    with (state / "begun.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not (made / "own").exists():
            half = made.with_suffix(".half")
            for old in state.glob("begun-*"):
                shutil.rmtree(old)
            half.mkdir(mode=0o755)
            env = free_of_ours() | {"CLOCHE_HOME": str(half)}
            words = ["password", "nobody-is-here-yet"]  # the tables are made before it is looked for whose
            done = subprocess.run([RUN, *words], env=env, capture_output=True, text=True)  # noqa: S603 - our own words
            assert "nobody-is-here-yet" in done.stderr, done.stderr
            half.rename(made)
    subprocess.run(["/usr/bin/cp", "-a", str(made / "own"), str(home)], check=True)  # noqa: S603 - keeps whose each file is
    return home


def ready(url: str) -> bool:
    """Whether an application says that all of it works."""
    try:
        return requests.get(f"{url}/readyz/", timeout=WAITS_S).status_code == 200
    except requests.RequestException:
        return False


def until(true: Callable[[], bool], what: str) -> None:
    """Asked again and again; AssertionError when it never becomes true."""
    for _ in range(TRIES):
        if true():
            return
        time.sleep(0.3)
    raise AssertionError(f"waited in vain for {what}")


def free_of_ours() -> dict[str, str]:
    """The environment without what is this process's own."""
    return {k: v for k, v in os.environ.items() if not k.startswith(("CLOCHE_", "DJANGO_", "PYTHONPATH"))}


class Running:
    """`./run start`, or demo, with data of its own."""

    def __init__(self, home: Path, mode: str = "start", **more: str) -> None:
        self.home, self.port, self.mode = home, free_port(), mode
        self.url = f"http://127.0.0.1:{self.port}"
        self.env = free_of_ours() | {"CLOCHE_HOME": str(home)} | more
        self.start()

    def start(self) -> None:
        """On the same port as before; until it answers."""
        command = [RUN, self.mode, "--port", str(self.port)]
        with (self.home / "said.log").open("ab") as said:
            self.process = subprocess.Popen(  # noqa: S603 - our own words
                command, env=self.env, start_new_session=True, stdout=subprocess.DEVNULL, stderr=said
            )
        while self.process.poll() is None:
            try:
                requests.get(f"{self.url}/healthz/", timeout=WAITS_S)
                return
            except requests.RequestException:
                time.sleep(0.1)
        raise AssertionError(
            f"it did not start: {(self.home / 'said.log').read_text(encoding='utf-8', errors='replace')[-2000:]}"
        )

    def parts(self, what: str) -> list[int]:
        """Processes of this application whose command has a word, but for the one that keeps them."""
        pids = []
        for process in Path("/proc").glob("[0-9]*"):
            try:
                command = (process / "cmdline").read_bytes().replace(b"\0", b" ").decode()
                mine = str(self.home) in (process / "environ").read_bytes().decode("utf-8", "replace")
            except OSError:
                continue  # it ended meanwhile
            if mine and what in command and int(process.name) != self.process.pid:
                pids.append(int(process.name))
        return sorted(pids)

    def pull_the_plug(self) -> None:
        """Every process at once, the supervisor among them; until they are gone with all that they had open."""
        hit = [self.process.pid, *self.parts("")]
        for pid in hit:
            with contextlib.suppress(ProcessLookupError):
                os.kill(pid, signal.SIGKILL)
        self.process.wait(WAITS_S)
        while any(_lives(pid) for pid in hit):
            time.sleep(0.1)

    def stop(self) -> None:
        if self.process.poll() is None:
            os.kill(self.process.pid, signal.SIGTERM)
            self.process.wait(WAITS_S)

    def command(self, *words: str, typed: str = "") -> str:
        command = [RUN, *words]
        done = subprocess.run(  # noqa: S603 - our own words
            command, env=self.env, input=typed, capture_output=True, text=True, timeout=4 * WAITS_S, start_new_session=True
        )
        assert done.returncode == 0, done.stderr
        return done.stderr


def _lives(pid: int) -> bool:
    """Still has what it opened: on its way out it loses its name and surroundings first."""
    try:
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] not in "ZX"
    except OSError:
        return False


class Person:
    """Somebody with a browser and no script in it."""

    def __init__(self, url: str) -> None:
        self.url, self.session = url, requests.Session()

    def send(self, path: str, **typed: Any) -> requests.Response:
        page = self.session.get(self.url + path, timeout=WAITS_S)
        token = re.search(r'name="csrfmiddlewaretoken" value="([^"]+)"', page.text)
        assert token is not None, (page.url, page.status_code, page.text[:500])
        answer = self.session.post(page.url, typed | {"csrfmiddlewaretoken": token.group(1)}, timeout=WAITS_S)
        assert answer.status_code == 200, (path, answer.status_code)
        return answer

    def settle(self) -> str:
        """From nothing to a garden; returns its number."""
        who = {"username": "rowan", "password": "spade-and-fork"}
        self.send("/welcome/", **who)
        site = {"latitude_deg": "48.2", "longitude_deg": "15.6", "height": "300", "timezone_name": "Europe/Vienna"}
        place = self.send("/gardens/new/?latitude_deg=48.2&longitude_deg=15.6", name="Plot", **site).url
        self.session.headers["Referer"] = self.url
        return place.split("/")[4]

    def bed(self, garden: str, name: str) -> int:
        """One more; returns its number."""
        bed = {"name": name, "kind": "open", "seed_depth": "5", "texture": "loam", "slope_deg": "0", "aspect_deg": "180.0"}
        return int(self.send(f"/g/{garden}/garden/places/new/", **bed).url.rstrip("/").split("/")[-1])

    def logger(self, garden: str, name: str, bed: int) -> str:
        """One that sticks in a bed; returns its token."""
        page = self.send(f"/g/{garden}/loggers/", name=name, unit="C")
        token = _matched(r'id="token">([^<]+)<', page.text)
        loggers = self.session.get(f"{self.url}/g/{garden}/loggers/", timeout=WAITS_S).text
        device = max(int(number) for number in re.findall(r"/loggers/(\d+)/probes/", loggers))
        csrf = _matched(r'name="csrfmiddlewaretoken" value="([^"]+)"', loggers)
        probe = {"channel": "1", "place": str(bed), "depth": "", "csrfmiddlewaretoken": csrf}
        stuck = self.session.post(f"{self.url}/g/{garden}/loggers/{device}/probes/", probe, timeout=WAITS_S)
        stuck.raise_for_status()
        return token


def reading_form(page: str) -> dict[str, str]:
    """What the form of a place's page holds before a temperature is typed."""
    names = ("csrfmiddlewaretoken", "day", "time", "depth")
    return {name: _matched(rf'name="{name}" value="([^"]*)"', page) for name in names} | {"note": ""}


def _matched(pattern: str, text: str) -> str:
    match = re.search(pattern, text)
    assert match is not None, pattern
    return match.group(1)


def settle(url: str) -> str:
    """From nothing to a token; returns it."""
    person = Person(url)
    garden = person.settle()
    return person.logger(garden, "Logger", person.bed(garden, "North bed"))


def post(url: str, token: str, part: list[dict[str, Any]]) -> dict[str, int]:
    heads = {"Authorization": f"Bearer {token}"}
    answer = requests.post(f"{url}/api/v1/readings", json={"readings": part}, headers=heads, timeout=WAITS_S)
    assert answer.status_code == 200, answer.text
    return dict(answer.json())
