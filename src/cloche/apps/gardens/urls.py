from django.urls import path

from cloche.apps.gardens import people_views, views

urlpatterns = [
    path("", views.garden, name="garden"),
    path("normals/", views.normals, name="normals"),
    path("people/", people_views.people, name="people"),
    path("people/hand-over/", people_views.hand_over, name="hand_over"),
    path("people/leave/", people_views.leave, name="leave"),
    path("people/<int:user_id>/role/", people_views.give_role, name="give_role"),
    path("people/<int:user_id>/out/", people_views.show_out, name="show_out"),
    path("people/links/<int:invitation_id>/withdraw/", people_views.withdraw, name="withdraw"),
]
