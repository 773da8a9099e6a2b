"""What the reading desk shows: an empty (or returned) form and the newest readings in the person's units."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from cloche.apps.gardens.models import User
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Place
from cloche.apps.readings import selectors
from cloche.apps.readings.forms import ReadingForm
from cloche.apps.readings.models import Reading
from cloche.apps.shared import words
from cloche.bridge.values.units import Units

NEWEST = 8


@dataclass(frozen=True)
class Line:
    """A reading as written in the list."""

    reading: Reading
    when: str
    temperature: str
    depth: str
    by: str


@dataclass(frozen=True)
class Undo:
    """What was just done, and the reading whose last change can be taken back."""

    text: str
    reading: Reading


def line(reading: Reading, place: Place, units: Units) -> Line:
    """One reading in words."""
    local = reading.taken_at.astimezone(place.garden.timezone)
    by = reading.entered_by.username if reading.entered_by and reading.source == "hand" else reading.get_source_display()
    when = f"{words.day_with_weekday(local.date())}, {words.clock(local)}"
    return Line(reading, when, units.temperature_text(reading.temperature_c), units.length_text(reading.depth_m), by)


def context_for(place: Place, person: User, form: ReadingForm | None = None, undo: Undo | None = None) -> dict[str, Any]:
    """Everything readings/_desk.html needs."""
    units = units_of(person)
    lines = [line(reading, place, units) for reading in selectors.recent_readings(place)]
    form = form or ReadingForm(place=place, units=units)
    newest, older = lines[:NEWEST], lines[NEWEST:]
    return {"place": place, "form": form, "newest": newest, "older": older, "undo": undo, "units": units}
