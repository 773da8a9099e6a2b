"""Signing in, settling, the garden's own page."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _

from cloche.apps.gardens import pages, selectors
from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.gardens.flows.site import change_site
from cloche.apps.gardens.forms import (
    NormalsForm,
    SiteForm,
)
from cloche.apps.gardens.help import help_context
from cloche.apps.gardens.pages import zone_words
from cloche.apps.shared.http import INVALID


@login_required
def home(request: HttpRequest) -> HttpResponse:
    """On to the garden last stood in."""
    garden = selectors.garden_to_open(request)
    return redirect("today", garden.pk) if garden else redirect("new_garden")


def help_page(request: HttpRequest) -> HttpResponse:
    """How to measure, what words mean, what the answers rest on."""
    return render(request, "gardens/help.html", help_context(request))


@in_garden
def garden(request: GardenRequest) -> HttpResponse:
    """Site, normals, places, people."""
    units = selectors.units_of(request.user)
    site = SiteForm(request.POST or None, instance=request.garden, units=units)
    if request.method == "POST" and site.is_valid():
        change_site(site.save(commit=False))
        messages.success(request, _("The site is changed; forecasts are being worked out again."))
        return redirect("garden", request.garden.pk)
    memberships = request.garden.memberships.select_related("user")
    context = {
        "headline": pages.garden_headline(request.garden, len(memberships)),
        "crops_chosen": pages.crops_chosen(request.garden),
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
    """Monthly normals, typed."""
    units = selectors.units_of(request.user)
    typed = request.POST if request.method == "POST" else None  # an empty form is a word, too
    form = NormalsForm(typed, units=units, initial=_typed_normals(request, units))
    if form.is_valid():
        request.garden.normal_lows_c, request.garden.normal_highs_c = form.typed("low"), form.typed("high")
        change_site(request.garden)
        messages.success(request, _("Normals saved; forecasts are being worked out again."))
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
    """Nothing here, or nothing of yours."""
    return render(request, "not_found.html", status=404)
