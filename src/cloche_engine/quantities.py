"""Unit conversion at the edges, and the ranges that a reading can mean. Exact definitions, no rounding."""

from __future__ import annotations

from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from cloche_engine.errors import OutOfRange

Number = TypeVar("Number", float, NDArray[np.float64])

CM_PER_INCH = 2.54
SOIL_C = (-30.0, 60.0)
"""Soil temperatures that a probe in a bed or on a mat can show [°C]. A hotbed's core may pass this; its seed does not."""
AIR_C = (-60.0, 60.0)
"""Air temperatures near the ground anywhere that vegetables grow [°C]."""
DEPTH_M = (0.0, 2.0)
SPACING_M = (0.001, 6.0)
ELEVATION_M = (-430.0, 5000.0)
"""From the shore of the lowest sea to the highest fields."""
SNOW_M, RAIN_MM, WIND_M_S = (0.0, 5.0), (0.0, 2000.0), (0.0, 60.0)
"""Snow that lies, a day's rain and its mean wind anywhere that vegetables grow."""


def celsius_from_fahrenheit(temperature_f: Number) -> Number:
    """°F to °C, a point on the scale (not a difference).

    Parameters
    ----------
    temperature_f : Number
        Temperature [°F].
    """
    return (temperature_f - 32.0) / 1.8


def fahrenheit_from_celsius(temperature_c: Number) -> Number:
    """°C to °F, a point on the scale (not a difference).

    Parameters
    ----------
    temperature_c : Number
        Temperature [°C].
    """
    return temperature_c * 1.8 + 32.0


def metres_from_inches(length_in: Number) -> Number:
    """Inches to metres.

    Parameters
    ----------
    length_in : Number
        Length [in].
    """
    return length_in * (CM_PER_INCH / 100.0)


def inches_from_metres(length_m: Number) -> Number:
    """Metres to inches.

    Parameters
    ----------
    length_m : Number
        Length [m].
    """
    return length_m / (CM_PER_INCH / 100.0)


def refuse_outside(value: float, limits: tuple[float, float], what: str, unit: str, hint: str = "") -> None:
    """Raise OutOfRange when value is not a number within limits (both included).

    The message gives the value, the limits in the same unit and the hint, as a sentence or two.

    Parameters
    ----------
    value : float
        The value that came in.
    limits : tuple[float, float]
        Least and most that can be.
    what : str
        What it is, for the message.
    hint : str
        What the grower may have meant.
    """
    low, high = limits
    if not (low <= value <= high):
        message = f"{what} of {value:g} {unit} is outside {low:g} to {high:g}."
        raise OutOfRange(f"{message} {hint}".strip())
