from django.apps import AppConfig


class GardensConfig(AppConfig):
    name = "cloche.apps.gardens"
    label = "gardens"
