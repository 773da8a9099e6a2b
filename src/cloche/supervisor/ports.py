"""Ports of our own: `python3 -m cloche.supervisor.ports` prints a free one.

Below those that the kernel gives to connections that go out. One of these could be taken, for as long as some other program's
connection lasts, between the choice of it and its use, and again whenever what listens on it is started anew.
"""

from __future__ import annotations

import random
import socket
from pathlib import Path

LOWEST, TRIES = 20_000, 200
GOING_OUT = Path("/proc/sys/net/ipv4/ip_local_port_range")


def free_port() -> int:
    """Return a free port outside the range of outgoing connections, or any free one if there is none."""
    highest = _first_going_out()
    draw = random.SystemRandom()
    for _ in range(TRIES if highest > LOWEST else 0):
        port = draw.randrange(LOWEST, highest)
        if _can_be_had(port):
            return port
    with socket.socket() as any_free:
        any_free.bind(("127.0.0.1", 0))
        return int(any_free.getsockname()[1])


def _first_going_out() -> int:
    try:
        return int(GOING_OUT.read_text(encoding="ascii").split()[0])
    except (OSError, ValueError, IndexError):
        return 32_768  # what Linux begins with unless it is told otherwise


def _can_be_had(port: int) -> bool:
    with socket.socket() as tried:
        try:
            tried.bind(("127.0.0.1", port))
        except OSError:
            return False
    return True


if __name__ == "__main__":
    print(free_port())  # noqa: T201 - for the scripts
