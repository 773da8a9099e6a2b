"""Ground temperatures now and in the days ahead."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum

from django.utils.translation import gettext as _

from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.places.selectors import Over, over_places, periods_from
from cloche.apps.readings import selectors as measured
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.services import covers
from cloche.bridge.services.readings import day_mean_from_one
from cloche.bridge.values.units import Units
from cloche.drawing.slice import Slice, slice_of

TREND_K = 0.7

LATER_D = 13
Grounds = list[tuple[Place, Ground | None]]


class Figure(StrEnum):
    """How the day's figure was derived."""

    ESTIMATED = "estimated"
    LOGGED = "logged"
    TWO = "two"
    MORNING = "morning"
    EVENING = "evening"


FIGURE_NAMES = {
    Figure.ESTIMATED: lazy("estimated"),
    Figure.LOGGED: lazy("measured"),
    Figure.TWO: lazy("measured"),
    Figure.MORNING: lazy("one morning reading"),
    Figure.EVENING: lazy("one evening reading"),
}
FIGURE_WORDS = {
    Figure.ESTIMATED: lazy("estimated"),
    Figure.LOGGED: lazy("measured, a logger’s whole day"),
    Figure.TWO: lazy("measured, mean of the last early and late reading"),
    Figure.MORNING: lazy("one morning reading, adjusted to the daily mean with this place’s usual daily cycle"),
    Figure.EVENING: lazy("one evening reading, adjusted to the daily mean with this place’s usual daily cycle"),
}


@dataclass(frozen=True)
class Warmth:
    """Soil temperature of a place at seed depth [°C]: daily mean now and in a fortnight, and how the first was derived."""

    place: Place
    day_c: float
    later_c: float
    figure: Figure = Figure.ESTIMATED


def warmth_in(garden: Garden, grounds: Grounds, now: datetime, ahead_d: int = 0) -> list[Warmth]:
    """Return the temperature of every place with a forecast, some days ahead.

    `grounds` come from selectors.grounds_in.
    """
    if ahead_d:
        known = [(place, ground) for place, ground in grounds if ground is not None]
        return [Warmth(p, g.mean_in(ahead_d), g.mean_in(ahead_d + LATER_D)) for p, g in known]
    read = measured.day_reads(garden, now, [place for place, _ground in grounds])
    warmth = []
    for place, ground in grounds:
        if ground is not None:
            warmth.append(warmth_of(place, ground, read.get(place.pk, measured.DayRead()), now))
    return warmth


def warmth_at(ground: Ground, now: datetime) -> Warmth:
    """Return the temperature of one place from its readings."""
    read = measured.day_reads(ground.place.garden, now, [ground.place])
    return warmth_of(ground.place, ground, read.get(ground.place.pk, measured.DayRead()), now)


def warmth_of(place: Place, ground: Ground, read: measured.DayRead, now: datetime) -> Warmth:
    """Return a logger's daily mean, else the mean of early and late readings, else one reading moved to the mean by the place's
    own daily curve.
    """
    later_c = ground.mean_in(LATER_D)
    if read.logged_c is not None:
        return Warmth(place, read.logged_c, later_c, Figure.LOGGED)
    if read.mean_c is not None:
        return Warmth(place, read.mean_c, later_c, Figure.TWO)
    reading = read.early or read.late
    if reading:
        mean = day_mean_from_one(reading.temperature_c, ground.soil_at(reading.taken_at), ground.day_mean(reading.taken_at))
        return Warmth(place, mean, later_c, Figure.MORNING if read.early else Figure.EVENING)
    return Warmth(place, ground.day_mean(now), later_c)


@dataclass(frozen=True)
class PlaceLine:
    """A place drawn and described.

    `cut` is None before its first forecast; `over` lists covers now or soon.
    """

    place: Place
    kind: str
    cut: Slice | None
    number: str
    trend: str
    later: str
    last_read: str
    read_today: bool
    over: str = ""


def lines(
    garden: Garden,
    grounds: Grounds,
    warm: list[Warmth],
    units: Units,
    now: datetime,
    periods: Iterable[CoverPeriod] | None = None,
) -> list[PlaceLine]:
    """Describe every place in walking order.

    `grounds` come from selectors.grounds_in, `warm` from warmth_in, `periods` from periods_from.
    """
    day_c = {warmth.place.pk: warmth.day_c for warmth in warm}
    latest = measured.latest_by_place(garden)
    today = now.astimezone(garden.timezone).date()
    over = over_places(periods_from(garden, today) if periods is None else periods, today)
    lines = []
    for place, ground in grounds:
        reading = latest.get(place.pk)
        local = reading.taken_at.astimezone(garden.timezone) if reading else None
        last = _("not read yet")
        if reading and local:
            last = _("read {day} {clock}: {temperature}").format(
                day=words.day(local.date(), today),
                clock=words.clock(local),
                temperature=units.temperature_text(reading.temperature_c),
            )
        read_today = local is not None and local.date() == today
        line = _line(place, ground, over[place.pk], day_c.get(place.pk, 0.0), units, now, last, read_today)
        lines.append(replace(line, over=_over_words(over[place.pk], place)))
    return lines


def _over_words(over: Over, place: Place) -> str:
    # A tunnel of a place that is a tunnel is said already.
    names = [_cover_name(period) for period in over.now if period.item or covers.drawn_as(period.cover) != place.kind]
    names += [
        _("{cover} from {day}").format(cover=_cover_name(period), day=words.short_day(period.first)) for period in over.coming
    ]
    return words.listed(names) if names else ""


def _cover_name(period: CoverPeriod) -> str:
    return period.item.name if period.item else covers.name_of(period.cover)


def _line(
    place: Place,
    ground: Ground | None,
    over: Over,
    day_c: float,
    units: Units,
    now: datetime,
    last: str,
    read_today: bool,
) -> PlaceLine:
    kind = place.get_kind_display()
    if ground is None:
        return PlaceLine(place, kind, None, "…", "", _("being calculated"), last, read_today)
    soil = ground.profile_at(now)
    there, coming = ([covers.drawn_as(period.cover) for period in periods] for periods in (over.now, over.coming))
    cut = slice_of(place.kind, place.seed_depth_m, ground.data.field_depths_m, soil, there, coming)
    later = ground.mean_in(3)
    change = later - day_c
    trend = "▴" if change > TREND_K else "▾" if change < -TREND_K else "="
    number = units.temperature_text(ground.soil_at(now))
    return PlaceLine(
        place,
        kind,
        cut,
        number,
        trend,
        _("{temperature} in 3 days").format(temperature=units.temperature_text(later, 0)),
        last,
        read_today,
    )
