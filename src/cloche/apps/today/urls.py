from django.urls import path

from cloche.apps.today import views

urlpatterns = [
    path("", views.today, name="today"),
    path("answer/", views.answer, name="answer"),
    path("answers/<int:answer_id>/take-back/", views.take_back_answer, name="take_back_answer"),
    path("after/", views.after, name="after_frost"),
    path("week/", views.week, name="week"),
    path("digest/", views.digest, name="digest"),
]
