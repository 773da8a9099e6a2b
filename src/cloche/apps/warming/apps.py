from django.apps import AppConfig


class WarmingConfig(AppConfig):
    name = "cloche.apps.warming"
    label = "warming"

    def ready(self) -> None:
        """Trials teach the forecast of the covered place."""
        from cloche.apps.warming.flows.trial import gains_of
        from cloche.apps.windows.under import TELLERS

        TELLERS.append(gains_of)
