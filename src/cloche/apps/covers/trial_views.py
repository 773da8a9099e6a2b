"""Trials, the sandbox and hotbeds."""

from __future__ import annotations

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.covers import flows as flow
from cloche.apps.covers.forms import HotbedForm
from cloche.apps.covers.models import CoverTrial
from cloche.apps.covers.pages import hotbed as hotbed_pages
from cloche.apps.covers.pages import trial as pages
from cloche.apps.covers.pages.opening import opening_page
from cloche.apps.covers.pages.sandbox import Sliders, sandbox_page, starting
from cloche.apps.covers.selectors import trials_in
from cloche.apps.covers.trial_forms import PairForm, SandboxForm, TrialForm
from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Hotbed
from cloche.apps.places.selectors import place_or_404
from cloche.apps.readings.flows.record import AlreadyThere
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID, is_piece
from cloche.apps.work.turns import ENGINE, WAITS, turn


@in_garden
def opening(request: GardenRequest) -> HttpResponse:
    """Show how far to open each cover over three days."""
    request.room = "covers"  # type: ignore[attr-defined]
    page = opening_page(request.garden, units_of(request.user), clock.today(request.garden.timezone))
    return render(request, "covers/opening.html", {"page": page, "tab": "opening"})


@in_garden(writing=LOGS)
def trials(request: GardenRequest) -> HttpResponse:
    """Show all trials and a form for a new one."""
    request.room = "covers"  # type: ignore[attr-defined]
    units, today = units_of(request.user), clock.today(request.garden.timezone)
    form = TrialForm(request.POST or None, garden=request.garden, units=units, today=today)
    if form.is_valid():
        data = form.cleaned_data
        trial = flow.begin(
            CoverTrial(
                covered=data["covered"],
                bare=data["bare"],
                depth_m=data["depth"],
                begun_on=data["begun_on"],
                alike=data["alike"],
            )
        )
        messages.success(
            request,
            _("Trial started. Read both beds within a few minutes, morning and evening. Pairs from the round count too."),
        )
        return redirect("trial", request.garden.pk, trial.pk)
    context = {"form": form, "lines": pages.trial_lines(request.garden, units), "tab": "trials"}
    return render(request, "covers/trials.html", context, status=INVALID if form.errors else 200)


@in_garden(writing=LOGS)
def trial(request: GardenRequest, trial_id: int) -> HttpResponse:
    """Show one trial and a form for a pair of readings."""
    request.room = "covers"  # type: ignore[attr-defined]
    cover_trial, units = _trial(request, trial_id), units_of(request.user)
    form = PairForm(request.POST or None, trial=cover_trial, units=units, now=clock.now())
    if form.is_valid():
        data = form.cleaned_data
        try:
            flow.read_pair(cover_trial, data["at"], data["covered"], data["bare"], request.user)
        except AlreadyThere as twin:
            form.add_error(
                "at", _("{name} already has a reading at that time and depth.").format(name=twin.existing.place.name)
            )
        else:
            messages.success(request, _("Both readings saved, in the trial and in the record of each bed."))
            return redirect("trial", request.garden.pk, cover_trial.pk)
    page = pages.trial_page(cover_trial, units, clock.today(request.garden.timezone))
    context = {"page": page, "form": form, "tab": "trials"}
    return render(request, "covers/trial.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden
def end_trial(request: GardenRequest, trial_id: int) -> HttpResponse:
    """End a trial."""
    flow.end(_trial(request, trial_id))
    messages.success(request, _("Trial ended. Its results are kept."))
    return redirect("trial", request.garden.pk, trial_id)


@in_garden
def sandbox(request: GardenRequest) -> HttpResponse:
    """Simulate the day set by the sliders, or a fair day of this month."""
    request.room = "covers"  # type: ignore[attr-defined]
    units, today = units_of(request.user), clock.today(request.garden.timezone)
    begin = starting(request.garden, units, today)
    given = request.GET.dict() | ({"ground": request.GET.getlist("ground")} if request.GET else {})
    form = SandboxForm(begin | given, garden=request.garden, units=units)
    context = {"form": form, "tab": "sandbox", "page": None}
    if form.is_valid():
        with turn(ENGINE) as mine:
            if mine:
                context["page"] = sandbox_page(request.garden, Sliders.of(form.cleaned_data, units), units, today)
            context["waits"] = "" if mine else WAITS
    partial = is_piece(request)
    template = "covers/_sandbox.html" if partial else "covers/sandbox.html"
    return render(request, template, context, status=INVALID if form.errors else 200)


@in_garden
def hotbed(request: GardenRequest, place_id: int) -> HttpResponse:
    """Show how a hotbed is built and its coming weeks."""
    request.room = "ground"  # type: ignore[attr-defined]
    place, units, today = place_or_404(request, place_id), units_of(request.user), clock.today(request.garden.timezone)
    if place.kind != "hotbed":
        raise Http404
    bed = Hotbed.objects.filter(place=place).first() or Hotbed(place=place, filled_on=today)
    form = HotbedForm(request.POST or None, instance=bed, units=units, today=today)
    if form.is_valid():
        flow.build_hotbed(form.save())
        messages.success(request, _("Saved. Updating the forecast for {name}…").format(name=place.name))
        return redirect("hotbed", request.garden.pk, place.pk)
    page = hotbed_pages.hotbed_page(place, units, today)
    return render(
        request, "covers/hotbed.html", {"page": page, "form": form, "place": place}, status=INVALID if form.errors else 200
    )


def _trial(request: GardenRequest, trial_id: int) -> CoverTrial:
    cover_trial = next((cover_trial for cover_trial in trials_in(request.garden) if cover_trial.pk == trial_id), None)
    if cover_trial is None:
        raise Http404
    return cover_trial
