"""People of a garden: invited, joined, given a role, shown out."""

from __future__ import annotations

from django.contrib import messages
from django.core.exceptions import ValidationError
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens import pages
from cloche.apps.gardens.access import OWNS, READS, GardenRequest, in_garden
from cloche.apps.gardens.flows import people as flow
from cloche.apps.gardens.forms import HandOverForm, RoleForm
from cloche.apps.gardens.models import User
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID


@in_garden(writing=OWNS)
def people(request: GardenRequest) -> HttpResponse:
    """Who belongs, what each may do, and a link for one more."""
    request.room = "garden"  # type: ignore[attr-defined]
    form = RoleForm(request.POST or None)
    link = ""
    if form.is_valid():
        try:
            token = flow.invite(request.garden, form.cleaned_data["role"], request.user)
            link = request.build_absolute_uri(reverse("join", args=[token]))
        except ValidationError as full:
            form.add_error(None, full)
    now = clock.now()
    memberships = request.garden.memberships.select_related("user")
    context = {
        "headline": pages.people_headline(request.garden, len(memberships)),
        "memberships": memberships,
        "invitations": request.garden.invitations.filter(used_at__isnull=True, ends_at__gt=now).select_related("made_by"),
        "form": form if form.errors else RoleForm(),
        "roles": RoleForm.ROLES,
        "link": link,
        "hand_over": HandOverForm(others=others_in(request)),
    }
    return render(request, "gardens/people.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=OWNS)
def give_role(request: GardenRequest, user_id: int) -> HttpResponse:
    """Another role for somebody."""
    form = RoleForm(request.POST)
    if form.is_valid() and flow.give_role(request.garden, user_id, form.cleaned_data["role"]):
        messages.success(request, _("Their role is changed."))
    else:
        messages.error(request, _("That was not done: a garden keeps at least one owner."))
    return redirect("people", request.garden.pk)


@require_POST
@in_garden(writing=OWNS)
def show_out(request: GardenRequest, user_id: int) -> HttpResponse:
    """Take a person out."""
    if flow.show_out(request.garden, user_id):
        messages.success(request, _("They no longer see this garden. What they recorded stays."))
    else:
        messages.error(request, _("Owners cannot be taken out; give them another role first."))
    return redirect("people", request.garden.pk)


@require_POST
@in_garden(writing=OWNS)
def withdraw(request: GardenRequest, invitation_id: int) -> HttpResponse:
    """End an invitation."""
    if flow.withdraw(request.garden, invitation_id):
        messages.success(request, _("That link no longer works."))
    return redirect("people", request.garden.pk)


def others_in(request: GardenRequest) -> list[User]:
    """Everybody else in the garden."""
    memberships = request.garden.memberships.exclude(user=request.user).select_related("user").order_by("pk")
    return [membership.user for membership in memberships]


@require_POST
@in_garden(writing=OWNS)
def hand_over(request: GardenRequest) -> HttpResponse:
    """The garden to somebody else in it."""
    form = HandOverForm(request.POST, others=others_in(request))
    if not form.is_valid() or not flow.hand_over(
        request.garden, request.user, form.cleaned_data["to"], form.cleaned_data["role"]
    ):
        messages.error(request, _("That was not done: choose somebody who is in the garden."))
        return redirect("people", request.garden.pk)
    messages.success(request, _("{name} is in other hands now.").format(name=request.garden.name))
    return redirect("people", request.garden.pk) if form.cleaned_data["role"] else redirect("home")


@require_POST
@in_garden(writing=READS)
def leave(request: GardenRequest) -> HttpResponse:
    """Go of one's own will."""
    if flow.leave(request.garden, request.user):
        messages.success(request, _("You have left {name}. What you recorded stays there.").format(name=request.garden.name))
        return redirect("home")
    messages.error(request, _("You are its only owner: hand it over first, or erase it."))
    return redirect("people", request.garden.pk)
