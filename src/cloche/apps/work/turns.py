"""Heavy things that are done while somebody waits: one of a kind at a time in each process, so that they cannot pile up and
hold what other pages need."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager

ENGINE, ARCHIVE = "engine", "archive"
PATIENCE_S = 0.5
WAITS = "Cloche is working out another question. Yours comes next, by itself."
_LOCKS = {ENGINE: threading.Lock(), ARCHIVE: threading.Lock()}


@contextmanager
def turn(kind: str) -> Iterator[bool]:
    """Whether it is one's turn; if not, the page says so and asks again in a moment."""
    mine = _LOCKS[kind].acquire(timeout=PATIENCE_S)
    try:
        yield mine
    finally:
        if mine:
            _LOCKS[kind].release()
