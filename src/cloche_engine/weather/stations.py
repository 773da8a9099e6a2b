"""Files of weather stations and of typical years."""

from __future__ import annotations

from dataclasses import dataclass
from io import StringIO

import numpy as np
from numpy.typing import NDArray

from cloche_engine.errors import CoreError

WIND_AT_2_M = 0.748
"""Wind at two metres over wind at ten: 4.87 / ln(67.8 · 10 - 5.42) [FAO56 eq. 47]."""
CLEAR, OVERCAST = 0.3, 0.8
"""Shares of cloud below and above which a day is called so (assumption)."""


def sky_of(cloud: float) -> str:
    """Return the word for a day's cloud.

    Parameters
    ----------
    cloud : float
        Mean share of the sky that is covered, 0-1.

    Returns
    -------
    str
        clear, broken or overcast.
    """
    return "clear" if cloud < CLEAR else "overcast" if cloud > OVERCAST else "broken"


HOURS = 8760
LIKELY_C = (-90.0, 60.0)


class NotAnEpw(CoreError):
    """Raised when the text is not a complete year in EPW format. The message names the fault."""

    code = "not_an_epw"


@dataclass(frozen=True)
class TypicalYear:
    """Name and position of a typical year, and its mean daily low and high by month, January first, (12,) [°C]."""

    name: str
    latitude_deg: float
    longitude_deg: float
    elevation_m: float
    low_c: NDArray[np.float64]
    high_c: NDArray[np.float64]


def typical_year(text: str) -> TypicalYear:
    """Parse the text of an EPW file.

    Parameters
    ----------
    text : str
        The file's text.

    Raises
    ------
    NotAnEpw
        Where the text is no EPW file.
    """
    # Loaded here: pvlib takes a second and a half, and few bring such a file.
    from pvlib.iotools import read_epw

    if not text.lstrip().upper().startswith("LOCATION,"):
        raise NotAnEpw("This is not an EPW file: its first line does not begin with LOCATION.")
    try:
        data, place = read_epw(StringIO(text))
    except (ValueError, KeyError, IndexError, AttributeError) as odd:
        raise NotAnEpw(f"The EPW file cannot be read: {odd}.") from odd
    air = data["temp_air"].to_numpy(dtype=np.float64)
    if len(air) < HOURS or not np.isfinite(air[:HOURS]).all():
        raise NotAnEpw(f"The EPW file holds {len(air)} hours of air; a whole year has {HOURS}.")
    if air.min() < LIKELY_C[0] or air.max() > LIKELY_C[1]:
        raise NotAnEpw(f"The EPW file's air runs from {air.min():g} to {air.max():g} °C, which cannot be.")
    days = air[:HOURS].reshape(365, 24)
    month = data["month"].to_numpy()[:HOURS:24]
    low, high = (np.array([side[month == m].mean() for m in range(1, 13)]) for side in (days.min(axis=1), days.max(axis=1)))
    return TypicalYear(
        str(place["city"]), float(place["latitude"]), float(place["longitude"]), float(place["altitude"]), low, high
    )
