from django.urls import path

from cloche.apps.readings import views

urlpatterns = [
    path("places/<int:place_id>/readings/", views.add_reading, name="add_reading"),
    path("places/<int:place_id>/readings/<int:reading_id>/", views.edit_reading, name="edit_reading"),
    path("places/<int:place_id>/readings/<int:reading_id>/remove/", views.remove_reading, name="remove_reading"),
    path("places/<int:place_id>/readings/<int:reading_id>/take-back/", views.take_back, name="take_back"),
    path("files/", views.files, name="files"),
    path("files/in/<int:file_id>/", views.incoming, name="incoming"),
    path("files/in/<int:file_id>/give-up/", views.give_up, name="give_up"),
    path("files/out/<str:kind>.csv", views.take_out, name="take_out"),
]
