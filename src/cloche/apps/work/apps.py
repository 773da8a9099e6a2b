from django.apps import AppConfig


class WorkConfig(AppConfig):
    name = "cloche.apps.work"
    label = "work"
