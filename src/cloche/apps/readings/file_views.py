"""Files in and out."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.core.exceptions import ValidationError
from django.http import Http404, HttpResponse, StreamingHttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.readings.came import came_by_themselves, how_many
from cloche.apps.readings.files import export
from cloche.apps.readings.files.tables import UnreadableFile, read_table
from cloche.apps.readings.flows import bring_in
from cloche.apps.readings.forms import FileForm, MappingForm, mapping_initial
from cloche.apps.readings.models import IncomingFile
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID

SHOWN_BAD_ROWS = 200


@in_garden
def files(request: GardenRequest) -> HttpResponse:
    """Bring in, take out."""
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
    """Say what the columns are; see what would happen; take the good rows or leave it."""
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
    """How far a long file is; once it is in, its page leads on."""
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
        _("{what} from {name} brought in.").format(what=what, name=name)
        if added
        else _("{name} held nothing new; nothing was added.").format(name=name),
    )
    return redirect("weather" if kind == "weather" else "ground", request.garden.pk)


@require_POST
@in_garden
def give_up(request: GardenRequest, file_id: int) -> HttpResponse:
    """Forget a waiting file."""
    _waiting(request).filter(pk=file_id).delete()
    messages.success(request, _("The file is dropped; nothing was brought in."))
    return redirect("files", request.garden.pk)


def _waiting(request: GardenRequest) -> Any:
    return IncomingFile.objects.filter(garden=request.garden, user=request.user)


@in_garden
def take_out(request: GardenRequest, kind: str) -> StreamingHttpResponse:
    """A CSV of everything of one kind."""
    writers = {"readings": export.readings_csv, "weather": export.weather_csv}
    if kind not in writers:
        raise Http404
    rows = writers[kind](request.garden, units_of(request.user))
    response = StreamingHttpResponse(rows, content_type="text/csv; charset=utf-8")
    stamp = clock.today(request.garden.timezone).isoformat()
    response["Content-Disposition"] = f'attachment; filename="cloche-{kind}-{stamp}.csv"'
    return response
