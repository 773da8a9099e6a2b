"""Places, and what was done there: requests and answers."""

from __future__ import annotations

from collections.abc import Callable
from datetime import timedelta
from typing import TypeVar

from django.contrib import messages
from django.core.exceptions import ValidationError
from django.forms import BaseForm
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens import selectors
from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden, row_of
from cloche.apps.places import flows
from cloche.apps.places import pages as log_words
from cloche.apps.places import selectors as place_selectors
from cloche.apps.places.first import FirstPlacesForm, kinds_drawn, make_places
from cloche.apps.places.forms import CoverForm, OperationForm, PlaceForm
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.places.pages import work_name
from cloche.apps.places.selectors import place_or_404
from cloche.apps.shared import clock, words
from cloche.apps.shared.history import done
from cloche.apps.shared.http import INVALID
from cloche_engine.soil.bed import Work

T = TypeVar("T")


@in_garden
def new_place(request: GardenRequest) -> HttpResponse:
    """Add a place."""
    return _place_form(request, Place(garden=request.garden))


@in_garden
def first_places(request: GardenRequest) -> HttpResponse:
    """Add several places at once."""
    form = FirstPlacesForm(request.POST or None)
    made = _within_limits(form, lambda: make_places(request.garden, form.counts())) if form.is_valid() else None
    if made is not None:
        messages.success(
            request, _("{places} added. You can rename and describe them at any time.").format(places=_so_many(made))
        )
        return redirect("today", request.garden.pk)
    context = {"form": form, "kinds": kinds_drawn(form, request.garden, clock.today(request.garden.timezone))}
    return render(request, "places/first_places.html", context, status=INVALID if form.errors else 200)


def _within_limits(form: BaseForm, save: Callable[[], T]) -> T | None:
    """Return what saving returns, or None with an error in the form if the garden is full."""
    try:
        return save()
    except ValidationError as full:
        form.add_error(None, full)
        return None


def _so_many(made: list[Place]) -> str:
    return words.count(len(made), "place", "places")


@in_garden
def edit_place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Edit a place."""
    return _place_form(request, place_or_404(request, place_id))


def _place_form(request: GardenRequest, place: Place) -> HttpResponse:
    form = PlaceForm(request.POST or None, instance=place, units=selectors.units_of(request.user), garden=request.garden)
    saved = _within_limits(form, lambda: flows.save_place(form.save(commit=False))) if form.is_valid() else None
    if saved is not None:
        return redirect("place", request.garden.pk, saved.pk)
    context = {"form": form, "place": place}
    return render(request, "places/place_form.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden
def move_place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Move a place in the walking order."""
    flows.move_place(place_or_404(request, place_id), -1 if "earlier" in request.POST else 1)
    return redirect("garden", request.garden.pk)


@require_POST
@in_garden
def remove_place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Remove a place."""
    place = place_or_404(request, place_id)
    flows.remove_place(place)
    messages.success(request, _("{name} removed with its readings. You can restore it below.").format(name=place.name))
    return redirect("garden", request.garden.pk)


@require_POST
@in_garden
def put_back_place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Restore a place."""
    place = place_selectors.removed_places(request.garden).filter(pk=place_id).first()
    if place is None:
        raise Http404
    if flows.put_back_place(place):
        messages.success(request, _("{name} restored with its readings.").format(name=place.name))
    else:
        messages.error(request, _("Another place is called {name} by now. Rename that one first.").format(name=place.name))
    return redirect("garden", request.garden.pk)


@in_garden(writing=LOGS)
def new_cover(request: GardenRequest, place_id: int) -> HttpResponse:
    """Put a cover on."""
    place = place_or_404(request, place_id)
    return _cover_form(request, place, CoverPeriod(place=place))


@in_garden(writing=LOGS, own=row_of("places.CoverPeriod", "cover_id"))
def edit_cover(request: GardenRequest, place_id: int, cover_id: int) -> HttpResponse:
    """Edit a cover period."""
    place = place_or_404(request, place_id)
    return _cover_form(request, place, _period(place, cover_id))


