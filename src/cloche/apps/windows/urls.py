from django.urls import path

from cloche.apps.windows import views

urlpatterns = [
    path("ground/", views.ground, name="ground"),
    path("places/<int:place_id>/", views.place, name="place"),
    path("places/<int:place_id>/ground/", views.place_ground, name="place_ground"),
    path("places/<int:place_id>/crops/<slug:crop_key>/", views.crop_in_place, name="crop_in_place"),
    path("places/<int:place_id>/crops/<slug:crop_key>/hedge/", views.hedge, name="hedge"),
    path("what-wakes/", views.what_wakes, name="what_wakes"),
    path("windows/", views.season, name="windows"),
    path("windows/year/", views.year_sheet, name="year_sheet"),
    path("windows/table.csv", views.windows_csv, name="windows_csv"),
    path("windows/address/", views.make_feed, name="make_feed"),
    path("windows/address/end/", views.revoke_feed, name="revoke_feed"),
]
