from django.apps import AppConfig


class WarmingConfig(AppConfig):
    name = "cloche.apps.warming"
    label = "warming"
