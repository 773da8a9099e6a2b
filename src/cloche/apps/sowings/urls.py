from django.urls import path

from cloche.apps.sowings import seed_views, views

urlpatterns = [
    path("sowings/", views.sowings, name="sowings"),
    path("sowings/new/", views.new_sowing, name="new_sowing"),
    path("sowings/<int:sowing_id>/count/", views.count, name="count"),
    path("sowings/<int:sowing_id>/count/remove/", views.remove_count, name="remove_count"),
    path("sowings/<int:sowing_id>/finish/", views.finish, name="finish_sowing"),
    path("sowings/<int:sowing_id>/remove/", views.remove, name="remove_sowing"),
    path("sowings/<int:sowing_id>/put-back/", views.put_back, name="put_back_sowing"),
    path("crops/<slug:crop_key>/", seed_views.seed, name="seed"),
    path("crops/<slug:crop_key>/choose/", seed_views.choose, name="choose"),
    path("crops/<slug:crop_key>/packets/new/", seed_views.new_packet, name="new_packet"),
    path("crops/<slug:crop_key>/packets/<int:packet_id>/", seed_views.edit_packet, name="edit_packet"),
    path("crops/<slug:crop_key>/packets/<int:packet_id>/use/", seed_views.use_packet, name="use_packet"),
    path("crops/<slug:crop_key>/packets/<int:packet_id>/remove/", seed_views.remove_packet, name="remove_packet"),
    path("crops/<slug:crop_key>/packets/<int:packet_id>/put-back/", seed_views.put_back_packet, name="put_back_packet"),
]
