"""Protection from a database that hangs: waiting requests are released after seconds, later ones at once.

A server that is stopped, or whose disk does not answer, keeps its connections open, so that neither keepalives nor timeouts of
its own help. Here a thread watches what each request waits for: where its connection has been busy with one command for too
long, the socket is shut down beneath it. The request then fails like any whose database is gone, and says so.
"""

from __future__ import annotations

import logging
import os
import socket
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from typing import Any

from django.db import DEFAULT_DB_ALIAS, connections
from psycopg import OperationalError
from psycopg.pq import TransactionStatus

log = logging.getLogger("cloche.work")
WAITS_S = 3.0
"""For one command of a request: a hundred times what the slowest page needs on a slow machine."""
LOOKS_S = 0.25
CONNECTS_S = 1.5
"""A connection that fails after longer than this was taken by a server that then said nothing."""
RESTS_S = 2.0
"""While callers are turned away before one of them tries the database again."""


@dataclass
class Waiting:
    """Connection of a request, since when it has been busy, and whether it was cut."""

    session: Any
    busy_since: float | None = None
    cut: bool = False


@dataclass
class Patience:
    """State of one process.

    `rests_until` is the monotonic time until which nobody may query the database; `trying` is the thread that tests it.
    """

    waits_s: float = WAITS_S
    rests_s: float = RESTS_S
    rests_until: float = 0.0
    trying: int | None = None
    waiting: dict[int, Waiting] = field(default_factory=dict)
    lock: threading.Lock = field(default_factory=threading.Lock)
    thread: threading.Thread | None = None

    def is_resting(self) -> bool:
        """Return whether the database was found to hang; after the rest one caller may try it."""
        with self.lock:
            now = time.monotonic()
            if not self.rests_until:
                return False
            if now < self.rests_until:
                return True
            self.rests_until, self.trying = now + self.rests_s, threading.get_ident()
            return False

    def is_shut(self) -> bool:
        """Return whether this thread may not open a connection now."""
        with self.lock:
            return time.monotonic() < self.rests_until and threading.get_ident() != self.trying

    def rest(self) -> None:
        """Refuse callers for a while."""
        with self.lock:
            self.rests_until, self.trying = time.monotonic() + self.rests_s, None

    def recovered(self) -> None:
        """Allow callers again."""
        with self.lock:
            self.rests_until, self.trying = 0.0, None

    @contextmanager
    def watched(self) -> Iterator[Waiting]:
        """Watch this thread's queries and cut them off if they take too long."""
        mine = Waiting(connections[DEFAULT_DB_ALIAS])  # this thread's own, which the other thread can look at
        with self.lock:
            self.waiting[threading.get_ident()] = mine
            if self.thread is None or not self.thread.is_alive():
                self.thread = threading.Thread(target=self._look, name="patience", daemon=True)
                self.thread.start()
        try:
            yield mine
        finally:
            with self.lock:
                self.waiting.pop(threading.get_ident(), None)

    def _look(self) -> None:
        while True:
            time.sleep(LOOKS_S)
            with self.lock:
                every = list(self.waiting.values())
            for waiting in every:
                self._look_at(waiting)

    def _look_at(self, waiting: Waiting) -> None:
        session, now = waiting.session.connection, time.monotonic()
        busy = session is not None and not session.closed and session.pgconn.transaction_status == TransactionStatus.ACTIVE
        if not busy:
            waiting.busy_since = None
        elif waiting.busy_since is None:
            waiting.busy_since = now
        elif now - waiting.busy_since >= self.waits_s and not waiting.cut:
            waiting.cut = True
            log.warning("the database has not answered for %.0f s: its connection is given up", now - waiting.busy_since)
            self.rest()
            try:
                shut_down(session.fileno())
            except OperationalError as gone:
                log.info("the connection was closed meanwhile: %s", gone)


def shut_down(number: int) -> None:
    """Shut a connection's socket, so that its waiting thread gets an error."""
    with socket.socket(fileno=os.dup(number)) as same:
        try:
            same.shutdown(socket.SHUT_RDWR)
        except OSError as gone:
            log.info("the connection was gone already: %s", gone)


PATIENCE = Patience()


def awaited(call: Callable[[], Any], patience: Patience = PATIENCE) -> tuple[Any, bool]:
    """Return the result of a call, and whether the database was given up on meanwhile."""
    with patience.watched() as mine:
        result = call()
    return result, mine.cut
