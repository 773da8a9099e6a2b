"""A garden, its site and its people: requests and answers."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.contrib.auth.decorators import login_required
from django.core.exceptions import ValidationError
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens import flows as flow
from cloche.apps.gardens import founding, selectors
from cloche.apps.gardens.access import OWNS, READS, GardenRequest, in_garden
from cloche.apps.gardens.flows import change_site, found_garden
from cloche.apps.gardens.forms import HandOverForm, NewGardenForm, NormalsForm, RoleForm, SiteForm
from cloche.apps.gardens.help import help_context
from cloche.apps.gardens.models import User
from cloche.apps.gardens.selectors import zone_words
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.quota import refuse_beyond
from cloche.bridge.values import border


@login_required
def home(request: HttpRequest) -> HttpResponse:
    """Redirect to the garden that was open last."""
    garden = selectors.garden_to_open(request)
    return redirect("today", garden.pk) if garden else redirect("new_garden")


def help_page(request: HttpRequest) -> HttpResponse:
    """Explain measuring, terms and the basis of the answers."""
    return render(request, "gardens/help.html", help_context(request))


@in_garden
def garden(request: GardenRequest) -> HttpResponse:
    """Show site, normals, places and people."""
    units = selectors.units_of(request.user)
    site = SiteForm(request.POST or None, instance=request.garden, units=units)
    if request.method == "POST" and site.is_valid():
        change_site(site.save(commit=False))
        messages.success(request, _("Site saved. Updating forecasts…"))
        return redirect("garden", request.garden.pk)
    memberships = request.garden.memberships.select_related("user")
    context = {
        "headline": selectors.garden_headline(request.garden, len(memberships)),
        "crops_chosen": selectors.crops_chosen(request.garden),
        "site": site,
        "normals": NormalsForm(units=units, initial=_typed_normals(request, units)),
        "places": request.garden.places.all(),
        "memberships": memberships,
        "zone": zone_words(request.garden.zone, units) if request.garden.zone and not site.errors else "",
        "units": units,
    }
    return render(request, "gardens/garden.html", context, status=INVALID if site.errors else 200)


@in_garden
def normals(request: GardenRequest) -> HttpResponse:
    """Edit monthly normals."""
    units = selectors.units_of(request.user)
    typed = request.POST if request.method == "POST" else None  # an empty form is a word, too
    form = NormalsForm(typed, units=units, initial=_typed_normals(request, units))
    if form.is_valid():
        request.garden.normal_lows_c, request.garden.normal_highs_c = form.typed("low"), form.typed("high")
        change_site(request.garden)
        messages.success(request, _("Normals saved. Updating forecasts…"))
        return redirect("garden", request.garden.pk)
    context = {"normals": form, "units": units}
    return render(request, "gardens/normals.html", context, status=INVALID if form.errors else 200)


def _typed_normals(request: GardenRequest, units: Any) -> dict[str, str]:
    initial = {}
    for side, values in (("low", request.garden.normal_lows_c), ("high", request.garden.normal_highs_c)):
        for index, value in enumerate(values or []):
            initial[f"{side}_{index}"] = f"{units.temperature_from_c(value):.1f}"
    return initial


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """Answer that a page does not exist or is not accessible."""
    return render(request, "not_found.html", status=404)


@login_required
def new_garden(request: HttpRequest) -> HttpResponse:
    """Create a garden at a point from the address or the form, and show its climate."""
    units = selectors.units_of(request.user)  # type: ignore[arg-type]
    query = request.POST if request.method == "POST" else request.GET
    point = founding.point_of(query)
    if point is None and request.method == "POST":
        form = NewGardenForm(request.POST, units=units)
        return render(request, "gardens/new_garden.html", {"form": form}, status=INVALID)
    if point is None:
        return render(request, "gardens/where.html", founding.where_page(request.GET))
    page = founding.found_page(point, units, clock.now())
    form = NewGardenForm(request.POST if request.method == "POST" else None, units=units, initial=page.initial)
    if form.is_valid() and _may_have_another(request, form):
        garden = found_garden(form.save(commit=False), request.user)  # type: ignore[arg-type]
        return redirect("first_places", garden.pk)
    context = {"form": form, "page": page}
    return render(request, "gardens/new_garden.html", context, status=INVALID if form.errors else 200)


def _may_have_another(request: HttpRequest, form: NewGardenForm) -> bool:
    try:
        refuse_beyond("gardens", request.user.gardens.count() + 1)  # type: ignore[union-attr]
    except ValidationError as full:
        form.add_error(None, full)
    return not form.errors


@login_required
def towns(request: HttpRequest) -> HttpResponse:
    """Return towns whose name begins as typed."""
    town = request.GET.get("town", "")
    return render(request, "gardens/_towns.html", {"query": town, "towns": founding.towns(town)})


@login_required
def zones(request: HttpRequest) -> HttpResponse:
    """Return all time zones for a field."""
    return render(request, "gardens/_zones.html", {"zones": border.zones()})


@in_garden(writing=OWNS)
def people(request: GardenRequest) -> HttpResponse:
    """Show members with their roles, and invite one more."""
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
        "headline": selectors.people_headline(request.garden, len(memberships)),
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
    """Change a member's role."""
    form = RoleForm(request.POST)
    if form.is_valid() and flow.give_role(request.garden, user_id, form.cleaned_data["role"]):
        messages.success(request, _("Role changed."))
    else:
        messages.error(request, _("Not changed: a garden needs at least one owner."))
    return redirect("people", request.garden.pk)


@require_POST
@in_garden(writing=OWNS)
def show_out(request: GardenRequest, user_id: int) -> HttpResponse:
    """Remove a member."""
    if flow.show_out(request.garden, user_id):
        messages.success(request, _("Person removed from this garden. What they recorded stays."))
    else:
        messages.error(request, _("An owner cannot be removed. Give them another role first."))
    return redirect("people", request.garden.pk)


@require_POST
@in_garden(writing=OWNS)
def withdraw(request: GardenRequest, invitation_id: int) -> HttpResponse:
    """End an invitation."""
    if flow.withdraw(request.garden, invitation_id):
        messages.success(request, _("That link no longer works."))
    return redirect("people", request.garden.pk)


def others_in(request: GardenRequest) -> list[User]:
    """Return all other members."""
    memberships = request.garden.memberships.exclude(user=request.user).select_related("user").order_by("pk")
    return [membership.user for membership in memberships]


@require_POST
@in_garden(writing=OWNS)
def hand_over(request: GardenRequest) -> HttpResponse:
    """Hand the garden over to another member."""
    form = HandOverForm(request.POST, others=others_in(request))
    if not form.is_valid() or not flow.hand_over(
        request.garden, request.user, form.cleaned_data["to"], form.cleaned_data["role"]
    ):
        messages.error(request, _("Not changed: choose someone who is in the garden."))
        return redirect("people", request.garden.pk)
    messages.success(request, _("{name} has a new owner.").format(name=request.garden.name))
    return redirect("people", request.garden.pk) if form.cleaned_data["role"] else redirect("home")


@require_POST
@in_garden(writing=READS)
def leave(request: GardenRequest) -> HttpResponse:
    """Leave the garden."""
    if flow.leave(request.garden, request.user):
        messages.success(request, _("You have left {name}. What you recorded stays there.").format(name=request.garden.name))
        return redirect("home")
    messages.error(request, _("You are the only owner. Hand the garden over first, or delete it."))
    return redirect("people", request.garden.pk)
