from django.apps import AppConfig


class TodayConfig(AppConfig):
    name = "cloche.apps.today"
    label = "today"
