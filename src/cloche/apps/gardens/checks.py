"""Settings that cannot work fail at the start, with a hint. (Django itself refuses to go on without a secret key.)"""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.core.checks import CheckMessage, Error, register


@register()
def a_database_is_named(app_configs: Any, **kwargs: Any) -> list[CheckMessage]:
    """The database's port comes from `./run`; without it nothing later would make sense."""
    if settings.DATABASES["default"]["PORT"]:
        return []
    return [Error("No database to talk to.", hint="Start Cloche with ./run, which sets CLOCHE_DB_PORT.", id="cloche.E001")]
