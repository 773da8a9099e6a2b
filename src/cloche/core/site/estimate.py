"""From a region's monthly means and rain to normals: how far low and high lie apart, and how sure that is.

The daily range follows the sun. It is smaller under clouds, for which rain stands, and in a large town, and larger far from the
sea and in thin air: fitted by least squares to the normals of 27 towns on all continents (bench/data/normals_from_memory.csv:
from memory). Each town left out in turn it is off by 1.7 K. The means of months are off by 0.8 K (`./run bench climate`). How
far single nights stray follows from when stations have their frosts (frost_reach).
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from cloche.core.site.frost_reach import frost_mean_c, night_sd_k, terms_of, town_warmth
from cloche.core.site.region import Region, region_at
from cloche.core.site.towns import people_near
from cloche.core.weather.normals import LAPSE_K_PER_M, MID_MONTH_DAY, Normals, guess_from_latitude, spread_by_range

LEVEL_K = 0.8
"""How far the region's means may be off as a whole on plain ground: a quarter of a degree is no garden."""
RANGE_OFF_K = 1.7
"""How far the daily range may be off."""
FITTED = (5.2, 5.0, -2.2, 1.3, 2.3, -0.5)
"""Of one, sun / 40 MJ m-2 d-1, ln((rain + 15) / 65 mm), yearly swing / 20 K, height / 1000 m, lg(people) - 5 [K]."""
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


def daily_range_k(region: Region, latitude_deg: float, elevation_m: float, people: float) -> NDArray[np.float64]:
    """Mean difference of the day's high and low by month.

    Parameters
    ----------
    region : Region
        What is known of the place.
    latitude_deg : float
        North positive [°].
    elevation_m : float
        Of the garden [m].
    people : float
        About the garden, as people_near counts them.

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
        np.full(12, town_warmth(people)),
    )
    return np.maximum(LEAST_RANGE_K, np.tensordot(FITTED, np.stack(terms), axes=1))


def normals_of(region: Region, latitude_deg: float, elevation_m: float, people: float) -> Normals:
    """A garden's normals as the climate of its region has them, at its own height.

    Parameters
    ----------
    region : Region
        What is known of the place.
    latitude_deg : float
        North positive [°].
    elevation_m : float
        Of the garden [m].
    people : float
        About the garden, as people_near counts them.

    Returns
    -------
    Normals
        Their doubt includes what the relief about it leaves open.
    """
    mean_c = region.mean_c - LAPSE_K_PER_M * (elevation_m - region.height_m)
    range_k = daily_range_k(region, latitude_deg, elevation_m, people)
    day_sd_k = spread_by_range(mean_c)
    frosts = frost_mean_c(terms_of(region, mean_c, latitude_deg, elevation_m, people))
    return Normals(
        mean_c - range_k / 2,
        mean_c + range_k / 2,
        day_sd_k,
        "region",
        off_k=float(np.hypot(LEVEL_K, region.relief_k)),
        night_sd_k=night_sd_k(mean_c, range_k, day_sd_k, frosts, latitude_deg),
    )


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
    return normals_of(region, latitude_deg, elevation_m, people_near(latitude_deg, longitude_deg))


def height_at(latitude_deg: float, longitude_deg: float) -> float:
    """How high the ground lies about a point.

    Parameters
    ----------
    latitude_deg : float
        North positive [°].
    longitude_deg : float
        East positive [°].

    Returns
    -------
    float
        Mean over about 25 km [m]; 0 far out at sea.
    """
    region = region_at(latitude_deg, longitude_deg)
    return 0.0 if region is None else region.height_m
