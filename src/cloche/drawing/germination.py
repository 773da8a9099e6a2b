"""A germination trial drawn: the share up day by day, and at each temperature with its interval, beside the tables."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cloche.drawing.geometry import Linear, Tick, path, spread

WIDTH, HEIGHT = 240.0, 150.0
PLOT = (34.0, 12.0, 228.0, 122.0)
"""Left, top, right and bottom of the picture."""
MARGIN_K, APART = 2.0, 26.0


@dataclass(frozen=True)
class Point:
    """A batch: its place, and the ends of its interval."""

    x: float
    y: float
    low: float
    high: float


@dataclass(frozen=True)
class ByWarmth:
    """Shares of one crop by temperature; `expected` is the line of the tables."""

    name: str
    points: list[Point]
    expected: str
    across: list[Tick]
    up: list[Tick]


def by_warmth(
    name: str,
    points: Sequence[tuple[float, float, float, float]],
    expected: Sequence[tuple[float, float]],
    labels: Sequence[tuple[float, str]],
) -> ByWarmth:
    """Draw one crop.

    `points` holds (temperature [°C], share, low and high end of its interval) and `expected` (temperature [°C], share), both
    by rising temperature; `labels` are named temperatures, of which those too close to the one before are left out.
    """
    left, top, right, foot = PLOT
    x = Linear(points[0][0] - MARGIN_K, points[-1][0] + MARGIN_K, left, right)
    y = Linear(0.0, 1.0, foot, top)
    across: list[Tick] = []
    for celsius, label in sorted(labels):
        if not across or x(celsius) - across[-1].at >= APART:
            across.append(Tick(round(x(celsius), 1), label))
    return ByWarmth(
        name,
        [Point(*(round(value, 1) for value in (x(c), y(share), y(low), y(high)))) for c, share, low, high in points],
        path([(x(c), y(share)) for c, share in expected]),
        across,
        [Tick(round(y(share), 1), f"{100 * share:.0f}%") for share in (0.0, 0.5, 1.0)],
    )


COURSE = (34.0, 12.0, 186.0, 122.0)
LABEL_GAP, MOST_DAYS = 11.0, 6


@dataclass(frozen=True)
class Batch:
    """Step curve of a batch's counts, with the place of the label at its end."""

    steps: str
    x: float
    y: float
    name: str


@dataclass(frozen=True)
class Course:
    """Shares of one crop by days since the start."""

    name: str
    batches: list[Batch]
    days: list[Tick]
    up: list[Tick]


def course(name: str, batches: Sequence[tuple[str, Sequence[tuple[int, float]]]], fewest_d: int) -> Course:
    """Draw the share up of one crop day by day, over at least `fewest_d` days.

    `batches` holds (name, [(day, share)]) of each batch.
    """
    left, top, right, foot = COURSE
    span = max(fewest_d, *(day for _, counts in batches for day, _ in counts))
    x, y = Linear(0, span, left, right), Linear(0.0, 1.0, foot, top)
    ends = [counts[-1][1] for _, counts in batches]
    order = sorted(range(len(batches)), key=lambda i: -ends[i])
    label_y = dict(zip(order, spread([y(ends[i]) for i in order], LABEL_GAP, top, foot), strict=True))
    drawn = []
    for number, (label, counts) in enumerate(batches):
        points, last = [(x(0), y(0))], 0.0
        for day, share in counts:
            points += [(x(day), y(last)), (x(day), y(share))]
            last = share
        drawn.append(Batch(path(points), round(points[-1][0], 1), round(label_y[number], 1), label))
    step = max(1, round(span / MOST_DAYS))
    return Course(
        name,
        drawn,
        [Tick(round(x(day), 1), str(day)) for day in range(0, span + 1, step)],
        [Tick(round(y(share), 1), f"{100 * share:.0f}%") for share in (0.0, 0.5, 1.0)],
    )
