from django.urls import path

from cloche.apps.seed import views

urlpatterns = [
    path("garden/crops/", views.my_crops, name="my_crops"),
    path("garden/crops/own/", views.new_own, name="new_own_crop"),
    path("garden/crops/own/<slug:key>/", views.edit_own, name="edit_own_crop"),
    path("crops/<slug:crop_key>/choose/", views.choose, name="choose"),
    path("crops/<slug:crop_key>/packets/new/", views.new_packet, name="new_packet"),
    path("crops/<slug:crop_key>/packets/<int:packet_id>/", views.edit_packet, name="edit_packet"),
    path("crops/<slug:crop_key>/packets/<int:packet_id>/use/", views.use_packet, name="use_packet"),
    path("crops/<slug:crop_key>/packets/<int:packet_id>/remove/", views.remove_packet, name="remove_packet"),
    path("crops/<slug:crop_key>/packets/<int:packet_id>/put-back/", views.put_back_packet, name="put_back_packet"),
]
