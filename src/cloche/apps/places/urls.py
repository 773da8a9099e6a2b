from django.urls import path

from cloche.apps.places import views

urlpatterns = [
    path("places/first/", views.first_places, name="first_places"),
    path("places/new/", views.new_place, name="new_place"),
    path("places/<int:place_id>/edit/", views.edit_place, name="edit_place"),
    path("places/<int:place_id>/move/", views.move_place, name="move_place"),
    path("places/<int:place_id>/remove/", views.remove_place, name="remove_place"),
    path("places/<int:place_id>/put-back/", views.put_back_place, name="put_back_place"),
    path("places/<int:place_id>/covers/new/", views.new_cover, name="new_cover"),
    path("places/<int:place_id>/covers/<int:cover_id>/", views.edit_cover, name="edit_cover"),
    path("places/<int:place_id>/covers/<int:cover_id>/off/", views.take_cover_off, name="take_cover_off"),
    path("places/<int:place_id>/covers/<int:cover_id>/remove/", views.remove_cover, name="remove_cover"),
    path("places/<int:place_id>/air/", views.air_place, name="air_place"),
    path("places/<int:place_id>/operations/", views.add_operation, name="add_operation"),
    path("places/<int:place_id>/operations/<int:operation_id>/remove/", views.remove_operation, name="remove_operation"),
]
