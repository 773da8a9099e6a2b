"""Soil under a cover through its first weeks, as a ribbon in the colours of the ground beside the bare bed's line."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cloche.drawing import scale
from cloche.drawing.geometry import Linear, Tick, band, path, value_ticks
from cloche.drawing.slice import Stop

WIDTH, HEIGHT = 360.0, 84.0
LEFT, TOP, BOTTOM = 26.0, 5.0, 80.0
EVERY_D = 3


@dataclass(frozen=True)
class CoverGain:
    """Soil under a cover and without it.

    `band` lies between the outer courses, `middle` and `bare` are lines, `stops` colours of the band. `wanted_y` is the
    temperature to wait for, None outside the drawing; `sown_x` the day of sowing.
    """

    band: str
    middle: str
    bare: str
    stops: list[Stop]
    wanted_y: float | None
    values: list[Tick]
    sown_x: float


def limits(rows_c: Sequence[Sequence[float]]) -> tuple[float, float]:
    """Return one scale for a set of ribbons."""
    low, high = min(map(min, rows_c)), max(map(max, rows_c))
    return low - 0.5, max(high + 0.5, low + 5.0)


def cover_gain(
    band_c: Sequence[Sequence[float]],
    bare_c: Sequence[float],
    within: tuple[float, float],
    wanted_c: float | None,
    sown_d: int,
    labels: Sequence[tuple[float, str]] = (),
) -> CoverGain:
    """Draw daily low, middle and high under a cover [°C] within a scale, with labels (temperature [°C], words)."""
    days = len(band_c[0])
    x, y = Linear(0, days - 1, LEFT, WIDTH), Linear(*within, BOTTOM, TOP)
    at = [x(day) for day in range(days)]
    low, middle, high = ([y(value) for value in row] for row in band_c)
    stops = [Stop(round(day / (days - 1), 3), scale.colour(band_c[1][day])) for day in range(0, days, EVERY_D)]
    return CoverGain(
        band=band(at, low, high),
        middle=path(zip(at, middle, strict=True)),
        bare=path(zip(at, [y(value) for value in bare_c[:days]], strict=True)),
        stops=stops,
        wanted_y=round(y(wanted_c), 1) if wanted_c is not None and within[0] < wanted_c < within[1] else None,
        values=[Tick(round(y(value), 1), words) for value, words in labels if within[0] <= value <= within[1]],
        sown_x=round(x(min(sown_d, days - 1)), 1),
    )


def marks(within: tuple[float, float]) -> list[float]:
    """Return round values to mark on the scale, in the reader's unit."""
    return value_ticks(*within, most=4)
