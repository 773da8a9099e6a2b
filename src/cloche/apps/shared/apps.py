from django.apps import AppConfig


class SharedConfig(AppConfig):
    name = "cloche.apps.shared"
    label = "shared"

    def ready(self) -> None:
        """Register checks, history signals and the translator of drawings and input checks."""
        from django.utils.translation import gettext

        from cloche.apps.shared import (
            checks,  # noqa: F401  registers them
            history,  # noqa: F401  listens
            words,
        )
        from cloche.bridge.values import texts
        from cloche.drawing.labels import labels

        texts.speak_with(gettext)
        labels.day, labels.short_day, labels.month = words.day, words.short_day, words.short_month
