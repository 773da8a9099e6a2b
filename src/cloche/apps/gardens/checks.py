"""Settings that cannot work fail at the start, with a hint."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.core.checks import CheckMessage, Error, register


@register()
def started_by_the_run_command(app_configs: Any, **kwargs: Any) -> list[CheckMessage]:
    """The database's port and the secret come from `./run`; without them nothing later would make sense."""
    found: list[CheckMessage] = []
    if not settings.DATABASES["default"]["PORT"]:
        found.append(
            Error("No database to talk to.", hint="Start Cloche with ./run, which sets CLOCHE_DB_PORT.", id="cloche.E001")
        )
    if not settings.SECRET_KEY:
        found.append(Error("No secret key.", hint="Start Cloche with ./run, which makes and keeps one.", id="cloche.E002"))
    return found
