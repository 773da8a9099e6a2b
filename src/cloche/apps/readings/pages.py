"""Readings, visits and imported files as pages show them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any
from uuid import UUID

from django.db.models import Q
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden, User
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Place
from cloche.apps.readings import selectors
from cloche.apps.readings.forms import ReadingForm
from cloche.apps.readings.models import IncomingFile, Reading, Visit, WatchedFile
from cloche.apps.shared import words
from cloche.bridge.values.units import Units
from cloche_engine.inputs import Under

FILES_SHOWN = 8


@dataclass(frozen=True)
class CameLine:
    """An imported file with its time and outcome."""

    name: str
    when: str
    text: str


def how_many(kind: str, added: int) -> str:
    """Count days or readings in words."""
    if kind == IncomingFile.Kind.WEATHER:
        return words.count(added, "day", "days")
    return words.count(added, "reading", "readings")


def came_by_themselves(garden: Garden, now: datetime) -> list[CameLine]:
    """Return the files imported from the watched folder, newest first."""
    today = now.astimezone(garden.timezone).date()
    return [_line(watched_file, garden, today) for watched_file in garden.watched_files.all()[:FILES_SHOWN]]


def _line(watched_file: WatchedFile, garden: Garden, today: date) -> CameLine:
    at = watched_file.at.astimezone(garden.timezone)
    return CameLine(watched_file.name, f"{words.day(at.date(), today)} {words.clock(at)}", _text(watched_file))


def _text(watched_file: WatchedFile) -> str:
    if not watched_file.taken:
        return _("Not imported: {reason}").format(reason=watched_file.reason)
    if not watched_file.kind:
        return _("Its typical year now provides the monthly normals.")
    added = (
        _("Imported {what}.").format(what=how_many(watched_file.kind, watched_file.added))
        if watched_file.added
        else _("Nothing new in this file.")
    )
    if not watched_file.left_out:
        return added
    rows = words.count(watched_file.left_out, "row", "rows")
    return _("{added} {rows} left out: {reason}").format(added=added, rows=rows, reason=watched_file.reason)


NEWEST = 8


@dataclass(frozen=True)
class Line:
    """One reading in the list."""

    reading: Reading
    when: str
    temperature: str
    depth: str
    by: str


@dataclass(frozen=True)
class Undo:
    """What was just done, and the reading whose last change can be undone."""

    text: str
    reading: Reading


def line(reading: Reading, place: Place, units: Units) -> Line:
    """Describe one reading."""
    local = reading.taken_at.astimezone(place.garden.timezone)
    by = reading.entered_by.username if reading.entered_by and reading.source == "hand" else reading.get_source_display()
    when = f"{words.day_with_weekday(local.date())}, {words.clock(local)}"
    return Line(reading, when, units.temperature_text(reading.temperature_c), units.length_text(reading.depth_m), by)


def context_for(place: Place, person: User, form: ReadingForm | None = None, undo: Undo | None = None) -> dict[str, Any]:
    """Return the context of readings/_desk.html."""
    units = units_of(person)
    lines = [line(reading, place, units) for reading in selectors.recent_readings(place)]
    form = form or ReadingForm(place=place, units=units)
    newest, older = lines[:NEWEST], lines[NEWEST:]
    return {"place": place, "form": form, "newest": newest, "older": older, "undo": undo, "units": units}


SEEN_SHOWN = 6
LONGEST_SPAN = timedelta(days=14)
"""A lowest and highest of more days than this tell too little of any of them."""
SOMETHING = (
    ~Q(moisture="")
    | ~Q(note="")
    | ~Q(losses="")
    | Q(snow_m__isnull=False)
    | Q(air_c__isnull=False)
    | Q(air_low_c__isnull=False)
    | Q(air_high_c__isnull=False)
    | Q(photo__isnull=False)
)


@dataclass(frozen=True)
class Seen:
    """One visit in the list; `photo` is its key if there is a picture."""

    when: str
    text: str
    photo: UUID | None


def seen_at(place: Place, units: Units) -> list[Seen]:
    """Return the newest visits with observations."""
    visits = place.visits.filter(SOMETHING, removed_at__isnull=True).defer("photo").annotate(pictured=Q(photo__isnull=False))
    return [_seen(visit, place, units) for visit in visits[:SEEN_SHOWN]]


def air_under(place: Place, since: datetime) -> Iterator[Under]:
    """Yield air temperatures noted on rounds since a time, oldest first.

    A minimum or maximum covers the time since the previous one; it is left out if that is unknown or too long ago.
    """
    noted = Q(air_c__isnull=False) | Q(air_low_c__isnull=False) | Q(air_high_c__isnull=False)
    visits = place.visits.filter(noted, removed_at__isnull=True, at__gte=since).order_by("at")
    set_back: datetime | None = None
    for at, air_c, low_c, high_c in visits.values_list("at", "air_c", "air_low_c", "air_high_c"):
        if air_c is not None:
            yield Under("air", at, at, air_c)
        extremes = [(what, value) for what, value in (("lowest", low_c), ("highest", high_c)) if value is not None]
        if set_back is not None and at - set_back <= LONGEST_SPAN:
            yield from (Under(what, at, set_back, value) for what, value in extremes)
        if extremes:
            set_back = at


def _seen(visit: Visit, place: Place, units: Units) -> Seen:
    local = visit.at.astimezone(place.garden.timezone)
    parts = [_("soil {moisture}").format(moisture=visit.moisture) if visit.moisture else "", _air(visit, units)]
    parts += [
        _("{length} of snow").format(length=units.length_text(visit.snow_m)) if visit.snow_m else "",
        visit.losses,
        visit.note,
    ]
    text = words.sentence("; ".join(part for part in parts if part)) or "A picture."
    pictured = visit.pictured  # type: ignore[attr-defined]
    return Seen(f"{words.day(local.date())} {words.clock(local)}", text, visit.key if pictured else None)


def _air(visit: Visit, units: Units) -> str:
    parts = [_("air {temperature}").format(temperature=units.temperature_text(visit.air_c))] if visit.air_c is not None else []
    parts += (
        [_("lowest {temperature}").format(temperature=units.temperature_text(visit.air_low_c))]
        if visit.air_low_c is not None
        else []
    )
    parts += (
        [_("highest {temperature}").format(temperature=units.temperature_text(visit.air_high_c))]
        if visit.air_high_c is not None
        else []
    )
    return ", ".join(parts)
