from django.apps import AppConfig


class SeedConfig(AppConfig):
    name = "cloche.apps.seed"
    label = "seed"
