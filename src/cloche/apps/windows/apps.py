from django.apps import AppConfig


class WindowsConfig(AppConfig):
    name = "cloche.apps.windows"
    label = "windows"
