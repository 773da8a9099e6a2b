from django.urls import path

from cloche.apps.records import views

urlpatterns = [
    path("history/", views.history, name="history"),
    path("history/<slug:kind>/<int:history_id>/restore/", views.restore, name="restore"),
    path("flags/", views.flags, name="flags"),
    path("garden/erase/", views.erase_garden, name="erase_garden"),
    path("files/garden.zip", views.archive_out, name="archive_out"),
]
