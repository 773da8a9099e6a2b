"""Monthly normals of a site: typed in, drawn from its own daily record, or a rough guess from its latitude."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import ArrayLike, NDArray

Source = Literal["typed", "record", "region", "guess"]

MID_MONTH_DAY = np.array([15.5, 45, 74.5, 105, 135.5, 166, 196.5, 227.5, 258, 288.5, 319, 349.5])
GUESS_SPREAD_K = 2.5
"""How far the guess from latitude may be off as a whole (assumption); typed or recorded normals are taken as they are."""
LEAST_SD_K = 1.5
FEWEST_DAYS = 20
"""A month of the record counts with at least this many days."""

# Mean over land by latitude: annual mean at sea level and half the annual swing [°C] (from memory, assumption).
_LATITUDE = np.array([0, 10, 20, 30, 40, 50, 60, 70])
_ANNUAL_MEAN_C = np.array([26.5, 26.5, 24.5, 20.0, 14.0, 9.0, 2.5, -7.0])
_HALF_SWING_NORTH_K = np.array([0.8, 2.5, 5.0, 8.0, 9.5, 8.5, 12.0, 17.0])
_HALF_SWING_SOUTH_K = np.array([0.8, 2.0, 4.0, 5.5, 5.5, 4.5, 6.0, 10.0])
LAPSE_K_PER_M = 0.006


@dataclass(frozen=True)
class Normals:
    """Monthly climate of the air at screen height, January first.

    Attributes
    ----------
    low_c, high_c : ndarray
        Mean daily low and high, (12,) [°C].
    day_sd_k : ndarray
        Standard deviation of daily means about normal, (12,) [K].
    source : Source
        Where the values come from.
    years : int
        Length of the record.
    off_k : float
        Uncertainty of the level as a whole [K].
    night_sd_k : ndarray or None
        Standard deviation of single lows, (12,) [K]; None where it is not known separately.
    """

    low_c: NDArray[np.float64]
    high_c: NDArray[np.float64]
    day_sd_k: NDArray[np.float64]
    source: Source
    years: int = 0
    off_k: float = 0.0
    night_sd_k: NDArray[np.float64] | None = None

    @property
    def mean_c(self) -> NDArray[np.float64]:
        """Monthly mean of low and high [°C]."""
        return (self.low_c + self.high_c) / 2

    def mean_on(self, day_of_year: ArrayLike) -> NDArray[np.float64]:
        """Return the normal daily mean on each day of the year, smooth across months [°C].

        Parameters
        ----------
        day_of_year : array_like
            Day of the year from 1, any shape.

        Returns
        -------
        ndarray
            [°C].
        """
        return through_the_year(self.mean_c, day_of_year)

    def range_on(self, day_of_year: ArrayLike) -> NDArray[np.float64]:
        """Return the normal difference between high and low [K].

        Parameters
        ----------
        day_of_year : array_like
            Day of the year from 1, any shape.
        """
        return through_the_year(self.high_c - self.low_c, day_of_year)

    def sd_on(self, day_of_year: ArrayLike) -> NDArray[np.float64]:
        """Return the standard deviation of daily means about normal [K].

        Parameters
        ----------
        day_of_year : array_like
            Day of the year from 1, any shape.
        """
        return through_the_year(self.day_sd_k, day_of_year)

    def extremes_sd_on(self, day_of_year: ArrayLike) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Return the standard deviations of single lows and of single highs about normal [K].

        Parameters
        ----------
        day_of_year : array_like
            Day of the year from 1, any shape.

        Returns
        -------
        tuple of ndarray
            Of lows and of highs.
        """
        high = self.sd_on(day_of_year) * EXTREMES
        return high if self.night_sd_k is None else through_the_year(self.night_sd_k, day_of_year), high


EXTREMES = 1.15
"""Lows and highs stray further than the mean of a day, which averages the two."""
WINTER_SD, SUMMER_SD = (1.3, 0.13), (1.3, 0.06)
"""How far single days' means stray from normal [K], by the range of monthly means [K]: the more continental, the further, in
winter above all (from memory of station records, assumption)."""


