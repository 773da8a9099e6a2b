from django.urls import path

from cloche.apps.windows import season_views, views

urlpatterns = [
    path("ground/", views.ground, name="ground"),
    path("places/<int:place_id>/", views.place, name="place"),
    path("places/<int:place_id>/ground/", views.place_ground, name="place_ground"),
    path("places/<int:place_id>/crops/<slug:crop_key>/", views.crop_in_place, name="crop_in_place"),
    path("places/<int:place_id>/crops/<slug:crop_key>/hedge/", views.hedge, name="hedge"),
    path("what-wakes/", views.what_wakes, name="what_wakes"),
    path("windows/", season_views.season, name="windows"),
    path("windows/year/", season_views.year_sheet, name="year_sheet"),
    path("windows/table.csv", season_views.windows_csv, name="windows_csv"),
    path("windows/address/", season_views.make_feed, name="make_feed"),
    path("windows/address/end/", season_views.revoke_feed, name="revoke_feed"),
]
