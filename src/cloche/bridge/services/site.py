"""Site of a garden: climate, towns and frost dates."""

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
    """Mean climate of a site by month.

    Twelve mean daily minima and maxima [°C] and rain totals [mm] from January on, with the frost dates and the possible
    error of all temperatures [K]. `by_region` is true where the shipped climatology covers the site; otherwise the values
    are guessed from the latitude alone and there is no rain.
    """

    low_c: list[float]
    high_c: list[float]
    rain_mm: list[float]
    frosts: FrostDates
    off_k: float
    by_region: bool


@dataclass(frozen=True)
class Surroundings:
    """Map of annual mean temperature around a point.

    Rows run from the north and columns from the west [°C], NaN over the sea; the edges are in degrees.
    """

    mean_c: list[list[float]]
    north_deg: float
    south_deg: float
    west_deg: float
    east_deg: float


def usual_year(latitude_deg: float, longitude_deg: float, elevation_m: float, today: date) -> UsualYear:
    """Return the climatological year of a garden's site."""
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
    """Return the name of the time zone of a point, or UTC where this machine does not know the zone."""
    name = str(tzfpy.get_tz(longitude_deg, latitude_deg))
    return name if border.is_zone(name) else "UTC"


def surroundings_of(latitude_deg: float, longitude_deg: float) -> Surroundings:
    """Return the annual mean temperature of every land cell around a point."""
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
