"""System checks that refuse settings that cannot work, with a hint."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.core.checks import CheckMessage, Error, register


@register()
def a_database_is_named(app_configs: Any, **kwargs: Any) -> list[CheckMessage]:
    """Check that `./run` has set the database port."""
    if settings.DATABASES["default"]["PORT"]:
        return []
    return [Error("No database to talk to.", hint="Start Cloche with ./run, which sets CLOCHE_DB_PORT.", id="cloche.E001")]


SECRET_LENGTH = 40


@register()
def the_secret_is_one(app_configs: Any, **kwargs: Any) -> list[CheckMessage]:
    """Check that the secret that signs cookies cannot be guessed."""
    if len(settings.SECRET_KEY) >= SECRET_LENGTH:
        return []
    return [Error("There is no secret to sign with.", hint="Start Cloche with ./run, which makes one.", id="cloche.E002")]
