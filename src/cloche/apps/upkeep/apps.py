from django.apps import AppConfig


class UpkeepConfig(AppConfig):
    name = "cloche.apps.upkeep"
    label = "upkeep"
