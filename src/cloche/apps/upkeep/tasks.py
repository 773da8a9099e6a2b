"""What the queue calls for upkeep."""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.upkeep.flows import backups


@app.task(name=backups.BACK_UP)
def back_up() -> None:
    """The night's backup."""
    backups.back_up()
