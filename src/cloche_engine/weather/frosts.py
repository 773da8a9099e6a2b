"""The dates of the last spring frost and the first autumn frost, from a site's own days or from its typical weather."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

from cloche_engine.layout import BAND
from cloche_engine.weather.record import DailyRecord

Array = NDArray[np.float64]

FROST_C = 0.0
MIDSUMMER = {"north": (7, 15), "south": (1, 15)}
REACH_D = 182


@dataclass(frozen=True)
class Frosts:
    """Frost dates in days from midsummer, negative before it.

    Attributes
    ----------
    spring, autumn : tuple of float or None
        10th, 50th and 90th percentile of the last spring and first autumn frost; None where less than about half the years have
        one.
    lowest_c : float
        Median of the coldest night of the year [°C].
    years : int
        Number of years.
    """

    spring: tuple[float, float, float] | None
    autumn: tuple[float, float, float] | None
    lowest_c: float
    years: int

    def last_spring(self, midsummer: date) -> date | None:
        """Return the median last frost before a midsummer.

        Parameters
        ----------
        midsummer : date
            The year's midsummer.
        """
        return None if self.spring is None else midsummer + timedelta(days=round(self.spring[1]))


def midsummer(year: int, latitude_deg: float) -> date:
    """Return the middle of the warm season that carries the year's number.

    Parameters
    ----------
    latitude_deg : float
        Latitude, north positive [°].
    """
    return date(year, *MIDSUMMER["north" if latitude_deg >= 0 else "south"])


def midsummer_after(day: date, latitude_deg: float) -> date:
    """Return the next midsummer on or after a day.

    Parameters
    ----------
    day : date
        Calendar date.
    latitude_deg : float
        Latitude, north positive [°].
    """
    this = midsummer(day.year, latitude_deg)
    return this if this >= day else midsummer(day.year + 1, latitude_deg)


def of_years(record: DailyRecord, latitude_deg: float) -> Frosts | None:
    """Return the frost dates of whole years in a daily record (days,), None if there are none.

    Parameters
    ----------
    record : DailyRecord
        Daily weather.
    latitude_deg : float
        Latitude, north positive [°].
    """
    first, last = record.first, record.first + timedelta(days=len(record) - 1)
    rows = []
    for year in range(first.year, last.year + 1):
        middle = (midsummer(year, latitude_deg) - first).days
        if middle - REACH_D >= 0 and middle + REACH_D <= len(record):
            around = record.low_c[middle - REACH_D : middle + REACH_D]
            if np.isfinite(around).all():
                rows.append(around)
    return of_lows(np.stack(rows, axis=1)) if rows else None


def of_lows(low_c: Array) -> Frosts:
    """Return the frost dates from the lows of past years.

    Parameters
    ----------
    low_c : ndarray
        (2 * REACH_D, years), midsummer in the middle.
    """
    frost = low_c < FROST_C
    before, after = frost[:REACH_D], frost[REACH_D:]
    last = np.where(before.any(axis=0), -1.0 - np.argmax(before[::-1], axis=0), np.nan)
    first = np.where(after.any(axis=0), np.argmax(after, axis=0), np.nan)
    return Frosts(_spread(last), _spread(first), float(np.median(low_c.min(axis=0))), low_c.shape[1])


def _spread(days: Array) -> tuple[float, float, float] | None:
    seen = days[np.isfinite(days)]
    if len(seen) * 2 < len(days):
        return None
    low, middle, high = np.quantile(seen, BAND)
    return float(low), float(middle), float(high)
