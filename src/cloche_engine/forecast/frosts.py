"""Frost dates of a site, weighted from its own years and its climate."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta

import numpy as np

from cloche_engine.results import FrostDates
from cloche_engine.weather.frosts import REACH_D, Frosts, midsummer, midsummer_after, of_lows, of_years
from cloche_engine.weather.normals import Normals
from cloche_engine.weather.record import DailyRecord
from cloche_engine.weather.scenarios import Known, scenarios

TYPICAL_YEARS = 300


HALF_WEIGHT_YEARS = 4.0
"""So many own years count as much as the region: the middle of four lies as far from the truth, some 6 days, as what is told
from stations (`./run bench frosts`)."""


RECORD, TYPED, REGION = "record", "typed", "region"


SEED = 20


@dataclass(frozen=True)
class SiteFrosts:
    """Frost dates of a site and what they are based on.

    Attributes
    ----------
    frosts : Frosts
        The dates in use.
    own : Frosts or None
        Dates of the site's own years; None without any.
    typical : Frosts
        Dates of its climate.
    typical_source : str
        Source of that climate.
    """

    frosts: Frosts
    own: Frosts | None
    typical: Frosts
    typical_source: str

    @property
    def source(self) -> str:
        """Source with the most weight, as in FrostDates."""
        return RECORD if self.own and self.own.years >= HALF_WEIGHT_YEARS else self.typical_source


def frosts_of(own_days: DailyRecord | None, normals: Normals, latitude_deg: float, today: date) -> SiteFrosts:
    """Return the frost dates of a site.

    own_days: its own record, NaN where days are missing; normals: as entered, or of the region.
    """
    own = of_years(own_days, latitude_deg) if own_days is not None else None
    first = midsummer(today.year, latitude_deg) - timedelta(days=REACH_D)
    unknown = np.full(2 * REACH_D, np.nan)
    known = Known(DailyRecord.of(first, unknown, unknown), np.zeros(2 * REACH_D))
    typical = of_lows(scenarios(known, normals, TYPICAL_YEARS, np.random.default_rng(SEED)).low_c)
    source = TYPED if normals.source == TYPED else REGION
    return SiteFrosts(typical if own is None else _weighed(own, typical), own, typical, source)


def _weighed(own: Frosts, typical: Frosts) -> Frosts:
    """Return a weighted mean: the more own years there are, the more they count."""
    share = own.years / (own.years + HALF_WEIGHT_YEARS)
    sides = [_between(getattr(own, side), getattr(typical, side), share) for side in ("spring", "autumn")]
    lowest_c = share * own.lowest_c + (1 - share) * typical.lowest_c
    return replace(own, spring=sides[0], autumn=sides[1], lowest_c=lowest_c)


def _between(
    own: tuple[float, float, float] | None, typical: tuple[float, float, float] | None, share: float
) -> tuple[float, float, float] | None:
    if own is None or typical is None:  # hardly any frost by one of them: the one that counts more
        return own if share >= 0.5 else typical
    early, usual, late = (share * a + (1 - share) * b for a, b in zip(own, typical, strict=True))
    return early, usual, late


def last_frost_day(frosts: Frosts, latitude_deg: float, today: date) -> float | None:
    """Return the usual last spring frost in days from today, negative if it has passed; None if there is no frost."""
    coming = frosts.last_spring(midsummer_after(today, latitude_deg))
    return None if coming is None else float((coming - today).days)


def frost_dates(site: SiteFrosts, latitude_deg: float, today: date) -> FrostDates:
    """Return the frost dates of the season around the next midsummer."""
    middle = midsummer_after(today, latitude_deg)

    def dates(days: tuple[float, float, float] | None) -> tuple[date, date, date] | None:
        if days is None:
            return None
        first, usual, last = (middle + timedelta(days=round(day)) for day in days)
        return first, usual, last

    def usual(frosts: Frosts) -> tuple[date | None, date | None]:
        spring, autumn = dates(frosts.spring), dates(frosts.autumn)
        return spring and spring[1], autumn and autumn[1]

    own = site.own
    return FrostDates(
        dates(site.frosts.spring),
        dates(site.frosts.autumn),
        round(site.frosts.lowest_c, 1),
        own.years if own else 0,
        site.source,
        own_usual=usual(own) if own else None,
        typical_usual=usual(site.typical) if own else None,
        typical_source=site.typical_source,
    )
