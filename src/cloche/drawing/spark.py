"""A few days of a place in one line: what was expected, what was read, and what of it is in question."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from cloche.drawing.geometry import path

WIDTH, HEIGHT, EDGE = 260.0, 64.0, 6.0
GAP = timedelta(hours=3)


@dataclass(frozen=True)
class Spark:
    """A small course: band of expectation, lines without gaps, and dots."""

    band: str
    lines: list[str]
    dots: list[tuple[float, float]]
    odd: list[tuple[float, float]]
    low: float
    high: float
    width: float = WIDTH
    height: float = HEIGHT


Point = tuple[datetime, float, bool]
Band = tuple[datetime, float, float]


def spark(start: datetime, end: datetime, points: Sequence[Point], band: Sequence[Band] = (), joined: bool = False) -> Spark:
    """Draw a small course from points (when, value, in question) and a band (when, low, high), oldest first.

    `joined` draws lines with gaps instead of dots, for loggers. Returns also the lowest and highest value drawn.
    """
    shown = [p for p in points if start <= p[0] <= end]
    known = [b for b in band if start <= b[0] <= end]
    values = [p[1] for p in shown] + [v for b in known for v in b[1:]] or [0.0, 1.0]
    low, high = min(values), max(values)
    span, tall = (end - start) / timedelta(hours=1), max(high - low, 1.0)

    def place(at: datetime, value: float) -> tuple[float, float]:
        x = (at - start) / timedelta(hours=1) / span * WIDTH
        return round(x, 1), round(HEIGHT - EDGE - (value - low) / tall * (HEIGHT - 2 * EDGE), 1)

    upper, lower = [place(b[0], b[2]) for b in known], [place(b[0], b[1]) for b in known]
    outline = path([*upper, *reversed(lower)], closed=True)
    lines = [path([place(p[0], p[1]) for p in run]) for run in _runs(shown)] if joined else []
    dots = [] if joined else [place(p[0], p[1]) for p in shown if not p[2]]
    return Spark(outline, lines, dots, [place(p[0], p[1]) for p in shown if p[2]], low, high)


def _runs(points: Sequence[Point]) -> list[list[Point]]:
    """Split the points at gaps."""
    runs: list[list[Point]] = []
    for point in points:
        if runs and point[0] - runs[-1][-1][0] <= GAP:
            runs[-1].append(point)
        else:
            runs.append([point])
    return runs
