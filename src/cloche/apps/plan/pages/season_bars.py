"""The season of a bed: from when to when each patch is taken."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from cloche.apps.plan import texts
from cloche.apps.plan.courses import Grows
from cloche.apps.shared import words
from cloche.drawing.geometry import Linear, Tick, month_starts

WIDTH, ROW, LEFT, TOP = 820.0, 26.0, 150.0, 24.0
AHEAD_D, MOST_AHEAD_D, BACK_D, MARGIN_D, GROWS_D = 200, 456, 45, 10, 60
"""Days that are shown at least; at most the fifteen months that windows look ahead; behind; beyond the last end; and of what
has no end in sight."""


@dataclass(frozen=True)
class Bar:
    """A planting's time: from x on so many units wide; up_x: where it is up; planned: whether it is only meant."""

    name: str
    y: float
    x: float
    width: float
    up_x: float
    planned: bool
    open_ended: bool
    text: str


@dataclass(frozen=True)
class SeasonOfBed:
    """Bars under one axis of months."""

    width: float
    height: float
    bars: list[Bar]
    months: list[Tick]
    today_x: float
    left: float


def season_of(growing: Sequence[Grows], today: date) -> SeasonOfBed | None:
    """None while nothing is there or meant."""
    if not growing:
        return None
    rows = sorted(growing, key=lambda row: (row.begins, texts.name_of(row.planting)))
    first = max(min(rows[0].begins, today), today - timedelta(days=BACK_D))
    ends = max(row.until or row.begins + timedelta(days=GROWS_D) for row in rows)
    last = today + timedelta(days=min(max((ends - today).days + MARGIN_D, AHEAD_D), MOST_AHEAD_D))
    x = Linear(0, (last - first).days, LEFT, WIDTH - 8)
    bars = []
    for number, row in enumerate(rows):
        begin, end = max(row.begins, first), min(max(row.until, today) if row.until else last, last)
        start, stop = x((begin - first).days), x(max((end - first).days, 0))
        text = f"{words.day(row.begins, today)} – {words.day(row.until, today) if row.until else '…'}"
        bars.append(
            Bar(
                texts.crop_name(row.planting),
                TOP + number * ROW,
                round(start, 1),
                round(max(stop - start, 3.0), 1),
                round(min(max(x((row.up - first).days), start), max(stop, start)), 1),
                row.planting.planted_on is None,
                row.until is None or row.until > last,
                text,
            )
        )
    months = [Tick(round(x((day - first).days), 1), words.short_month(day)) for day in month_starts(first, last)]
    return SeasonOfBed(WIDTH, TOP + len(rows) * ROW + 8, bars, months, round(x((today - first).days), 1), LEFT)
