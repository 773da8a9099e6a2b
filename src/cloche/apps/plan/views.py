"""Views of the plan: beds, plantings and observations."""

from __future__ import annotations

from datetime import date
from typing import Any

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden, row_of
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import place_or_404
from cloche.apps.plan import courses, texts
from cloche.apps.plan.forms import AgainForm, DayForm, EventForm, LayForm, PlantingForm, SavedSeedForm, ShapeForm, TrellisForm
from cloche.apps.plan.pages.bed import bed_page
from cloche.apps.plan.pages.overview import plan_page
from cloche.apps.plan.pages.planting import planting_page
from cloche.apps.plan.pages.timetable import timetable_page
from cloche.apps.plants import flows
from cloche.apps.plants import selectors as plants
from cloche.apps.plants.models import PlantEvent, Planting
from cloche.apps.shared import clock, words
from cloche.apps.shared.http import INVALID, is_piece
from cloche.bridge.services import beds, crops

NOON_H = 12


def _stand_in(request: GardenRequest) -> None:
    """Mark the plan as the current section of the navigation."""
    request.room = "plan"  # type: ignore[attr-defined]


def _today(request: GardenRequest) -> date:
    return clock.today(request.garden.timezone)


@in_garden
def plan(request: GardenRequest) -> HttpResponse:
    """Show the season's plan."""
    bound = request.GET if "length" in request.GET else None
    form = TrellisForm(bound, garden=request.garden, units=units_of(request.user))
    trellis = _trellis(form) if form.is_valid() else ""
    context = {"page": plan_page(request.garden, _today(request)), "trellis": form, "trellis_text": trellis}
    return render(request, "plan/plan.html", context, status=INVALID if form.errors else 200)


def _trellis(form: TrellisForm) -> str:
    keys = form.cleaned_data["crops"]
    numbers = beds.on_trellis(form.cleaned_data["length"], keys)
    each = [f"{number} {crops.crop(key).name_plural}" for number, key in zip(numbers, keys, strict=True)]
    return _("{plants} will fit along it.").format(plants=words.listed(each, 8))


@in_garden
def bed(request: GardenRequest, place_id: int) -> HttpResponse:
    """Show and edit the plan of a bed."""
    return _bed(request, place_or_404(request, place_id))


def _bed(request: GardenRequest, place: Place, refused: str = "") -> HttpResponse:
    _stand_in(request)
    today = _today(request)
    shade = _shade(request, today)
    page = bed_page(place, units_of(request.user), today, shade)
    hours = range(5, 21)
    context: dict[str, Any] = {"page": page, "place": place, "refused": refused, "shade": shade, "hours": hours}
    context["shade_hour"] = int(shade[1]) if shade else NOON_H
    partial = is_piece(request)
    status = INVALID if refused else 200
    return render(request, "plan/_bed.html" if partial else "plan/bed.html", context, status=status)


def _shade(request: GardenRequest, today: date) -> tuple[date, float] | None:
    """Return the day and hour for which shadows are wanted, or None."""
    if "hour" not in request.GET:
        return None
    form = DayForm(request.GET)
    hour = request.GET["hour"]
    if not form.is_valid() or not hour.isdigit() or int(hour) > 23:
        return None
    return form.cleaned_data["on"] or today, float(hour)


@in_garden
def timetable(request: GardenRequest, place_id: int) -> HttpResponse:
    """Show when the cover over a bed goes on, is opened and comes off."""
    _stand_in(request)
    place = place_or_404(request, place_id)
    page = timetable_page(place, request.GET.get("cover", ""), units_of(request.user), _today(request))
    partial = is_piece(request)
    return render(request, "plan/_timetable.html" if partial else "plan/timetable.html", {"page": page, "place": place})


