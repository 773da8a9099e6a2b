"""When a garden has its last and its first frost, as weather stations do, and how far single nights stray so that it does.

Monthly means say little of frost: in a humid continental spring the last one comes while the mean is 14 °C, on a mild coast at
8 °C. What differs is known: the daily range and the sky (rain), how far the air strays (latitude, continentality), how late
the sea or the snow lets the season turn, the height, and the town, whose nights are warm. On these are fitted by least
squares, a residual counted in days, the normal mean on the day of the usual frosts of 112 stations, and, for who knows the
normal lows too, the normal low, of 104 stations (bench/data, from memory). `./run bench frosts` fits again and leaves each
station out in turn.
"""

from __future__ import annotations

from dataclasses import dataclass
from statistics import NormalDist

import numpy as np
from numpy.typing import NDArray

from cloche_engine.site.region import Region
from cloche_engine.weather.normals import EXTREMES, MID_MONTH_DAY, through_the_year

Array = NDArray[np.float64]

TERMS = ("one", "latitude", "swing", "rain", "height", "people", "lag", "rain_by_swing")
SPRING = (12.70, -1.26, -0.03, -0.84, -0.25, -1.46, -1.27, 0.98)
AUTUMN = (12.91, -1.27, 0.47, -1.18, -0.30, -1.98, -0.03, 0.12)
"""Coefficients of TERMS for the normal mean on the day of the usual last and first frost [°C]."""
SPRING_LOW = (5.94, -0.25, -0.07, -0.04, -0.22, -0.96, -0.25, 0.87)
AUTUMN_LOW = (6.68, -0.52, 0.11, -0.17, -0.72, -0.64, 0.07, -0.05)
"""The same for the normal low on that day [°C]."""
LATE_K = 0.2
"""A spring frost is expected a day late rather than early: what goes out a week late loses a week, a week early everything."""
AROUND_C = 11.5
"""About this mean of the day frosts end and begin; the rain of that time counts."""
LATITUDES_DEG, SWINGS_K, LAGS_D, HIGHEST_M = (28.0, 65.0), (8.0, 36.0), 20.0, 2000.0
"""Beyond what stations cover a term stays as it is at the edge."""
USUAL_SLOPE_K_PER_D = 0.15
"""How fast seasons turn where frosts are rare: what nights would stray by there if it froze is more than they do."""
WARMEST_DAY = 202.0
"""Of a year over land without a sea, counted from 1 January (north) or 1 July (south)."""
YEAR_D, HALF_YEAR_D, LEAST_SLOPE_K_PER_D = 365, 182, 0.02
NEW_FROSTS = 0.57
"""Frosts come in spells: what share of the nights below freezing counts as a chance of its own. With this one, simulated
years have their usual frosts where stations do."""
STRAY_K, HALVINGS = (1.5, 8.0), 40
_NORMAL = NormalDist()
WINTER_MARGIN_K = 4.0
"""A winter that is hardly cool enough for frosts says little of how far its nights stray."""


def terms_of(region: Region, mean_c: Array, latitude_deg: float, elevation_m: float, people: float) -> Array:
    """Return the predictors of the daily mean on the usual frost dates.

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
    terms = []
    for half in halves:
        rain = np.log((rain_mm[half][np.abs(course[half] - AROUND_C).argmin()] + 15) / 65)
        terms.append([1.0, latitude, swing, rain, height, town, lag, rain * swing])
    return np.array(terms)


def town_warmth(people: float) -> float:
    """Return the effect of a town on nights in and around it, a logarithm of its population.

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
    """Return the year starting in winter: from July in the south."""
    return values if latitude_deg >= 0 else np.roll(values, 6)


def _course(monthly: Array) -> Array:
    return through_the_year(monthly, np.arange(1, YEAR_D + 1))


def _warmest_day(mean_c: Array) -> float:
    turn = 2 * np.pi / YEAR_D
    return float(np.angle((mean_c * np.exp(1j * turn * MID_MONTH_DAY)).sum()) / turn % YEAR_D)


@dataclass(frozen=True)
class Crossing:
    """Day on which an annual course passes a temperature.

    The day counts from 0 in a year that starts in winter; the slope is positive [K/d].
    """

    day: int
    slope_k_per_d: float


