"""Small parts that every drawing is made of."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

Point = tuple[float, float]


@dataclass(frozen=True)
class Tick:
    """A mark on an axis and its label."""

    at: float
    label: str


@dataclass(frozen=True)
class Linear:
    """A linear scale from values to drawing units."""

    low: float
    high: float
    start: float
    end: float

    def __call__(self, value: float) -> float:
        """Return the position of a value."""
        return self.start + (value - self.low) / (self.high - self.low) * (self.end - self.start)


def path(points: Iterable[Point], closed: bool = False) -> str:
    """Return SVG path data through points, rounded to a tenth of a unit."""
    parts = [f"{x:.1f} {y:.1f}" for x, y in points]
    return ("M" + "L".join(parts) + ("Z" if closed else "")) if parts else ""


def band(x: Sequence[float], low: Sequence[float], high: Sequence[float]) -> str:
    """Return SVG path data of the area between two courses."""
    upper = list(zip(x, high, strict=True))
    lower = list(zip(x, low, strict=True))
    return path([*upper, *reversed(lower)], closed=True)


def nice_step(span: float, most: int) -> float:
    """Return the smallest of 1, 2, 5, 10, 20, … that divides a span into at most `most` steps."""
    step = 1.0
    while True:
        for factor in (1, 2, 5):
            if span / (step * factor) <= most:
                return step * factor
        step *= 10


def value_ticks(low: float, high: float, most: int = 6) -> list[float]:
    """Return round values within a range."""
    step = nice_step(high - low, most)
    first = -(-low // step) * step
    return [first + step * i for i in range(int((high - first) // step) + 1)]


def spread(at: Sequence[float], gap: float, least: float, most: float) -> list[float]:
    """Return label positions in order, moved apart to keep a gap and to stay within the limits."""
    positions: list[float] = []
    for wanted in at:
        positions.append(max(wanted, positions[-1] + gap if positions else least))
    for i in range(len(positions) - 1, -1, -1):
        positions[i] = min(positions[i], most if i == len(positions) - 1 else positions[i + 1] - gap)
    return positions


def month_starts(first: date, last: date) -> list[date]:
    """Return the first days of the months between two days."""
    starts, day = [], date(first.year, first.month, 1)
    while day <= last:
        if day >= first:
            starts.append(day)
        day = date(day.year + day.month // 12, day.month % 12 + 1, 1)
    return starts
