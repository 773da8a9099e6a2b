from django.urls import path

from cloche.apps.gardens import views

urlpatterns = [
    path("", views.garden, name="garden"),
    path("normals/", views.normals, name="normals"),
    path("places/new/", views.new_place, name="new_place"),
    path("places/<int:place_id>/edit/", views.edit_place, name="edit_place"),
    path("places/<int:place_id>/move/", views.move_place, name="move_place"),
    path("places/<int:place_id>/remove/", views.remove_place, name="remove_place"),
    path("places/<int:place_id>/put-back/", views.put_back_place, name="put_back_place"),
    path("people/", views.let_in, name="let_in"),
    path("people/<int:user_id>/out/", views.show_out, name="show_out"),
]
