"""The database's clock: the one that all processes share, and by which waiting is counted."""

from __future__ import annotations

from datetime import datetime

from django.db import connection


def database_now() -> datetime:
    """The present instant as the database has it."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT clock_timestamp()")
        moment: datetime = cursor.fetchone()[0]
    return moment
