"""The reading desk, the weather page, files in and out."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.contrib import messages
from django.http import Http404, HttpResponse, StreamingHttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from cloche.apps.gardens import clock, words
from cloche.apps.gardens.access import GardenRequest, in_garden, place_or_404
from cloche.apps.gardens.models import Place
from cloche.apps.gardens.selectors import units_of
from cloche.apps.readings import desk, selectors
from cloche.apps.readings.files import export
from cloche.apps.readings.files.tables import UnreadableFile, read_table
from cloche.apps.readings.flows import bring_in, record, weather
from cloche.apps.readings.forms import FileForm, MappingForm, ReadingForm, WeatherForm, mapping_initial
from cloche.apps.readings.models import DailyWeather, IncomingFile, Reading
from cloche.bridge.evidence import Day

INVALID = 422
SHOWN_BAD_ROWS = 200


@require_POST
@in_garden
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
    return _desk(request, place, undo=_undo(form, reading, place, request, "is written down"))


@in_garden
def edit_reading(request: GardenRequest, place_id: int, reading_id: int) -> HttpResponse:
    """Show a reading in a form of its own, and take the correction."""
    place = place_or_404(request, place_id)
    reading = _standing(place, reading_id)
    units = units_of(request.user)
    own_ids = f"reading_{reading.pk}_%s"  # the desk's own form stands on the same page
    form = ReadingForm(request.POST or None, place=place, units=units, reading=reading, auto_id=own_ids)
    if request.method == "POST" and form.is_valid():
        try:
            record.correct_reading(reading, form.measured())
            return _desk(request, place, undo=_undo(form, reading, place, request, "is corrected"))
        except record.AlreadyThere as twin:
            form.add_error(None, f"There is already a reading of {_value(request, twin.existing)} at that time and depth.")
    context = {"place": place, "reading": reading, "form": form, "units": units}
    template = "readings/_edit.html" if request.htmx else "readings/edit.html"  # type: ignore[attr-defined]
    response = render(request, template, context, status=INVALID if form.errors else 200)
    if form.errors:
        response["HX-Retarget"] = f"#reading-{reading.pk}"  # the row comes back with its errors, not the whole desk
    return response


@require_POST
@in_garden
def remove_reading(request: GardenRequest, place_id: int, reading_id: int) -> HttpResponse:
    """Take a reading off; it can be put back."""
    place = place_or_404(request, place_id)
    reading = _standing(place, reading_id)
    record.remove_reading(reading)
    return _desk(request, place, undo=desk.Undo(f"{_value(request, reading)} is removed.", reading))


@require_POST
@in_garden
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
            messages.success(request, parts["undo"].said)
        return redirect("place", request.garden.pk, place.pk)
    context = desk.context_for(place, request.user, **parts)
    response = render(request, "readings/_desk.html", context, status=INVALID if failed else 200)
    if not failed:
        response["HX-Trigger"] = "ground-changed"
    return response


def _undo(form: ReadingForm, reading: Reading, place: Place, request: GardenRequest, done: str) -> desk.Undo:
    line = desk.line(reading, place, units_of(request.user))
    said = f"{line.temperature} at {line.depth}, {line.when}, {done}."
    if form.cleaned_data.get("twice"):
        said += " That hour came twice, as the clocks went back; it is taken as the first, in summer time."
    return desk.Undo(said, reading)


def _twin(request: GardenRequest, place: Place, form: ReadingForm, twin: record.AlreadyThere) -> HttpResponse:
    existing = _value(request, twin.existing)
    form.add_error(None, f"There is already a reading of {existing} at that time and depth. Correct that one instead.")
    return _desk(request, place, form=form)


def _value(request: GardenRequest, reading: Reading) -> str:
    return units_of(request.user).temperature_text(reading.temperature_c)


def _standing(place: Place, reading_id: int) -> Reading:
    reading = place.readings.filter(pk=reading_id, removed_at__isnull=True).first()
    if reading is None:
        raise Http404
    return reading


@in_garden
def weather_page(request: GardenRequest) -> HttpResponse:
    """The days' air: what was, and what is forecast."""
    units = units_of(request.user)
    form = WeatherForm(request.POST or None, units=units, garden=request.garden)
    if form.is_valid():
        data = form.cleaned_data
        also = {"rain_mm": data["rain"], "wind_m_s": data["wind"], "snow_m": data["snow"]}
        weather.record_day(request.garden, data["day"], data["low"], data["high"], sky=data["sky"], **also)
        messages.success(request, f"{words.day(data['day']).capitalize()} is written down.")
        return redirect("weather", request.garden.pk)
    today = clock.today(request.garden.timezone)
    rows = selectors.weather_around(request.garden, today, back=21, ahead=16)
    lines = [_weather_line(row, units) for row in rows]
    newest = request.garden.weather.filter(day__lte=today).order_by("-day").values_list("day", flat=True).first()
    context = {
        "form": form,
        "units": units,
        "coming": [line for line in reversed(lines) if line["day"] > today],
        "past": [line for line in lines if line["day"] <= today],
        "total": request.garden.weather.count(),
        "newest": words.day(newest, today) if newest else "",
        "foretold": [_day_line(day, units) for day in selectors.foretold(request.garden, today)],
        "heard": selectors.heard_words(request.garden, clock.now()),
        "missing": newest is None or newest < today - timedelta(days=2),
    }
    return render(request, "readings/weather.html", context, status=INVALID if form.errors else 200)


