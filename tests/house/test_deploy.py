"""The parts as commands for machines of their own: what the compose file runs is there, and the database's script makes one
that the application's role can use and no other."""

import os
import re
import shutil
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import psycopg
import pytest
import requests
import yaml
from django.core.management import get_commands
from django.db import connection

from bench.running import WAITS_S
from cloche.supervisor.ports import free_port

ROOT = Path(__file__).parents[2]
DEPLOY = ROOT / "deploy"
SECRET = 'it\'s; a "secret"'


@pytest.fixture(scope="module")
def compose() -> dict[str, Any]:
    return dict(yaml.safe_load((DEPLOY / "compose.yaml").read_text()))


def test_every_service_runs_a_command_that_there_is(compose: dict[str, Any]) -> None:
    ours = {name: service for name, service in compose["services"].items() if service["image"] == "cloche"}
    assert {service["command"][0] for service in ours.values()} == {"ready", "collectstatic", "web", "work", "rounds", "listen"}
    for service in ours.values():
        assert service["command"][0] in get_commands()
        assert set(service["depends_on"]) <= set(compose["services"])
    targets = set(re.findall(r"^FROM .* AS (\w+)$", (DEPLOY / "Containerfile").read_text(), re.MULTILINE))
    assert {service["build"]["target"] for service in compose["services"].values()} == targets


def test_every_setting_is_described(compose: dict[str, Any]) -> None:
    described = (ROOT / "docs" / "settings.md").read_text()
    said = set(compose["x-application"]["environment"])
    said |= set(re.findall(r"\b((?:CLOCHE|DJANGO)_\w+)=", (DEPLOY / "Containerfile").read_text()))
    assert {name for name in said if f"`{name}`" not in described} == set()


def test_what_is_copied_into_the_image_is_there() -> None:
    for line in re.findall(r"^COPY (\S+) ", (DEPLOY / "Containerfile").read_text(), re.MULTILINE):
        assert (ROOT / line).exists()


class Databases:
    """Made by the very script, as the user that the server runs as."""

    def __init__(self) -> None:
        self.home = Path(tempfile.mkdtemp(prefix="cloche-"))
        self.own = ["setpriv", "--reuid", "postgres", "--regid", "postgres", "--init-groups"] if os.geteuid() == 0 else []
        if self.own:
            shutil.chown(self.home, "postgres")
        shutil.copy(DEPLOY / "database.sh", self.home / "begin.sh")
        (self.home / "begin.sh").chmod(0o755)
        self.running: list[subprocess.Popen[bytes]] = []

    def begin(self, name: str, **more: str) -> int:
        """One more, in a folder of its own; its port."""
        port, folder = free_port(), self.home / name
        subprocess.run([*self.own, "/usr/bin/mkdir", "-m", "700", str(folder)], check=True)  # noqa: S603
        env = {"PATH": os.environ["PATH"], "LC_ALL": "C.UTF-8", "CLOCHE_DB_PASSWORD": SECRET, "CLOCHE_DB_PORT": str(port)}
        env |= {"CLOCHE_DB_LISTEN": "127.0.0.1", "CLOCHE_DB_FROM": "127.0.0.1/32", "CLOCHE_DB_FOLLOWER_PASSWORD": SECRET}
        command = [*self.own, "/bin/bash", str(self.home / "begin.sh"), str(folder)]
        self.running.append(subprocess.Popen(command, env=env | more, cwd="/"))  # noqa: S603
        return port

    def end(self) -> None:
        for process in reversed(self.running):
            process.send_signal(signal.SIGINT)
            process.wait(WAITS_S)
        shutil.rmtree(self.home, ignore_errors=True)


@pytest.fixture
def databases() -> Iterator[Databases]:
    pair = Databases()
    yield pair
    pair.end()


def reach(port: int, **who: str) -> Any:
    whom = {"user": "cloche", "password": SECRET, "dbname": "cloche"} | who
    return psycopg.connect(host="127.0.0.1", port=port, **whom)


def answered(port: int, words: str) -> Any:
    """What it answers, once it does: it may still be made, or be a moment behind."""
    for _ in range(600):
        try:
            with reach(port) as cursor:
                return cursor.execute(words).fetchall()
        except (psycopg.OperationalError, psycopg.errors.UndefinedTable):
            time.sleep(0.2)
    pytest.fail("the database never answered")


