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
    """Where the kernel shares the processor among sessions first, niceness counts within one alone: the session of its own that
    a part runs in stands back as a whole."""
    share = Path(f"/proc/{pid}/autogroup")
    try:
        if share.exists():
            share.write_text(HINDMOST)
    except OSError as refused:
        sys.stderr.write(f"A part cannot be made to stand back: {refused}\n")


@dataclass
class Part:
    """name: as people are told it; command: its words; keep_fds: open files that it inherits; ends_on: the signal that ends it
    in order; log: where its output goes, else where ours does; cwd: where it stands; stands_back: whether all others go
    before it."""

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
        """In a session of its own: what is typed at our terminal reaches us alone, and we end the parts in order."""
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
        """Whether its process is there."""
        return self.process is not None and self.process.poll() is None

    def look(self, report: Callable[[str], None]) -> None:
        """Say that it ended, if it did; start it again once its pause is over."""
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
        """End it in order; after so long, at once."""
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
    """PostgreSQL, its data in a folder. Told to stop by somebody else, it would wait for every session to end by itself, and
    ours do not: its sessions are ended for it, so that it can be started again."""

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
        """Whether it takes sessions: our own process, and not another that listens where it would."""
        if self.process is None:
            return False
        said = self._says()
        return said[:1] == [str(self.process.pid)] and said[-1] in ("ready", "standby")

    def _is_stopping(self) -> bool:
        return self._says()[-1:] == ["stopping"]

    def _says(self) -> list[str]:
        """The lines of the file in which it says whose process it is, and last how it is."""
        try:
            return Path(self.folder, "postmaster.pid").read_text(encoding="utf-8").split()
        except OSError:
            return []  # it is not there before the start and after the end


def how_it_ended(code: int) -> str:
    """In words: with an exit code, or by a signal."""
    if code >= 0:
        return f"ended with {code}"
    names = {s.value: s.name for s in signal.Signals}
    return f"was ended by {names.get(-code, str(-code))}"


def report(sentence: str) -> None:
    """To whoever started us. Where what is said is written to a disk that is full, the saying is lost and nothing else."""
    with contextlib.suppress(OSError):
        os.write(2, f"{sentence}\n".encode())
