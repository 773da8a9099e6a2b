from django.apps import AppConfig


class PlantsConfig(AppConfig):
    name = "cloche.apps.plants"
    label = "plants"
