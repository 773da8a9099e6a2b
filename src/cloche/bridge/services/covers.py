"""Choosing, building and opening covers."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from cloche.bridge.services import crops
from cloche.bridge.services.offered import cover_names as names
from cloche.bridge.services.offered import is_box
from cloche.bridge.values.texts import say
from cloche_engine.covers.bend import Bend, bend, bends_over, sheet_for, snow_strength
from cloche_engine.covers.kinds import kind, kinds
from cloche_engine.covers.slope import noon_gain, propped, slope_deg
from cloche_engine.hazards.air_limits import off_night_c
from cloche_engine.protection.timetable import WARMED_D, Covered, OffBy, OffRule, Timetable, ends_night_c, timetable

__all__ = [
    "BENT",
    "BOXES",
    "OFTEN",
    "SELF_AIRING",
    "WARMED_D",
    "BentSheet",
    "Box",
    "OffBy",
    "OffRule",
    "Timetable",
    "bends",
    "bent_over",
    "box_of",
    "covered_timetable",
    "drawn_as",
    "for_beds",
    "grounds",
    "is_box",
    "lasts_y",
    "lies",
    "light",
    "name_of",
    "names",
    "narrowest",
    "nights_wanted",
    "ownable",
    "propped",
    "shape",
    "tallest_over",
    "with_a_layer_more",
    "with_article",
]


OFTEN = tuple(kind.key for kind in sorted(kinds().values(), key=lambda kind: kind.common) if kind.common)
"""What growers could get, the commonest first."""
SELF_AIRING = tuple(key for key, kind in kinds().items() if not kind.opened)
"""What nobody opens on a sunny day."""


def grounds() -> list[tuple[str, str]]:
    """Return keys and names of the ground treatments offered in the sandbox; they can be combined."""
    return [
        ("mulch", say("straw mulch")),
        ("stones", say("dark stones on it")),
        ("heap", say("over a compost heap")),
        ("film_on_soil", say("clear film on it")),
        ("black_film", say("black film on it")),
    ]


def drawn_as(key: str) -> str:
    """Return the shape used to draw a kind of cover in a cross-section."""
    return kind(key).drawn_as


def name_of(key: str) -> str:
    """Return the name of a kind of cover."""
    return say(kind(key).name) if key in kinds() else key


def for_beds() -> list[tuple[str, str]]:
    """Return keys and names of the covers that go over an open bed."""
    return [(key, name) for key, name in names() if kind(key).goes_over == "bed"]


def ownable() -> list[tuple[str, str]]:
    """Return keys and names of the covers that can be owned as one item; two layers are two items."""
    return [(key, name) for key, name in names() if not kind(key).parts]


def with_a_layer_more(key: str) -> dict[str, str]:
    """Return the covers that can be combined with this one: the key of the combination mapped to the added cover."""
    both = [kind for kind in kinds().values() if key in kind.parts]
    return {kind.key: kind.parts[1 - kind.parts.index(key)] for kind in both}


def with_article(key: str) -> str:
    """Return the name as used in a sentence, such as "a cold frame with glass" or "clear film on the soil"."""
    return say(kind(key).with_article) if key in kinds() else key


def bends(key: str) -> bool:
    """Return whether a cover is a sheet bent over the bed."""
    return kind(key).bends


def shape(key: str, sheet_m: float, spread_m: float | None) -> Bend | None:
    """Return the geometry of a bent sheet, or None for a cover that is not bent or has no spread given.

    Raises OutOfRange.
    """
    return bend(sheet_m, spread_m) if bends(key) and spread_m else None


def light(key: str, age_y: float, dirty: bool) -> float:
    """Return the share of sunlight that a cover transmits at its age and with its dirt, 0-1."""
    return kind(key).aged(age_y, dirty).solar


def lasts_y(key: str) -> float:
    """Return the usual service life of a cover in years."""
    return kind(key).lasts_y


def lies(key: str) -> bool:
    """Return whether a cover is a film that stays flat on the ground."""
    return kind(key).lies_on_soil


def covered_timetable(
    crop_key: str, up_d: int, touches_d: int | None, bare_up_d: int | None, even_low_c: Sequence[float], rule: str
) -> Timetable:
    """Return the days on which a cover over a crop is put on, opened and taken off.

    Days are counted from the first night given; `rule` is the garden's rule for removal.
    """
    covered = Covered(crops.crop(crop_key), up_d, touches_d, bare_up_d)
    return timetable(covered, np.asarray(even_low_c, dtype=np.float64), OffRule(rule))


def nights_wanted(crop_key: str) -> tuple[float, float]:
    """Return the night temperatures from which a crop needs the cover only with open ends, and not at all [°C]."""
    crop = crops.crop(crop_key)
    return ends_night_c(crop), off_night_c(crop)


BENT = tuple(key for key, cover in kinds().items() if cover.bends)
BOXES = tuple(key for key, cover in kinds().items() if cover.is_box and cover.goes_over == "bed")


@dataclass(frozen=True)
class BentSheet:
    """Geometry and strength of a bent sheet.

    Distance between its edges, height and usable planting width [m]; `snow` compares its snow load with that of a
    semicircular arch.
    """

    sheet_m: float
    spread_m: float
    height_m: float
    plantable_m: float
    snow: float


@dataclass(frozen=True)
class Box:
    """Geometry and light of a sloping lid on walls.

    Slope [°], mean height [m], and noon sunlight relative to a level lid in midwinter and at the equinox; None where the sun
    is too low.
    """

    slope_deg: float
    mean_m: float
    winter: float | None
    spring: float | None


def bent_over(sheet_m: float, strip_m: float, plant_m: float, spread_m: float | None = None) -> BentSheet | None:
    """Return a bent sheet with room for plants over a strip, or with the given spread.

    None where it has no room. Raises OutOfRange.
    """
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
    """Return the width of the narrowest sheet that covers a strip of plants [m]."""
    return sheet_for(strip_m, plant_m)


def tallest_over(sheet_m: float, strip_m: float) -> float:
    """Return the greatest plant height possible over a strip with the best spread, to the centimetre [m]; 0 for no room."""
    low, high = 0.0, sheet_m / 2
    while high - low > 0.005:
        middle = (low + high) / 2
        low, high = (middle, high) if bends_over(sheet_m, strip_m, middle) else (low, middle)
    return int(100 * low) / 100


def box_of(width_m: float, low_m: float, high_m: float, latitude_deg: float, away_deg: float) -> Box:
    """Return the geometry of a lid that slopes from back to front.

    `away_deg` is the angle between its front and the noon sun.
    """
    slope, south = slope_deg(width_m, low_m, high_m), latitude_deg < 0
    winter, spring = (date(2001, 6, 21), date(2001, 9, 23)) if south else (date(2001, 12, 21), date(2001, 3, 21))
    gains = (noon_gain(day.timetuple().tm_yday, latitude_deg, slope, away_deg) for day in (winter, spring))
    return Box(slope, (low_m + high_m) / 2, *gains)


def lasts(key: str, age_y: float) -> tuple[float, float, float]:
    """Return a cover's current transmittance, its transmittance when new and its remaining service life in years."""
    cover = kind(key)
    return cover.aged(age_y).solar, cover.solar, cover.lasts_y - age_y
