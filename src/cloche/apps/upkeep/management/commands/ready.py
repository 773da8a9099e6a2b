"""Migrate the database and create its caches: one process at a time, and only if needed."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand
from django.db import connection, transaction
from django.db.migrations.executor import MigrationExecutor

LOCK = 0x50C4
SCHEMA = Path(__file__).parents[2] / "schema.sql"
"""What all migrations make of a database in which there is nothing, in a fraction of their time (`./run schema` writes it)."""


def _wanted() -> set[str]:
    """Return the names of cache tables."""
    return {cache["LOCATION"] for cache in settings.CACHES.values() if "LOCATION" in cache}


class Command(BaseCommand):
    help = __doc__
    requires_system_checks = []
    """They cost more than looking."""

    def handle(self, *args: Any, verbosity: int, **options: Any) -> None:
        with connection.cursor() as cursor:
            cursor.execute("SELECT pg_advisory_lock(%s)", [LOCK])
            try:
                if not connection.introspection.table_names():
                    with transaction.atomic():
                        cursor.execute(SCHEMA.read_text(encoding="utf-8"))
                executor = MigrationExecutor(connection)
                if executor.migration_plan(executor.loader.graph.leaf_nodes()):
                    call_command("migrate", verbosity=verbosity)
                if _wanted() - set(connection.introspection.table_names()):
                    call_command("createcachetable", verbosity=0)
            finally:
                cursor.execute("SELECT pg_advisory_unlock(%s)", [LOCK])
