"""A garden’s site: its climate, its towns, its frosts."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta

import numpy as np
import tzfpy

from cloche.bridge.values import border
from cloche.bridge.values.stored import FrostDates
from cloche.core.site.estimate import height_at, normals_at
from cloche.core.site.region import region_at, shipped
from cloche.core.site.towns import Town, find, nearest
from cloche.core.weather.frosts import REACH_D, Frosts, midsummer, midsummer_after, of_lows, of_years
from cloche.core.weather.normals import Normals
from cloche.core.weather.record import DailyRecord
from cloche.core.weather.scenarios import Known, scenarios

TYPICAL_YEARS = 300
HALF_WEIGHT_YEARS = 4.0
"""So many own years count as much as the region: the middle of four lies as far from the truth, some 6 days, as what is told
from stations (`./run bench frosts`)."""
RECORD, TYPED, REGION = "record", "typed", "region"
SEED = 20


@dataclass(frozen=True)
class SiteFrosts:
    """The dates in use; what they are weighed from: the site's own years, None without any, and its typical weather, with the
    source of that."""

    frosts: Frosts
    own: Frosts | None
    typical: Frosts
    typical_source: str

    @property
    def source(self) -> str:
        """Of what counts most, as of FrostDates."""
        return RECORD if self.own and self.own.years >= HALF_WEIGHT_YEARS else self.typical_source


def frosts_of(own_days: DailyRecord | None, normals: Normals, latitude_deg: float, today: date) -> SiteFrosts:
    """own_days: measured there, nan where not; normals: typed, or of the region."""
    own = of_years(own_days, latitude_deg) if own_days is not None else None
    first = midsummer(today.year, latitude_deg) - timedelta(days=REACH_D)
    unknown = np.full(2 * REACH_D, np.nan)
    known = Known(DailyRecord.of(first, unknown, unknown), np.zeros(2 * REACH_D))
    typical = of_lows(scenarios(known, normals, TYPICAL_YEARS, np.random.default_rng(SEED)).low_c)
    source = TYPED if normals.source == TYPED else REGION
    return SiteFrosts(typical if own is None else _weighed(own, typical), own, typical, source)


def _weighed(own: Frosts, typical: Frosts) -> Frosts:
    """The more own years, the more they count."""
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
    """The usual last frost of this spring in days from today, negative when it has passed; None where there is none."""
    coming = frosts.last_spring(midsummer_after(today, latitude_deg))
    return None if coming is None else float((coming - today).days)


def frost_dates(site: SiteFrosts, latitude_deg: float, today: date) -> FrostDates:
    """Of the season about the next midsummer."""
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


SURROUNDINGS = 32
"""Cells of a quarter of a degree to each side of a point, of its map."""

__all__ = ["Surroundings", "Town", "UsualYear", "find", "height_at", "nearest", "surroundings_of", "time_zone_at", "usual_year"]


@dataclass(frozen=True)
class UsualYear:
    """Twelve mean lows and highs [°C] and the rain [mm], January first; frosts; how far all of it may be off [K]. by_region: of
    the shipped climate, else guessed from the latitude alone, without rain."""

    low_c: list[float]
    high_c: list[float]
    rain_mm: list[float]
    frosts: FrostDates
    off_k: float
    by_region: bool


@dataclass(frozen=True)
class Surroundings:
    """A map about a point: mean of the year by row from the north and column from the west, NaN for the sea [°C]; its edges
    [°]."""

    mean_c: list[list[float]]
    north_deg: float
    south_deg: float
    west_deg: float
    east_deg: float


def usual_year(latitude_deg: float, longitude_deg: float, elevation_m: float, today: date) -> UsualYear:
    """A garden's year as its region has it."""
    region = region_at(latitude_deg, longitude_deg)
    normals = normals_at(latitude_deg, longitude_deg, elevation_m)
    return UsualYear(
        low_c=normals.low_c.tolist(),
        high_c=normals.high_c.tolist(),
        rain_mm=[] if region is None else region.rain_mm.tolist(),
        frosts=frost_dates(frosts_of(None, normals, latitude_deg, today), latitude_deg, today),
        off_k=normals.off_k,
        by_region=region is not None,
    )


def time_zone_at(latitude_deg: float, longitude_deg: float) -> str:
    """The clock of a point; UTC where this machine knows none of that name."""
    name = str(tzfpy.get_tz(longitude_deg, latitude_deg))
    return name if border.is_zone(name) else "UTC"


def surroundings_of(latitude_deg: float, longitude_deg: float) -> Surroundings:
    """What lies about a point, the year's warmth of each cell of land."""
    middle_row, middle_column = round((90 - latitude_deg) * 4), round(longitude_deg * 4)
    rows = range(middle_row - SURROUNDINGS // 2, middle_row + SURROUNDINGS // 2 + 1)
    columns = range(middle_column - SURROUNDINGS, middle_column + SURROUNDINGS + 1)
    grid = shipped()
    return Surroundings(
        grid.year_mean_c(np.array(rows), np.array(columns)).tolist(),
        north_deg=90 - (rows[0] - 0.5) / 4,
        south_deg=90 - (rows[-1] + 0.5) / 4,
        west_deg=(columns[0] - 0.5) / 4,
        east_deg=(columns[-1] + 0.5) / 4,
    )
