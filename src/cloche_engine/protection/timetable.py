"""When what stands under a cover wants it shut, vented, open at its ends, and off.

Days are counted from the first night of the lows given.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.hazards.air_limits import Stage, cold_c, off_night_c
from cloche_engine.windows.limits import SEEDLING_D

Array = NDArray[np.float64]

WARMED_D = 14
"""A cover goes on so many days before a sowing, to warm and dry the ground (common practice, no source)."""
HALFWAY = 0.5
"""Ends are opened for good once nights stay halfway between what the crop bears and what it wants bare (assumption)."""


class OffRule(StrEnum):
    """A grower's rule for removing a cover."""

    NIGHTS = "nights"
    HEIGHT = "height"
    ESTABLISHED = "established"
    HEAT = "heat"


class OffBy(StrEnum):
    """What determines the day on which a cover is removed."""

    NIGHTS = "nights"
    HEIGHT = "height"
    ESTABLISHED = "established"
    BARE = "bare"


@dataclass(frozen=True)
class Covered:
    """A crop under a cover, in days from today; None for not in sight.

    Attributes
    ----------
    up_d : int
        Emergence or planting out, negative if it has happened.
    touches_d : int or None
        Day on which it touches the roof.
    bare_up_d : int or None
        Emergence of an uncovered sowing on its first reliable day.
    """

    crop: Crop
    up_d: int
    touches_d: int | None = None
    bare_up_d: int | None = None


@dataclass(frozen=True)
class Timetable:
    """Dates of a cover, in days from today; None for not in sight.

    Attributes
    ----------
    vent_d, ends_d, off_d : int or None
        From when it is opened on sunny days, from when its ends stay open, and when it is removed.
    off_by : OffBy or None
        What determines `off_d`.
    too_low_d : int
        Days between touching the roof and `off_d`, 0 if it is removed in time.
    """

    vent_d: int
    ends_d: int | None
    off_d: int | None
    off_by: OffBy | None
    too_low_d: int


def off_from(even_low_c: Array, wanted_c: float, first: int = 0) -> float:
    """Return the first day, from one on, after which probably no night of a week is colder than required; inf for none.

    Parameters
    ----------
    even_low_c : ndarray
        As even_lows_c gives them [°C].
    wanted_c : float
        Nights that the crop wants [°C].
    first : int
        The first day that counts.
    """
    stays = np.flatnonzero(even_low_c[first:] >= wanted_c)
    return float(first + stays[0]) if len(stays) else float("inf")


def ends_night_c(crop: Crop) -> float:
    """Return the night temperature at which a cover with open ends is sufficient [°C].

    Returns
    -------
    float
        [°C].
    """
    bears = cold_c(crop, Stage.SEEDLING) or 0.0
    wants = off_night_c(crop)
    return bears + HALFWAY * max(wants - bears, 0.0)


def timetable(covered: Covered, even_low_c: Array, rule: OffRule) -> Timetable:
    """Return the dates of a cover over a crop by the grower's rule.

    It is never removed later than an uncovered sowing of the same crop would be up.

    Heat cannot be foretold for months: by that rule a cover comes off when nights allow it, at the latest.

    Parameters
    ----------
    covered : Covered
        The crop and its days.
    even_low_c : ndarray
        By night, the lowest of the week from then on that is as likely as not passed, (nights,) [°C] (see `even_lows_c`).
    rule : OffRule
        How the grower decides.
    """
    # What is up already has its next days ahead of it, not behind.
    up = max(covered.up_d, 0)
    ends = off_from(even_low_c, ends_night_c(covered.crop), up)
    by: dict[OffBy, float] = {}
    if rule is OffRule.HEIGHT:
        by[OffBy.HEIGHT] = _day(covered.touches_d)
    elif rule is OffRule.ESTABLISHED:
        by[OffBy.ESTABLISHED] = max(covered.up_d + SEEDLING_D, 0)
    else:
        by[OffBy.NIGHTS] = off_from(even_low_c, off_night_c(covered.crop), up)
    if covered.bare_up_d is not None:
        by[OffBy.BARE] = max(covered.bare_up_d, up)
    off_by = min(by, key=lambda each: by[each])
    off = by[off_by]
    if off == float("inf"):
        return Timetable(up, _day_or_none(ends), None, None, 0)
    too_low = max(off - _day(covered.touches_d), 0.0)
    return Timetable(up, _day_or_none(min(ends, off)), int(off), off_by, int(too_low))


def _day(day: int | None) -> float:
    return float("inf") if day is None else float(day)


def _day_or_none(day: float) -> int | None:
    return int(day) if day != float("inf") else None
