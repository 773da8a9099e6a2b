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
    """Limits of a separate process.

    Attributes
    ----------
    memory_bytes : int
        Size of its address space.
    cpu_s, wall_s : int
        Processor time and elapsed time [s].
    file_bytes : int
        Size of any file it writes, including its answer.
    """

    memory_bytes: int = 1_000_000_000
    cpu_s: int = 20
    wall_s: int = 60
    file_bytes: int = 200_000_000

    def words(self) -> list[str]:
        """Return the limits as command-line arguments."""
        return [str(n) for n in (self.memory_bytes, self.cpu_s, self.wall_s, self.file_bytes)]


class Refused(Exception):
    """Raised when the program refuses its input. The message gives the reason."""


class Misasked(Refused):
    """Raised when the input is valid but cannot answer the question. The message gives the reason."""


class TooMuch(Exception):
    """Raised when a limit was exceeded. The message is one word: memory, time or size."""


def run_apart(program: str, given: IO[bytes] | None, limits: Limits, *words: str) -> bytes:
    """Run cloche.apart.PROGRAM on a file and return its answer. Raises Refused or TooMuch."""
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
    """Apply the limits in this process and return its remaining arguments."""
    memory, cpu, wall, file = (int(word) for word in sys.argv[1:5])
    signal.alarm(wall)
    for kind, most in ((resource.RLIMIT_AS, memory), (resource.RLIMIT_CPU, cpu), (resource.RLIMIT_FSIZE, file)):
        resource.setrlimit(kind, (most, most))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    return sys.argv[5:]


def refuse(sentence: str, code: int = REFUSED) -> NoReturn:
    """End the process with a reason."""
    sys.stderr.write(sentence + "\n")
    sys.exit(code)
