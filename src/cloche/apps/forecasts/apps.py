from django.apps import AppConfig


class ForecastsConfig(AppConfig):
    name = "cloche.apps.forecasts"
    label = "forecasts"
