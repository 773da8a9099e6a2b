"""A place through time: the cut of the ground by depth above, the course at seed depth with its points and band below."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

import numpy as np

from cloche.drawing import scale
from cloche.drawing.geometry import Linear, Tick, band, path, value_ticks
from cloche.drawing.labels import labels
from cloche.drawing.slice import DEPTH_POWER

WIDTH = 1064.0
LEFT, RIGHT = 34.0, 1056.0
FIELD_TOP, FIELD_BOTTOM = 14.0, 190.0
CHART_TOP, CHART_BOTTOM = 14.0, 250.0


@dataclass(frozen=True)
class Mark:
    """A reading on the course with words for the pointer, and whether it is at seed depth or questioned."""

    x: float
    y: float
    title: str
    at_seed_depth: bool
    strange: bool


@dataclass(frozen=True)
class Field:
    """Soil by depth and time as a picture stretched over a box, hatched from now on."""

    picture: str
    x: float
    y: float
    width: float
    height: float
    now_x: float
    coming_width: float
    depths: list[Tick]


@dataclass(frozen=True)
class Chart:
    """The course at seed depth."""

    past: str
    coming: str
    band: str
    swing: str
    marks: list[Mark]
    now_x: float
    days: list[Tick]
    values: list[Tick]
    limits: tuple[float, float]


@dataclass(frozen=True)
class Span:
    """The time shown and the present, all aware."""

    start: datetime
    end: datetime
    now: datetime

    def x(self, at: datetime) -> float:
        """Return the horizontal position of an instant."""
        part = (at - self.start) / (self.end - self.start)
        return LEFT + part * (RIGHT - LEFT)


def field(rows_c: Sequence[Sequence[float]], depths_m: Sequence[float], labels: Sequence[Tick], span: Span) -> Field:
    """Draw soil by depth (rows) and time (columns) [°C]; `labels` holds depths [m] with words."""
    deepest = depths_m[-1]
    # As in the slices, the upper decimetre takes most of the room.
    even = np.linspace(0, 1, 40) ** (1 / DEPTH_POWER) * deepest
    stretched = np.stack([np.interp(even, depths_m, column) for column in np.asarray(rows_c, dtype=float).T], axis=1)
    y = Linear(0, 1, FIELD_TOP, FIELD_BOTTOM)
    ticks = [Tick(round(y((tick.at / deepest) ** DEPTH_POWER), 1), tick.label) for tick in labels if tick.at <= deepest]
    now_x = round(span.x(span.now), 1)
    height = FIELD_BOTTOM - FIELD_TOP
    return Field(scale.picture(stretched), LEFT, FIELD_TOP, RIGHT - LEFT, height, now_x, round(RIGHT - now_x, 1), ticks)


@dataclass(frozen=True)
class Hours:
    """Hourly low, middle and high in the reader's unit."""

    low: Sequence[float]
    middle: Sequence[float]
    high: Sequence[float]


def line(values: Sequence[float], step_h: float, limits: tuple[float, float], span: Span) -> str:
    """Draw another course on the scale of `chart`, averaged over `step_h` hours; `limits` are the ends of the scale."""
    y = Linear(*limits, CHART_BOTTOM, CHART_TOP)
    at = [span.x(span.start + timedelta(hours=(i + 0.5) * step_h)) for i in range(len(values))]
    return path(zip(at, (y(min(max(v, limits[0]), limits[1])) for v in values), strict=True))


def chart(hours: Hours, readings: Sequence[tuple[datetime, float, str, bool, bool]], span: Span) -> Chart:
    """Draw the course with readings (taken_at, value, words, at seed depth, strange)."""
    low, high = _limits(hours, [value for _, value, _, _, strange in readings if not strange])
    y = Linear(low, high, CHART_BOTTOM, CHART_TOP)
    x = [span.x(span.start + timedelta(hours=i + 0.5)) for i in range(len(hours.middle))]
    now = int((span.now - span.start) / timedelta(hours=1))
    # A strange reading beyond the scale is drawn at its edge: it must not flatten all the others.
    marks = [
        Mark(round(span.x(at), 1), round(y(min(max(v, low), high)), 1), words, deep, odd)
        for at, v, words, deep, odd in readings
    ]
    days_x, day_low, day_high = _daily(hours, x, now)
    return Chart(
        past=path(zip(x[: now + 1], map(y, hours.middle[: now + 1]), strict=True)),
        coming=path(zip(x[now:], map(y, hours.middle[now:]), strict=True)),
        band=band(days_x, [y(v) for v in day_low], [y(v) for v in day_high]),
        swing=band(x[now:], [y(v) for v in hours.low[now:]], [y(v) for v in hours.high[now:]]),
        marks=marks,
        now_x=round(span.x(span.now), 1),
        days=_day_ticks(span),
        values=[Tick(round(y(v), 1), f"{v:.0f}°".replace("-", "\u2212")) for v in value_ticks(low, high)],
        limits=(low, high),
    )


def _limits(hours: Hours, values: Sequence[float]) -> tuple[float, float]:
    lowest = min([*hours.low, *values])
    highest = max([*hours.high, *values])
    margin = max(1.0, 0.06 * (highest - lowest))
    return lowest - margin, highest + margin


def _daily(hours: Hours, x: Sequence[float], now: int) -> tuple[list[float], list[float], list[float]]:
    """Return the running daily mean with half the width of the band around it, every six hours from now on."""
    middle = np.asarray(hours.middle, dtype=float)
    smooth = np.convolve(np.pad(middle, (12, 11), mode="edge"), np.ones(24) / 24, mode="valid")
    half = (np.asarray(hours.high, dtype=float) - np.asarray(hours.low, dtype=float)) / 2
    half = np.convolve(np.pad(half, (12, 11), mode="edge"), np.ones(24) / 24, mode="valid")
    steps = range(now, len(middle), 6)
    low = [float(smooth[i] - half[i]) for i in steps]
    return [x[i] for i in steps], low, [float(smooth[i] + half[i]) for i in steps]


def _day_ticks(span: Span) -> list[Tick]:
    """Mark every fifth midnight and always the first of a month."""
    ticks: list[Tick] = []
    day = span.start.astimezone(span.now.tzinfo).date() + timedelta(days=1)
    named = 0
    while True:
        at = datetime(day.year, day.month, day.day, tzinfo=span.now.tzinfo)
        if at >= span.end:
            return ticks
        if (day - span.now.date()).days % 5 == 0:
            ticks.append(Tick(round(span.x(at), 1), labels.day(day) if day.month != named else f"{day.day}"))
            named = day.month
        day += timedelta(days=1)
