"""Run the application until told to stop: every part is watched, and one that ends is started again.

Started by scripts/serve.sh with everything in its environment that the parts need.
"""

from __future__ import annotations

import argparse
import json
import signal
import socket
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path

from cloche.supervisor.parts import Database, Part, report

LOOK_S, START_S = 0.25, 600.0
"""A small box that has much else to do may take minutes to start; what cannot start ends, and is counted below."""
PATIENCE_S, DATABASE_PATIENCE_S = 15.0, 60.0
MOST_TROUBLE = 6
"""Restarts of a part before it was ever open, after which something is wrong that restarting does not mend."""


class Ended(Exception):
    """Raised when a signal asks the supervisor to end."""


def main() -> int:
    """Run all parts until a signal arrives and return the exit code."""
    words = _words()
    for signum in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(signum, _end)
    listening = _listen(words.port)
    database = _database(words)
    parts = _parts(words, listening.fileno())
    try:
        database.start()
        _wait_for_database(database)
        for part in parts:
            part.start()
        _open(words, [database, *parts])
        while True:
            _look([database, *parts], words.state)
    except Ended as signal_sent:
        return 128 + int(str(signal_sent))
    finally:
        for sign in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
            signal.signal(sign, signal.SIG_IGN)  # a second one must not cut this short
        _stop(parts, database)


def _end(number: int, frame: object) -> None:
    raise Ended(str(number))


def _words() -> argparse.Namespace:
    parser = argparse.ArgumentParser()
    for name in ("state", "python", "pg-bin", "db", "greeting"):
        parser.add_argument(f"--{name}", required=True)
    for name in ("port", "db-port"):
        parser.add_argument(f"--{name}", type=int, required=True)
    for name in ("as-web", "as-database"):
        parser.add_argument(f"--{name}", default="", help="Words that give a command its own user.")
    parser.add_argument("--listen", action="store_true")
    parser.add_argument("--also", action="append", default=[], help="NAME=COMMAND of one more part.")
    return parser.parse_args()


def _listen(port: int) -> socket.socket:
    """Open the web server's socket in the supervisor.

    While the server restarts, callers wait instead of being refused.
    """
    listener = socket.socket()
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    listener.bind(("127.0.0.1", port))
    listener.listen(512)
    return listener


def _database(words: argparse.Namespace) -> Database:
    command = [*words.as_database.split(), "setpriv", "--pdeathsig", "INT"]
    command += [f"{words.pg_bin}/postgres", "-D", f"{words.db}/data", "-p", str(words.db_port)]
    # INT: sessions are ended, what is committed is safe, the next start is quick. / can be entered by every user.
    return Database(
        "The database", command, ends_on=signal.SIGINT, log=f"{words.state}/database.log", cwd="/", folder=f"{words.db}/data"
    )


def _parts(words: argparse.Namespace, fd: int) -> list[Part]:
    own = [*words.as_web.split(), "setpriv", "--pdeathsig", "TERM"]
    django = [words.python, "-m", "cloche.manage"]
    parts = [Part(f"The web ({n})", [*own, *django, "web", "--fd", str(fd)], keep_fds=(fd,)) for n in (1, 2)]
    # What people wait for goes first: working out stands back.
    quiet = ["nice", "-n", "19"]
    parts += [Part(f"The worker ({n})", [*own, *quiet, *django, "work"], stands_back=True) for n in (1, 2)]
    if words.listen:
        parts.append(Part("The listener", [*own, *django, "listen"]))
    for extra in words.also:
        name, _, command = extra.partition("=")
        parts.append(Part(name, [*own, *command.split()]))
    return parts


def _wait_for_database(database: Database) -> None:
    end = time.monotonic() + START_S
    while not database.is_ready():
        database.look(report)
        if database.restarts > MOST_TROUBLE or time.monotonic() > end:
            raise SystemExit("Cloche cannot go on: the database does not start; see database.log beside the data.")
        time.sleep(0.1)


def _open(words: argparse.Namespace, parts: list[Part]) -> None:
    """Wait until the application answers and report its address."""
    end = time.monotonic() + START_S
    while not _answers(words.port):
        _look(parts, words.state)
        trouble = sum(part.restarts for part in parts if part.name.startswith("The web"))
        if trouble > MOST_TROUBLE or time.monotonic() > end:
            raise SystemExit("Cloche cannot go on: the application did not start; its own words are above.")
    sys.stdout.write(words.greeting.replace("\\n", "\n") + "\n")
    sys.stdout.flush()


def _answers(port: int) -> bool:
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/healthz/", timeout=2) as answer:
            return bool(answer.status == 200)
    except (urllib.error.URLError, OSError):
        return False


def _look(parts: list[Part], state: str) -> None:
    before = [part.restarts for part in parts]
    for part in parts:
        part.look(report)
    if [part.restarts for part in parts] != before:
        _report(parts, state)
    time.sleep(LOOK_S)


def _report(parts: list[Part], state: str) -> None:
    """Write how often each part was restarted and why, for the page System status."""
    restarts = {part.name: {"restarts": part.restarts, "last": part.last} for part in parts if part.restarts}
    try:
        Path(state, "parts.json").write_text(json.dumps(restarts), encoding="utf-8")
    except OSError as full:
        report(f"What was started again could not be written down: {full}.")


def _stop(parts: list[Part], database: Part) -> None:
    for part in parts:
        if part.process is not None and part.is_running():
            part.process.send_signal(part.ends_on)
    for part in parts:
        part.stop(PATIENCE_S)
    database.stop(DATABASE_PATIENCE_S)


if __name__ == "__main__":
    sys.exit(main())