@in_garden
def bed_shape(request: GardenRequest, place_id: int) -> HttpResponse:
    """Edit the size of a bed."""
    _stand_in(request)
    place = place_or_404(request, place_id)
    form = ShapeForm(
        request.POST or None, instance=plants.shape_of(place, units_of(request.user)), units=units_of(request.user)
    )
    if form.is_valid():
        flows.keep_shape(form.save(commit=False))
        return redirect("bed_plan", request.garden.pk, place.pk)
    context = {"form": form, "place": place}
    return render(request, "plan/shape.html", context, status=INVALID if form.errors else 200)


@in_garden(writing=LOGS)
def new_planting(request: GardenRequest, place_id: int) -> HttpResponse:
    """Add a planting to the plan."""
    place = place_or_404(request, place_id)
    shape = plants.shape_of(place, units_of(request.user))
    blank = Planting(place=place, length_m=shape.square_m, width_m=shape.square_m)
    spot = plants.next_spot(place, shape)
    initial = {"crop_key": request.GET.get("crop"), "planned_on": request.GET.get("on") or _today(request)}
    if spot is not None:
        blank.x_m, blank.y_m = spot
    return _planting_form(request, place, blank, initial)


@in_garden(writing=LOGS, own=row_of("plants.Planting", "planting_id"))
def edit_planting(request: GardenRequest, planting_id: int) -> HttpResponse:
    """Edit a planting."""
    planting = _planting(request, planting_id)
    return _planting_form(request, planting.place, planting, {})


