"""Places: new, changed, moved, removed, put back."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from django.contrib import messages
from django.core.exceptions import ValidationError
from django.forms import BaseForm
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens import selectors
from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.places import selectors as place_selectors
from cloche.apps.places.access import place_or_404
from cloche.apps.places.first import FirstPlacesForm, kinds_drawn, make_places
from cloche.apps.places.flows import places
from cloche.apps.places.forms import PlaceForm
from cloche.apps.places.models import Place
from cloche.apps.shared import clock, words
from cloche.apps.shared.http import INVALID

T = TypeVar("T")


@in_garden
def new_place(request: GardenRequest) -> HttpResponse:
    """Add a place to the walk."""
    return _place_form(request, Place(garden=request.garden))


@in_garden
def first_places(request: GardenRequest) -> HttpResponse:
    """Many places in one go, by kind."""
    form = FirstPlacesForm(request.POST or None)
    made = _within_limits(form, lambda: make_places(request.garden, form.counts())) if form.is_valid() else None
    if made is not None:
        messages.success(request, _("{places} made. Name and describe them whenever you like.").format(places=_so_many(made)))
        return redirect("today", request.garden.pk)
    context = {"form": form, "kinds": kinds_drawn(form, request.garden, clock.today(request.garden.timezone))}
    return render(request, "places/first_places.html", context, status=INVALID if form.errors else 200)


def _within_limits(form: BaseForm, save: Callable[[], T]) -> T | None:
    """What saving gives; where the garden is full the form says so, and None."""
    try:
        return save()
    except ValidationError as full:
        form.add_error(None, full)
        return None


def _so_many(made: list[Place]) -> str:
    return words.count(len(made), "place", "places")


@in_garden
def edit_place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Change a place."""
    return _place_form(request, place_or_404(request, place_id))


def _place_form(request: GardenRequest, place: Place) -> HttpResponse:
    form = PlaceForm(request.POST or None, instance=place, units=selectors.units_of(request.user), garden=request.garden)
    saved = _within_limits(form, lambda: places.save_place(form.save(commit=False))) if form.is_valid() else None
    if saved is not None:
        return redirect("place", request.garden.pk, saved.pk)
    context = {"form": form, "place": place}
    return render(request, "places/place_form.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden
def move_place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Earlier or later in the walk."""
    places.move_place(place_or_404(request, place_id), -1 if "earlier" in request.POST else 1)
    return redirect("garden", request.garden.pk)


@require_POST
@in_garden
def remove_place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Take a place off; the garden's page offers to put it back."""
    place = place_or_404(request, place_id)
    places.remove_place(place)
    messages.success(request, _("{name} is removed with its readings. It can be put back below.").format(name=place.name))
    return redirect("garden", request.garden.pk)


@require_POST
@in_garden
def put_back_place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Undo a removal."""
    place = place_selectors.removed_places(request.garden).filter(pk=place_id).first()
    if place is None:
        raise Http404
    if places.put_back_place(place):
        messages.success(request, _("{name} is back, with its readings.").format(name=place.name))
    else:
        messages.error(request, f"Another place is called {place.name} by now. Rename that one first.")
    return redirect("garden", request.garden.pk)
