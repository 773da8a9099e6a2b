"""What the slope of a lid does for the sun that comes in, and how far a prop opens it."""

from __future__ import annotations

from math import asin, cos, degrees, radians, sin

from cloche_engine.weather.sun import declination_rad

LEAST_SUN_DEG, MOST_GAIN = 3.0, 6.0
"""A sun lower than that is behind trees and houses; no lid takes in more than so many times a level one's light."""
HAND_M, HAND_OPENING = 0.10, 0.4
"""A lid propped up by a hand's width is this far open, of what it can be (assumption)."""


def slope_deg(width_m: float, low_m: float, high_m: float) -> float:
    """Return the slope of a lid [°].

    Parameters
    ----------
    width_m : float
        From front to back on the ground [m].
    low_m : float
        Height at the front [m].
    high_m : float
        Height at the back [m].
    """
    rise = high_m - low_m
    return degrees(asin(rise / (rise**2 + width_m**2) ** 0.5))


def noon_gain(day_of_year: int, latitude_deg: float, lid_deg: float, away_deg: float = 0.0) -> float | None:
    """Return direct sun at noon on a sloping lid, relative to a level one.

    None means that the sun is too low to count.

    Parameters
    ----------
    day_of_year : int
        Day of the year from 1.
    latitude_deg : float
        Latitude, north positive [°].
    lid_deg : float
        Slope of the lid [°].
    away_deg : float
        How far the lid faces away from the noon sun [°].
    """
    decline = float(declination_rad(day_of_year))
    height = radians(90.0) - abs(radians(latitude_deg) - decline)
    if degrees(height) < LEAST_SUN_DEG:
        return None
    lid = radians(lid_deg)
    on_lid = sin(height) * cos(lid) + cos(height) * sin(lid) * cos(radians(away_deg))
    return min(max(on_lid, 0.0) / sin(height), MOST_GAIN)


def propped(prop_m: float) -> float:
    """Return how far a lid on a prop is open, 0-1.

    Parameters
    ----------
    prop_m : float
        Height of the prop [m].
    """
    return min(HAND_OPENING * prop_m / HAND_M, 1.0)
