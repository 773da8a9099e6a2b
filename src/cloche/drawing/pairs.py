"""A trial's differences, day by day, about their mean and its interval."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date

from cloche.drawing.geometry import Linear, Tick, value_ticks
from cloche.drawing.labels import labels

WIDTH, HEIGHT = 720.0, 190.0
LEFT, RIGHT, TOP, BOTTOM = 44.0, 700.0, 10.0, 160.0
MOST_WORDS = 8


@dataclass(frozen=True)
class Dot:
    """Mean difference of one day."""

    x: float
    y: float
    title: str


@dataclass(frozen=True)
class Pairs:
    """Daily differences. `zero_y` is no difference; `mean_y`, `low_y` and `high_y` are None without an interval."""

    dots: list[Dot]
    zero_y: float
    mean_y: float
    low_y: float | None
    high_y: float | None
    values: list[Tick]
    days: list[Tick]


def pairs(
    daily: Sequence[tuple[date, float]], mean_k: float, ends_k: tuple[float, float] | None, words: Callable[[float], str]
) -> Pairs:
    """Draw (day, covered minus bare [K]) in order."""
    values = [0.0, mean_k, *(k for _, k in daily), *(ends_k or ())]
    low, high = min(values) - 0.3, max(values) + 0.3
    first, last = daily[0][0], daily[-1][0]
    x, y = Linear(0, max((last - first).days, 1), LEFT + 16, RIGHT - 16), Linear(low, high, BOTTOM, TOP)
    every = max(1, len(daily) // MOST_WORDS)
    return Pairs(
        dots=[Dot(round(x((on - first).days), 1), round(y(k), 1), f"{labels.short_day(on)}: {words(k)}") for on, k in daily],
        zero_y=round(y(0.0), 1),
        mean_y=round(y(mean_k), 1),
        low_y=None if ends_k is None else round(y(ends_k[0]), 1),
        high_y=None if ends_k is None else round(y(ends_k[1]), 1),
        values=[Tick(round(y(value), 1), words(value)) for value in value_ticks(low, high, most=5)],
        days=[Tick(round(x((on - first).days), 1), labels.short_day(on)) for on, _ in daily[::every]],
    )
