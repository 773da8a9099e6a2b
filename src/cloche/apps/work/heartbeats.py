"""Parts of the application that say that they are alive."""

from __future__ import annotations

from cloche.apps.work import moments
from cloche.apps.work.models import Heartbeat


def beat(part: str) -> None:
    """This part is alive now."""
    Heartbeat.objects.update_or_create(part=part, defaults={"at": moments.database_now()})
