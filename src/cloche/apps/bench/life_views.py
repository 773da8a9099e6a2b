"""A sowing's life: what happened, what comes next."""

from __future__ import annotations

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.bench.forms import StepForm
from cloche.apps.bench.pages.life import life_page
from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden
from cloche.apps.gardens.rights import row_of
from cloche.apps.gardens.selectors import units_of
from cloche.apps.plants import flows as plants
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID
from cloche.apps.sowings import selectors
from cloche.apps.sowings.flows import life as flow
from cloche.apps.sowings.models import Sowing, Step


@in_garden(writing=LOGS)
def life(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Its story, what is due, and a form for what happened."""
    request.room = "sowings"  # type: ignore[attr-defined]
    sowing, units, today = _sowing(request, sowing_id), units_of(request.user), clock.today(request.garden.timezone)
    initial = {name: request.GET[name] for name in ("kind", "place") if name in request.GET}
    form = StepForm(request.POST or None, sowing=sowing, units=units, today=today, initial=initial)
    if form.is_valid():
        data = form.cleaned_data
        step = Step(sowing=sowing, kind=data["kind"], on=data["on"], place=data["place"], cell_m=data["cell"])
        text = _("Written down. It stands in {place}.")
        if step.kind == Step.Kind.PLANTED:
            plants.plant_out(step, request.user)
            text = _("Written down. It stands in {place}, and in the plan of that bed.")
        else:
            flow.take_step(step)
        messages.success(request, text.format(place=sowing.place.name))
        return redirect("life", request.garden.pk, sowing.pk)
    page = life_page(sowing, request.garden, units, today)
    context = {"page": page, "form": form, "sowing": sowing}
    return render(request, "bench/life.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=LOGS, own=row_of("sowings.Step", "step_id"))
def remove_step(request: GardenRequest, sowing_id: int, step_id: int) -> HttpResponse:
    """Take a step back."""
    sowing = _sowing(request, sowing_id)
    step = next((step for step in sowing.steps.all() if step.pk == step_id), None)
    if step is None:
        raise Http404
    step.sowing = sowing
    try:
        if step.kind == Step.Kind.PLANTED:
            plants.take_planting_out_back(step)
        else:
            flow.take_back(step)
        messages.success(request, _("Removed. It stands in {place}.").format(place=sowing.place.name))
    except flow.NotTheLast:
        messages.error(request, _("Take the later move back first: it leads on from this one."))
    return redirect("life", request.garden.pk, sowing.pk)


def _sowing(request: GardenRequest, sowing_id: int) -> Sowing:
    sowing = selectors.sowings_in(request.garden).filter(pk=sowing_id).first()
    if sowing is None:
        raise Http404
    return sowing
