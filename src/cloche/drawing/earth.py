"""The earth to point at, land in the colours of its year: `python -m cloche.drawing.earth` draws the file that is shipped."""

from __future__ import annotations

import base64
import io
from collections.abc import Sequence
from pathlib import Path

import numpy as np
from numpy.typing import ArrayLike, NDArray
from PIL import Image

from cloche.core.site.region import COLUMNS, ROWS, TENTHS, shipped
from cloche.drawing import scale

FILE = Path(__file__).parents[1] / "static" / "img" / "earth.png"
NORTH_DEG, SOUTH_DEG = 78.0, -56.0
SEA = (226, 231, 228)


def land(mean_c: ArrayLike) -> Image.Image:
    """A map of means of the year [°C], rows from the north; NaN is the sea."""
    values = np.asarray(mean_c, dtype=float)
    pixels = scale.rgb(np.nan_to_num(values, nan=0.0))
    pixels[np.isnan(values)] = SEA
    return Image.fromarray(pixels, "RGB")


def whole() -> NDArray[np.float64]:
    """Means of the year of every cell between the map's edges, from 180 degrees west on."""
    grid = shipped()
    cells = np.full(ROWS * COLUMNS, np.nan)
    cells[grid.cells] = grid.tenths_c.mean(axis=0) / TENTHS
    rows = slice(round((90 - NORTH_DEG) * 4), round((90 - SOUTH_DEG) * 4))
    return np.roll(cells.reshape(ROWS, COLUMNS), COLUMNS // 2, axis=1)[rows]


def as_address(mean_c: Sequence[Sequence[float]], larger: int = 10) -> str:
    """A small map as a data address."""
    image = land(mean_c)
    buffer = io.BytesIO()
    image.resize((image.width * larger, image.height * larger), Image.Resampling.NEAREST).save(buffer, "PNG", optimize=True)
    return "data:image/png;base64," + base64.b64encode(buffer.getvalue()).decode("ascii")


if __name__ == "__main__":
    land(whole()).quantize(64).save(FILE, optimize=True)
