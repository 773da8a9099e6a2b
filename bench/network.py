"""Machines made of this one: each a network namespace with an address of its own behind a common switch, and whatever runs in
it. One can be lost as a whole. Needs root and iproute2."""

from __future__ import annotations

import os
import signal
import subprocess
from dataclasses import dataclass, field
from pathlib import Path

from bench.running import WAITS_S, free_of_ours

SWITCH, NET = "cloche-switch", "10.213.77"
OURS = 1
"""The last number of the address that this machine itself has there."""


def ip(*words: str, may_fail: bool = False) -> None:
    """One command of iproute2."""
    command = ["/usr/sbin/ip", *words]
    subprocess.run(command, check=not may_fail, capture_output=may_fail)  # noqa: S603 - our own words


@dataclass
class Host:
    """name: short; number: the last of its address; place: a folder for what its parts write."""

    name: str
    number: int
    place: Path
    running: list[subprocess.Popen[bytes]] = field(default_factory=list)

    @property
    def address(self) -> str:
        """Where the others find it."""
        return f"{NET}.{self.number}"

    @property
    def space(self) -> str:
        """Its namespace."""
        return f"cloche-{self.name}"

    def _words(self, command: tuple[str, ...], user: str) -> list[str]:
        as_user = ["setpriv", "--reuid", user, "--regid", user, "--init-groups"] if user else []
        return ["/usr/sbin/ip", "netns", "exec", self.space, *as_user, *command]

    def start(self, *command: str, user: str = "", **env: str) -> subprocess.Popen[bytes]:
        """A part that goes on until it is stopped; what it says goes into a file beside its data."""
        with (self.place / "said.log").open("ab") as said:
            part = subprocess.Popen(  # noqa: S603 - our own words
                self._words(command, user), env=free_of_ours() | env, stdout=said, stderr=said, cwd="/", start_new_session=True
            )
        self.running.append(part)
        return part

    def run(self, *command: str, user: str = "", **env: str) -> str:
        """A command that ends; what it says. Raises CalledProcessError."""
        done = subprocess.run(  # noqa: S603 - our own words
            self._words(command, user), env=free_of_ours() | env, cwd="/", check=True, capture_output=True, text=True
        )
        return done.stdout.strip()

    def stop(self) -> None:
        """Its parts, the last first, each in order."""
        for part in reversed(self.running):
            part.send_signal(signal.SIGINT if "database.sh" in " ".join(map(str, part.args)) else signal.SIGTERM)  # type: ignore[union-attr, arg-type]
        for part in self.running:
            part.wait(WAITS_S)
        self.running.clear()

    def lose(self) -> None:
        """As if its plug were pulled: off the network, then nothing of it is left."""
        ip("link", "set", f"cl-{self.number}", "down")
        kill_all_in(self.space)
        for part in self.running:
            part.wait(WAITS_S)
        self.running.clear()

    def back(self) -> None:
        """On the network again, with nothing running."""
        ip("link", "set", f"cl-{self.number}", "up")


class Network:
    """place: a folder in which each host has its own."""

    def __init__(self, place: Path) -> None:
        self.place, self.hosts = place, list[Host]()
        self._clear()
        ip("link", "add", SWITCH, "type", "bridge")
        ip("addr", "add", f"{NET}.{OURS}/24", "dev", SWITCH)
        ip("link", "set", SWITCH, "up")

    def host(self, name: str) -> Host:
        """One more."""
        number = 10 + len(self.hosts)
        own = Host(name, number, self.place / name)
        own.place.mkdir(mode=0o755)
        inner, outer = f"cl-{number}-in", f"cl-{number}"
        ip("netns", "add", own.space)
        ip("link", "add", outer, "type", "veth", "peer", "name", inner)
        ip("link", "set", outer, "master", SWITCH)
        ip("link", "set", outer, "up")
        ip("link", "set", inner, "netns", own.space)
        for words in (
            ["addr", "add", f"{own.address}/24", "dev", inner],
            ["link", "set", inner, "up"],
            ["link", "set", "lo", "up"],
        ):
            ip("-n", own.space, *words)
        self.hosts.append(own)
        return own

    def close(self) -> None:
        """All of it, gone."""
        for host in reversed(self.hosts):
            host.stop()
        self._clear()

    def _clear(self) -> None:
        """Also what a run that was killed left: a namespace lives on for as long as something runs in it."""
        for name in _listed("netns", "list"):
            if name.startswith("cloche-"):
                kill_all_in(name)
                ip("netns", "del", name)
        for name in _listed("-brief", "link", "show"):
            if name.startswith("cl-"):
                ip("link", "del", name.split("@")[0], may_fail=True)  # it goes with its other end, in its own time
        ip("link", "del", SWITCH, may_fail=True)


def kill_all_in(space: str) -> None:
    """Every process of a namespace, at once."""
    for pid in _listed("netns", "pids", space):
        try:
            os.kill(int(pid), signal.SIGKILL)
        except ProcessLookupError:
            continue  # it went with another


def _listed(*words: str) -> list[str]:
    """The first word of each line."""
    lines = subprocess.run(["/usr/sbin/ip", *words], capture_output=True, text=True, check=True).stdout.splitlines()  # noqa: S603
    return [line.split()[0] for line in lines if line.strip()]