def _planting_form(request: GardenRequest, place: Place, planting: Planting, initial: dict[str, Any]) -> HttpResponse:
    _stand_in(request)
    bound = request.POST if request.method == "POST" else None
    units, today = units_of(request.user), _today(request)
    form = PlantingForm(bound, instance=planting, initial=initial, garden=request.garden, place=place, today=today, units=units)
    if form.is_valid():
        kept = flows.keep(form.save(), request.user)
        messages.success(request, _("{name} in {place} added to the plan.").format(name=texts.name_of(kept), place=place.name))
        return redirect("bed_plan", request.garden.pk, place.pk)
    context = {"form": form, "place": place, "planting": planting if planting.pk else None}
    return render(request, "plan/planting_form.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=LOGS, own=row_of("plants.Planting", "planting_id"))
def lay(request: GardenRequest, planting_id: int) -> HttpResponse:
    """Save the position of a patch that was dragged."""
    planting = _planting(request, planting_id)
    form = LayForm(request.POST, shape=plants.shape_of(planting.place, units_of(request.user)))
    if not form.is_valid():
        return _bed(request, planting.place, " ".join(str(line) for lines in form.errors.values() for line in lines))
    flows.lay(planting, *form.metres)
    return _bed(request, planting.place)


@in_garden
def planting(request: GardenRequest, planting_id: int) -> HttpResponse:
    """Show the growth and history of a planting."""
    planting, today, units = _planting(request, planting_id), _today(request), units_of(request.user)
    bound = request.POST if request.method == "POST" else None
    form = EventForm(bound, planting=planting, today=today, units=units)
    if form.is_valid():
        event = form.save(commit=False)
        event.lowest_c = courses.lowest_before(planting.place, event.on) if event.kind in courses.OF_A_NIGHT else None
        flows.note_event(event)
        messages.success(request, _("Saved: {what}.").format(what=texts.event_line(event, units)))
        return redirect("planting", request.garden.pk, planting.pk)
    return _planting_page(request, planting, event=form)


def _planting_page(
    request: GardenRequest, planting: Planting, event: EventForm | None = None, seed: SavedSeedForm | None = None
) -> HttpResponse:
    _stand_in(request)
    today, units = _today(request), units_of(request.user)
    event = event or EventForm(None, planting=planting, today=today, units=units)
    seed = seed or SavedSeedForm(initial={"variety": planting.packet.variety if planting.packet else ""})
    context = {
        "form": event,
        "planting": planting,
        "page": planting_page(planting, units, today),
        "again": AgainForm(prefix="again"),
    }
    context |= {"seed": seed}
    return render(request, "plan/planting.html", context, status=INVALID if event.errors or seed.errors else 200)


@require_POST
@in_garden(writing=LOGS)
def plant(request: GardenRequest, planting_id: int) -> HttpResponse:
    """Mark a planned planting as done, today or on a given day."""
    planting, form = _planting(request, planting_id), DayForm(request.POST)
    on = form.cleaned_data["on"] if form.is_valid() else None
    flows.plant(planting, min(on or _today(request), _today(request)), request.user)
    messages.success(
        request, _("{name} in {place} marked as planted.").format(name=texts.name_of(planting), place=planting.place.name)
    )
    return redirect("bed_plan", request.garden.pk, planting.place_id)


@require_POST
@in_garden(writing=LOGS)
def end(request: GardenRequest, planting_id: int) -> HttpResponse:
    """Mark a planting as ended, or undo that."""
    planting = _planting(request, planting_id)
    flows.end(planting, None if "again" in request.POST else _today(request))
    return redirect("bed_plan", request.garden.pk, planting.place_id)


@require_POST
@in_garden(writing=LOGS)
def save_seed(request: GardenRequest, planting_id: int) -> HttpResponse:
    """Add a packet of seed saved from a planting."""
    planting = _planting(request, planting_id)
    if not planting.crop_key or planting.planted_on is None:
        raise Http404
    form = SavedSeedForm(request.POST)
    if not form.is_valid():
        return _planting_page(request, planting, seed=form)
    packet = flows.save_seed(planting, form.cleaned_data["variety"], _today(request).year)
    messages.success(request, _("{name} added to the seed box.").format(name=packet.variety or texts.crop_name(planting)))
    return redirect("seed_box", request.garden.pk)


@require_POST
@in_garden(writing=LOGS)
def again(request: GardenRequest, planting_id: int) -> HttpResponse:
    """Add succession sowings of a planting."""
    planting, form = _planting(request, planting_id), AgainForm(request.POST, prefix="again")
    if not form.is_valid():
        today, units = _today(request), units_of(request.user)
        page = planting_page(planting, units, today)
        context = {
            "form": EventForm(planting=planting, today=today, units=units),
            "planting": planting,
            "page": page,
            "again": form,
        }
        return render(request, "plan/planting.html", context, status=INVALID)
    made = flows.in_succession(planting, form.cleaned_data["every_d"], form.cleaned_data["times"], request.user)
    text = _("{count} more of {name} planned.")
    messages.success(request, text.format(count=len(made), name=texts.name_of(planting)))
    return redirect("bed_plan", request.garden.pk, planting.place_id)


@require_POST
@in_garden(writing=LOGS, own=row_of("plants.Planting", "planting_id"))
def remove_planting(request: GardenRequest, planting_id: int) -> HttpResponse:
    """Remove a planting from the plan."""
    planting = _planting(request, planting_id)
    flows.remove(planting)
    messages.success(
        request, _("{name} removed from the plan. You can restore it from History.").format(name=texts.name_of(planting))
    )
    return redirect("bed_plan", request.garden.pk, planting.place_id)


@require_POST
@in_garden(writing=LOGS, own=row_of("plants.PlantEvent", "event_id"))
def remove_event(request: GardenRequest, planting_id: int, event_id: int) -> HttpResponse:
    """Remove an observation."""
    planting = _planting(request, planting_id)
    event = PlantEvent.objects.filter(planting=planting, pk=event_id).first()
    if event is None:
        raise Http404
    flows.remove_event(event)
    messages.success(request, _("Removed."))
    return redirect("planting", request.garden.pk, planting.pk)


def _planting(request: GardenRequest, planting_id: int) -> Planting:
    planting = plants.plantings_in(request.garden).filter(pk=planting_id).first()
    if planting is None:
        raise Http404
    return planting
