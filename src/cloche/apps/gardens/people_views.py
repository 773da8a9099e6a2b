"""People of a garden: invited, joined, given a role, shown out."""

from __future__ import annotations

from django.contrib import messages
from django.contrib.auth import login
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens import pages
from cloche.apps.gardens.access import OWNS, GardenRequest, in_garden
from cloche.apps.gardens.flows import people as flow
from cloche.apps.gardens.forms import FirstPersonForm, RoleForm
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID


@in_garden(writing=OWNS)
def people(request: GardenRequest) -> HttpResponse:
    """Who belongs, what each may do, and a link for one more."""
    request.room = "garden"  # type: ignore[attr-defined]
    form = RoleForm(request.POST or None)
    link = ""
    if form.is_valid():
        token = flow.invite(request.garden, form.cleaned_data["role"], request.user)
        link = request.build_absolute_uri(reverse("join", args=[token]))
    now = clock.now()
    memberships = request.garden.memberships.select_related("user")
    context = {
        "headline": pages.people_headline(request.garden, len(memberships)),
        "memberships": memberships,
        "invitations": request.garden.invitations.filter(used_at__isnull=True, ends_at__gt=now).select_related("made_by"),
        "form": RoleForm(),
        "roles": RoleForm.ROLES,
        "link": link,
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
        messages.error(request, "That was not done: a garden keeps at least one owner.")
    return redirect("people", request.garden.pk)


@require_POST
@in_garden(writing=OWNS)
def show_out(request: GardenRequest, user_id: int) -> HttpResponse:
    """Take a person out."""
    if flow.show_out(request.garden, user_id):
        messages.success(request, _("They no longer see this garden. What they recorded stays."))
    else:
        messages.error(request, "Owners cannot be taken out; give them another role first.")
    return redirect("people", request.garden.pk)


@require_POST
@in_garden(writing=OWNS)
def withdraw(request: GardenRequest, invitation_id: int) -> HttpResponse:
    """End an invitation."""
    if flow.withdraw(request.garden, invitation_id):
        messages.success(request, _("That link no longer works."))
    return redirect("people", request.garden.pk)


def join(request: HttpRequest, token: str) -> HttpResponse:
    """Come in by a link: as who one is, or as somebody new."""
    invitation = flow.invitation_of(token)
    if invitation is None:
        return render(request, "gardens/join_ended.html", status=404)
    signed_in = request.user.is_authenticated
    form = FirstPersonForm(request.POST if request.method == "POST" and not signed_in else None)
    if request.method == "POST" and (signed_in or form.is_valid()):
        membership = flow.join(invitation, form.save if not signed_in else lambda: request.user)  # type: ignore[arg-type, return-value]
        if membership is None:
            return render(request, "gardens/join_ended.html", status=404)
        if not signed_in:
            login(request, membership.user, backend="django.contrib.auth.backends.ModelBackend")
        messages.success(
            request,
            _("You belong to {name} now, as {get_role_display}.").format(
                name=invitation.garden.name, get_role_display=membership.get_role_display()
            ),
        )
        return redirect("today", invitation.garden.pk)
    context = {"invitation": invitation, "form": form, "role": invitation.get_role_display()}
    return render(request, "gardens/join.html", context, status=INVALID if form.errors else 200)
