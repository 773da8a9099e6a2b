from django.urls import path

from cloche.apps.sowings import views

urlpatterns = [
    path("sowings/", views.sowings, name="sowings"),
    path("sowings/new/", views.new_sowing, name="new_sowing"),
    path("sowings/<int:sowing_id>/edit/", views.edit_sowing, name="edit_sowing"),
    path("sowings/<int:sowing_id>/count/", views.count, name="count"),
    path("sowings/<int:sowing_id>/count/remove/", views.remove_count, name="remove_count"),
    path("sowings/<int:sowing_id>/finish/", views.finish, name="finish_sowing"),
    path("sowings/<int:sowing_id>/remove/", views.remove, name="remove_sowing"),
    path("sowings/<int:sowing_id>/put-back/", views.put_back, name="put_back_sowing"),
    path("crops/<slug:crop_key>/", views.seed, name="seed"),
]
