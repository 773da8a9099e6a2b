from django.apps import AppConfig


class RecordsConfig(AppConfig):
    name = "cloche.apps.records"
    label = "records"
