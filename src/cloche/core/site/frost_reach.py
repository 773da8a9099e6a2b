"""How far below a season's mean its frosts reach, as weather stations have it, and how far single nights stray so that they do.

Monthly means say little of frost: in a humid continental spring the last one comes while the mean is 14 °C, on a mild coast at
8 °C. What differs is known: the daily range and the sky (rain), how far the air strays (latitude, continentality), how late
the sea or the snow lets the season turn, the height, and the town, whose nights are warm. The mean on the day of the usual
last and first frost is fitted on these by least squares, a residual counted in days, to the frost dates of 112 stations
(bench/data/frost_stations_from_memory.csv); `./run bench frosts` fits again and leaves each station out in turn.
"""

from __future__ import annotations

from dataclasses import dataclass
from statistics import NormalDist

import numpy as np
from numpy.typing import NDArray

from cloche.core.site.region import Region
from cloche.core.weather.normals import EXTREMES, MID_MONTH_DAY, through_the_year

Array = NDArray[np.float64]

TERMS = ("one", "latitude", "swing", "rain", "height", "people", "lag", "rain_by_swing")
SPRING = (12.70, -1.26, -0.03, -0.84, -0.25, -1.46, -1.27, 0.98)
AUTUMN = (12.91, -1.27, 0.47, -1.18, -0.30, -1.98, -0.03, 0.12)
"""Coefficients of TERMS [°C]."""
LATE_K = 0.2
"""A spring frost is expected a day late rather than early: what goes out a week late loses a week, a week early everything."""
AROUND_C = 11.5
"""About this mean of the day frosts end and begin; the rain of that time counts."""
LATITUDES_DEG, SWINGS_K, LAGS_D, HIGHEST_M = (28.0, 65.0), (8.0, 36.0), 20.0, 2000.0
"""Beyond what stations cover a term stays as it is at the edge."""
WARMEST_DAY = 202.0
"""Of a year over land without a sea, counted from 1 January (north) or 1 July (south)."""
YEAR_D, HALF_YEAR_D = 365, 182
NEW_FROSTS = 0.57
"""Frosts come in spells: what share of the nights below freezing counts as a chance of its own. With this one, simulated
years have their usual frosts where stations do."""
STRAY_K, HALVINGS = (1.5, 8.0), 40
_NORMAL = NormalDist()
WINTER_MARGIN_K = 4.0
"""A winter that is hardly cool enough for frosts says little of how far its nights stray."""


def terms_of(region: Region, mean_c: Array, latitude_deg: float, elevation_m: float, people: float) -> Array:
    """What the mean on the days of frost depends on.

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
        TERMS of spring and autumn, (2, 8).
    """
    swing = (np.clip(np.ptp(mean_c), *SWINGS_K) - 22) / 6
    latitude = (np.clip(abs(latitude_deg), *LATITUDES_DEG) - 43) / 10
    height = min(elevation_m, HIGHEST_M) / 1000
    town = town_warmth(people)
    lag = np.clip(_warmest_day(_northern(mean_c, latitude_deg)) - WARMEST_DAY, -LAGS_D, LAGS_D) / 5
    course, rain_mm = (_course(_northern(values, latitude_deg)) for values in (mean_c, region.rain_mm))
    halves = (slice(0, HALF_YEAR_D + 18), slice(HALF_YEAR_D + 18, YEAR_D))
    found = []
    for half in halves:
        rain = np.log((rain_mm[half][np.abs(course[half] - AROUND_C).argmin()] + 15) / 65)
        found.append([1.0, latitude, swing, rain, height, town, lag, rain * swing])
    return np.array(found)


def town_warmth(people: float) -> float:
    """What a town is to the nights in and about it: the logarithm of its people, from open country on.

    Parameters
    ----------
    people : float
        About the garden, as people_near counts them.

    Returns
    -------
    float
        -1 in open country, 0 where about a hundred thousand live, 2 amid ten millions.
    """
    return float(np.log10(1e4 + people) - 5)


def _northern(values: Array, latitude_deg: float) -> Array:
    """The year from its winter: of the south from July."""
    return values if latitude_deg >= 0 else np.roll(values, 6)


def _course(monthly: Array) -> Array:
    return through_the_year(monthly, np.arange(1, YEAR_D + 1))


def _warmest_day(mean_c: Array) -> float:
    turn = 2 * np.pi / YEAR_D
    return float(np.angle((mean_c * np.exp(1j * turn * MID_MONTH_DAY)).sum()) / turn % YEAR_D)


@dataclass(frozen=True)
class Crossing:
    """Where a year's course passes a mean: day counted from 0, of the year as its winter begins it; slope [K/d], positive."""

    day: float
    slope_k_per_d: float


