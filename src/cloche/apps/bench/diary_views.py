"""A hotbed’s diary and a sowing’s life: requests and answers."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.bench import flows
from cloche.apps.bench.diary_forms import DiaryForm, FillForm, HeatTestForm
from cloche.apps.bench.forms import HeatOffForm, StepForm
from cloche.apps.bench.pages.diary import diary_page, life_page
from cloche.apps.bench.pages.potatoes import potatoes_page, tray_lines
from cloche.apps.bench.planning_forms import PotatoForm, TuberTrayForm
from cloche.apps.bench.selectors import raised_on
from cloche.apps.bench.tubers import name_of
from cloche.apps.bench.views import stand_in
from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden, row_of
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import HeatTest, HotbedFill, HotbedNote, Place, TuberTray
from cloche.apps.places.selectors import place_or_404
from cloche.apps.plants import flows as plants
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.words import sentence
from cloche.apps.sowings import flows as flow
from cloche.apps.sowings import selectors
from cloche.apps.sowings.models import Sowing, Step


def _line(request: HttpRequest, garden: Garden, words: dict[str, Any]) -> HotbedFill | HotbedNote | None:
    """Return the diary entry or filling to delete."""
    model = HotbedFill if words["kind"] == "fill" else HotbedNote
    return model.objects.filter(pk=words["line_id"], place__garden=garden).first()


@in_garden(writing=LOGS)
def heat_test(request: GardenRequest, place_id: int) -> HttpResponse:
    """Record a test of a heater."""
    stand_in(request)
    place, today = place_or_404(request, place_id), clock.today(request.garden.timezone)
    form = HeatTestForm(request.POST or None, units=units_of(request.user), today=today)
    if form.is_valid():
        data = form.cleaned_data
        HeatTest.objects.create(place=place, on=data["on"], minutes=data["minutes"], spots=data["spots"])
        messages.success(request, _("Test of {name} saved.").format(name=place.name))
        return redirect("tray", request.garden.pk, place.pk)
    context = {"form": form, "place": place}
    return render(request, "bench/heat_test.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=LOGS, own=row_of("places.HeatTest", "test_id"))
def remove_test(request: GardenRequest, place_id: int, test_id: int) -> HttpResponse:
    """Delete a test."""
    place = place_or_404(request, place_id)
    gone, _rows = place.heat_tests.filter(pk=test_id).delete()
    if not gone:
        raise Http404
    messages.success(request, _("Removed."))
    return redirect("tray", request.garden.pk, place.pk)


@in_garden(writing=LOGS)
def diary(request: GardenRequest, place_id: int) -> HttpResponse:
    """Show a hotbed's diary with entries and fillings."""
    stand_in(request)
    place, units = _hotbed(request, place_id), units_of(request.user)
    today, is_fill = clock.today(request.garden.timezone), "material" in request.POST
    line = DiaryForm(request.POST if request.method == "POST" and not is_fill else None, units=units, today=today)
    fill = FillForm(request.POST if is_fill else None, units=units, today=today)
    if line.is_valid():
        flows.write_note(line.note_for(place))
        messages.success(request, _("Saved in the diary of {name}.").format(name=place.name))
        return redirect("diary", request.garden.pk, place.pk)
    if fill.is_valid():
        flows.fill_again(fill.fill_for(place))
        messages.success(request, _("Saved. Updating the forecast for {name}…").format(name=place.name))
        return redirect("diary", request.garden.pk, place.pk)
    context = {"line": line, "fill": fill, "place": place, "page": diary_page(place, units, today)}
    return render(request, "bench/diary.html", context, status=INVALID if line.errors or fill.errors else 200)


@require_POST
@in_garden(writing=LOGS, own=_line)
def remove_line(request: GardenRequest, place_id: int, kind: str, line_id: int) -> HttpResponse:
    """Delete an entry or a filling."""
    place = _hotbed(request, place_id)
    rows = place.hotbed_fills if kind == "fill" else place.hotbed_notes
    row = rows.filter(pk=line_id).first()
    if row is None:
        raise Http404
    flows.remove_line(row)
    messages.success(request, _("Removed."))
    return redirect("diary", request.garden.pk, place.pk)


@in_garden
def potatoes(request: GardenRequest) -> HttpResponse:
    """Show dates from chitting to lifting."""
    stand_in(request)
    units, today = units_of(request.user), clock.today(request.garden.timezone)
    usual = PotatoForm.usual(request.garden, today)
    form = PotatoForm(usual | request.GET.dict() if request.GET else usual, garden=request.garden, today=today)
    page = potatoes_page(form.cleaned_data, units, today) if form.is_valid() else None
    data = form.cleaned_data if page else {}
    names = {"crop_key": "group", "place": "place", "set_out_on": "set_out", "plant_on": "planted"}
    keep = TuberTrayForm(garden=request.garden, initial={name: data.get(key) for name, key in names.items()})
    return _potatoes(request, keep, {"form": form, "page": page}, INVALID if form.errors else 200)


