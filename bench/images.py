"""The images of deploy/ built, and the services of its compose file started from them: `./run bench images`. In place of the
base that the Containerfile names stands one made here of Debian's packages; packages come from where this machine has its own
from. Needs root, podman, mmdebstrap and a network."""

from __future__ import annotations

import json
import os
import re
import secrets
import shutil
import subprocess
import tempfile
import time
from functools import partial
from pathlib import Path
from typing import Any

import psycopg
import yaml

from bench.running import ROOT, post, ready, settle, until
from cloche.supervisor.ports import free_port

DEPLOY = ROOT / "deploy"
TRUST, TRUSTED_BY = "/run/trusted.crt", ("PIP_CERT", "SSL_CERT_FILE")
"""Whom this machine believes when it fetches packages: a company's own authority, say."""
READING = [{"temperature": 9.5, "at": "2026-11-01T06:00:00Z"}]


class Failed(Exception):
    """What a command said when it did not do it."""


def compose() -> dict[str, Any]:
    """The compose file's services."""
    return dict(yaml.safe_load((DEPLOY / "compose.yaml").read_text(encoding="utf-8"))["services"])


class Engine:
    """Podman with all that it keeps in one folder, which can be thrown away."""

    def __init__(self, place: Path) -> None:
        self.place = place
        self.words = ["podman", "--root", str(place / "kept"), "--runroot", str(place / "runs")]
        # Those that ask least of the machine around them.
        self.words += ["--storage-driver", "vfs", "--cgroup-manager", "cgroupfs", "--runtime", "runc"]

    def run(self, *words: str) -> str:
        """A command of it; what it said."""
        done = subprocess.run([*self.words, *words], capture_output=True, text=True)  # noqa: S603 - our own words
        if done.returncode:
            raise Failed(f"podman {words[0]}: {(done.stdout + done.stderr)[-3000:]}")
        return done.stdout

    def container(self, *words: str) -> str:
        """One on this machine's own network, with as many open files and processes as the services of systemd may have."""
        return self.run("run", "--network=host", "--ulimit=nofile=4096:4096", "--ulimit=nproc=4096:4096", *words)


def main() -> int:
    """Print the images' sizes and how long each step took; 1 where a service does not do its work."""
    place = Path(tempfile.mkdtemp(prefix="cloche-images-", dir="/var/tmp"))
    engine = Engine(place)
    try:
        sizes = _built(engine)
        print("| image | MB |")
        print("|---|---|")
        for name, size in sizes.items():
            print(f"| {name} | {size / 1e6:.0f} |")
        return _served(engine)
    finally:
        engine.run("rm", "--all", "--force", "--time", "5")
        engine.run("rmi", "--all", "--force")
        shutil.rmtree(place, ignore_errors=True)


def _built(engine: Engine) -> dict[str, int]:
    """Each image that a service wants, built; its size in bytes."""
    text = (DEPLOY / "Containerfile").read_text(encoding="utf-8")
    (base,) = set(re.findall(r"^FROM (\S+)", text, re.MULTILINE))
    _base(engine, base)
    reach: list[str] = []
    trusted = next((os.environ[name] for name in TRUSTED_BY if name in os.environ), None)
    if trusted:
        reach += [f"--volume={trusted}:{TRUST}:ro", f"--env=PIP_CERT={TRUST}"]
    sizes = {}
    for image, target in sorted({(service["image"], service["build"]["target"]) for service in compose().values()}):
        begun = time.monotonic()
        file = ["--file", str(DEPLOY / "Containerfile"), "--target", target, "--tag", image]
        engine.run("build", "--isolation", "chroot", "--network", "host", "--pull-never", *reach, *file, str(ROOT))
        print(f"{image}: built in {time.monotonic() - begun:.0f} s")
        sizes[image] = int(json.loads(engine.run("image", "inspect", image))[0]["Size"])
    return sizes