def crossings(mean_c: Array, frost_mean_c: tuple[float, float], latitude_deg: float) -> tuple[Crossing | None, Crossing | None]:
    """Where the season passes the mean of its last and its first frost.

    Parameters
    ----------
    mean_c : ndarray
        Monthly means [°C], (12,).
    frost_mean_c : tuple of float
        Mean of the day on the usual last and first frost [°C].
    latitude_deg : float
        North positive [°].

    Returns
    -------
    tuple
        Of spring and autumn; None where the year never passes it.
    """
    course = _course(_northern(mean_c, latitude_deg))
    top = int(course.argmax())
    around = np.roll(course, HALF_YEAR_D - top)
    cold_before, cold_after = (np.flatnonzero(half) for half in _colder(around, frost_mean_c))
    spring = _crossing(around, cold_before[-1] + 1, top) if len(cold_before) else None
    autumn = _crossing(around, HALF_YEAR_D + cold_after[0], top) if len(cold_after) else None
    return spring, autumn


def _colder(around: Array, frost_mean_c: tuple[float, float]) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    return around[:HALF_YEAR_D] < frost_mean_c[0], around[HALF_YEAR_D:] < frost_mean_c[1]


def _crossing(around: Array, at: int, top: int) -> Crossing:
    before, after = max(at - 10, 0), min(at + 10, YEAR_D - 1)
    slope = abs(around[after] - around[before]) / (after - before)
    return Crossing(float((at + top - HALF_YEAR_D) % YEAR_D), max(float(slope), 0.02))


def stray_k(reach_k: float, slope_k_per_d: float) -> float:
    """How far nights stray if the usual last frost falls when their mean still lies `reach_k` above freezing.

    Nights below freezing that are still to come number stray / slope * L(reach / stray), with L the unit normal loss; from the
    usual year's last frost on, those that are a chance of their own come to ln 2.

    Parameters
    ----------
    reach_k : float
        Normal low on the day of the usual last frost, above freezing [K].
    slope_k_per_d : float
        By how much normal lows rise a day [K/d].

    Returns
    -------
    float
        Standard deviation of single lows about the normal [K], within STRAY_K.
    """
    if reach_k <= 0:
        return STRAY_K[0]
    per_depth = np.log(2) * slope_k_per_d / (NEW_FROSTS * reach_k)
    least, most = 0.0, reach_k / STRAY_K[0]
    for _halving in range(HALVINGS):
        depth = (least + most) / 2
        loss = _NORMAL.pdf(depth) - depth * (1 - _NORMAL.cdf(depth))
        least, most = (depth, most) if loss > per_depth * depth else (least, depth)
    return float(np.clip(reach_k / most, *STRAY_K))


def night_sd_k(mean_c: Array, range_k: Array, day_sd_k: Array, frost_mean_c: tuple[float, float], latitude_deg: float) -> Array:
    """How far single lows stray from normal by month, so that the usual frosts fall where stations have them.

    Between the days of the usual last and first frost they run evenly; in the midst of winter at least as far, in that of
    summer as days do.

    Parameters
    ----------
    mean_c : ndarray
        Monthly means [°C], (12,).
    range_k : ndarray
        Daily ranges [K], (12,).
    day_sd_k : ndarray
        How far the means of single days stray [K], (12,).
    frost_mean_c : tuple of float
        Mean of the day on the usual last and first frost [°C].
    latitude_deg : float
        North positive [°].

    Returns
    -------
    ndarray
        [K], (12,).
    """
    spring, autumn = crossings(mean_c, frost_mean_c, latitude_deg)
    nights = day_sd_k * EXTREMES
    if spring is None or autumn is None:
        return nights
    course, width = _course(_northern(mean_c, latitude_deg)), _course(_northern(range_k, latitude_deg))
    found = [
        stray_k(c - width[int(at.day)] / 2, at.slope_k_per_d) for c, at in zip(frost_mean_c, (spring, autumn), strict=True)
    ]
    warmest, coldest = int(course.argmax()), int(course.argmin())
    northern = _northern(nights, latitude_deg)
    usual = _course(northern)
    knots = sorted(
        {
            float(coldest): max(float(usual[coldest]), sum(found) / 2),
            spring.day: found[0],
            float(warmest): float(usual[warmest]),
            autumn.day: found[1],
        }.items()
    )
    on, values = np.array(knots).T
    sd = np.interp(MID_MONTH_DAY - 1, on, values, period=YEAR_D)
    share = float(np.clip((min(frost_mean_c) - course[coldest]) / WINTER_MARGIN_K, 0, 1))
    sd = share * sd + (1 - share) * northern
    return np.asarray(sd if latitude_deg >= 0 else np.roll(sd, -6))


def frost_mean_c(terms: Array) -> tuple[float, float]:
    """Mean of the day on the usual last frost of spring and the first of autumn.

    Parameters
    ----------
    terms : ndarray
        As terms_of gives them, (2, 8).

    Returns
    -------
    tuple of float
        [°C].
    """
    return float(terms[0] @ SPRING) + LATE_K, float(terms[1] @ AUTUMN)
