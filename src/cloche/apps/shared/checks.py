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


SECRET_LENGTH = 40


@register()
def the_secret_is_one(app_configs: Any, **kwargs: Any) -> list[CheckMessage]:
    """What signs cookies must not be guessed."""
    if len(settings.SECRET_KEY) >= SECRET_LENGTH:
        return []
    return [Error("There is no secret to sign with.", hint="Start Cloche with ./run, which makes one.", id="cloche.E002")]