def spread_by_range(monthly_c: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return the standard deviation of daily means by month [K] from the monthly means [°C].

    Parameters
    ----------
    monthly_c : ndarray
        Twelve monthly means of the air, January first [°C].
    """
    swing = float(np.ptp(monthly_c))
    winter, summer = (base + slope * swing for base, slope in (WINTER_SD, SUMMER_SD))
    if swing == 0:
        return np.full(len(monthly_c), winter)
    cold = (monthly_c.max() - monthly_c) / swing
    return np.asarray(summer + (winter - summer) * cold)


def guess_from_latitude(latitude_deg: float, elevation_m: float) -> Normals:
    """Guess the normals of a site of which only the position is known.

    They are typical of land at that latitude (assumption, from memory).

    Parameters
    ----------
    latitude_deg : float
        Latitude, north positive [°].
    elevation_m : float
        Height above the sea [m].
    """
    size = abs(latitude_deg)
    swings = _HALF_SWING_NORTH_K if latitude_deg >= 0 else _HALF_SWING_SOUTH_K
    mean = np.interp(size, _LATITUDE, _ANNUAL_MEAN_C) - LAPSE_K_PER_M * elevation_m
    warmest_day = 202.0 if latitude_deg >= 0 else 202.0 - 182.5
    season = np.cos(2 * np.pi * (MID_MONTH_DAY - warmest_day) / 365.25)
    monthly = mean + np.interp(size, _LATITUDE, swings) * season
    return Normals(monthly - 5.0, monthly + 5.0, spread_by_range(monthly), "guess", off_k=GUESS_SPREAD_K)


def from_record(month: NDArray[np.int64], low_c: NDArray[np.float64], high_c: NDArray[np.float64], guess: Normals) -> Normals:
    """Return normals from daily lows and highs (days,) with month 1-12.

    Months with too few days are blended with the guess.

    The guess is first shifted to agree with the months that are known.

    Parameters
    ----------
    month : ndarray of int
        Month of each day, (days,), 1-12.
    low_c : ndarray
        Lows of the days [°C].
    high_c : ndarray
        Highs of the days [°C].
    guess : Normals
        Normals to fall back on where a month has too few days.
    """
    known = np.array([(month == m).sum() >= FEWEST_DAYS for m in range(1, 13)])
    if not known.any():
        return guess
    shift_low = np.mean([low_c[month == m + 1].mean() - guess.low_c[m] for m in np.flatnonzero(known)])
    shift_high = np.mean([high_c[month == m + 1].mean() - guess.high_c[m] for m in np.flatnonzero(known)])
    low, high, sd = guess.low_c + shift_low, guess.high_c + shift_high, guess.day_sd_k.copy()
    nights = sd * EXTREMES if guess.night_sd_k is None else guess.night_sd_k.copy()
    for m in np.flatnonzero(known):
        days = month == m + 1
        low[m], high[m] = low_c[days].mean(), high_c[days].mean()
        sd[m] = max(LEAST_SD_K, ((low_c + high_c) / 2)[days].std())
        nights[m] = max(LEAST_SD_K, low_c[days].std())
    source: Source = "record" if known.all() else guess.source
    off_k = 0.0 if known.all() else guess.off_k
    return Normals(low, high, sd, source, years=int(len(month) / 365.25 + 0.5), off_k=off_k, night_sd_k=nights)


def through_the_year(monthly: NDArray[np.float64], day_of_year: ArrayLike) -> NDArray[np.float64]:
    """Interpolate monthly values linearly from mid-month to mid-month for each day of the year.

    Parameters
    ----------
    monthly : ndarray
        Of each month, January first, (12,).
    day_of_year : array_like
        Day of the year from 1, any shape.
    """
    return np.interp(np.asarray(day_of_year, dtype=np.float64), MID_MONTH_DAY, monthly, period=365.25)
