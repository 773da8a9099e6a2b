"""A bench that is planned: the drawing changes as one types."""

from __future__ import annotations

from django.http import HttpResponse
from django.shortcuts import render

from cloche.apps.bench.build_form import BuildForm
from cloche.apps.bench.views import stand_in
from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.shared.http import INVALID, is_piece
from cloche.apps.work.turns import ENGINE, WAITS, turn


@in_garden
def builder(request: GardenRequest) -> HttpResponse:
    """Asked without anything, a bench of usual size."""
    stand_in(request)
    units = units_of(request.user)
    typed = request.GET if "length" in request.GET else None
    form = BuildForm(typed if typed is not None else BuildForm(units=units).usual(), units=units)
    # Loads the engine: other pages must not.
    from cloche.apps.bench.pages.builder import BuilderPage, builder_page, checklist

    page = None
    if form.is_valid():
        with turn(ENGINE) as mine:
            page = builder_page(form.cleaned_data, units) if mine else BuilderPage(WAITS, [], [], None)
    context = {"form": form, "page": page, "tab": "builder", "checklist": checklist()}
    partial = is_piece(request)
    template = "bench/_builder.html" if partial else "bench/builder.html"
    return render(request, template, context, status=INVALID if form.errors else 200)
