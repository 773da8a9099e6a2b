"""Cloche as services: what ./run install writes is what systemd takes, and its very commands, users and limits keep an
application running; an upgrade goes there and back; uninstalling leaves the data."""

import os
import re
import shutil
import socket
import subprocess
import tempfile
import time
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path

import pytest
import requests

from bench.running import WAITS_S, ready, until

HERE = Path(__file__).parents[2]
ROOT = os.geteuid() == 0
pytestmark = pytest.mark.skipif(not ROOT, reason="services are installed by root alone")


@dataclass
class Machine:
    """A machine without systemd: where its units, settings and data lie, and what of them runs."""

    place: Path
    port: int
    running: list[subprocess.Popen[bytes]] = field(default_factory=list)
    listening: socket.socket | None = None

    @property
    def units(self) -> Path:
        return self.place / "units"

    @property
    def conf(self) -> Path:
        return self.place / "conf"

    def run(self, *words: str, release: Path = HERE, fails: bool = False, said: str = "") -> str:
        """A command of ./run; returns what it said."""
        env = os.environ | {
            "CLOCHE_HOME": str(self.place / "home"),
            "CLOCHE_UNITS": str(self.units),
            "CLOCHE_CONF": str(self.conf),
        }
        kept = {k: v for k, v in env.items() if not k.startswith("CLOCHE_DB_") and k not in ("CLOCHE_STATE", "PYTHONPATH")}
        kept.pop("DJANGO_SETTINGS_MODULE", None)
        done = subprocess.run([str(release / "run"), *words], env=kept, capture_output=True, text=True, input=said)  # noqa: S603
        assert (done.returncode != 0) is fails, done.stdout + done.stderr
        return done.stdout + done.stderr

    def facts(self, name: str) -> dict[str, list[str]]:
        """What a unit says, by its words."""
        sections: dict[str, list[str]] = {}
        for line in (self.units / name).read_text().splitlines():
            key, sign, value = line.partition("=")
            if sign and not line.startswith("#"):
                sections.setdefault(key, []).append(value)
        return sections

    def start(self, name: str) -> subprocess.Popen[bytes]:
        """As systemd would: the unit's command, user, files of settings, limits and open socket."""
        facts = self.facts(name)
        env = {"PATH": os.environ["PATH"]}
        for file in facts.get("EnvironmentFile", []):
            env |= dict(re.findall(r"^([A-Z_]+)=(.*)$", Path(file.lstrip("-")).read_text(), re.MULTILINE))
        for words in facts.get("Environment", []):
            env |= dict(pair.split("=", 1) for pair in words.split())
        user, right = facts["User"][0], facts["AmbientCapabilities"][0]
        own = ["setpriv", "--reuid", user, "--regid", facts["Group"][0], "--init-groups", "--no-new-privs"]
        if right:
            own += ["--inh-caps", "+dac_read_search", "--ambient-caps", "+dac_read_search"]
        files = facts["LimitNOFILE"][0]
        limits = f"ulimit -n {files}; ulimit -c 0; umask {facts['UMask'][0]}; "
        fds: tuple[int, ...] = ()
        if "Sockets" in facts:
            where = self.facts("cloche-web.socket")["ListenStream"][0].rsplit(":", 1)
            if self.listening is None:
                self.listening = socket.create_server((where[0], int(where[1])), backlog=512)
            fds = (self.listening.fileno(),)
            limits += f"exec 3<&{fds[0]}; "
        command = ["bash", "-c", f'{limits}exec "$@"', "unit", *own, *facts["ExecStart"][0].split()]
        cwd = facts.get("WorkingDirectory", ["/"])[0]
        process = subprocess.Popen(command, env=env, cwd=cwd, pass_fds=fds, stdout=subprocess.DEVNULL)  # noqa: S603
        self.running.append(process)
        return process

    def stop(self) -> None:
        """All of it, the last first."""
        for process in reversed(self.running):
            process.terminate() if process is not self.running[0] else process.send_signal(2)
        for process in self.running:
            process.wait(WAITS_S)
        self.running.clear()
        if self.listening is not None:
            self.listening.close()
            self.listening = None

    def is_ready(self) -> bool:
        return ready(f"http://127.0.0.1:{self.port}")


@pytest.fixture(scope="module")
def machine() -> Iterator[Machine]:
    place = Path(tempfile.mkdtemp(prefix="cloche-"))
    place.chmod(0o755)
    with socket.create_server(("127.0.0.1", 0)) as free:
        port = free.getsockname()[1]
    built = Machine(place, port)
    built.run("install", "--port", str(port))
    yield built
    built.stop()
    shutil.rmtree(place, ignore_errors=True)


