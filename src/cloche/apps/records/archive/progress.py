"""Progress of reading an archive."""

from __future__ import annotations

import time
from typing import Any

from django.db import DatabaseError, connections
from psycopg import sql

from cloche.apps.records.models import IncomingArchive

EVERY_S = 1.0
TELL = sql.SQL("UPDATE {} SET done = %s, total = %s WHERE id = %s").format(sql.Identifier(IncomingArchive._meta.db_table))


class Progress:
    """Progress that counts rows and reports to nobody."""

    def __init__(self) -> None:
        self.done = self.total = 0

    def begin(self, total: int) -> None:
        """Set the total number of rows."""
        self.total = total

    def step(self) -> None:
        """Count one more row."""
        self.done += 1


class Reported(Progress):
    """Progress shown to the person waiting.

    Written through a connection of its own, because the reading is one transaction and invisible until it ends.
    """

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
        """Close the connection."""
        self.aside.close()
