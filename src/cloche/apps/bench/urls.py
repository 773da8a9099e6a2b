from django.urls import path

from cloche.apps.bench import builder_views, diary_views, life_views, room_views, views

urlpatterns = [
    path("bench/", views.bench, name="bench"),
    path("bench/heat/", views.gains, name="heat_gains"),
    path("bench/rooms/", room_views.rooms, name="rooms"),
    path("bench/rooms/<int:room_id>/", room_views.room, name="room"),
    path("bench/rooms/<int:room_id>/air/", room_views.add_air, name="add_air"),
    path("bench/rooms/<int:room_id>/air/<int:air_id>/remove/", room_views.remove_air, name="remove_air"),
    path("bench/rooms/<int:room_id>/remove/", room_views.remove_room, name="remove_room"),
    path("bench/rooms/<int:room_id>/put-back/", room_views.put_back_room, name="put_back_room"),
    path("bench/rules/", room_views.rules, name="bench_rules"),
    path("bench/potatoes/", diary_views.potatoes, name="potatoes"),
    path("bench/build/", builder_views.builder, name="builder"),
    path("bench/<int:place_id>/", views.tray, name="tray"),
    path("bench/<int:place_id>/stands/", views.stands, name="stands"),
    path("bench/<int:place_id>/heat/new/", views.new_heat, name="new_heat"),
    path("bench/<int:place_id>/heat/<int:heat_id>/", views.edit_heat, name="edit_heat"),
    path("bench/<int:place_id>/heat/<int:heat_id>/off/", views.heat_off, name="heat_off"),
    path("bench/<int:place_id>/heat/<int:heat_id>/down/", views.turn_down, name="turn_down"),
    path("bench/<int:place_id>/heat/<int:heat_id>/remove/", views.remove_heat, name="remove_heat"),
    path("bench/<int:place_id>/lamps/new/", views.new_lamp, name="new_lamp"),
    path("bench/<int:place_id>/lamps/<int:lamp_id>/", views.edit_lamp, name="edit_lamp"),
    path("bench/<int:place_id>/lamps/<int:lamp_id>/off/", views.lamp_off, name="lamp_off"),
    path("bench/<int:place_id>/lamps/<int:lamp_id>/remove/", views.remove_lamp, name="remove_lamp"),
    path("bench/<int:place_id>/test/", diary_views.heat_test, name="heat_test"),
    path("bench/<int:place_id>/test/<int:test_id>/remove/", diary_views.remove_test, name="remove_test"),
    path("bench/<int:place_id>/diary/", diary_views.diary, name="diary"),
    path("bench/<int:place_id>/diary/<slug:kind>/<int:line_id>/remove/", diary_views.remove_line, name="remove_line"),
    path("sowings/<int:sowing_id>/", life_views.life, name="life"),
    path("sowings/<int:sowing_id>/steps/<int:step_id>/remove/", life_views.remove_step, name="remove_step"),
]
