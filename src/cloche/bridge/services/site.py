"""A garden’s site: its climate, its towns, its frosts."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np
import tzfpy

from cloche.bridge.values import border
from cloche_engine.forecast.frosts import frost_dates, frosts_of
from cloche_engine.results import FrostDates
from cloche_engine.site.estimate import height_at, normals_at
from cloche_engine.site.region import region_at, shipped
from cloche_engine.site.towns import Town, find, nearest

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
