"""Cloche's temperature scale, the same on every page, and the ink that can be read on it.

Stops run from night blue through sage and straw to brick, monotone in lightness up to straw and down again, so that cold
and hot ends differ in hue and the number written on the colour decides. See docs/design.md.
"""

from __future__ import annotations

import base64
import io
from functools import cache, lru_cache

import numpy as np
from numpy.typing import ArrayLike, NDArray
from PIL import Image

STOPS = (
    (-6, "#27305f"),
    (0, "#3f6690"),
    (5, "#6c9da3"),
    (10, "#a9bf9b"),
    (15, "#dccf8c"),
    (20, "#ecb257"),
    (25, "#dd7f3f"),
    (30, "#b5442f"),
    (40, "#6b1c2b"),
)
DARK_INK, LIGHT_INK = "#1c1914", "#fffdf8"

_AT = np.array([t for t, _ in STOPS], dtype=float)
_RGB = np.array([[int(h[i : i + 2], 16) for i in (1, 3, 5)] for _, h in STOPS], dtype=float)


def rgb(temperature_c: ArrayLike) -> NDArray[np.uint8]:
    """Return the colour of each temperature, shape + (3,), 0-255."""
    t = np.asarray(temperature_c, dtype=float)
    return np.stack([np.interp(t, _AT, channel) for channel in _RGB.T], axis=-1).round().astype(np.uint8)


@lru_cache(maxsize=2048)
def colour(temperature_c: float) -> str:
    """Return one colour as #rrggbb."""
    return colours([temperature_c])[0]


def colours(temperatures_c: ArrayLike) -> list[str]:
    """Return many colours as #rrggbb at once, because a page needs hundreds."""
    return [f"#{r:02x}{g:02x}{b:02x}" for r, g, b in rgb(temperatures_c).tolist()]


def luminance(hex_colour: str) -> float:
    """Return the relative luminance 0-1 [WCAG 2.2]."""
    channels = [int(hex_colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in channels]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(colour: str, other: str) -> float:
    """Return the contrast ratio 1-21 [WCAG 2.2]."""
    light, dark = sorted((luminance(colour), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


def ink_on(temperature_c: float) -> str:
    """Return the more legible of two inks on the colour of a temperature."""
    return _ink_on(colour(round(temperature_c, 1)))


@cache
def _ink_on(ground: str) -> str:
    return max((DARK_INK, LIGHT_INK), key=lambda ink: contrast(ink, ground))


def picture(rows_c: ArrayLike) -> str:
    """Return a small PNG as a data URL from rows of temperatures, top row first. The page enlarges and smooths it."""
    buffer = io.BytesIO()
    Image.fromarray(rgb(rows_c), "RGB").save(buffer, "PNG", optimize=False)
    return "data:image/png;base64," + base64.b64encode(buffer.getvalue()).decode("ascii")
