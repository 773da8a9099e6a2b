"""A new garden: found on the earth, looked at, founded."""

from __future__ import annotations

from django.contrib.auth.decorators import login_required
from django.core.exceptions import ValidationError
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from cloche.apps.gardens import founding, selectors
from cloche.apps.gardens.flows.site import found_garden
from cloche.apps.gardens.forms import NewGardenForm
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.quota import refuse_beyond
from cloche.bridge.values import border


@login_required
def new_garden(request: HttpRequest) -> HttpResponse:
    """Where it lies, and what that place's year is like. The point comes with the address, or with what was posted."""
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
    """Towns whose name begins as it was typed."""
    town = request.GET.get("town", "")
    return render(request, "gardens/_towns.html", {"query": town, "towns": founding.towns(town)})


@login_required
def zones(request: HttpRequest) -> HttpResponse:
    """Every time zone, for a field that asks for one."""
    return render(request, "gardens/_zones.html", {"zones": border.zones()})
