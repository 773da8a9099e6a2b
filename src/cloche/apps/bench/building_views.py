"""A bench from its plan to the checks before the season: requests and answers."""

from __future__ import annotations

from django.contrib import messages
from django.core.exceptions import ValidationError
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.bench import flows
from cloche.apps.bench.pages.checks import checks_of
from cloche.apps.bench.planning_forms import BuildForm, KeepBenchForm
from cloche.apps.bench.views import stand_in
from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import BenchCheck, Place
from cloche.apps.places.selectors import place_or_404
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID, is_piece
from cloche.apps.work.turns import ENGINE, WAITS, turn


@in_garden
def builder(request: GardenRequest) -> HttpResponse:
    """Calculate a heated bench, of a usual size without any input."""
    units = units_of(request.user)
    typed = request.GET if "length" in request.GET else None
    form = BuildForm(typed if typed is not None else BuildForm(units=units).usual(), units=units)
    return _builder(request, form, KeepBenchForm(garden=request.garden), is_piece(request))


def _builder(request: GardenRequest, form: BuildForm, keep: KeepBenchForm, piece: bool = False) -> HttpResponse:
    stand_in(request)
    # Loads the engine: other pages must not.
    from cloche.apps.bench.pages.builder import BuilderPage, builder_page

    page = None
    if form.is_valid():
        with turn(ENGINE) as mine:
            page = builder_page(form.cleaned_data, units_of(request.user)) if mine else BuilderPage(WAITS, [], [], None)
    context = {"form": form, "page": page, "tab": "builder", "keep": keep}
    template = "bench/_builder.html" if piece else "bench/builder.html"
    return render(request, template, context, status=INVALID if form.errors or keep.errors else 200)


@require_POST
@in_garden
def keep_bench(request: GardenRequest) -> HttpResponse:
    """Add a planned bench to the garden, with its cable."""
    form = BuildForm(request.POST, units=units_of(request.user))
    keep = KeepBenchForm(request.POST, garden=request.garden)
    if form.is_valid() and keep.is_valid():
        try:
            place = flows.keep_bench(request.garden, form.cleaned_data, keep.cleaned_data)
        except ValidationError as refusal:
            keep.add_error(None, refusal.messages)  # type: ignore[arg-type]
        else:
            text = _("{name} added, with its cable. Go through the checks below before you sow.")
            messages.success(request, text.format(name=place.name))
            return redirect("tray", request.garden.pk, place.pk)
    return _builder(request, form, keep)


@require_POST
@in_garden(writing=LOGS)
def tick_check(request: GardenRequest, place_id: int, item: str) -> HttpResponse:
    """Tick a check of a heater as done today, or take the tick off again."""
    place, today = place_or_404(request, place_id), clock.today(request.garden.timezone)
    if item not in BenchCheck.Item.values:
        raise Http404
    flows.tick(place, item, today, done="undo" not in request.POST)
    return _checks(request, place) if is_piece(request) else redirect("tray", request.garden.pk, place.pk)


def _checks(request: GardenRequest, place: Place) -> HttpResponse:
    checks = checks_of(place, clock.today(request.garden.timezone))
    return render(request, "bench/_checks.html", {"checks": checks, "place": place})
