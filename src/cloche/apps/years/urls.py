from django.urls import path

from cloche.apps.years import views

urlpatterns = [
    path("years/", views.years, name="years"),
    path("years/signs/", views.add_sign, name="add_sign"),
    path("years/signs/<int:sign_id>/remove/", views.remove_sign, name="remove_sign"),
]