def _weather_line(row: DailyWeather, units: Any) -> dict[str, Any]:
    return _day_line(selectors.day_of(*(getattr(row, name) for name in DailyWeather.LINE)), units)


def _day_line(day: Day, units: Any) -> dict[str, Any]:
    snow = f"{units.length_text(day.snow_m)} of snow" if day.snow_m else ""
    wind = "" if day.wind_m_s is None else f"wind {day.wind_m_s:g} m/s"
    also = [day.sky or "", "" if day.rain_mm is None else f"{day.rain_mm:g} mm", wind, snow]
    low, high = units.temperature_text(day.low_c), units.temperature_text(day.high_c)
    when = f"{day.day:%a} {day.day.day} {day.day:%b}"
    return {"day": day.day, "when": when, "low": low, "high": high, "rain": ", ".join(part for part in also if part)}


@require_POST
@in_garden
def remove_weather(request: GardenRequest, day: Any) -> HttpResponse:
    """Take a day's line off."""
    line = request.garden.weather.filter(day=day).first()
    if line is not None:
        units = units_of(request.user)
        weather.remove_day(request.garden, day)
        was = f"{units.temperature_text(line.low_c)} to {units.temperature_text(line.high_c)}"
        messages.success(request, f"{words.day(day).capitalize()} is removed. It was {was}, should you want it back.")
    return redirect("weather", request.garden.pk)


@in_garden
def files(request: GardenRequest) -> HttpResponse:
    """Bring in, take out."""
    form = FileForm(request.POST or None, request.FILES or None)
    if form.is_valid():
        try:
            if bring_in.is_typical_year(form.cleaned_data["file"]):
                year = bring_in.take_typical_year(request.garden, form.cleaned_data["file"])
                messages.success(request, f"The typical year of {year.name} now gives this garden’s monthly normals.")
                return redirect("garden", request.garden.pk)
            incoming = bring_in.receive(request.garden, request.user, form.cleaned_data["kind"], form.cleaned_data["file"])
            return redirect("incoming", request.garden.pk, incoming.pk)
        except UnreadableFile as refusal:
            form.add_error("file", str(refusal))
    context = {"form": form, "waiting": _waiting(request).first()}
    return render(request, "readings/files.html", context, status=INVALID if form.errors else 200)


@in_garden
def incoming(request: GardenRequest, file_id: int) -> HttpResponse:
    """Say what the columns are; see what would happen; take the good rows or leave it."""
    waiting = _waiting(request).filter(pk=file_id).first()
    if waiting is None:
        messages.error(request, "That file is no longer waiting: it was brought in, given up or replaced by another.")
        return redirect("files", request.garden.pk)
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
    found = None
    if form.is_valid():
        bring_in.remember(waiting, form.mapping())
        found = bring_in.preview(waiting)
        if "take" in request.POST and (not found.refused or "leave_bad" in request.POST):
            return _take(request, waiting)
    columns = [
        {"field": form[f"column_{i}"], "samples": table.samples(i), "name": name or f"column {i + 1}"}
        for i, name in enumerate(table.header)
    ]
    context = {
        "incoming": waiting,
        "form": form,
        "columns": columns,
        "rows": len(table.rows),
        "found": found,
        "refused": found.refused[:SHOWN_BAD_ROWS] if found else [],
        "ask": found is not None and "take" in request.POST,
    }
    return render(request, "readings/incoming.html", context, status=INVALID if form.errors else 200)


def _take(request: GardenRequest, waiting: IncomingFile) -> HttpResponse:
    name, kind = waiting.name, waiting.kind
    added = bring_in.take_rows(waiting)
    what = words.count(added, "day") if kind == "weather" else words.count(added, "reading")
    messages.success(request, f"{what} from {name} brought in." if added else f"{name} held nothing new; nothing was added.")
    return redirect("weather" if kind == "weather" else "ground", request.garden.pk)


@require_POST
@in_garden
def give_up(request: GardenRequest, file_id: int) -> HttpResponse:
    """Forget a waiting file."""
    _waiting(request).filter(pk=file_id).delete()
    messages.success(request, "The file is forgotten; nothing was brought in.")
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
