"""Views of readings and imported files."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.core.exceptions import ValidationError
from django.http import Http404, HttpResponse, StreamingHttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden, row_of
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import place_or_404
from cloche.apps.readings import pages
from cloche.apps.readings.files import export
from cloche.apps.readings.files.tables import UnreadableFile, read_table
from cloche.apps.readings.flows import bring_in, record
from cloche.apps.readings.forms import FileForm, MappingForm, ReadingForm, mapping_initial
from cloche.apps.readings.models import IncomingFile, Reading
from cloche.apps.readings.pages import came_by_themselves, how_many
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID

SHOWN_BAD_ROWS = 200


@require_POST
@in_garden(writing=LOGS)
def add_reading(request: GardenRequest, place_id: int) -> HttpResponse:
    """Add a reading."""
    place = place_or_404(request, place_id)
    form = ReadingForm(request.POST, place=place, units=units_of(request.user))
    if not form.is_valid():
        return _desk(request, place, form=form)
    try:
        reading = record.record_reading(place, form.measured(), request.user)
    except record.AlreadyThere as twin:
        return _twin(request, place, form, twin)
    return _desk(request, place, undo=_undo(form, reading, place, request, _("saved")))


@in_garden(writing=LOGS, own=row_of("readings.Reading", "reading_id"))
def edit_reading(request: GardenRequest, place_id: int, reading_id: int) -> HttpResponse:
    """Show a reading in a form and save the correction."""
    place = place_or_404(request, place_id)
    reading = _current(place, reading_id)
    units = units_of(request.user)
    own_ids = f"reading_{reading.pk}_%s"  # the desk's own form stands on the same page
    form = ReadingForm(request.POST or None, place=place, units=units, reading=reading, auto_id=own_ids)
    if request.method == "POST" and form.is_valid():
        try:
            record.correct_reading(reading, form.measured())
            return _desk(request, place, undo=_undo(form, reading, place, request, _("corrected")))
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
    """Remove a reading; it can be restored."""
    place = place_or_404(request, place_id)
    reading = _current(place, reading_id)
    record.remove_reading(reading)
    return _desk(request, place, undo=pages.Undo(_("{value} removed.").format(value=_value(request, reading)), reading))


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
    """Answer with the reading desk for htmx, or redirect to the place's page."""
    form = parts.get("form")
    failed = form is not None and bool(form.errors)
    if not request.htmx:  # type: ignore[attr-defined]
        if failed:
            context = {"place": place, "form": form, "units": units_of(request.user)}
            return render(request, "readings/edit.html", context, status=INVALID)
        if parts.get("undo"):
            messages.success(request, parts["undo"].text)
        return redirect("place", request.garden.pk, place.pk)
    context = pages.context_for(place, request.user, **parts)
    response = render(request, "readings/_desk.html", context, status=INVALID if failed else 200)
    if not failed:
        response["HX-Trigger"] = "ground-changed"
    return response


def _undo(form: ReadingForm, reading: Reading, place: Place, request: GardenRequest, done: str) -> pages.Undo:
    line = pages.line(reading, place, units_of(request.user))
    text = _("{temperature} at {depth}, {when}, {done}.").format(
        temperature=line.temperature, depth=line.depth, when=line.when, done=done
    )
    if form.cleaned_data.get("twice"):
        text += _(" That hour occurs twice, because the clocks went back. Cloche uses the first, in summer time.")
    return pages.Undo(text, reading)


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


SHOWN_BAD_ROWS = 200


@in_garden
def files(request: GardenRequest) -> HttpResponse:
    """Import and export files."""
    form = FileForm(request.POST or None, request.FILES or None)
    if form.is_valid():
        try:
            if bring_in.is_typical_year(form.cleaned_data["file"]):
                year = bring_in.take_typical_year(request.garden, form.cleaned_data["file"])
                messages.success(
                    request, _("The typical year of {name} now gives this garden’s monthly normals.").format(name=year.name)
                )
                return redirect("garden", request.garden.pk)
            incoming = bring_in.receive(request.garden, request.user, form.cleaned_data["kind"], form.cleaned_data["file"])
            return redirect("incoming", request.garden.pk, incoming.pk)
        except UnreadableFile as refusal:
            form.add_error("file", str(refusal))
    context = {"form": form, "waiting": _waiting(request).first(), "came": came_by_themselves(request.garden, clock.now())}
    return render(request, "readings/files.html", context, status=INVALID if form.errors else 200)


