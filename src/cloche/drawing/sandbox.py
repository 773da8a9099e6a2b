"""One day by the hour: air outside and inside, and the soil at three depths in the colours of its warmth."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from cloche.drawing import scale
from cloche.drawing.geometry import Linear, Tick, path, spread, value_ticks

HEIGHT = 300.0
LEFT, RIGHT, TOP, BOTTOM = 38.0, 640.0, 10.0, 270.0
APART = 22.0
"""Labels stay apart on a phone too, where they are large against the drawing."""


@dataclass(frozen=True)
class Curve:
    """A line with its label at the end."""

    line: str
    name: str
    kind: str
    y: float
    colour: str


@dataclass(frozen=True)
class Day:
    """All curves, the hours and the scale."""

    curves: list[Curve]
    hours: list[Tick]
    values: list[Tick]


def day(curves: Sequence[tuple[str, str, Sequence[float]]], words: Callable[[float], str]) -> Day:
    """Draw curves (name, kind, 24 values [°C]); `words` formats a temperature."""
    everything = [value for _, _, values in curves for value in values]
    low, high = min(everything) - 1, max(everything) + 1
    x, y = Linear(0, 24, LEFT, RIGHT), Linear(low, high, BOTTOM, TOP)
    drawn = [
        Curve(
            path((x(hour + 0.5), y(value)) for hour, value in enumerate(values)),
            name,
            kind,
            y(values[-1]),
            scale.colour(sum(values) / len(values)),
        )
        for name, kind, values in curves
    ]
    return Day(
        curves=_apart(drawn),
        hours=[Tick(round(x(hour), 1), f"{hour}") for hour in (0, 6, 12, 18, 24)],
        values=[Tick(round(y(value), 1), words(value)) for value in value_ticks(low, high, most=5)],
    )


def _apart(curves: list[Curve]) -> list[Curve]:
    """Move apart labels that would overlap."""
    ordered = sorted(curves, key=lambda curve: curve.y)
    places = spread([curve.y for curve in ordered], APART, TOP, HEIGHT - TOP)
    return [replace(curve, y=round(y, 1)) for curve, y in zip(ordered, places, strict=True)]
