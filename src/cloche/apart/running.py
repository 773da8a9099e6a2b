"""Running one of these programs, and the limits it lays on itself before it looks at anything."""

from __future__ import annotations

import resource
import signal
import subprocess
import sys
import tempfile
from dataclasses import dataclass
from pathlib import Path
from typing import IO, NoReturn

REFUSED, MISASKED = 3, 4
"""Exit codes of a program that has said in a sentence why it refuses, or why what it asked would not answer this question."""
PATIENCE_S = 2.0
"""Beyond its own limit of time, before it is ended from outside."""
_OUT_OF_TIME = {-signal.SIGXCPU, -signal.SIGALRM, -signal.SIGKILL}


@dataclass(frozen=True)
class Limits:
    """memory_bytes: of its whole address space; cpu_s, wall_s: time of the processor and of the clock; file_bytes: of any
    file that it writes, its answer among them."""

    memory_bytes: int = 1_000_000_000
    cpu_s: int = 20
    wall_s: int = 60
    file_bytes: int = 200_000_000

    def words(self) -> list[str]:
        """As arguments of a program."""
        return [str(n) for n in (self.memory_bytes, self.cpu_s, self.wall_s, self.file_bytes)]


class Refused(Exception):
    """The program refuses what it was given; the message says why."""


class Misasked(Refused):
    """What was asked is well, but does not answer this question; the message says why."""


class TooMuch(Exception):
    """It passed a limit; the message says which in a word: memory, time or size."""


def run_apart(program: str, given: IO[bytes] | None, limits: Limits, *words: str) -> bytes:
    """The answer of cloche.apart.PROGRAM to a file at its start. Raises Refused or TooMuch."""
    command = [sys.executable, "-W", "ignore", "-m", f"cloche.apart.{program}", *limits.words(), *words]
    with tempfile.TemporaryFile() as answer, tempfile.TemporaryFile() as errors:
        process = subprocess.Popen(  # noqa: S603 - our own words
            command,
            stdin=subprocess.DEVNULL if given is None else given,
            stdout=answer,
            stderr=errors,
            env={"PYTHONPATH": str(Path(__file__).parents[2]), "LC_ALL": "C.UTF-8", "OPENBLAS_NUM_THREADS": "1"},
            start_new_session=True,
        )
        try:
            code = process.wait(limits.wall_s + PATIENCE_S)
        except subprocess.TimeoutExpired as slow:
            raise TooMuch("time") from slow
        finally:
            if process.poll() is None:
                process.kill()
                process.wait()
        answer.seek(0)
        errors.seek(0)
        return _answered(code, answer, errors.read(100_000).decode("utf-8", "replace").strip())


def _answered(code: int, answer: IO[bytes], errors: str) -> bytes:
    if code == 0:
        return answer.read()
    if code in (REFUSED, MISASKED):
        kind = Misasked if code == MISASKED else Refused
        raise kind(errors.splitlines()[-1] if errors else "It cannot be read.")
    if code in _OUT_OF_TIME:
        raise TooMuch("time")
    if code == -signal.SIGXFSZ or "File too large" in errors:
        raise TooMuch("size")
    if code == -signal.SIGABRT or "MemoryError" in errors or "memory allocation" in errors:
        raise TooMuch("memory")
    raise Refused(f"It cannot be read: its reader ended with {code}.")


def limited() -> list[str]:
    """For a program's first line: lay the limits on this process; returns its other words."""
    memory, cpu, wall, file = (int(word) for word in sys.argv[1:5])
    signal.alarm(wall)
    for kind, most in ((resource.RLIMIT_AS, memory), (resource.RLIMIT_CPU, cpu), (resource.RLIMIT_FSIZE, file)):
        resource.setrlimit(kind, (most, most))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    return sys.argv[5:]


def refuse(sentence: str, code: int = REFUSED) -> NoReturn:
    """End, saying why."""
    sys.stderr.write(sentence + "\n")
    sys.exit(code)
