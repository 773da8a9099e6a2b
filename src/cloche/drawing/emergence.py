"""The emergence curve of one sowing: how many of a hundred live seeds are up on each day, with its band."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from cloche.drawing.geometry import Linear, Tick, path
from cloche.drawing.labels import labels

WIDTH, LEFT, RIGHT = 640.0, 34.0, 628.0
TOP, BOTTOM = 12.0, 200.0


@dataclass(frozen=True)
class Emergence:
    """Curve, band and axes."""

    curve: str
    band: str
    half_x: float | None
    days: list[Tick]
    values: list[Tick]


def emergence(
    sown: date,
    fractions: Sequence[float],
    days_to: Sequence[Sequence[float | None]],
    share: Sequence[float],
) -> Emergence | None:
    """Draw predicted emergence, or return None if it never happens.

    `days_to` gives days (quick, middle, slow) for each fraction, `share` its low, middle and high.
    """
    quick, middle, slow = (_column(days_to, i) for i in range(3))
    if not middle:
        return None
    slow = slow if len(slow) == len(middle) else [d * 1.4 for d in middle]
    last = max(slow) * 1.15 + 2
    x, y = Linear(0, last, LEFT, RIGHT), Linear(0, 100, BOTTOM, TOP)
    rising = _steps(fractions, middle, share[1], x, y, last)
    early = _steps(fractions, quick, share[2], x, y, last)
    late = _steps(fractions, slow, share[0], x, y, last)
    half = fractions.index(0.5)
    return Emergence(
        curve=path(rising),
        band=path([*early, *reversed(late)], closed=True),
        half_x=round(x(middle[half]), 1) if half < len(middle) else None,
        days=day_ticks(sown, last, x),
        values=[Tick(round(y(v), 1), str(v)) for v in (0, 25, 50, 75, 100)],
    )


def _column(days_to: Sequence[Sequence[float | None]], index: int) -> list[float]:
    column = [row[index] for row in days_to]
    return [d for d in column if d is not None] if None not in column else []


def _steps(
    fractions: Sequence[float], days: Sequence[float], share: float, x: Linear, y: Linear, last: float
) -> list[tuple[float, float]]:
    if not days:
        return [(x(0), y(0)), (x(last), y(0))]
    first = max(0.0, days[0] - (days[1] - days[0]) * 0.8)
    inner = [(x(d), y(100 * share * f)) for d, f in zip(days, fractions, strict=True)]
    end = days[-1] + (days[-1] - days[-2]) * 0.9
    return [(x(0), y(0)), (x(first), y(0)), *inner, (x(min(end, last)), y(100 * share)), (x(last), y(100 * share))]


def day_ticks(sown: date, last: float, x: Linear) -> list[Tick]:
    """Mark days on an axis, with the first of each month named."""
    step = 2 if last < 16 else 5 if last < 40 else 10
    ticks = []
    for day in range(0, int(last), step):
        on = sown + timedelta(days=day)
        ticks.append(Tick(round(x(day), 1), labels.short_day(on) if day == 0 or on.day <= step else f"{on.day}"))
    return ticks
