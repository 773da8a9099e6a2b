from django.urls import path

from cloche.apps.loggers import views

urlpatterns = [
    path("loggers/", views.loggers, name="loggers"),
    path("loggers/<int:device_id>/probes/", views.deploy_probe, name="deploy_probe"),
    path("loggers/<int:device_id>/probes/<int:probe_id>/out/", views.retrieve_probe, name="retrieve_probe"),
    path("loggers/<int:device_id>/messages/", views.own_messages, name="own_messages"),
    path("loggers/<int:device_id>/messages/<int:mapping_id>/forget/", views.forget_mapping, name="forget_mapping"),
    path("loggers/<int:device_id>/token/", views.renew_token, name="renew_token"),
    path("loggers/<int:device_id>/shut-out/", views.shut_out, name="shut_out"),
]
