from django.apps import AppConfig


class RoundsConfig(AppConfig):
    name = "cloche.apps.rounds"
    label = "rounds"
