from django.urls import path

from cloche.apps.trials import views

urlpatterns = [
    path("germination/", views.germination_trials, name="germination_trials"),
    path("germination/<int:germination_id>/", views.germination_trial, name="germination_trial"),
    path("germination/<int:germination_id>/pace/<slug:crop_key>/", views.teach_pace, name="teach_pace"),
    path("germination/<int:germination_id>/end/", views.end_germination, name="end_germination"),
    path("germination/<int:germination_id>/counts/<int:count_id>/remove/", views.remove_trial_count, name="remove_trial_count"),
    path("germination/<int:germination_id>/batches/<int:batch_id>/remove/", views.remove_batch, name="remove_batch"),
    path("germination/<int:germination_id>/batches/<int:batch_id>/packet/", views.teach_packet, name="teach_packet"),
]
