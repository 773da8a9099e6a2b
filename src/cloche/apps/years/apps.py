from django.apps import AppConfig


class YearsConfig(AppConfig):
    name = "cloche.apps.years"
    label = "years"
