"""Years stacked on one spring: the soil of each as a ribbon, thick and warm as it was, with its marks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from cloche.drawing import scale
from cloche.drawing.geometry import Linear, Tick, spread

WIDTH, LEFT, RIGHT, TOP, ROW = 1040.0, 74.0, 1032.0, 34.0, 98.0
STEP_D, THICKEST, THINNEST = 3, 46.0, 5.0
FROM_C, TO_C = -2.0, 24.0
DOT_GAP, LABEL_W, LEVEL = 68.0, 108.0, 13.0


@dataclass(frozen=True)
class Piece:
    """A few days of a ribbon."""

    x: float
    y: float
    width: float
    height: float
    colour: str


@dataclass(frozen=True)
class Mark:
    """A line across the ribbon with its label."""

    x: float
    top: float
    bottom: float
    text_x: float
    text_y: float
    text: str
    anchor: str


@dataclass(frozen=True)
class Dot:
    """A sowing below the ribbon; `came_up` is None while unknown."""

    x: float
    y: float
    text_x: float
    text: str
    came_up: bool | None


@dataclass(frozen=True)
class YearRow:
    """One year."""

    name: str
    y: float
    pieces: list[Piece]
    marks: list[Mark]
    dots: list[Dot]
    signs: list[tuple[float, float, str]]


@dataclass(frozen=True)
class YearsPicture:
    """Years on one axis; `today_x` is None outside the span."""

    width: float
    height: float
    rows: list[YearRow]
    months: list[Tick]
    today_x: float | None
    left: float = LEFT
    right: float = RIGHT


@dataclass(frozen=True)
class YearGiven:
    """What to draw of one year.

    `marks` holds day, words and level above the ribbon (0 or 1), `sowings` day, words and whether it emerged, `signs` day
    and words.
    """

    name: str
    first: date
    soil_c: Sequence[float | None]
    marks: Sequence[tuple[date, str, int]]
    sowings: Sequence[tuple[date, str, bool | None]]
    signs: Sequence[tuple[date, str]]


def years(given: Sequence[YearGiven], span_d: int, today: date, months: Sequence[tuple[int, str]]) -> YearsPicture:
    """Draw years; `months` holds days from the first of a year with words."""
    x = Linear(0, span_d, LEFT, RIGHT)
    rows = [_row(year, TOP + number * ROW, x, span_d) for number, year in enumerate(given)]
    latest = max(year.first for year in given)
    at = (today - latest).days
    return YearsPicture(
        WIDTH,
        TOP + len(given) * ROW + 26,
        rows,
        [Tick(round(x(day), 1), text) for day, text in months],
        round(x(at), 1) if 0 <= at <= span_d else None,
    )


def _row(year: YearGiven, top: float, x: Linear, span_d: int) -> YearRow:
    middle = top + 42
    pieces = []
    for start in range(0, min(len(year.soil_c), span_d), STEP_D):
        known = [value for value in year.soil_c[start : start + STEP_D] if value is not None]
        if not known:
            continue
        mean = sum(known) / len(known)
        share = min(max((mean - FROM_C) / (TO_C - FROM_C), 0.0), 1.0)
        thick = THINNEST + share * (THICKEST - THINNEST)
        left = x(start)
        width = x(start + STEP_D) - left + 0.3
        x0, top_y = round(left, 1), round(middle - thick / 2, 1)
        pieces.append(Piece(x0, top_y, round(width, 1), round(thick, 1), scale.colour(mean)))
    marks = []
    for day, text, level in year.marks:
        at = (day - year.first).days
        if 0 <= at <= span_d:
            place, text_y = x(at), middle - 24 - LEVEL * level
            anchor, away = ("end", -4) if place > RIGHT - LABEL_W else ("start", 4)
            marks.append(Mark(round(place, 1), text_y - 9, middle + 26, round(place + away, 1), text_y, text, anchor))

    def inside(day: date) -> bool:
        return 0 <= (day - year.first).days <= span_d

    sown = [
        (x((day - year.first).days), text, up) for day, text, up in sorted(year.sowings, key=lambda s: s[:2]) if inside(day)
    ]
    texts = spread([place + 8 for place, _, _ in sown], DOT_GAP, LEFT, RIGHT - 60) if sown else []
    dots = [
        Dot(round(place, 1), middle + 36, round(at, 1), text, up) for (place, text, up), at in zip(sown, texts, strict=True)
    ]
    signs = [(round(x((day - year.first).days), 1), middle, text) for day, text in year.signs if inside(day)]
    return YearRow(year.name, middle, pieces, marks, dots, signs)


def month_days(first: date, span_d: int) -> list[tuple[int, date]]:
    """Return the first days of the months within the span."""
    days = [(i, first + timedelta(days=i)) for i in range(span_d)]
    return [(i, day) for i, day in days if day.day == 1]
