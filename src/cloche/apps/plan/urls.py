from django.urls import path

from cloche.apps.plan import box, bring, silent, views

urlpatterns = [
    path("plan/", views.plan, name="plan"),
    path("plan/seed/", box.seed_box, name="seed_box"),
    path("sowings/<int:sowing_id>/silent/", silent.silent, name="silent"),
    path("plan/bring/", bring.bring_plan, name="bring_plan"),
    path("plan/<int:place_id>/", views.bed, name="bed_plan"),
    path("plan/<int:place_id>/cover/", views.timetable, name="cover_timetable"),
    path("plan/<int:place_id>/shape/", views.bed_shape, name="bed_shape"),
    path("plan/<int:place_id>/new/", views.new_planting, name="new_planting"),
    path("plants/<int:planting_id>/", views.planting, name="planting"),
    path("plants/<int:planting_id>/edit/", views.edit_planting, name="edit_planting"),
    path("plants/<int:planting_id>/lay/", views.lay, name="lay"),
    path("plants/<int:planting_id>/in/", views.plant, name="plant"),
    path("plants/<int:planting_id>/end/", views.end, name="end_planting"),
    path("plants/<int:planting_id>/again/", views.again, name="again"),
    path("plants/<int:planting_id>/seed/", views.save_seed, name="save_seed"),
    path("plants/<int:planting_id>/remove/", views.remove_planting, name="remove_planting"),
    path("plants/<int:planting_id>/events/<int:event_id>/remove/", views.remove_event, name="remove_event"),
]
