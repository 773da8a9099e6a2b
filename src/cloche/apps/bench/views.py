"""Raised plants, what warms them and what heat would do: requests and answers."""

from __future__ import annotations

from datetime import date
from typing import Any

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.bench import flows, selectors
from cloche.apps.bench.forms import HeatForm, LampForm, OnHotbedForm, StandsForm, WaterForm
from cloche.apps.bench.pages.bench import bench_page
from cloche.apps.bench.pages.gains import GainsPage, gains_page, waiting_page
from cloche.apps.bench.pages.heated_beds import HeatedBedPage, heated_bed_page, is_heated_bed
from cloche.apps.bench.pages.stands import CropForm, stands_page
from cloche.apps.bench.pages.tray import tray_page
from cloche.apps.bench.planning_forms import AskForm
from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden, row_of
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.flows import set_thermostat
from cloche.apps.places.models import HeatPeriod, HotbedTray, Lamp, Place
from cloche.apps.places.selectors import place_or_404
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID, is_piece
from cloche.apps.work.turns import ENGINE, WAITS, turn
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units
from cloche_engine.windows.raised_life import DOWN_K


def stand_in(request: GardenRequest) -> None:
    """Highlight this section in the navigation on all its pages."""
    request.room = "bench"  # type: ignore[attr-defined]


@in_garden
def bench(request: GardenRequest) -> HttpResponse:
    """Show all places for raising plants."""
    page = bench_page(request.garden, units_of(request.user), clock.now())
    return render(request, "bench/bench.html", {"page": page, "tab": "bench"})


@in_garden
def gains(request: GardenRequest) -> HttpResponse:
    """Compare heating options."""
    stand_in(request)
    garden, units = request.garden, units_of(request.user)
    first = selectors.raised_on(garden).first()
    bound = request.GET if "place" in request.GET else None
    form = AskForm(bound, garden=garden, initial={"place": first})
    context: dict[str, Any] = {"form": form, "places": first is not None, "tab": "heat_gains", "page": None}
    if form.is_valid():
        context["page"] = _gains(form, units, clock.today(garden.timezone))
    partial = is_piece(request)
    template = "bench/_gains.html" if partial else "bench/gains.html"
    return render(request, template, context, status=INVALID if form.errors else 200)


def _gains(form: AskForm, units: Units, today: date) -> GainsPage | HeatedBedPage:
    """Judge a bed by growth and harvest, and a tray by what comes up, which asks the engine."""
    place: Place = form.cleaned_data["place"]
    if is_heated_bed(place):
        return heated_bed_page(place, *form.what, units, today)
    with turn(ENGINE) as mine:
        return gains_page(place, *form.what, form.costs, units) if mine else waiting_page(WAITS)


@in_garden
def where(request: GardenRequest) -> HttpResponse:
    """Compare the places for raising a crop."""
    stand_in(request)
    form = CropForm(request.GET if "crop" in request.GET else None, garden=request.garden)
    key = form.cleaned_data["crop"] if form.is_valid() else None if form.is_bound else form.initial.get("crop")
    page = stands_page(request.garden, crops.crop(key), units_of(request.user)) if key else None
    context = {"form": form, "page": page, "tab": "where_to_raise"}
    return render(request, "bench/stands.html", context, status=INVALID if form.errors else 200)


@in_garden
def tray(request: GardenRequest, place_id: int) -> HttpResponse:
    """Show one tray or heated place."""
    stand_in(request)
    place = place_or_404(request, place_id)
    return _tray(request, place)


def _tray(
    request: GardenRequest, place: Place, stands: StandsForm | None = None, on: OnHotbedForm | None = None
) -> HttpResponse:
    water = WaterForm(request.GET if "water" in request.GET else None, units=units_of(request.user))
    poured = {"water_c": water.cleaned_data["water"]} if water.is_valid() else {}
    page = tray_page(place_or_404(request, place.pk), units_of(request.user), clock.now(), **poured)
    context = {
        "page": page,
        "place": place,
        "water_form": water,
        "form": stands or StandsForm(instance=place, garden=request.garden),
    }
    today = clock.today(request.garden.timezone)
    if on or (selectors.hotbeds_for(place).exists() and selectors.hotbed_below(place, today) is None):
        context["hotbed_form"] = on or OnHotbedForm(instance=_stay(place, today))
    return render(request, "bench/tray.html", context, status=INVALID if stands or on else 200)


def _stay(place: Place, first: date) -> HotbedTray:
    return HotbedTray(place=place, first=first)


@require_POST
@in_garden
def stands(request: GardenRequest, place_id: int) -> HttpResponse:
    """Edit the room and window of a tray."""
    stand_in(request)
    place = place_or_404(request, place_id)
    form = StandsForm(request.POST, instance=place, garden=request.garden)
    if form.is_valid():
        flows.keep_place(form.save())
        messages.success(request, _("Saved for {name}. Updating its forecast…").format(name=place.name))
        return redirect("tray", request.garden.pk, place.pk)
    return _tray(request, place, stands=form)


@in_garden(writing=LOGS)
def new_heat(request: GardenRequest, place_id: int) -> HttpResponse:
    """Add a heat source from a date on."""
    place = place_or_404(request, place_id)
    return _heat_form(request, place, HeatPeriod(place=place, first=clock.today(request.garden.timezone)))


@in_garden(writing=LOGS, own=row_of("places.HeatPeriod", "heat_id"))
def edit_heat(request: GardenRequest, place_id: int, heat_id: int) -> HttpResponse:
    """Edit a heat source."""
    place = place_or_404(request, place_id)
    return _heat_form(request, place, _heat(place, heat_id))


