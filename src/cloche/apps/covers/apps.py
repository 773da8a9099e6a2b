from django.apps import AppConfig


class CoversConfig(AppConfig):
    name = "cloche.apps.covers"
    label = "covers"

    def ready(self) -> None:
        """Let trials update the forecast of the covered place."""
        from cloche.apps.covers.flows import gains_of
        from cloche.apps.forecasts.inputs import SOURCES

        SOURCES.append(gains_of)
