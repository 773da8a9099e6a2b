"""Locks, low-priority processes and the database's clock."""

from __future__ import annotations

import logging
import os
import threading
import time
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from contextlib import contextmanager
from datetime import datetime
from functools import cache
from importlib import import_module
from multiprocessing import get_context
from typing import Any

from django.conf import settings
from django.db import connection

ENGINE, ARCHIVE = 1, 2
TURNS = 0x50C4
"""Class of the advisory locks; the kinds are their numbers."""
PATIENCE_S, LOOK_S, QUIET, LOOK_AFTER_S = 0.5, 0.05, 19, 1.0
log = logging.getLogger("cloche.work")
WAITS = "Cloche is working out another question. Yours comes next, by itself."


HERE = {ENGINE: threading.Lock(), ARCHIVE: threading.Lock()}
"""Of each kind one within this process works or waits for those elsewhere. A process has a few threads only: who waits behind
one of its own comes again, rather than hold a thread that light pages need."""
HERE_S = 0.1


@contextmanager
def turn(kind: int) -> Iterator[bool]:
    """Yield whether a turn is free; if not, the page says so and asks again shortly."""
    end = time.monotonic() + PATIENCE_S
    if not HERE[kind].acquire(timeout=HERE_S):
        yield False
        return
    try:
        mine = _taken(kind, end)
        try:
            yield mine
        finally:
            if mine:
                _ask("SELECT pg_advisory_unlock(%s, %s)", kind)
    finally:
        HERE[kind].release()


def _taken(kind: int, end: float) -> bool:
    while not _ask("SELECT pg_try_advisory_lock(%s, %s)", kind):
        if time.monotonic() >= end:
            return False
        time.sleep(LOOK_S)
    return True


def _ask(question: str, kind: int) -> bool:
    with connection.cursor() as cursor:
        cursor.execute(question, [TURNS, kind])
        return bool(cursor.fetchone()[0])


def run_low_priority(work: str, *arguments: Any) -> Any:
    """Run a function given as module:function in a low-priority process and return its result.

    In the same process every page would wait for it. It must not use the database; arguments and result are copied.
    """
    if not settings.CLOCHE_HELPER:
        return do(work, *arguments)
    try:
        return _helper().submit(do, work, *arguments).result()
    except BrokenProcessPool:
        log.warning("the process for heavy questions ended; another is started")
        _helper.cache_clear()
        return _helper().submit(do, work, *arguments).result()


def do(work: str, *arguments: Any) -> Any:
    """Run the function in this process."""
    module, name = work.split(":")
    return getattr(import_module(module), name)(*arguments)


@cache
def _helper() -> ProcessPoolExecutor:
    return ProcessPoolExecutor(1, get_context("spawn"), initializer=_stand_back, initargs=(os.getpid(),))


def _stand_back(parent: int) -> None:
    """Lower the priority of this process, and end it with its parent."""
    os.nice(QUIET)

    def watch() -> None:
        while os.getppid() == parent:
            time.sleep(LOOK_AFTER_S)
        os._exit(0)

    threading.Thread(target=watch, daemon=True).start()


def database_now() -> datetime:
    """Return the current time of the database."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT clock_timestamp()")
        moment: datetime = cursor.fetchone()[0]
    return moment
