"""The reading desk, the weather page, files in and out."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden
from cloche.apps.gardens.rights import row_of
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.access import place_or_404
from cloche.apps.places.models import Place
from cloche.apps.readings import desk
from cloche.apps.readings.flows import record
from cloche.apps.readings.forms import ReadingForm
from cloche.apps.readings.models import Reading
from cloche.apps.shared.http import INVALID

SHOWN_BAD_ROWS = 200


@require_POST
@in_garden(writing=LOGS)
def add_reading(request: GardenRequest, place_id: int) -> HttpResponse:
    """Record what was just read."""
    place = place_or_404(request, place_id)
    form = ReadingForm(request.POST, place=place, units=units_of(request.user))
    if not form.is_valid():
        return _desk(request, place, form=form)
    try:
        reading = record.record_reading(place, form.measured(), request.user)
    except record.AlreadyThere as twin:
        return _twin(request, place, form, twin)
    return _desk(request, place, undo=_undo(form, reading, place, request, _("is written down")))


@in_garden(writing=LOGS, own=row_of("readings.Reading", "reading_id"))
def edit_reading(request: GardenRequest, place_id: int, reading_id: int) -> HttpResponse:
    """Show a reading in a form of its own, and take the correction."""
    place = place_or_404(request, place_id)
    reading = _current(place, reading_id)
    units = units_of(request.user)
    own_ids = f"reading_{reading.pk}_%s"  # the desk's own form stands on the same page
    form = ReadingForm(request.POST or None, place=place, units=units, reading=reading, auto_id=own_ids)
    if request.method == "POST" and form.is_valid():
        try:
            record.correct_reading(reading, form.measured())
            return _desk(request, place, undo=_undo(form, reading, place, request, _("is corrected")))
        except record.AlreadyThere as twin:
            form.add_error(
                None,
                _("There is already a reading of {value} at that time and depth.").format(value=_value(request, twin.existing)),
            )
    context = {"place": place, "reading": reading, "form": form, "units": units}
    template = "readings/_edit.html" if request.htmx else "readings/edit.html"  # type: ignore[attr-defined]
    response = render(request, template, context, status=INVALID if form.errors else 200)
    if form.errors:
        response["HX-Retarget"] = f"#reading-{reading.pk}"  # the row comes back with its errors, not the whole desk
    return response


@require_POST
@in_garden(writing=LOGS, own=row_of("readings.Reading", "reading_id"))
def remove_reading(request: GardenRequest, place_id: int, reading_id: int) -> HttpResponse:
    """Take a reading off; it can be put back."""
    place = place_or_404(request, place_id)
    reading = _current(place, reading_id)
    record.remove_reading(reading)
    return _desk(request, place, undo=desk.Undo(_("{value} is removed.").format(value=_value(request, reading)), reading))


@require_POST
@in_garden(writing=LOGS, own=row_of("readings.Reading", "reading_id"))
def take_back(request: GardenRequest, place_id: int, reading_id: int) -> HttpResponse:
    """Undo the last change of a reading."""
    place = place_or_404(request, place_id)
    reading = place.readings.filter(pk=reading_id).first()
    if reading is None:
        raise Http404
    try:
        if reading.removed_at is None and reading.history.count() < 2:
            record.remove_reading(reading)
        else:
            record.take_back(reading)
    except record.AlreadyThere as twin:
        messages.error(request, f"Not put back: {_value(request, twin.existing)} has been written down for that time since.")
    return _desk(request, place)


def _desk(request: GardenRequest, place: Place, **parts: Any) -> HttpResponse:
    """The desk as a piece for htmx, or back to the place's page."""
    form = parts.get("form")
    failed = form is not None and bool(form.errors)
    if not request.htmx:  # type: ignore[attr-defined]
        if failed:
            context = {"place": place, "form": form, "units": units_of(request.user)}
            return render(request, "readings/edit.html", context, status=INVALID)
        if parts.get("undo"):
            messages.success(request, parts["undo"].text)
        return redirect("place", request.garden.pk, place.pk)
    context = desk.context_for(place, request.user, **parts)
    response = render(request, "readings/_desk.html", context, status=INVALID if failed else 200)
    if not failed:
        response["HX-Trigger"] = "ground-changed"
    return response


def _undo(form: ReadingForm, reading: Reading, place: Place, request: GardenRequest, done: str) -> desk.Undo:
    line = desk.line(reading, place, units_of(request.user))
    text = _("{temperature} at {depth}, {when}, {done}.").format(
        temperature=line.temperature, depth=line.depth, when=line.when, done=done
    )
    if form.cleaned_data.get("twice"):
        text += _(" That hour came twice, as the clocks went back; it is taken as the first, in summer time.")
    return desk.Undo(text, reading)


def _twin(request: GardenRequest, place: Place, form: ReadingForm, twin: record.AlreadyThere) -> HttpResponse:
    existing = _value(request, twin.existing)
    form.add_error(
        None,
        _("There is already a reading of {existing} at that time and depth. Correct that one instead.").format(
            existing=existing
        ),
    )
    return _desk(request, place, form=form)


def _value(request: GardenRequest, reading: Reading) -> str:
    return units_of(request.user).temperature_text(reading.temperature_c)


def _current(place: Place, reading_id: int) -> Reading:
    reading = place.readings.filter(pk=reading_id, removed_at__isnull=True).first()
    if reading is None:
        raise Http404
    return reading