def _heat_form(request: GardenRequest, place: Place, period: HeatPeriod) -> HttpResponse:
    stand_in(request)
    form = HeatForm(request.POST or None, instance=period, units=units_of(request.user), place=place)
    return _kept(request, place, form, "bench/heat_form.html", period)


@in_garden(writing=LOGS)
def new_lamp(request: GardenRequest, place_id: int) -> HttpResponse:
    """Add a lamp from a date on."""
    place = place_or_404(request, place_id)
    return _lamp_form(request, place, Lamp(place=place, first=clock.today(request.garden.timezone)))


@in_garden(writing=LOGS, own=row_of("places.Lamp", "lamp_id"))
def edit_lamp(request: GardenRequest, place_id: int, lamp_id: int) -> HttpResponse:
    """Edit a lamp."""
    place = place_or_404(request, place_id)
    return _lamp_form(request, place, _lamp(place, lamp_id))


def _lamp_form(request: GardenRequest, place: Place, lamp: Lamp) -> HttpResponse:
    stand_in(request)
    form = LampForm(request.POST or None, instance=lamp, units=units_of(request.user), place=place)
    return _kept(request, place, form, "bench/lamp_form.html", lamp)


def _kept(request: GardenRequest, place: Place, form: Any, template: str, row: HeatPeriod | Lamp) -> HttpResponse:
    if form.is_valid():
        flows.keep(form.save(commit=False))
        messages.success(request, _("Saved for {name}. Updating its forecast…").format(name=place.name))
        return redirect("tray", request.garden.pk, place.pk)
    return render(request, template, {"form": form, "place": place, "row": row}, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=LOGS)
def heat_off(request: GardenRequest, place_id: int, heat_id: int) -> HttpResponse:
    """Turn a heat source off from today on."""
    place = place_or_404(request, place_id)
    flows.switch_off(_heat(place, heat_id), clock.today(request.garden.timezone))
    messages.success(request, _("Heat in {name} switched off from today.").format(name=place.name))
    return redirect("tray", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS)
def turn_down(request: GardenRequest, place_id: int, heat_id: int) -> HttpResponse:
    """Lower the set points by a few degrees from today on."""
    place = place_or_404(request, place_id)
    period = _heat(place, heat_id)
    lower = set_thermostat(period, period.start_c - DOWN_K, clock.today(request.garden.timezone))
    start = units_of(request.user).temperature_text(lower.start_c, 0)
    messages.success(request, _("{name} is held at {start} or more from today.").format(name=place.name, start=start))
    return redirect("tray", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("places.HeatPeriod", "heat_id"))
def remove_heat(request: GardenRequest, place_id: int, heat_id: int) -> HttpResponse:
    """Delete a heat source."""
    place = place_or_404(request, place_id)
    flows.remove(_heat(place, heat_id))
    messages.success(request, _("Heat removed, as if it had never warmed {name}.").format(name=place.name))
    return redirect("tray", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS)
def lamp_off(request: GardenRequest, place_id: int, lamp_id: int) -> HttpResponse:
    """Remove a lamp from today on."""
    place = place_or_404(request, place_id)
    flows.switch_off(_lamp(place, lamp_id), clock.today(request.garden.timezone))
    messages.success(request, _("Lamp over {name} removed from today.").format(name=place.name))
    return redirect("tray", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("places.Lamp", "lamp_id"))
def remove_lamp(request: GardenRequest, place_id: int, lamp_id: int) -> HttpResponse:
    """Delete a lamp."""
    place = place_or_404(request, place_id)
    flows.remove(_lamp(place, lamp_id))
    messages.success(request, _("Lamp removed, as if it had never lit {name}.").format(name=place.name))
    return redirect("tray", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS)
def new_hotbed(request: GardenRequest, place_id: int) -> HttpResponse:
    """Put a tray on a hotbed from a date on."""
    stand_in(request)
    place = place_or_404(request, place_id)
    form = OnHotbedForm(request.POST, instance=_stay(place, clock.today(request.garden.timezone)))
    if not form.is_valid():
        return _tray(request, place, on=form)
    flows.keep(form.save(commit=False))
    messages.success(request, _("Saved for {name}. Updating its forecast…").format(name=place.name))
    return redirect("tray", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS)
def hotbed_off(request: GardenRequest, place_id: int, stay_id: int) -> HttpResponse:
    """Take a tray off its hotbed from today on."""
    place = place_or_404(request, place_id)
    flows.switch_off(_on_hotbed(place, stay_id), clock.today(request.garden.timezone))
    messages.success(request, _("{name} is off the hotbed from today.").format(name=place.name))
    return redirect("tray", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("places.HotbedTray", "stay_id"))
def remove_hotbed(request: GardenRequest, place_id: int, stay_id: int) -> HttpResponse:
    """Delete a stay on a hotbed."""
    place = place_or_404(request, place_id)
    flows.remove(_on_hotbed(place, stay_id))
    messages.success(request, _("Stay removed, as if {name} had never been there.").format(name=place.name))
    return redirect("tray", request.garden.pk, place.pk)


def _on_hotbed(place: Place, stay_id: int) -> HotbedTray:
    stay = place.on_hotbeds.filter(pk=stay_id).first()
    if stay is None:
        raise Http404
    return stay


def _heat(place: Place, heat_id: int) -> HeatPeriod:
    period = place.heat_periods.filter(pk=heat_id).first()
    if period is None:
        raise Http404
    return period


def _lamp(place: Place, lamp_id: int) -> Lamp:
    lamp = place.lamps.filter(pk=lamp_id).first()
    if lamp is None:
        raise Http404
    return lamp