def crossings(monthly_c: Array, passed_c: Array, latitude_deg: float) -> tuple[Crossing | None, Crossing | None]:
    """Return the last rise through one temperature and the first fall through another.

    Parameters
    ----------
    monthly_c : ndarray
        By month, January first [°C], (12,).
    passed_c : ndarray
        In spring and in autumn [°C], (2,).
    latitude_deg : float
        North positive [°].

    Returns
    -------
    tuple
        Of spring and autumn; None where the year never passes it.
    """
    course = _course(_northern(monthly_c, latitude_deg))
    top = int(course.argmax())
    around = np.roll(course, HALF_YEAR_D - top)
    before, after = np.flatnonzero(around[:HALF_YEAR_D] < passed_c[0]), np.flatnonzero(around[HALF_YEAR_D:] < passed_c[1])
    spring = _crossing(around, int(before[-1]) + 1, top) if len(before) else None
    autumn = _crossing(around, HALF_YEAR_D + int(after[0]), top) if len(after) else None
    return spring, autumn


def _crossing(around: Array, at: int, top: int) -> Crossing:
    before, after = max(at - 10, 0), min(at + 10, YEAR_D - 1)
    slope = abs(around[after] - around[before]) / (after - before)
    return Crossing((at + top - HALF_YEAR_D) % YEAR_D, max(float(slope), LEAST_SLOPE_K_PER_D))


def frost_low_c(terms: Array) -> Array:
    """Return the normal low on the usual last spring and first autumn frost, for known normal lows [°C].

    Parameters
    ----------
    terms : ndarray
        As terms_of gives them, (2, 8).

    Returns
    -------
    ndarray
        [°C], (2,).
    """
    return np.array([terms[0] @ SPRING_LOW + LATE_K, terms[1] @ AUTUMN_LOW])


def frost_mean_c(terms: Array) -> Array:
    """Return the normal mean on the usual last spring and first autumn frost [°C].

    Parameters
    ----------
    terms : ndarray
        As terms_of gives them, (2, 8).

    Returns
    -------
    ndarray
        [°C], (2,).
    """
    return np.array([terms[0] @ SPRING + LATE_K, terms[1] @ AUTUMN])


def low_when_mean_is(frost_c: Array, mean_c: Array, range_k: Array, latitude_deg: float) -> Array | None:
    """Return the normal low on the day when the normal mean passes that of the usual frost dates [°C].

    Parameters
    ----------
    frost_c : ndarray
        Means of frost_mean_c, (2,).
    mean_c : ndarray
        Monthly means [°C], (12,).
    range_k : ndarray
        Daily ranges [K], (12,).
    latitude_deg : float
        North positive [°].

    Returns
    -------
    ndarray or None
        [°C], (2,); None where the year never passes it.
    """
    width = _course(_northern(range_k, latitude_deg))
    spring, autumn = crossings(mean_c, frost_c, latitude_deg)
    if spring is None or autumn is None:
        return None
    return frost_c - np.array([width[spring.day], width[autumn.day]]) / 2


def stray_k(reach_k: float, slope_k_per_d: float) -> float:
    """Return the spread of single nights [K].

    It follows from the usual last frost occurring while mean lows are still `reach_k` above freezing.

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


def night_sd_k(low_c: Array, day_sd_k: Array, frost_c: Array | None, latitude_deg: float) -> Array:
    """Return the spread of single lows by month [K].

    It puts the usual frost dates where weather stations have them.

    Between the days of the usual last and first frost they run evenly; in the midst of winter at least as far, in that of
    summer as days do.

    Parameters
    ----------
    low_c : ndarray
        Monthly means of the daily low [°C], (12,).
    day_sd_k : ndarray
        How far the means of single days stray [K], (12,).
    frost_c : ndarray or None
        Normal low on the day of the usual last and first frost [°C], (2,); None where there are none.
    latitude_deg : float
        North positive [°].

    Returns
    -------
    ndarray
        [K], (12,).
    """
    nights = day_sd_k * EXTREMES
    if frost_c is None:
        return nights
    nights = np.minimum(nights, stray_k(float(frost_c.min()), USUAL_SLOPE_K_PER_D))
    spring, autumn = crossings(low_c, frost_c, latitude_deg)
    if spring is None or autumn is None:
        return nights
    northern = _northern(nights, latitude_deg)
    course, usual = _course(_northern(low_c, latitude_deg)), _course(northern)
    last, first = (stray_k(float(c), at.slope_k_per_d) for c, at in zip(frost_c, (spring, autumn), strict=True))
    warmest, coldest = int(course.argmax()), int(course.argmin())
    knots = {
        coldest: max(float(usual[coldest]), (last + first) / 2),
        spring.day: last,
        warmest: usual[warmest],
        autumn.day: first,
    }
    days = np.array(sorted(knots))
    sd = np.interp(MID_MONTH_DAY - 1, days, [knots[day] for day in days], period=YEAR_D)
    share = float(np.clip((min(frost_c) - course[coldest]) / WINTER_MARGIN_K, 0, 1))
    sd = share * sd + (1 - share) * northern
    return np.asarray(sd if latitude_deg >= 0 else np.roll(sd, -6))
