"""Background jobs of maintenance."""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.upkeep.flows import backups


@app.task(name=backups.BACK_UP)
def back_up() -> None:
    """Make the nightly backup."""
    backups.back_up()
