"""Where a garden lies on the earth, and its year of weather."""

from __future__ import annotations

import base64
import io
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from pathlib import Path

import numpy as np
from numpy.typing import ArrayLike, NDArray
from PIL import Image

from cloche.drawing import scale
from cloche.drawing.geometry import Linear, Tick, band, value_ticks
from cloche.drawing.slice import Stop
from cloche_engine.site.region import COLUMNS, ROWS, TENTHS, shipped

FILE = Path(__file__).parents[1] / "static" / "img" / "earth.png"
NORTH_DEG, SOUTH_DEG = 78.0, -56.0
SEA = (226, 231, 228)


def land(mean_c: ArrayLike) -> Image.Image:
    """Draw a map of annual means [°C], rows from the north; nan is sea."""
    values = np.asarray(mean_c, dtype=float)
    pixels = scale.rgb(np.nan_to_num(values, nan=0.0))
    pixels[np.isnan(values)] = SEA
    return Image.fromarray(pixels, "RGB")


def whole() -> NDArray[np.float64]:
    """Return the annual mean of every cell of the map, from 180° west eastwards."""
    grid = shipped()
    cells = np.full(ROWS * COLUMNS, np.nan)
    cells[grid.cells] = grid.tenths_c.mean(axis=0) / TENTHS
    rows = slice(round((90 - NORTH_DEG) * 4), round((90 - SOUTH_DEG) * 4))
    return np.roll(cells.reshape(ROWS, COLUMNS), COLUMNS // 2, axis=1)[rows]


def as_address(mean_c: Sequence[Sequence[float]], larger: int = 10) -> str:
    """Return a small map as a data URL."""
    image = land(mean_c)
    buffer = io.BytesIO()
    image.resize((image.width * larger, image.height * larger), Image.Resampling.NEAREST).save(buffer, "PNG", optimize=True)
    return "data:image/png;base64," + base64.b64encode(buffer.getvalue()).decode("ascii")


if __name__ == "__main__":
    land(whole()).quantize(64).save(FILE, optimize=True)


WIDTH, LEFT, RIGHT = 640.0, 34.0, 636.0
TOP, BOTTOM = 12.0, 150.0
RAIN_TOP, RAIN_BOTTOM = 158.0, 200.0
FROST_Y, BAR = 208.0, 26.0
RAIN_STEP_MM = 50.0


@dataclass(frozen=True)
class Bar:
    """Rain of one month."""

    x: float
    y: float
    height: float


@dataclass(frozen=True)
class Year:
    """A year of climate. `free` are the frost-free periods, empty where frost is usual in every month or in none."""

    band: str
    stops: list[Stop]
    rain: list[Bar]
    months: list[Tick]
    values: list[Tick]
    freezing_y: float | None
    free: list[tuple[float, float]]
    frost_y: float = FROST_Y
    bar: float = BAR


def year(
    low: Sequence[float],
    high: Sequence[float],
    mean_c: Sequence[float],
    rain_mm: Sequence[float],
    months: Sequence[str],
    freezing: float,
    frosts: tuple[date, date] | None,
) -> Year:
    """Draw the year.

    `low` and `high` are in the reader's unit, and so is `freezing`; `mean_c` sets the colours. `frosts` are the last one in
    spring and the first one after it.
    """
    lowest, highest = min(*low, freezing), max(high)
    y = Linear(lowest - 1, highest + 1, BOTTOM, TOP)
    step = (RIGHT - LEFT) / 12
    x = [LEFT + step * (month + 0.5) for month in range(12)]
    most = max([*rain_mm, 2 * RAIN_STEP_MM])
    rain = [
        Bar(round(at - BAR / 2, 1), round(RAIN_BOTTOM - mm / most * (RAIN_BOTTOM - RAIN_TOP), 1), round(mm / most * 42, 1))
        for at, mm in zip(x, rain_mm, strict=False)
    ]
    return Year(
        band=band(x, [y(value) for value in low], [y(value) for value in high]),
        stops=[Stop(round(month / 11, 3), scale.colour(value)) for month, value in enumerate(mean_c)],
        rain=rain,
        months=[Tick(round(at, 1), name) for at, name in zip(x, months, strict=True)],
        values=[Tick(round(y(value), 1), f"{value:.0f}".replace("-", "−")) for value in value_ticks(lowest, highest, 5)],
        freezing_y=round(y(freezing), 1) if min(low) < freezing else None,
        free=[] if frosts is None else _free(*frosts),
    )


def _free(last: date, first: date) -> list[tuple[float, float]]:
    """Return one period from January to December, or two where it crosses New Year."""
    begin, end = (round(LEFT + (day.timetuple().tm_yday - 1) / 365 * (RIGHT - LEFT), 1) for day in (last, first))
    return [(begin, end)] if begin <= end else [(LEFT, end), (begin, RIGHT)]