SERVED = ("cloche-web@.service", "cloche-web@.service", "cloche-worker@.service")


def all_up(machine: Machine) -> None:
    """The database again and again, as systemd does, until its lock is free; then what rests on it."""

    def runs() -> bool:
        database = machine.start("cloche-database.service")
        time.sleep(2)
        if database.poll() is not None:
            machine.running.remove(database)
        return database.poll() is None

    until(runs, "the database")
    for name in SERVED:
        machine.start(name)
    until(machine.is_ready, "it to be ready")


@pytest.fixture(scope="module")
def started(machine: Machine) -> Machine:
    all_up(machine)
    return machine


def test_systemd_takes_the_units(machine: Machine) -> None:
    names = sorted(machine.units.iterdir())
    assert len(names) == 7
    # A template is looked at as one of its instances.
    done = subprocess.run(  # noqa: S603
        ["/usr/bin/systemd-analyze", "verify", "--man=no", *map(str, names)], capture_output=True, text=True
    )
    assert (done.returncode, [line for line in done.stderr.splitlines() if "cloche" in line]) == (0, [])


def test_every_service_is_shut_in(machine: Machine) -> None:
    for name in ("cloche-database.service", "cloche-web@.service", "cloche-worker@.service", "cloche-listener.service"):
        facts = machine.facts(name)
        assert facts["User"][0] in ("cloche", "postgres"), name
        assert facts["Restart"] == ["always"], name
        assert facts["StartLimitIntervalSec"] == ["0"], name
        assert facts["NoNewPrivileges"] == ["yes"], name
        assert facts["ProtectSystem"] == ["strict"], name
        assert facts["ReadWritePaths"] == [str(machine.place / "home" / "own")], name
        assert facts["CapabilityBoundingSet"] in ([""], ["CAP_DAC_READ_SEARCH"]), name
    assert "@" not in re.sub(r"cloche-\w+@|@system-service", "", "".join(path.read_text() for path in machine.units.iterdir()))


def test_secrets_are_roots_alone(machine: Machine) -> None:
    assert {file.stat().st_mode & 0o077 for file in machine.conf.iterdir()} == {0}


def test_its_commands_users_and_limits_run_the_application(started: Machine) -> None:
    for process, user in zip(started.running, ("postgres", "cloche", "cloche", "cloche"), strict=True):
        assert Path(f"/proc/{process.pid}").owner() == user
        limits = Path(f"/proc/{process.pid}/limits").read_text()
        assert re.search(r"Max open files +4096 ", limits)
        assert re.search(r"Max core file size +0 ", limits)
        assert "NoNewPrivs:\t1" in Path(f"/proc/{process.pid}/status").read_text()
    page = requests.get(f"http://127.0.0.1:{started.port}/", timeout=WAITS_S)
    assert "When should it be sown" in page.text


def test_one_web_that_is_killed_leaves_the_other_on_the_same_socket(started: Machine) -> None:
    web = started.running[1]
    web.kill()
    web.wait(WAITS_S)
    for _ in range(10):
        assert requests.get(f"http://127.0.0.1:{started.port}/healthz/", timeout=WAITS_S).status_code == 200
    started.running[1] = started.start("cloche-web@.service")
    started.running.pop()


def test_commands_reach_what_runs_and_no_second_server_opens_its_data(started: Machine) -> None:
    file = started.place / "asked.backup"
    assert "Everything of your gardens is in" in started.run("backup", str(file))
    assert file.stat().st_size > 10_000
    assert "is still running" in started.run("start", "--port", str(started.port + 1), fails=True)
    assert started.is_ready()


def test_a_pulled_plug_is_a_pause(started: Machine) -> None:
    for process in started.running:
        process.kill()
    for process in started.running:
        process.wait(WAITS_S)
    started.running.clear()
    all_up(started)


def test_a_full_disk_is_a_sentence_and_no_end(started: Machine) -> None:
    """By the least room that is set: of this machine's own disk nobody fills all."""
    settings = started.conf / "settings.env"
    before = settings.read_text()

    def web_again() -> requests.Response:
        for place in (1, 2):
            started.running[place].terminate()
            started.running[place].wait(WAITS_S)
            started.running[place] = started.start("cloche-web@.service")
            started.running.pop()
        return requests.get(f"http://127.0.0.1:{started.port}/welcome/", timeout=WAITS_S)

    settings.write_text(before + "CLOCHE_LEAST_FREE_MB=999999999\n")
    assert "The disk of this computer is full." in web_again().text
    assert requests.get(f"http://127.0.0.1:{started.port}/healthz/", timeout=WAITS_S).status_code == 200
    settings.write_text(before)
    assert "The disk of this computer is full." not in web_again().text


