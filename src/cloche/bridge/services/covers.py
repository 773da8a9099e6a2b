"""Kinds of cover and their shapes as the rooms see them. Light: pages use it."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from cloche.bridge.services import crops
from cloche.bridge.services.offered import cover_names as names
from cloche.bridge.services.offered import is_box
from cloche.bridge.values.texts import say
from cloche.core.covers.bend import Bend, bend
from cloche.core.covers.kinds import kind, kinds
from cloche.core.hazards.air_limits import off_night_c
from cloche.core.protection.timetable import WARMED_D, Covered, OffBy, OffRule, Timetable, ends_night_c, timetable

OFTEN = tuple(kind.key for kind in sorted(kinds().values(), key=lambda kind: kind.common) if kind.common)
"""What growers could get, the commonest first."""
SELF_AIRING = tuple(key for key, kind in kinds().items() if not kind.opened)
"""What nobody opens on a sunny day."""

__all__ = [
    "OFTEN",
    "SELF_AIRING",
    "WARMED_D",
    "OffBy",
    "OffRule",
    "Timetable",
    "bends",
    "drawn_as",
    "for_beds",
    "grounds",
    "is_box",
    "lasts_y",
    "lies",
    "light",
    "name_of",
    "names",
    "ownable",
]
__all__ += ["covered_timetable", "nights_wanted", "shape", "with_a_layer_more", "with_article"]


def grounds() -> list[tuple[str, str]]:
    """What can be done to the sandbox's bed, any of it at once."""
    return [
        ("mulch", say("straw on it")),
        ("stones", say("dark stones on it")),
        ("heap", say("over a compost heap")),
        ("film_on_soil", say("clear film on it")),
        ("black_film", say("black film on it")),
    ]


def drawn_as(key: str) -> str:
    """The shape in which a kind is drawn over a slice of ground."""
    return kind(key).drawn_as


def name_of(key: str) -> str:
    """What a kind is called."""
    return say(kind(key).name) if key in kinds() else key


def for_beds() -> list[tuple[str, str]]:
    """Keys and names of the covers that go over a bed in the open."""
    return [(key, name) for key, name in names() if kind(key).goes_over == "bed"]


def ownable() -> list[tuple[str, str]]:
    """Keys and names of what can be one thing in a shed: two in layers are two."""
    return [(key, name) for key, name in names() if not kind(key).parts]


def with_a_layer_more(key: str) -> dict[str, str]:
    """What a cover is together with another over or under it: keys of both as one, and of the other."""
    both = [kind for kind in kinds().values() if key in kind.parts]
    return {kind.key: kind.parts[1 - kind.parts.index(key)] for kind in both}


def with_article(key: str) -> str:
    """A cold frame with glass; clear film on the soil."""
    return say(kind(key).with_article) if key in kinds() else key


def bends(key: str) -> bool:
    """Whether it is bent over the bed."""
    return kind(key).bends


def shape(key: str, sheet_m: float, spread_m: float | None) -> Bend | None:
    """How a bent sheet stands; None for what is not bent, or where its spread is not told. Raises OutOfRange."""
    return bend(sheet_m, spread_m) if bends(key) and spread_m else None


def light(key: str, age_y: float, dirty: bool) -> float:
    """Share of the sun that it lets through by now, 0-1."""
    return kind(key).aged(age_y, dirty).solar


def lasts_y(key: str) -> float:
    """Years it usually lasts."""
    return kind(key).lasts_y


def lies(key: str) -> bool:
    """Whether it is a film upon the ground itself, which stays."""
    return kind(key).lies_on_soil


def covered_timetable(
    crop_key: str, up_d: int, touches_d: int | None, bare_up_d: int | None, even_low_c: Sequence[float], rule: str
) -> Timetable:
    """The days of a cover over a crop, counted from the first of the nights; rule: the garden's."""
    covered = Covered(crops.crop(crop_key), up_d, touches_d, bare_up_d)
    return timetable(covered, np.asarray(even_low_c, dtype=np.float64), OffRule(rule))


def nights_wanted(crop_key: str) -> tuple[float, float]:
    """Nights in which a cover with open ends is enough for a crop, and those in which it wants none [°C]."""
    crop = crops.crop(crop_key)
    return ends_night_c(crop), off_night_c(crop)