def test_the_databases_script_lets_one_role_in_and_gives_it_no_more_than_its_own(databases: Databases) -> None:
    database = databases.begin("own")
    role = answered(database, "SELECT rolsuper, rolcreatedb, rolcreaterole FROM pg_roles WHERE rolname = current_user")
    assert role == [(False, False, False)]
    with reach(database) as cursor:
        cursor.execute("CREATE TABLE tried (number int)")
    for who in ({"password": "guessed"}, {"user": "keeper"}, {"dbname": "postgres"}):
        with pytest.raises(psycopg.OperationalError):
            reach(database, **who)


def test_a_second_database_follows_and_takes_over(databases: Databases) -> None:
    first = databases.begin("first")
    answered(first, "SELECT 1")
    second = databases.begin("second", CLOCHE_DB_FOLLOWS=f"127.0.0.1:{first}")
    assert answered(second, "SELECT pg_is_in_recovery()") == [(True,)]
    with reach(first) as cursor:
        cursor.execute("CREATE TABLE sown AS SELECT 'radish' AS crop")
    assert answered(second, "SELECT crop FROM sown") == [("radish",)]
    with reach(second) as cursor, pytest.raises(psycopg.errors.ReadOnlySqlTransaction):
        cursor.execute("DELETE FROM sown")
    databases.running[0].kill()
    control = max(Path("/usr/lib/postgresql").glob("*/bin/pg_ctl"), key=lambda path: int(path.parts[-3]))
    promote = [*databases.own, str(control), "-D", str(databases.home / "second" / "data"), "-w", "promote"]
    subprocess.run(promote, check=True, cwd="/", stdout=subprocess.DEVNULL)  # noqa: S603
    with reach(second) as cursor:
        cursor.execute("INSERT INTO sown VALUES ('carrot')")
    assert answered(second, "SELECT count(*) FROM sown") == [(2,)]


def command(*words: str) -> list[str]:
    return [sys.executable, "-m", "cloche.manage", *words]


def own_env() -> dict[str, str]:
    settings = connection.settings_dict
    there = {"CLOCHE_DB_NAME": str(settings["NAME"]), "PYTHONPATH": str(ROOT / "src"), "CLOCHE_DB_HOST": "127.0.0.1"}
    return os.environ | there | {"CLOCHE_DB_PORT": str(settings["PORT"])}


@pytest.mark.django_db(transaction=True)
def test_a_web_listens_where_it_is_told_and_the_rounds_run_by_themselves() -> None:
    port = free_port()
    web = subprocess.Popen(command("web", "--listen", f"127.0.0.1:{port}"), env=own_env())  # noqa: S603
    rounds = subprocess.Popen(command("rounds"), env=own_env())  # noqa: S603
    try:
        while web.poll() is None:
            try:
                answer = requests.get(f"http://127.0.0.1:{port}/healthz/", timeout=WAITS_S)
                break
            except requests.ConnectionError:
                continue
        assert answer.status_code == 200
        until_it_hears(rounds)
    finally:
        for process in (web, rounds):
            process.terminate()
    assert [process.wait(WAITS_S) for process in (web, rounds)] == [0, 0]


def until_it_hears(process: subprocess.Popen[bytes]) -> None:
    """It has said what is to be done when it is told to end."""
    while process.poll() is None:
        caught = int(re.findall(r"SigCgt:\s*(\w+)", Path(f"/proc/{process.pid}/status").read_text())[0], 16)
        if caught >> (signal.SIGTERM - 1) & 1:
            return
        time.sleep(0.1)
    pytest.fail("it ended by itself")


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (["web", "--listen", "8000"], "is not a host and a port"),
        (["web"], "one of the arguments --fd --listen is required"),
        (["work", "--queues", "nothing"], "no such queue: nothing; there are accounts, covers, forecasts"),
    ],
)
def test_what_is_said_wrongly_is_refused_in_words(words: list[str], said: str) -> None:
    done = subprocess.run(command(*words), env=os.environ | {"PYTHONPATH": str(ROOT / "src")}, capture_output=True, text=True)  # noqa: S603
    assert done.returncode != 0
    assert said in done.stderr
