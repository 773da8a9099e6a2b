"""How a cover must be built: the bend of a sheet, the slope of a lid, what it lets through and bears. Light: pages use it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from cloche.core.covers.bend import bend, bends_over, sheet_for, snow_strength
from cloche.core.covers.kinds import kind, kinds
from cloche.core.covers.slope import noon_gain, propped, slope_deg

BENT = tuple(key for key, cover in kinds().items() if cover.bends)
BOXES = tuple(key for key, cover in kinds().items() if cover.is_box and cover.goes_over == "bed")

__all__ = ["BENT", "BOXES", "BentSheet", "Box", "bent_over", "box_of", "narrowest", "propped", "tallest_over"]


@dataclass(frozen=True)
class BentSheet:
    """A bent sheet: how far apart its edges are set, how high it stands, the width that plants have [m];
    snow: what it bears against one bent to a half circle."""

    sheet_m: float
    spread_m: float
    height_m: float
    plantable_m: float
    snow: float


@dataclass(frozen=True)
class Box:
    """A lid on walls: slope [°], mean height [m], sun that it takes in at noon against a level lid, in midwinter and at the
    equinox, None: the sun is too low."""

    slope_deg: float
    mean_m: float
    winter: float | None
    spring: float | None


def bent_over(sheet_m: float, strip_m: float, plant_m: float, spread_m: float | None = None) -> BentSheet | None:
    """A sheet with room for plants over a strip, or set as it is told; None where it has none. Raises OutOfRange."""
    if spread_m is not None:
        bent = bend(sheet_m, spread_m)
        plantable = bent.plantable_m(plant_m)
    else:
        fit = bends_over(sheet_m, strip_m, plant_m)
        if fit is None:
            return None
        bent, plantable = fit.bend, fit.plantable_m
    return BentSheet(sheet_m, bent.spread_m, bent.height_m, plantable, snow_strength(bent, sheet_m))


def narrowest(strip_m: float, plant_m: float) -> float:
    """The narrowest sheet for a strip of plants [m]."""
    return sheet_for(strip_m, plant_m)


def tallest_over(sheet_m: float, strip_m: float) -> float:
    """How tall plants may get over a strip, however the sheet is set, to the centimetre [m]; 0: it has no room at all."""
    low, high = 0.0, sheet_m / 2
    while high - low > 0.005:
        middle = (low + high) / 2
        low, high = (middle, high) if bends_over(sheet_m, strip_m, middle) else (low, middle)
    return int(100 * low) / 100


def box_of(width_m: float, low_m: float, high_m: float, latitude_deg: float, away_deg: float) -> Box:
    """A lid that slopes from back to front. away_deg: how far it faces away from the noon sun."""
    slope, south = slope_deg(width_m, low_m, high_m), latitude_deg < 0
    winter, spring = (date(2001, 6, 21), date(2001, 9, 23)) if south else (date(2001, 12, 21), date(2001, 3, 21))
    gains = (noon_gain(day.timetuple().tm_yday, latitude_deg, slope, away_deg) for day in (winter, spring))
    return Box(slope, (low_m + high_m) / 2, *gains)


def lasts(key: str, age_y: float) -> tuple[float, float, float]:
    """Of a cover so old: the share of the sun that it lets through, that of a new one, and the years that are left to it."""
    cover = kind(key)
    return cover.aged(age_y).solar, cover.solar, cover.lasts_y - age_y
