"""Heavy things that are done while somebody waits: one of a kind at a time in the whole installation, so that they cannot pile
up and hold what other pages need."""

from __future__ import annotations

import logging
import os
import threading
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from contextlib import contextmanager
from functools import cache
from multiprocessing import get_context
from typing import Any, TypeVar

from django.conf import settings
from django.db import connection

Found = TypeVar("Found")
ENGINE, ARCHIVE = 1, 2
TURNS = 0x50C4
"""Class of the advisory locks; the kinds are their numbers."""
PATIENCE_S, LOOK_S, QUIET, LOOK_AFTER_S = 0.5, 0.05, 19, 1.0
log = logging.getLogger("cloche.work")
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
    """The result of work that stands back behind everything else this machine does: in a process of its own with low priority,
    for beside it in one process every page would wait for it in turn. It must not touch the database; what it is given and
    gives is copied."""
    if not settings.CLOCHE_HELPER:
        return work(*arguments)
    try:
        return _helper().submit(work, *arguments).result()
    except BrokenProcessPool:
        log.warning("the process for heavy questions ended; another is started")
        _helper.cache_clear()
        return _helper().submit(work, *arguments).result()


@cache
def _helper() -> ProcessPoolExecutor:
    return ProcessPoolExecutor(1, get_context("spawn"), initializer=_stand_back, initargs=(os.getpid(),))


def _stand_back(parent: int) -> None:
    """Behind all else, and never without whom it works for."""
    os.nice(QUIET)

    def watch() -> None:
        while os.getppid() == parent:
            time.sleep(LOOK_AFTER_S)
        os._exit(0)

    threading.Thread(target=watch, daemon=True).start()
