from django.apps import AppConfig


class ReadingsConfig(AppConfig):
    name = "cloche.apps.readings"
    label = "readings"
