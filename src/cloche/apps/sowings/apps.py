from django.apps import AppConfig


class SowingsConfig(AppConfig):
    name = "cloche.apps.sowings"
    label = "sowings"
