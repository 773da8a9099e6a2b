"""The shade of rows of tall plants on what grows beside them."""

from __future__ import annotations

from dataclasses import dataclass
from math import asin, atan2, cos, degrees, pi, radians, sin, tan

from cloche_engine.weather.sun import declination_rad

LOWEST_DEG = 3.0
"""A sun lower than this throws no shadow that one could draw."""


@dataclass(frozen=True)
class Shadow:
    """Position of the shadow of a top, per metre of its height, east and north [m/m]."""

    east: float
    north: float


def sun_at(day_of_year: int, solar_h: float, latitude_deg: float) -> tuple[float, float]:
    """Return elevation and azimuth of the sun at an hour of solar time, azimuth from north through east [°].

    Parameters
    ----------
    day_of_year : int
        From 1.
    solar_h : float
        Hour.
    latitude_deg : float
        Latitude, north positive [°].
    """
    tilt, place, turn = float(declination_rad(day_of_year)), radians(latitude_deg), (solar_h - 12) * pi / 12
    up = asin(sin(place) * sin(tilt) + cos(place) * cos(tilt) * cos(turn))
    east, north = -cos(tilt) * sin(turn), sin(tilt) * cos(place) - cos(tilt) * cos(turn) * sin(place)
    return degrees(up), degrees(atan2(east, north)) % 360


def shadow(day_of_year: int, solar_h: float, latitude_deg: float) -> Shadow | None:
    """Return where shadows fall, None while the sun is down or nearly so.

    Parameters
    ----------
    day_of_year : int
        From 1.
    solar_h : float
        Hour of solar time.
    latitude_deg : float
        Latitude, north positive [°].
    """
    up_deg, towards_deg = sun_at(day_of_year, solar_h, latitude_deg)
    if up_deg < LOWEST_DEG:
        return None
    reach, away = 1 / tan(radians(up_deg)), radians(towards_deg + 180)
    return Shadow(reach * sin(away), reach * cos(away))
