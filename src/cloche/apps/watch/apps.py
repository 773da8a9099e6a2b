from django.apps import AppConfig


class WatchConfig(AppConfig):
    name = "cloche.apps.watch"
    label = "watch"
