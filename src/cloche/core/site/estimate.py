"""From a region's monthly means and rain to normals: how far low and high lie apart, and how sure that is.

The daily range follows the sun, and is smaller under clouds, for which rain stands, and larger far from the sea and in thin
air: fitted by least squares to the normals of 27 towns on all continents (bench/data/normals_from_memory.csv: from memory).
Each town left out in turn it is off by 1.7 K. The means of months are off by 0.8 K (`./run bench climate`).
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from cloche.core.site.region import Region, region_at
from cloche.core.weather.normals import MID_MONTH_DAY, Normals, guess_from_latitude, spread_by_range

LEVEL_K = 0.8
"""How far the region's means may be off as a whole on plain ground: a quarter of a degree is no garden."""
RANGE_OFF_K = 1.7
"""How far the daily range may be off."""
FITTED = (4.4, 4.8, -2.1, 1.5, 2.3)
"""Of one, sun / 40 MJ m-2 d-1, ln((rain + 15) / 65 mm), yearly swing / 20 K, height / 1000 m [K]."""
LEAST_RANGE_K = 3.0
SOLAR_MJ = 37.586
"""Daily sun above the air at the sun's mean distance, over pi: 24 * 60 * 0.0820 / pi [MJ m-2 d-1]."""


def sun_above_air(latitude_deg: float, day_of_year: NDArray[np.float64]) -> NDArray[np.float64]:
    """Daily sun on a level above the air.

    Parameters
    ----------
    latitude_deg : float
        North positive [°].
    day_of_year : ndarray
        From 1, any shape.

    Returns
    -------
    ndarray
        [MJ m-2 d-1].

    References
    ----------
    Allen et al. 1998, FAO Irrigation and Drainage Paper 56, equations 21 to 25.
    """
    turn = 2 * np.pi * day_of_year / 365
    latitude, declination = np.radians(latitude_deg), 0.409 * np.sin(turn - 1.39)
    sunset = np.arccos(np.clip(-np.tan(latitude) * np.tan(declination), -1, 1))
    height = sunset * np.sin(latitude) * np.sin(declination) + np.cos(latitude) * np.cos(declination) * np.sin(sunset)
    return np.asarray(SOLAR_MJ * (1 + 0.033 * np.cos(turn)) * height)


def daily_range_k(region: Region, latitude_deg: float, elevation_m: float) -> NDArray[np.float64]:
    """Mean difference of the day's high and low by month.

    Parameters
    ----------
    region : Region
        What is known of the place.
    latitude_deg : float
        North positive [°].
    elevation_m : float
        Of the garden [m].

    Returns
    -------
    ndarray
        (12,) [K].
    """
    terms = (
        np.ones(12),
        sun_above_air(latitude_deg, MID_MONTH_DAY) / 40,
        np.log((region.rain_mm + 15) / 65),
        np.full(12, np.ptp(region.mean_c) / 20),
        np.full(12, elevation_m / 1000),
    )
    return np.maximum(LEAST_RANGE_K, np.tensordot(FITTED, np.stack(terms), axes=1))


def normals_of(region: Region, latitude_deg: float, elevation_m: float) -> Normals:
    """A garden's normals as the climate of its region has them.

    Parameters
    ----------
    region : Region
        What is known of the place.
    latitude_deg : float
        North positive [°].
    elevation_m : float
        Of the garden [m].

    Returns
    -------
    Normals
        Their doubt includes what the relief about it leaves open.
    """
    half = daily_range_k(region, latitude_deg, elevation_m) / 2
    off_k = float(np.hypot(LEVEL_K, region.relief_k))
    return Normals(region.mean_c - half, region.mean_c + half, spread_by_range(region.mean_c), "region", off_k=off_k)


@lru_cache(maxsize=256)
def normals_at(latitude_deg: float, longitude_deg: float, elevation_m: float) -> Normals:
    """What is known of a site's climate before anything was typed or recorded there.

    Parameters
    ----------
    latitude_deg : float
        North positive [°].
    longitude_deg : float
        East positive [°].
    elevation_m : float
        Of the garden [m].

    Returns
    -------
    Normals
        Of its region; far out at sea the guess from latitude. Treat as read-only: it is shared.
    """
    region = region_at(latitude_deg, longitude_deg)
    if region is None:
        return guess_from_latitude(latitude_deg, elevation_m)
    return normals_of(region, latitude_deg, elevation_m)
