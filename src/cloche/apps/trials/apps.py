from django.apps import AppConfig


class TrialsConfig(AppConfig):
    name = "cloche.apps.trials"
    label = "trials"