def _potatoes(request: GardenRequest, keep: TuberTrayForm, context: dict[str, Any], status: int) -> HttpResponse:
    stand_in(request)
    units, today = units_of(request.user), clock.today(request.garden.timezone)
    trays = tray_lines(request.garden, units, today)
    context = context | {"keep": keep, "trays": trays, "places": raised_on(request.garden).exists(), "tab": "potatoes"}
    return render(request, "bench/potatoes.html", context, status=status)


@require_POST
@in_garden(writing=LOGS)
def keep_tubers(request: GardenRequest) -> HttpResponse:
    """Keep a tray of seed potatoes."""
    keep = TuberTrayForm(request.POST, garden=request.garden)
    if not keep.is_valid():
        return _potatoes(request, keep, {}, INVALID)
    tray = keep.save()
    text = _("Saved. {name} will be on the list of jobs when frost threatens and when it is time to plant.")
    messages.success(request, text.format(name=sentence(name_of(tray))))
    return redirect("potatoes", request.garden.pk)


@in_garden(writing=LOGS, own=row_of("places.TuberTray", "tubers_id"))
def edit_tubers(request: GardenRequest, tubers_id: int) -> HttpResponse:
    """Move a tray of seed potatoes, or correct it."""
    stand_in(request)
    tray = _tubers(request, tubers_id)
    form = TuberTrayForm(request.POST or None, instance=tray, garden=request.garden)
    if form.is_valid():
        form.save()
        messages.success(request, _("Saved."))
        return redirect("potatoes", request.garden.pk)
    context = {"form": form, "name": sentence(name_of(tray)), "tab": "potatoes"}
    return render(request, "bench/tubers_form.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=LOGS, own=row_of("places.TuberTray", "tubers_id"))
def plant_tubers(request: GardenRequest, tubers_id: int) -> HttpResponse:
    """Record that a tray of seed potatoes was planted today, or that it was not."""
    tray = _tubers(request, tubers_id)
    flows.plant_tubers(tray, None if "undo" in request.POST else clock.today(request.garden.timezone))
    return redirect("potatoes", request.garden.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("places.TuberTray", "tubers_id"))
def remove_tubers(request: GardenRequest, tubers_id: int) -> HttpResponse:
    """Remove a tray of seed potatoes."""
    tray = _tubers(request, tubers_id)
    tray.removed_at = clock.now()
    tray.save(update_fields=["removed_at"])
    messages.success(request, _("Removed. You can bring it back under History."))
    return redirect("potatoes", request.garden.pk)


def _tubers(request: GardenRequest, tubers_id: int) -> TuberTray:
    tray = TuberTray.objects.filter(place__garden=request.garden, pk=tubers_id, removed_at__isnull=True).first()
    if tray is None:
        raise Http404
    return tray


def _hotbed(request: GardenRequest, place_id: int) -> Place:
    place = place_or_404(request, place_id)
    if place.kind != "hotbed":
        raise Http404
    return place


@in_garden(writing=LOGS)
def life(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Show the history of a sowing, its next steps and a form to record one."""
    request.room = "sowings"  # type: ignore[attr-defined]
    sowing, units, today = _sowing(request, sowing_id), units_of(request.user), clock.today(request.garden.timezone)
    initial = {name: request.GET[name] for name in ("kind", "place") if name in request.GET}
    form = StepForm(request.POST or None, sowing=sowing, units=units, today=today, initial=initial)
    if form.is_valid():
        data = form.cleaned_data
        step = Step(sowing=sowing, kind=data["kind"], on=data["on"], place=data["place"], cell_m=data["cell"])
        text = _("Saved. The tray is now in {place}.")
        if step.kind == Step.Kind.PLANTED:
            plants.plant_out(step, request.user)
            text = _("Saved. The plants are now in {place} and in the plan of that bed.")
        else:
            flow.take_step(step)
        messages.success(request, text.format(place=sowing.place.name))
        return redirect("life", request.garden.pk, sowing.pk)
    page = life_page(sowing, request.garden, units, today)
    rule = HeatOffForm(garden=request.garden, initial={"rule": sowing.heat_off_rule}) if page.heated else None
    context = {"page": page, "form": form, "sowing": sowing, "rule_form": rule}
    return render(request, "bench/life.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=LOGS)
def heat_off_rule(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Choose when a sowing comes off the heat."""
    sowing = _sowing(request, sowing_id)
    form = HeatOffForm(request.POST, garden=request.garden)
    if form.is_valid():
        flows.choose_heat_off_rule(sowing, form.cleaned_data["rule"])
        messages.success(request, _("Saved. The jobs of this sowing follow the new rule."))
    else:
        messages.error(request, _("Choose one of the rules."))
    return redirect("life", request.garden.pk, sowing.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("sowings.Step", "step_id"))
def remove_step(request: GardenRequest, sowing_id: int, step_id: int) -> HttpResponse:
    """Delete a step."""
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
        messages.success(request, _("Move removed. The tray is in {place} again.").format(place=sowing.place.name))
    except flow.NotTheLast:
        messages.error(request, _("Undo the later move first, because it starts where this one ends."))
    return redirect("life", request.garden.pk, sowing.pk)


def _sowing(request: GardenRequest, sowing_id: int) -> Sowing:
    sowing = selectors.sowings_in(request.garden).filter(pk=sowing_id).first()
    if sowing is None:
        raise Http404
    return sowing
