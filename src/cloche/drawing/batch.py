"""A sowing as it comes up: what was foretold of a hundred seeds, and what was counted."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from cloche.drawing.emergence import day_ticks
from cloche.drawing.geometry import Linear, Tick, band, path

WIDTH, HEIGHT = 420.0, 150.0
LEFT, RIGHT, TOP, BOTTOM = 30.0, 412.0, 8.0, 124.0


@dataclass(frozen=True)
class Batch:
    """Curve, band, counts as points, today, and axes."""

    curve: str
    band: str
    counts: list[tuple[float, float, str]]
    now_x: float | None
    days: list[Tick]
    values: list[Tick]


def batch(sown: date, up: Sequence[Sequence[float]], counts: Sequence[tuple[date, float, str]], today: date) -> Batch:
    """Draw the emergence of a sowing.

    `up` holds (low, middle, high) of 100 sown by day since the sowing, `counts` day, number of 100 and words.
    """
    passed = (today - sown).days
    last = max(len(up[1]) - 1, *((on - sown).days for on, _, _ in counts), 14) if counts else max(len(up[1]) - 1, 14)
    x, y = Linear(0, last, LEFT, RIGHT), Linear(0, 100, BOTTOM, TOP)
    at = [x(day) for day in range(len(up[1]))]
    low, middle, high = ([y(value) for value in side] for side in up)
    return Batch(
        curve=path(zip(at, middle, strict=True)),
        band=band(at, low, high),
        counts=[(round(x((on - sown).days), 1), round(y(min(of, 100.0)), 1), text) for on, of, text in counts],
        now_x=round(x(passed), 1) if 0 <= passed <= last else None,
        days=day_ticks(sown, last, x),
        values=[Tick(round(y(v), 1), str(v)) for v in (0, 50, 100)],
    )
