"""The shade of rows of tall plants on what grows beside them."""

from __future__ import annotations

from dataclasses import dataclass
from math import asin, atan2, cos, degrees, pi, radians, sin, tan

import numpy as np

from cloche.core.weather.sun import declination_rad

LOWEST_DEG = 3.0
"""A sun lower than this throws no shadow that one could draw."""
LEAFY = 0.8
"""Share of the beam that a row in full leaf takes (assumption)."""


@dataclass(frozen=True)
class Shadow:
    """Of the top of something upright: how far it reaches for each metre of height, east and north [m/m]."""

    east: float
    north: float


def sun_at(day_of_year: int, solar_h: float, latitude_deg: float) -> tuple[float, float]:
    """Height of the sun and its direction from north through east [°], at an hour of solar time (noon: 12).

    Parameters
    ----------
    day_of_year : int
        From 1.
    solar_h : float
        Hour.
    latitude_deg : float
        Latitude, north positive [°].

    Returns
    -------
    tuple[float, float]
    """
    tilt, place, turn = float(declination_rad(day_of_year)), radians(latitude_deg), (solar_h - 12) * pi / 12
    up = asin(sin(place) * sin(tilt) + cos(place) * cos(tilt) * cos(turn))
    east, north = -cos(tilt) * sin(turn), sin(tilt) * cos(place) - cos(tilt) * cos(turn) * sin(place)
    return degrees(up), degrees(atan2(east, north)) % 360


def shadow(day_of_year: int, solar_h: float, latitude_deg: float) -> Shadow | None:
    """Where shadows fall; None while the sun is down or as good as.

    Parameters
    ----------
    day_of_year : int
        From 1.
    solar_h : float
        Hour of solar time.
    latitude_deg : float
        Latitude, north positive [°].

    Returns
    -------
    Shadow | None
    """
    up_deg, towards_deg = sun_at(day_of_year, solar_h, latitude_deg)
    if up_deg < LOWEST_DEG:
        return None
    reach, away = 1 / tan(radians(up_deg)), radians(towards_deg + 180)
    return Shadow(reach * sin(away), reach * cos(away))


def beam_lost(day_of_year: int, latitude_deg: float, runs_deg: float, height_m: float, away_m: float, left: bool) -> float:
    """Share of a cloudless day's beam on level ground that a long row takes from a spot beside it, 0-1.

    Parameters
    ----------
    day_of_year : int
        From 1.
    latitude_deg : float
        Latitude, north positive [°].
    runs_deg : float
        The way the row runs, from north through east [°].
    height_m : float
        How tall it is [m].
    away_m : float
        From the row to the spot [m].
    left : bool
        Whether the spot lies to the left of who looks along the row.

    Returns
    -------
    float
    """
    # Across the row towards the spot, as seen from above.
    side = radians(runs_deg + (-90 if left else 90))
    lost = whole = 0.0
    for solar_h in np.arange(0.25, 24, 0.5):
        up_deg, _ = sun_at(day_of_year, float(solar_h), latitude_deg)
        cast = shadow(day_of_year, float(solar_h), latitude_deg)
        if cast is None:
            continue
        strength = sin(radians(up_deg))
        whole += strength
        across = height_m * (cast.east * sin(side) + cast.north * cos(side))
        lost += strength * (across >= away_m)
    return LEAFY * lost / whole if whole else 0.0
