from django.apps import AppConfig


class GardensConfig(AppConfig):
    name = "cloche.apps.gardens"
    label = "gardens"

    def ready(self) -> None:
        from cloche.apps.gardens import checks  # noqa: F401  registers them
        from cloche.apps.gardens.flows import past  # noqa: F401  listens
