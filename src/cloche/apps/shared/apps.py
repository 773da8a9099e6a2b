from django.apps import AppConfig


class SharedConfig(AppConfig):
    name = "cloche.apps.shared"
    label = "shared"

    def ready(self) -> None:
        from cloche.apps.shared import (
            checks,  # noqa: F401  registers them
            history,  # noqa: F401  listens
        )
