from django.apps import AppConfig


class LogbookConfig(AppConfig):
    name = "cloche.apps.logbook"
    label = "logbook"
