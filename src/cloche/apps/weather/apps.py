from django.apps import AppConfig


class WeatherConfig(AppConfig):
    name = "cloche.apps.weather"
    label = "weather"
