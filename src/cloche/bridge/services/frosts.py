"""The site's frost dates: from its own years where it has enough, else from its typical weather."""

from __future__ import annotations

from datetime import date, timedelta

import numpy as np

from cloche.bridge.values.stored import FrostDates
from cloche.core.weather.frosts import REACH_D, Frosts, midsummer, midsummer_after, of_lows, of_years
from cloche.core.weather.normals import Normals
from cloche.core.weather.record import DailyRecord
from cloche.core.weather.scenarios import Known, Past, scenarios

FEWEST_YEARS, TYPICAL_YEARS = 5, 300
RECORD, TYPED, REGION = "record", "typed", "region"
SEED = 20


def frosts_of(past: Past | None, normals: Normals, latitude_deg: float, today: date) -> tuple[Frosts, str]:
    """The dates, and their source, as of FrostDates."""
    own = of_years(past.record, latitude_deg) if past else None
    if own is not None and own.years >= FEWEST_YEARS:
        return own, RECORD
    first = midsummer(today.year, latitude_deg) - timedelta(days=REACH_D)
    unknown = np.full(2 * REACH_D, np.nan)
    known = Known(DailyRecord.of(first, unknown, unknown), np.zeros(2 * REACH_D))
    typical = scenarios(known, normals, TYPICAL_YEARS, np.random.default_rng(SEED))
    return of_lows(typical.low_c), TYPED if normals.source == TYPED else REGION


def last_frost_day(frosts: Frosts, latitude_deg: float, today: date) -> float | None:
    """The usual last frost of this spring in days from today, negative when it has passed; None where there is none."""
    coming = frosts.last_spring(midsummer_after(today, latitude_deg))
    return None if coming is None else float((coming - today).days)


def frost_dates(frosts: Frosts, source: str, latitude_deg: float, today: date) -> FrostDates:
    """Of the season about the next midsummer. source: as of FrostDates."""
    middle = midsummer_after(today, latitude_deg)

    def dates(days: tuple[float, float, float] | None) -> tuple[date, date, date] | None:
        if days is None:
            return None
        first, usual, last = (middle + timedelta(days=round(day)) for day in days)
        return first, usual, last

    return FrostDates(
        dates(frosts.spring), dates(frosts.autumn), round(frosts.lowest_c, 1), frosts.years if source == RECORD else 0, source
    )
