"""What the tests have done in a process of its own: it knows no Django, as no engine does."""

from __future__ import annotations

import os


def where() -> tuple[int, int]:
    return os.getpid(), os.nice(0)


def refuse(word: str) -> None:
    raise ValueError(word)
