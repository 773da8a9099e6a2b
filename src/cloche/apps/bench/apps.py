from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "cloche.apps.bench"
    label = "bench"
