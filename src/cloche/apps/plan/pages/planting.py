"""One planting: its height through the season, when it is ripe, what came of it, what cold its kind stood here."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from django.utils.translation import gettext as _

from cloche.apps.plan import advice, courses, texts
from cloche.apps.plan.pages.bed import patch_of
from cloche.apps.plants.models import Planting
from cloche.apps.shared import words
from cloche.bridge.services import crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing.geometry import Linear, Tick, path, value_ticks

WIDTH, HEIGHT, LEFT, RIGHT, TOP, GROUND = 640.0, 190.0, 42.0, 628.0, 12.0, 164.0
SHOWN_D = 150


@dataclass(frozen=True)
class HeightPicture:
    """Chart of height by day with the measured values."""

    curve: str
    now_x: float
    ripe_x: float | None
    measured: list[tuple[float, float, str]]
    days: list[Tick]
    values: list[Tick]


@dataclass(frozen=True)
class PlantingPage:
    """Context of plan/planting.html; `events` holds numbers and descriptions."""

    headline: str
    lines: list[str]
    picture: HeightPicture | None
    events: list[tuple[int, str, str]]


def planting_page(planting: Planting, units: Units, today: date) -> PlantingPage:
    """Build the page of a planting."""
    events = [(event.pk, words.day(event.on, today), texts.event_line(event, units)) for event in planting.events.all()]
    if not planting.crop_key:
        return PlantingPage(_("Space kept for later in {place}.").format(place=planting.place.name), [], None, events)
    grows = courses.known_of(planting.place, today).grows(planting)
    patch = patch_of(planting)
    name, state = texts.name_of(planting), texts.state(planting, grows, today)
    lines = advice.of_plantings([planting], today)
    lines += [texts.seed_line(planting, patch, None)] if patch and planting.planted_on is None else []
    if planting.planted_on is not None and grows.up <= today and planting.ended_on is None:
        height = units.length_text(round(grows.course.height_on(today), 2))
        lines.append(_("About {height} tall by now.").format(height=height))
    more = (
        texts.harvested(planting, units),
        texts.ripe_signs(planting, grows, today),
        advice.ripens_indoors(planting, grows, units, today),
        "" if planting.ended_on else advice.beside(planting, today),
    )
    lines += [text for text in more if text]
    headline = _("{name} in {place}: {state}.").format(name=name, place=planting.place.name, state=state)
    return PlantingPage(headline, lines, _picture(planting, grows, units, today), events)


def _picture(planting: Planting, grows: courses.Grows, units: Units, today: date) -> HeightPicture | None:
    first = grows.up
    days = min(len(grows.course.height_m), SHOWN_D)
    if days < 2:
        return None
    heights = [units.length_from_m(m) for m in grows.course.height_m[:days]]
    top = max([*heights, units.length_from_m(crops.crop(planting.crop_key).height_m)])
    x, y = Linear(0, days - 1, LEFT, RIGHT), Linear(0, top, GROUND, TOP)
    measured = [
        (
            round(x((e.on - first).days), 1),
            round(y(units.length_from_m(e.height_m)), 1),
            f"{words.day(e.on)}: {units.length_text(e.height_m)}",
        )
        for e in planting.events.all()
        if e.height_m is not None and 0 <= (e.on - first).days < days
    ]
    ripe = grows.course.ripe
    months = [first + timedelta(days=i) for i in range(days) if (first + timedelta(days=i)).day == 1]
    return HeightPicture(
        path([(x(i), y(height)) for i, height in enumerate(heights)]),
        round(min(max(x((today - first).days), LEFT), RIGHT), 1),
        round(x((ripe - first).days), 1) if ripe and (ripe - first).days < days else None,
        measured,
        [Tick(round(x((day - first).days), 1), words.short_month(day)) for day in months],
        [Tick(round(y(value), 1), number_text(f"{value:g}")) for value in value_ticks(0, top, 4)],
    )
