from django.urls import path

from cloche.apps.gardens import views

urlpatterns = [
    path("", views.garden, name="garden"),
    path("normals/", views.normals, name="normals"),
    path("people/", views.people, name="people"),
    path("people/hand-over/", views.hand_over, name="hand_over"),
    path("people/leave/", views.leave, name="leave"),
    path("people/<int:user_id>/role/", views.give_role, name="give_role"),
    path("people/<int:user_id>/out/", views.show_out, name="show_out"),
    path("people/links/<int:invitation_id>/withdraw/", views.withdraw, name="withdraw"),
]
