"""Make a backup at once, like the nightly one."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from cloche.apps.upkeep.flows import backups


class Command(BaseCommand):
    """Back the database up into CLOCHE_BACKUPS."""

    help = "Back everything up into CLOCHE_BACKUPS, proved by a restore on trial."

    def handle(self, *args: Any, **options: Any) -> None:
        """Make a backup and print its name."""
        if not backups.is_wanted():
            raise CommandError("CLOCHE_BACKUPS names no folder.")
        try:
            done = backups.back_up()
        except backups.NotBackedUp as refused:
            raise CommandError(str(refused)) from refused
        self.stdout.write(f"{done.file}, {done.size_bytes / 1e6:.1f} MB, restored on trial.")
