"""How warm each place is: the one figure for its day, what it rests on, and a fortnight on. Every page takes them from here."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.readings import selectors as measured
from cloche.apps.shared.i18n import lazy
from cloche.bridge.services.quality_flags import day_mean_from_one

LATER_D = 13
Grounds = list[tuple[Place, Ground | None]]


class Figure(StrEnum):
    """What the day's figure is made of."""

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
    Figure.TWO: lazy("measured, the mean of the last early and late reading"),
    Figure.MORNING: lazy("one morning reading, moved to the day’s mean by the place’s own curve"),
    Figure.EVENING: lazy("one evening reading, moved to the day’s mean by the place’s own curve"),
}


@dataclass(frozen=True)
class Warmth:
    """A place's soil at seed depth [°C]: the day's mean, and a fortnight later's; figure: what the first is made
    of."""

    place: Place
    day_c: float
    later_c: float
    figure: Figure = Figure.ESTIMATED


def warmth_in(garden: Garden, grounds: Grounds, now: datetime, ahead_d: int = 0) -> list[Warmth]:
    """Every place that has a forecast, in walking order, some days ahead; grounds from selectors.grounds_in."""
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
    """One place's, by what was read there."""
    read = measured.day_reads(ground.place.garden, now, [ground.place])
    return warmth_of(ground.place, ground, read.get(ground.place.pk, measured.DayRead()), now)


def warmth_of(place: Place, ground: Ground, read: measured.DayRead, now: datetime) -> Warmth:
    """A logger's day, else the mean of early and late, else one reading moved to its day's mean by the place's own curve."""
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