def _base(engine: Engine, name: str) -> None:
    """Debian's smallest, of the release that this machine runs."""
    release = dict(re.findall(r'^(\w+)="?([^"\n]*)', Path("/etc/os-release").read_text(encoding="utf-8"), re.MULTILINE))
    tar = engine.place / "base.tar"
    sources = sorted(map(str, [*Path("/etc/apt/sources.list.d").glob("*.sources"), *Path("/etc/apt").glob("sources.list")]))
    words = ["mmdebstrap", "--variant=minbase", release["VERSION_CODENAME"], str(tar), *sources]
    done = subprocess.run(words, capture_output=True, text=True)  # noqa: S603 - our own words
    if done.returncode:
        raise Failed(done.stderr[-3000:])
    engine.run("import", str(tar), name)


class Services:
    """Those of the compose file, on this machine's own network and with folders in place of volumes."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine
        self.services = compose()
        self.database, self.web = free_port(), free_port()
        self.password = secrets.token_urlsafe()
        said = {
            "CLOCHE_DB_PASSWORD": self.password,
            "CLOCHE_SECRET_KEY": secrets.token_urlsafe(40),
            "CLOCHE_DB_HOST": "127.0.0.1",
        }
        here = {"CLOCHE_DB_PORT": str(self.database), "CLOCHE_DB_LISTEN": "127.0.0.1", "CLOCHE_DB_FROM": "127.0.0.1/32"}
        self.said = said | here
        for folder, owner, service in (("database", "postgres", "database"), ("state", "cloche", "web")):
            (engine.place / folder).mkdir()
            who = ["--entrypoint=/usr/bin/id", self.services[service]["image"], "-u", owner]
            number = int(engine.container("--rm", *who))
            os.chown(engine.place / folder, number, number)

    def run(self, name: str, *options: str) -> str:
        """A service by its own command; what is asked of whoever starts it, and has no usual value, is said."""
        service = self.services[name]
        plain = {key: str(value) for key, value in service["environment"].items() if "${" not in str(value)}
        env = [f"--env={key}={value}" for key, value in (plain | self.said).items()]
        kept = [
            f"--volume={self.engine.place / source}:{inside}" for source, inside in (v.split(":") for v in service["volumes"])
        ]
        command = [re.sub(r"^[\d.]+:8000$", f"127.0.0.1:{self.web}", word) for word in service.get("command", [])]
        return self.engine.container(*options, *env, *kept, service["image"], *command)

    def start(self) -> str:
        """All of them in their order; the web's address."""
        self.run("database", "--detach", "--name=database")
        for name in ("tables", "static"):
            until(partial(self._ended_well, name), name)
        for name in ("web", "worker", "rounds"):
            self.run(name, "--detach", f"--name={name}")
        url = f"http://127.0.0.1:{self.web}"
        until(partial(ready, url), "the web")
        return url

    def _ended_well(self, name: str) -> bool:
        """Run to its end; where it failed it is to be started again."""
        try:
            self.run(name, "--rm")
        except Failed:
            return False
        return True

    def forecasts(self) -> int:
        """How many the workers have made."""
        address = {"host": "127.0.0.1", "port": self.database, "user": "cloche", "password": self.password}
        with psycopg.connect(**address, dbname="cloche") as database:  # type: ignore[arg-type]
            return int(database.execute("SELECT count(*) FROM forecasts_forecast").fetchone()[0])  # type: ignore[index]


def _served(engine: Engine) -> int:
    """A garden made and a reading sent; every part ends when it is told to."""
    services, begun = Services(engine), time.monotonic()
    url = services.start()
    print(f"ready {time.monotonic() - begun:.0f} s after the database was begun")
    kept = post(url, settle(url), READING)["kept"]
    until(lambda: services.forecasts() == 1, "the forecast")
    print(f"a garden made, {kept} reading kept, its forecast made")
    ends = {}
    for name in ("rounds", "worker", "web", "database"):
        engine.run("stop", "--time", "60", name)
        ends[name] = int(json.loads(engine.run("container", "inspect", name))[0]["State"]["ExitCode"])
    print("ended with " + ", ".join(f"{name} {code}" for name, code in ends.items()))
    return int(kept != 1 or any(ends.values()))
