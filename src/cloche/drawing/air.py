"""Air inside a cover against air outside, through time."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta

from cloche.drawing.chart import Hours, Span
from cloche.drawing.geometry import Linear, Tick, band, path, value_ticks

TOP, BOTTOM = 14.0, 150.0


@dataclass(frozen=True)
class Air:
    """Air inside with its band and outside as a thin line, and the level of frost (None if off the scale)."""

    inside: str
    band: str
    outside: str
    now_x: float
    values: list[Tick]
    frost_y: float | None


def air(inside: Hours, outside: Sequence[float], frost: float, span: Span) -> Air:
    """Draw hourly courses in the reader's unit; `frost` is the freezing point in it."""
    lowest, highest = min(min(inside.low), min(outside)) - 1, max(max(inside.high), max(outside)) + 1
    y = Linear(lowest, highest, BOTTOM, TOP)
    x = [span.x(span.start + timedelta(hours=i + 0.5)) for i in range(len(outside))]
    return Air(
        inside=path(zip(x, map(y, inside.middle), strict=True)),
        band=band(x, [y(v) for v in inside.low], [y(v) for v in inside.high]),
        outside=path(zip(x, map(y, outside), strict=True)),
        now_x=round(span.x(span.now), 1),
        values=[Tick(round(y(v), 1), f"{v:.0f}°".replace("-", "\u2212")) for v in value_ticks(lowest, highest, 4)],
        frost_y=round(y(frost), 1) if lowest < frost < highest else None,
    )
