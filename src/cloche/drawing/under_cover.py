"""A crop's height under its cover by the day: the roof from when it goes on until it comes off, dashed while it is open."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from itertools import pairwise

from cloche.drawing.geometry import Linear, Tick, month_starts, path, spread
from cloche.drawing.labels import labels

WIDTH, HEIGHT, LEFT, RIGHT, TOP, GROUND = 820.0, 176.0, 10.0, 810.0, 44.0, 150.0
BEFORE_D, EARLIER_D, AFTER_D, MOST_D = 4, 14, 24, 300
OVER = 1.5
"""Of what is taller than this many times the roof, the rest is cut off."""
APART = 24.0


@dataclass(frozen=True)
class Mark:
    """Something that happens on a day: its x, and the x of its number, which may have to stand aside."""

    x: float
    number_x: float


@dataclass(frozen=True)
class UnderCover:
    """roof: while its ends are shut, open: while they are open; grown: the crop's height; marks: what happens when."""

    roof: str
    open: str
    grown: str
    marks: list[Mark]
    months: list[Tick]
    now_x: float
    ground_y: float


def under_cover(
    roof_m: float | None,
    cover: tuple[date, date | None, date | None],
    heights: tuple[date, Sequence[float]],
    marks: Sequence[date],
    today: date,
) -> UnderCover:
    """cover: on, ends open, off; roof_m: its height there, None where it lies on the plants; heights: from a day on [m]; marks:
    days in order."""
    on, ends, off = cover
    # Weeks in which nothing grows yet are not drawn.
    first = min([max(on, min(marks[1:], default=on) - timedelta(days=EARLIER_D)), today, *marks[1:]]) - timedelta(days=BEFORE_D)
    last = max([today, *marks]) + timedelta(days=AFTER_D)
    last = min(last, first + timedelta(days=MOST_D))
    begun, course = heights
    days = [begun + timedelta(days=i) for i in range(len(course))]
    shown = [(day, height) for day, height in zip(days, course, strict=True) if first <= day <= last]
    tallest = max([height for _, height in shown], default=0.1)
    top = max(tallest, 0.05) * 1.1 if roof_m is None else min(max(tallest, roof_m * 1.15), roof_m * OVER)
    x, y = Linear(0, (last - first).days, LEFT, RIGHT), Linear(0, top, GROUND, TOP)

    def at(day: date) -> float:
        return round(x((min(max(day, first), last) - first).days), 1)

    outline = [(at(day), y(min(height, top))) for day, height in shown]
    grown = path([(outline[0][0], GROUND), *outline, (outline[-1][0], GROUND)], closed=True) if outline else ""
    roof = _roof(outline, roof_m, y)
    stop = off or last
    change = min(ends or stop, stop)
    numbers = spread([at(day) for day in marks], APART, LEFT + APART / 2, RIGHT - APART / 2)
    months = [Tick(at(day), labels.month(day)) for day in month_starts(first, last)]
    return UnderCover(
        roof=_span(roof, at(on), at(change), shut=True),
        open=_span(roof, at(change), at(stop), shut=False) if change < stop else "",
        grown=grown,
        marks=[Mark(at(day), round(number_x, 1)) for day, number_x in zip(marks, numbers, strict=True)],
        months=months,
        now_x=at(today),
        ground_y=GROUND,
    )


def _roof(outline: list[tuple[float, float]], roof_m: float | None, y: Linear) -> list[tuple[float, float]]:
    """Level over the bed, or on the plants."""
    if roof_m is not None:
        return [(LEFT, round(y(roof_m), 1)), (RIGHT, round(y(roof_m), 1))]
    raised = [(px, round(py - 3, 1)) for px, py in outline]
    before = [(LEFT, GROUND - 3.0)] if not raised or raised[0][0] > LEFT else []
    return [*before, *raised]


def _span(roof: list[tuple[float, float]], begin: float, end: float, shut: bool) -> str:
    """The roof between two days, down to the ground on both sides while it is shut."""
    if len(roof) < 2 or end <= begin:
        return ""
    inside = [(px, py) for px, py in roof if begin < px < end]
    points = [(begin, _height_at(roof, begin)), *inside, (end, _height_at(roof, end))]
    return path([(begin, GROUND), *points, (end, GROUND)] if shut else points)


def _height_at(roof: list[tuple[float, float]], at: float) -> float:
    """y of the roof at x."""
    for (x0, y0), (x1, y1) in pairwise(roof):
        if x0 <= at <= x1 and x1 > x0:
            return round(y0 + (y1 - y0) * (at - x0) / (x1 - x0), 1)
    return roof[0][1] if at < roof[0][0] else roof[-1][1]
