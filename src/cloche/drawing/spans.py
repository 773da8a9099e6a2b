"""Windows as plain bars through the season, one under another so that their ends can be compared."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from cloche.drawing.geometry import Linear


@dataclass(frozen=True)
class Bar:
    """From where to where, in per cent of the width; best: the same of its best days."""

    x: float
    width: float
    best_x: float
    best_width: float


def bars(spans: Sequence[tuple[date, date, date, date]], today: date, span_d: int) -> list[Bar]:
    """spans: first, best from, best to and last day of each; what lies beyond the days drawn is cut off."""
    x = Linear(0, span_d, 0, 100)

    def at(day: date) -> float:
        return round(x(min(max((day - today).days, 0), span_d)), 2)

    bars = []
    for first, best_from, best_to, last in spans:
        start, end, best, best_end = at(first), at(last), at(best_from), at(best_to)
        if end > start:
            bars.append(Bar(start, round(end - start, 2), best, round(max(best_end - best, 0.4), 2)))
    return bars
