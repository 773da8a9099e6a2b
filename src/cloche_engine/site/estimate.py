"""From a region's monthly means and rain to normals: how far low and high lie apart, and how sure that is.

Nights cool more against the days where the air is dry, far from the sea and high up, and less in a large town: the daily
range is fitted by least squares to the normals of 27 towns on all continents and 104 stations (bench/data, from memory). Each
place left out in turn it is off by 1.5 K. The means of months are off by 0.8 K (`./run bench climate`). How far single
nights stray follows from when stations have their frosts (frost_reach).
"""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from cloche_engine.site.frost_reach import frost_low_c, frost_mean_c, low_when_mean_is, night_sd_k, terms_of, town_warmth
from cloche_engine.site.region import Region, region_at
from cloche_engine.site.towns import people_near
from cloche_engine.weather.normals import LAPSE_K_PER_M, MID_MONTH_DAY, Normals, guess_from_latitude, spread_by_range

LEVEL_K = 0.8
"""How far the region's means may be off as a whole on plain ground: a quarter of a degree is no garden."""
RANGE = (9.51, 1.99, 1.92, -0.63, 1.43, -1.48)
"""Coefficients of range_terms [K]."""
LATENT_MJ_PER_MM = 2.45
LITTLE_MM = 15.0
LEAST_RANGE_K = 3.0
SOLAR_MJ = 37.586
"""Daily sun above the air at the sun's mean distance, over pi: 24 * 60 * 0.0820 / pi [MJ m-2 d-1]."""


def sun_above_air(latitude_deg: float, day_of_year: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return the daily sun on a level plane above the atmosphere.

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


def dryness(region: Region, mean_c: NDArray[np.float64], latitude_deg: float) -> NDArray[np.float64]:
    """Return the excess of potential evaporation over rain by month.

    Dry air and clear skies let the nights become colder.

    Parameters
    ----------
    region : Region
        What is known of the place.
    mean_c : ndarray
        Its monthly means at the garden's height [°C], (12,).
    latitude_deg : float
        North positive [°].

    Returns
    -------
    ndarray
        ln of what may evaporate over rain, each with LITTLE_MM added, (12,).

    References
    ----------
    Oudin et al. 2005, J. Hydrol. 303, 290-306 (from memory): sun above the air / latent heat * (mean + 5 K) / 100 K.
    """
    sun_mm = 30.4 * sun_above_air(latitude_deg, MID_MONTH_DAY) / LATENT_MJ_PER_MM
    may_mm = sun_mm * np.maximum(mean_c + 5, 0) / 100
    return np.asarray(np.log((may_mm + LITTLE_MM) / (region.rain_mm + LITTLE_MM)))


def range_terms(
    region: Region, mean_c: NDArray[np.float64], latitude_deg: float, elevation_m: float, people: float
) -> NDArray[np.float64]:
    """Return the predictors of the daily range.

    Parameters
    ----------
    region : Region
        What is known of the place.
    mean_c : ndarray
        Its monthly means at the garden's height [°C], (12,).
    latitude_deg : float
        North positive [°].
    elevation_m : float
        Of the garden [m].
    people : float
        About the garden, as people_near counts them.

    Returns
    -------
    ndarray
        (6, 12): one, dryness, yearly swing / 20 K, latitude / 10° from 40°, height / 1000 m, town.
    """
    whole = (np.ptp(mean_c) / 20, (abs(latitude_deg) - 40) / 10, elevation_m / 1000, town_warmth(people))
    return np.stack([np.ones(12), dryness(region, mean_c, latitude_deg), *(np.full(12, value) for value in whole)])


def daily_range_k(
    region: Region, mean_c: NDArray[np.float64], latitude_deg: float, elevation_m: float, people: float
) -> NDArray[np.float64]:
    """Return the mean difference between daily high and low by month [K].

    Parameters
    ----------
    region : Region
        What is known of the place.
    mean_c : ndarray
        Its monthly means at the garden's height [°C], (12,).
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
    terms = range_terms(region, mean_c, latitude_deg, elevation_m, people)
    return np.maximum(LEAST_RANGE_K, np.tensordot(RANGE, terms, axes=1))


def normals_of(region: Region, latitude_deg: float, elevation_m: float, people: float) -> Normals:
    """Return a garden's normals from the climate of its region at its own elevation.

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
    half = daily_range_k(region, mean_c, latitude_deg, elevation_m, people) / 2
    plain = Normals(
        mean_c - half, mean_c + half, spread_by_range(mean_c), "region", off_k=float(np.hypot(LEVEL_K, region.relief_k))
    )
    frosts = frost_mean_c(terms_of(region, mean_c, latitude_deg, elevation_m, people))
    lows = low_when_mean_is(frosts, mean_c, 2 * half, latitude_deg)
    return replace(plain, night_sd_k=night_sd_k(plain.low_c, plain.day_sd_k, lows, latitude_deg))


def typed_normals(
    low_c: NDArray[np.float64], high_c: NDArray[np.float64], latitude_deg: float, longitude_deg: float, elevation_m: float
) -> Normals:
    """Return the normals a grower entered, with the spread of single nights from the region.

    Parameters
    ----------
    low_c : ndarray
        Mean daily lows by month, January first [°C], (12,).
    high_c : ndarray
        Mean daily highs by month [°C], (12,).
    latitude_deg : float
        North positive [°].
    longitude_deg : float
        East positive [°].
    elevation_m : float
        Of the garden [m].
    """
    typed = Normals(low_c, high_c, spread_by_range((low_c + high_c) / 2), "typed")
    region = region_at(latitude_deg, longitude_deg)
    if region is None:
        return typed
    people = people_near(latitude_deg, longitude_deg)
    lows = frost_low_c(terms_of(region, typed.mean_c, latitude_deg, elevation_m, people))
    return replace(typed, night_sd_k=night_sd_k(low_c, typed.day_sd_k, lows, latitude_deg))


@lru_cache(maxsize=256)
def normals_at(latitude_deg: float, longitude_deg: float, elevation_m: float) -> Normals:
    """Return the normals of a site for which nothing has been entered or recorded.

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
    """Return the elevation of the ground around a point [m].

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
