"""How far the reading of an archive is."""

from __future__ import annotations

import time
from typing import Any

from django.db import DatabaseError, connections
from psycopg import sql

from cloche.apps.records.models import IncomingArchive

EVERY_S = 1.0
TELL = sql.SQL("UPDATE {} SET done = %s, total = %s WHERE id = %s").format(sql.Identifier(IncomingArchive._meta.db_table))


class Progress:
    """Nobody asks: rows are counted and nothing is told."""

    def __init__(self) -> None:
        self.done = self.total = 0

    def begin(self, total: int) -> None:
        """So many rows in all."""
        self.total = total

    def step(self) -> None:
        """One more."""
        self.done += 1


class Reported(Progress):
    """Shown to whoever waits, through a connection of its own: the reading itself is one transaction, seen only when done."""

    def __init__(self, archive: IncomingArchive) -> None:
        super().__init__()
        self.archive, self.last = archive, 0.0
        self.aside: Any = connections.create_connection("default")

    def step(self) -> None:
        super().step()
        if self.done % 500 == 0 and time.monotonic() - self.last >= EVERY_S:
            self._report()

    def _report(self) -> None:
        self.last = time.monotonic()
        counts = [self.done, max(self.total, self.done), self.archive.pk]
        try:
            with self.aside.cursor() as cursor:
                cursor.execute(TELL, counts)
        except DatabaseError:
            self.aside.close()  # what is told meanwhile is a comfort, no more

    def close(self) -> None:
        """Give the connection back."""
        self.aside.close()
