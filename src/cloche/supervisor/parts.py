"""One part of the application: how it is started, that it ended, when it is started again."""

from __future__ import annotations

import contextlib
import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import IO

FIRST_PAUSE_S, LONGEST_PAUSE_S, STEADY_S = 0.5, 30.0, 10.0
"""Before a part that ended is started again, doubled each time; having run for so long it begins anew with the first."""

HINDMOST = "5"
"""Niceness of a session that stands back: a quarter of a core beside one that wants all of it, never nothing."""


def stand_back(pid: int) -> None:
    """Lower the priority of the session of a process.

    Where the kernel first divides the processor among sessions, niceness counts only within one. Each part runs in a session
    of its own, and that session is given less weight as a whole.
    """
    share = Path(f"/proc/{pid}/autogroup")
    try:
        if share.exists():
            share.write_text(HINDMOST)
    except OSError as refused:
        sys.stderr.write(f"A part cannot be made to stand back: {refused}\n")


@dataclass
class Part:
    """A program that the supervisor runs.

    Attributes
    ----------
    name : str
        Name shown to people.
    command : sequence of str
        Its command line.
    keep_fds : tuple of int
        Open files that it inherits.
    ends_on : int
        Signal that ends it in order.
    log : str
        Where its output goes, empty for the supervisor's own output.
    cwd : str or None
        Its working directory.
    stands_back : bool
        Whether all other parts have priority.
    """

    name: str
    command: Sequence[str]
    keep_fds: tuple[int, ...] = ()
    ends_on: int = signal.SIGTERM
    log: str = ""
    cwd: str | None = None
    stands_back: bool = False
    process: subprocess.Popen[bytes] | None = field(default=None, repr=False)
    pause_s: float = FIRST_PAUSE_S
    begun_s: float = 0.0
    due_s: float = 0.0
    restarts: int = 0
    last: str = ""

    def start(self) -> None:
        """Start the program in a session of its own.

        Signals typed at the terminal then reach only the supervisor, which ends the parts in order.
        """
        out: IO[bytes] | None = open(self.log, "ab") if self.log else None  # noqa: SIM115 - closed below, the part has its own
        try:
            self.process = subprocess.Popen(  # noqa: S603 - our own words
                self.command,
                pass_fds=self.keep_fds,
                start_new_session=True,
                stdout=out,
                stderr=out,
                stdin=subprocess.DEVNULL,
                cwd=self.cwd,
            )
        finally:
            if out is not None:
                out.close()
        self.begun_s = time.monotonic()
        if self.stands_back:
            stand_back(self.process.pid)

    def is_running(self) -> bool:
        """Return whether the process exists."""
        return self.process is not None and self.process.poll() is None

    def look(self, report: Callable[[str], None]) -> None:
        """Report if the process has ended, and restart it once its pause is over."""
        if self.is_running():
            return
        now = time.monotonic()
        if self.process is not None:
            self._ended(now, report)
        if now >= self.due_s:
            self._again(report)

    def _ended(self, now: float, report: Callable[[str], None]) -> None:
        assert self.process is not None  # noqa: S101 - asked for
        if now - self.begun_s >= STEADY_S:
            self.pause_s = FIRST_PAUSE_S
        self.due_s = now + self.pause_s
        self.last = how_it_ended(self.process.returncode)
        report(f"{self.name} {self.last}; it is started again in {self.pause_s:g} s.")
        self.pause_s = min(self.pause_s * 2, LONGEST_PAUSE_S)
        self.process = None

    def _again(self, report: Callable[[str], None]) -> None:
        self.restarts += 1
        try:
            self.start()
        except OSError as refused:
            self.due_s = time.monotonic() + self.pause_s
            self.pause_s = min(self.pause_s * 2, LONGEST_PAUSE_S)
            report(f"{self.name} cannot be started: {refused}. It is tried again.")

    def stop(self, patience_s: float) -> None:
        """End the process in order, or kill it after `patience_s` seconds."""
        if self.process is None or self.process.poll() is not None:
            return
        self.process.send_signal(self.ends_on)
        try:
            self.process.wait(patience_s)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()


STOPS_WITHIN_S = 3.0


@dataclass
class Database(Part):
    """PostgreSQL with its data in a folder.

    When someone else tells it to stop, it would wait for every session to end. The sessions are the application's own, so
    they are closed and it can be started again.
    """

    folder: str = ""
    stopping_s: float = 0.0

    def look(self, report: Callable[[str], None]) -> None:
        if self.is_running() and self._is_stopping():
            now = time.monotonic()
            self.stopping_s = self.stopping_s or now
            if now - self.stopping_s >= STOPS_WITHIN_S and self.process is not None:
                report(f"{self.name} was told to stop and waits for its sessions; they are ended.")
                self.process.send_signal(signal.SIGINT)
                self.stopping_s = 0.0
        else:
            self.stopping_s = 0.0
        super().look(report)

    def is_ready(self) -> bool:
        """Return whether our own PostgreSQL process accepts connections."""
        if self.process is None:
            return False
        said = self._says()
        return said[:1] == [str(self.process.pid)] and said[-1] in ("ready", "standby")

    def _is_stopping(self) -> bool:
        return self._says()[-1:] == ["stopping"]

    def _says(self) -> list[str]:
        """Return the lines of its status file: the process first, its state last."""
        try:
            return Path(self.folder, "postmaster.pid").read_text(encoding="utf-8").split()
        except OSError:
            return []  # it is not there before the start and after the end


def how_it_ended(code: int) -> str:
    """Describe an exit code or signal in words."""
    if code >= 0:
        return f"ended with {code}"
    names = {s.value: s.name for s in signal.Signals}
    return f"was ended by {names.get(-code, str(-code))}"


def report(sentence: str) -> None:
    """Write a sentence to the standard error.

    If that is a file on a full disk, only the sentence is lost.
    """
    with contextlib.suppress(OSError):
        os.write(2, f"{sentence}\n".encode())