def person(machine: Machine) -> list[str]:
    """Names of all people, asked of a database that runs for this."""
    database = machine.start("cloche-database.service")
    facts = dict(re.findall(r"^([A-Z_]+)=(.*)$", (machine.conf / "cloche.env").read_text(), re.MULTILINE))
    psql = [
        f"{facts['CLOCHE_PG_BIN']}/psql",
        "-h",
        "127.0.0.1",
        "-p",
        facts["CLOCHE_DB_PORT"],
        "-U",
        "cloche",
        "-qAt",
        "cloche",
    ]
    try:
        for _ in range(100):
            done = subprocess.run(  # noqa: S603
                [*psql, "-qAt", "-d", "cloche", "-c", "select username from gardens_user order by id"],
                env={"PGPASSWORD": facts["CLOCHE_DB_PASSWORD"]},
                capture_output=True,
                text=True,
            )
            if done.returncode == 0:
                return done.stdout.split()
            time.sleep(0.2)
        raise AssertionError(done.stderr)
    finally:
        machine.running.remove(database)
        database.send_signal(2)
        database.wait(WAITS_S)


def welcome(machine: Machine, name: str) -> None:
    with requests.Session() as browser:
        url = f"http://127.0.0.1:{machine.port}/welcome/"
        token = re.search(r'name="csrfmiddlewaretoken" value="(\w+)"', browser.get(url, timeout=WAITS_S).text)
        assert token is not None
        said = {"username": name, "password": "spade-and-fork", "csrfmiddlewaretoken": token.group(1)}
        assert "Where" in browser.post(url, said, timeout=WAITS_S).text


def release_beside(machine: Machine, name: str) -> Path:
    """Another release, unpacked beside this one."""
    there = machine.place / name
    there.mkdir()
    for part in ("src", "scripts", "requirements", "run", "pyproject.toml", "README.md", "docs"):
        source = HERE / part
        if source.is_dir():
            shutil.copytree(source, there / part, ignore=shutil.ignore_patterns("__pycache__"))
        else:
            shutil.copy2(source, there / part)
    (there / ".venv").symlink_to(HERE / ".venv")
    return there


def test_a_checkout_in_which_nothing_was_ever_compiled_starts_too(machine: Machine) -> None:
    fresh, state = release_beside(machine, "fresh"), machine.place / "state"
    (state / "numba").mkdir(parents=True)
    known = f"ROOT={fresh}; STATE={state}; WEB_USER="
    steps = f"{known}; cd $ROOT; . scripts/setup.sh; . scripts/serve.sh; own_folders; echo on"
    done = subprocess.run(["bash", "-euo", "pipefail", "-c", steps], capture_output=True, text=True)  # noqa: S603, S607
    assert (done.returncode, done.stdout) == (0, "on\n"), done.stderr
    assert sorted(path.name for path in state.iterdir()) == ["backups", "mail", "metrics", "numba"]


def test_an_upgrade_goes_there_and_back_and_a_bad_one_back_by_itself(started: Machine) -> None:
    welcome(started, "rowan")
    started.stop()
    newer = release_beside(started, "newer")
    assert f"Now at {newer}" in started.run("upgrade", release=newer)
    assert str(newer) in (started.units / "cloche-web@.service").read_text()
    assert person(started) == ["rowan"]

    broken = release_beside(started, "broken")
    wrong = broken / "src/cloche/apps/work/migrations/0099_wrong.py"
    last = sorted((broken / "src/cloche/apps/work/migrations").glob("0*.py"))[-1].stem
    wrong.write_text(
        "from django.db import migrations\n\n\nclass Migration(migrations.Migration):\n"
        f"    dependencies = [('work', '{last}')]\n    operations = [migrations.RunSQL('select no_such_thing()')]\n"
    )
    assert "going back" in started.run("upgrade", release=broken, fails=True)
    assert str(newer) in (started.units / "cloche-web@.service").read_text()
    assert person(started) == ["rowan"]

    started.run("upgrade", release=newer)
    assert f"Back at {newer}" in started.run("upgrade", "--back", release=newer)
    assert person(started) == ["rowan"]


def test_uninstalling_leaves_the_data(started: Machine) -> None:
    started.stop()
    assert "Your data are still in" in started.run("uninstall")
    assert list(started.units.iterdir()) == []
    assert (started.place / "home" / "own" / "db" / "data" / "PG_VERSION").exists()
    assert (started.conf / "settings.env").exists()
    assert "is not installed" in started.run("uninstall", fails=True)
