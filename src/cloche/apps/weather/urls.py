from django.urls import path, register_converter

from cloche.apps.shared.http import DayConverter
from cloche.apps.weather import views

register_converter(DayConverter, "day")

urlpatterns = [
    path("weather/", views.weather_page, name="weather"),
    path("weather/<day:day>/remove/", views.remove_weather, name="remove_weather"),
    path("weather/<day:day>/put-back/", views.put_back_weather, name="put_back_weather"),
]
