"""Questions to the engine that are answered while somebody waits: one at a time in each process, so that they cannot pile up
and hold what other pages need."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager

_ENGINE = threading.Lock()
PATIENCE_S = 0.5
WAITS = "Cloche is working out another question. Yours comes next, by itself."


@contextmanager
def turn() -> Iterator[bool]:
    """Whether it is this question's turn; if not, the page says so and asks again in a moment."""
    mine = _ENGINE.acquire(timeout=PATIENCE_S)
    try:
        yield mine
    finally:
        if mine:
            _ENGINE.release()
