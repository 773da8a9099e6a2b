from django.urls import path

from cloche.apps.covers import trial_views, views

urlpatterns = [
    path("covers/", views.covers, name="covers"),
    path("covers/season/", views.season_moved, name="season_moved"),
    path("covers/opening/", trial_views.opening, name="opening"),
    path("covers/trials/", trial_views.trials, name="trials"),
    path("covers/trials/<int:trial_id>/", trial_views.trial, name="trial"),
    path("covers/trials/<int:trial_id>/end/", trial_views.end_trial, name="end_trial"),
    path("covers/sandbox/", trial_views.sandbox, name="sandbox"),
    path("places/<int:place_id>/put-on/", views.put_on, name="put_on"),
    path("places/<int:place_id>/hotbed/", trial_views.hotbed, name="hotbed"),
    path("covers/build/", views.build_cover, name="build_cover"),
    path("covers/mine/", views.own_covers, name="own_covers"),
    path("covers/mine/<int:own_id>/", views.edit_own, name="edit_own"),
    path("covers/mine/<int:own_id>/damage/", views.note_damage, name="note_damage"),
    path("covers/mine/<int:own_id>/damage/<int:damage_id>/remove/", views.remove_damage, name="remove_damage"),
    path("covers/mine/<int:own_id>/where/", views.compare, name="compare"),
    path("covers/mine/<int:own_id>/remove/", views.remove_own, name="remove_own"),
    path("covers/mine/<int:own_id>/put-back/", views.put_back_own, name="put_back_own"),
]