def _cover_form(request: GardenRequest, place: Place, period: CoverPeriod) -> HttpResponse:
    request.room = "ground"  # type: ignore[attr-defined]
    query = {name: request.GET[name] for name in ("cover", "first", "last") if name in request.GET}
    units = selectors.units_of(request.user)
    form = CoverForm(request.POST or None, instance=period, units=units, place=place, initial=query)
    if form.is_valid() and kept(form):
        messages.success(request, _("Saved for {name}. Updating its forecast…").format(name=place.name))
        return redirect("place", request.garden.pk, place.pk)
    context = {"form": form, "place": place, "period": period}
    return render(request, "places/cover_form.html", context, status=INVALID if form.errors else 200)


def kept(form: CoverForm) -> bool:
    """Save the cover period of a valid form, or show in the form that the cover is on another bed."""
    try:
        flows.save_cover(form.save(commit=False), form.usual_beside)
    except flows.OnAnotherBed as taken:
        form.add_error("cover", str(taken))
        return False
    return True


@require_POST
@in_garden(writing=LOGS)
def take_cover_off(request: GardenRequest, place_id: int, cover_id: int) -> HttpResponse:
    """End a cover period yesterday, or delete it if it began today."""
    place = place_or_404(request, place_id)
    period, today = _period(place, cover_id), clock.today(request.garden.timezone)
    if period.first >= today:
        flows.remove_cover(place, cover_id)
    else:
        period.last = today - timedelta(days=1)
        flows.save_cover(period)
    messages.success(
        request,
        _("The {cover_name} is off {name} from today.").format(cover_name=log_words.cover_name(period.cover), name=place.name),
    )
    return redirect("place", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("places.CoverPeriod", "cover_id"))
def remove_cover(request: GardenRequest, place_id: int, cover_id: int) -> HttpResponse:
    """Delete a cover period."""
    place = place_or_404(request, place_id)
    period = flows.remove_cover(place, cover_id)
    if period is None:
        raise Http404
    line = log_words.cover_line(period, selectors.units_of(request.user), clock.today(request.garden.timezone))
    messages.success(
        request,
        _("Removed: {what}, {when}. To undo, put it on again with the same dates.").format(what=line.what, when=line.when),
    )
    return redirect("place", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS)
def add_operation(request: GardenRequest, place_id: int) -> HttpResponse:
    """Record work on a place."""
    place = place_or_404(request, place_id)
    form = OperationForm(request.POST, units=selectors.units_of(request.user), place=place)
    if not form.is_valid():
        return render(request, "places/operation_form.html", {"form": form, "place": place}, status=INVALID)
    flows.note_operation(place, form.cleaned_data["work"], form.at, form.cleaned_data.get("amount") or 0.0)
    text = _("Saved: {work}, {name}.").format(work=work_name(form.cleaned_data["work"]), name=place.name)
    messages.success(request, text)
    return redirect("place", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS)
def air_place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Record that the cover was opened or closed now."""
    place = place_or_404(request, place_id)
    work = Work.OPENED if "opened" in request.POST else Work.SHUT
    noted = flows.note_operation(place, work, clock.now())
    undo = reverse("remove_operation", args=[request.garden.pk, place.pk, noted.pk])
    done(request, _("Saved: {work}, {name}.").format(work=work_name(work), name=place.name), undo)
    return redirect("place", request.garden.pk, place.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("places.Operation", "operation_id"))
def remove_operation(request: GardenRequest, place_id: int, operation_id: int) -> HttpResponse:
    """Delete a record of work."""
    place = place_or_404(request, place_id)
    if not flows.remove_operation(place, operation_id):
        raise Http404
    messages.success(request, _("Removed."))
    return redirect("place", request.garden.pk, place.pk)


def _period(place: Place, cover_id: int) -> CoverPeriod:
    period = place.cover_periods.filter(pk=cover_id).first()
    if period is None:
        raise Http404
    return period
