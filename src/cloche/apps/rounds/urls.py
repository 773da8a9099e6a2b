from django.urls import path

from cloche.apps.rounds import views

urlpatterns = [
    path("round/", views.round_, name="round"),
    path("round/send/", views.send, name="send_round"),
    path("round/summary/", views.summary, name="round_summary"),
    path("round/<uuid:visit_key>/take-back/", views.take_back, name="take_visit_back"),
    path("round/<uuid:visit_key>/photo/", views.photo, name="visit_photo"),
]
