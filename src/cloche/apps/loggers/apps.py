from django.apps import AppConfig


class LoggersConfig(AppConfig):
    name = "cloche.apps.loggers"
    label = "loggers"
