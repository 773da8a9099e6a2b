"""Days of a season as a ribbon, with its marks and bars."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from itertools import pairwise

from cloche.drawing import scale
from cloche.drawing.geometry import Linear, Tick, band
from cloche.drawing.labels import labels
from cloche.drawing.slice import Stop

WIDTH = 720.0
HEIGHT = 26.0
CLEAR_OF_TODAY, CLEAR_OF_END = 8.5, 94.0
"""Where month names begin and end [% of the width], clear of “today” and of the edge on a phone."""
"""Per cent of the width that belong to the word for today."""


CLOSE, BETWEEN = 60.0, 10.0
"""Half the width of a mark's words, and the least room between two."""


@dataclass(frozen=True)
class Ribbon:
    """Outline and gradient of one ribbon."""

    outline: str
    stops: list[Stop]


@dataclass(frozen=True)
class Calendar:
    """The months under a set of ribbons."""

    months: list[Tick]


def ribbon(days: Sequence[int], success: Sequence[float], soil_c: Sequence[float], span_d: int) -> Ribbon:
    """Draw a ribbon from days from today, success 0-1 and soil temperature [°C].

    Its thickness is the success, so that the ends taper with the doubt.
    """
    x = Linear(0, span_d, 0, WIDTH)
    middle, full = HEIGHT / 2, HEIGHT / 2 - 1
    positions = [x(day) for day in days]
    half = [full * max(0.0, value - 0.1) / 0.9 for value in success]
    outline = band(positions, [middle + h for h in half], [middle - h for h in half])
    every = max(1, len(days) // 24)
    colours = scale.colours(soil_c[::every])
    stops = [Stop(round(day / span_d, 3), colour) for day, colour in zip(days[::every], colours, strict=True)]
    return Ribbon(outline, stops)


def calendar(today: date, span_d: int) -> Calendar:
    """Return the first days of the months within the span.

    Positions are in per cent of the width, so that the labels are not stretched.
    """
    x = Linear(0, span_d, 0, 100)
    ticks = []
    for offset in range(1, span_d):
        day = today + timedelta(days=offset)
        if day.day == 1 and CLEAR_OF_TODAY <= x(offset) <= CLEAR_OF_END:
            ticks.append(Tick(round(x(offset), 1), labels.month(day)))
    return Calendar(ticks)


@dataclass(frozen=True)
class Mark:
    """A date on a ribbon and its label, which stays within the drawing."""

    x: float
    words: str
    anchor: str


def mark(today: date, day: date, words: str, span_d: int) -> Mark:
    """Return the position of a date on the ribbons' axis."""
    x = round(Linear(0, span_d, 0, WIDTH)((day - today).days), 1)
    anchor = "start" if x < CLOSE else "end" if x > WIDTH - CLOSE else "middle"
    return Mark(x, words, anchor)


def apart(marks: Sequence[Mark]) -> list[Mark]:
    """Turn the labels of two neighbours away from each other where they would collide.

    At an edge of the drawing, one label is dropped and the other says both.
    """
    spaced = list(marks)
    for at, (mark, other) in enumerate(pairwise(marks)):
        if other.x - mark.x >= 2 * CLOSE + BETWEEN:
            continue
        if mark.x < 2 * CLOSE or other.x > WIDTH - 2 * CLOSE:
            both = f"{mark.words} · {other.words}"
            say, quiet = (at, at + 1) if mark.x < 2 * CLOSE else (at + 1, at)
            spaced[say], spaced[quiet] = replace(spaced[say], words=both), replace(spaced[quiet], words="")
            spaced[say] = replace(spaced[say], anchor="start" if say == at else "end")
        else:
            spaced[at], spaced[at + 1] = replace(mark, anchor="end"), replace(other, anchor="start")
    return spaced


@dataclass(frozen=True)
class Bar:
    """Start and end in per cent of the width, and the same of the best days."""

    x: float
    width: float
    best_x: float
    best_width: float


def bars(spans: Sequence[tuple[date, date, date, date]], today: date, span_d: int) -> list[Bar]:
    """Return bars from the first, best and last days, clipped to the days drawn."""
    x = Linear(0, span_d, 0, 100)

    def at(day: date) -> float:
        return round(x(min(max((day - today).days, 0), span_d)), 2)

    bars = []
    for first, best_from, best_to, last in spans:
        start, end, best, best_end = at(first), at(last), at(best_from), at(best_to)
        if end > start:
            bars.append(Bar(start, round(end - start, 2), best, round(max(best_end - best, 0.4), 2)))
    return bars
