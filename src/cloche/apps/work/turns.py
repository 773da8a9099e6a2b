"""Heavy things that are done while somebody waits: one of a kind at a time in the whole installation, so that they cannot pile
up and hold what other pages need."""

from __future__ import annotations

import os
import threading
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from functools import cache
from typing import Any, TypeVar

from django.db import connection

Found = TypeVar("Found")
ENGINE, ARCHIVE = 1, 2
TURNS = 0x50C4
"""Class of the advisory locks; the kinds are their numbers."""
PATIENCE_S, LOOK_S, QUIET = 0.5, 0.05, 10
WAITS = "Cloche is working out another question. Yours comes next, by itself."


@contextmanager
def turn(kind: int) -> Iterator[bool]:
    """Whether it is one's turn; if not, the page says so and asks again in a moment."""
    mine = _taken(kind)
    try:
        yield mine
    finally:
        if mine:
            _ask("SELECT pg_advisory_unlock(%s, %s)", kind)


def _taken(kind: int) -> bool:
    end = time.monotonic() + PATIENCE_S
    while not _ask("SELECT pg_try_advisory_lock(%s, %s)", kind):
        if time.monotonic() >= end:
            return False
        time.sleep(LOOK_S)
    return True


def _ask(question: str, kind: int) -> bool:
    with connection.cursor() as cursor:
        cursor.execute(question, [TURNS, kind])
        return bool(cursor.fetchone()[0])


def quietly(work: Callable[..., Found], *arguments: Any) -> Found:
    """The result of work that stands back behind everything else this machine does: in a thread of low priority. It must not
    touch the database, whose sessions belong to the threads that asked."""
    return _quiet_thread().submit(work, *arguments).result()


@cache
def _quiet_thread() -> ThreadPoolExecutor:
    def stand_back() -> None:
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), QUIET)

    return ThreadPoolExecutor(1, "quiet", initializer=stand_back)