@in_garden
def incoming(request: GardenRequest, file_id: int) -> HttpResponse:
    """Map the columns, preview the result, and import or cancel."""
    waiting = _waiting(request).filter(pk=file_id).first()
    if waiting is None:
        messages.error(request, "That file is no longer waiting: it was brought in, given up or replaced by another.")
        return redirect("files", request.garden.pk)
    if waiting.state != IncomingFile.State.WAITING:
        return _progress(request, waiting)
    table = read_table(waiting.text)
    units = units_of(request.user)
    form = MappingForm(
        request.POST or None,
        garden=request.garden,
        header=table.header,
        kind=waiting.kind,
        units=units,
        initial=mapping_initial(bring_in.mapping_of(waiting), units),
    )
    preview = None
    if form.is_valid():
        bring_in.remember(waiting, form.mapping())
        preview = bring_in.preview(waiting)
        if "take" in request.POST and (not preview.refused or "leave_bad" in request.POST):
            return _take(request, waiting)
    columns = [
        {"field": form[f"column_{i}"], "samples": table.samples(i), "name": name or _("column {i}").format(i=i + 1)}
        for i, name in enumerate(table.header)
    ]
    context = {
        "incoming": waiting,
        "form": form,
        "columns": columns,
        "rows": len(table.rows),
        "preview": preview,
        "refused": preview.refused[:SHOWN_BAD_ROWS] if preview else [],
        "ask": preview is not None and "take" in request.POST,
    }
    return render(request, "readings/incoming.html", context, status=INVALID if form.errors else 200)


def _take(request: GardenRequest, waiting: IncomingFile) -> HttpResponse:
    name, kind, file_id = waiting.name, waiting.kind, waiting.pk
    try:
        added = bring_in.take_rows(waiting)
    except ValidationError as full:
        messages.error(request, full.message)
        return redirect("incoming", request.garden.pk, file_id)
    if added is None:
        return redirect("incoming", request.garden.pk, file_id)
    return _taken(request, name, kind, added)


def _progress(request: GardenRequest, taking: IncomingFile) -> HttpResponse:
    """Show the progress of a long file and redirect when it is done."""
    if taking.state == IncomingFile.State.TAKEN:
        answer = _taken(request, taking.name, taking.kind, taking.done)
        taking.delete()
        if request.htmx:  # type: ignore[attr-defined]
            return HttpResponse(headers={"HX-Redirect": answer["Location"]})
        return answer
    template = "readings/_progress.html" if request.htmx else "readings/progress.html"  # type: ignore[attr-defined]
    share = round(100 * taking.done / max(taking.total, 1))
    return render(request, template, {"taking": taking, "share": share, "garden": request.garden})


def _taken(request: GardenRequest, name: str, kind: str, added: int) -> HttpResponse:
    what = how_many(kind, added)
    messages.success(
        request,
        _("Imported {what} from {name}.").format(what=what, name=name)
        if added
        else _("{name} contained nothing new, so nothing was added.").format(name=name),
    )
    return redirect("weather" if kind == "weather" else "ground", request.garden.pk)


@require_POST
@in_garden
def give_up(request: GardenRequest, file_id: int) -> HttpResponse:
    """Cancel a waiting file."""
    _waiting(request).filter(pk=file_id).delete()
    messages.success(request, _("File discarded. Nothing was imported."))
    return redirect("files", request.garden.pk)


def _waiting(request: GardenRequest) -> Any:
    return IncomingFile.objects.filter(garden=request.garden, user=request.user)


@in_garden
def take_out(request: GardenRequest, kind: str) -> StreamingHttpResponse:
    """Stream a CSV file of all records of one kind."""
    writers = {"readings": export.readings_csv, "weather": export.weather_csv}
    if kind not in writers:
        raise Http404
    rows = writers[kind](request.garden, units_of(request.user))
    response = StreamingHttpResponse(rows, content_type="text/csv; charset=utf-8")
    stamp = clock.today(request.garden.timezone).isoformat()
    response["Content-Disposition"] = f'attachment; filename="cloche-{kind}-{stamp}.csv"'
    return response
