from django.urls import path

from cloche.apps.watch import views

urlpatterns = [path("", views.today, name="today")]
