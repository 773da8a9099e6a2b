"""The three schools of when to sow, as rules over the same numbers, and what each would cost.

*At the minimum*: as soon as the soil most likely reaches the crop's minimum. *Comfortable*: once it surely lies inside the
crop's range. *By the calendar*: so many days about the usual last frost, whatever the soil says (common practice, no source).
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from cloche.core.crops.catalogue import HALF_A_DEGREE_F, Crop
from cloche.core.windows.limits import HALF, Limit, longest_lie_d
from cloche.core.windows.outlook import Outlook

CALENDAR_D = {"hardy": -35, "half-hardy": -14, "tender": 10}
"""Days after the usual last frost (common practice, no source)."""
LIKELY, SURE = 0.5, 0.8
MISSED_D = 60
"""A calendar date missed by more than this belongs to another season."""


class School(StrEnum):
    """How a grower decides when to sow."""

    MINIMUM = "minimum"
    COMFORTABLE = "comfortable"
    CALENDAR = "calendar"


@dataclass(frozen=True)
class Choice:
    """The day on which a school would sow, and what comes of it. day: None where it would not within the days looked at.

    fails 0-1; soil_c, the middle scenario's; half_d, share: as of the outlook; lost_d: days later up than the school that is up
    first, failures sown again counted; limit: what it mostly fails by. Of the seed, the share `fails` is lost on average.
    """

    school: School
    day: int | None
    fails: float = 1.0
    soil_c: float = float("nan")
    half_d: float = float("inf")
    share: float = 0.0
    lost_d: float = 0.0
    limit: Limit | None = None


def compare(outlook: Outlook, last_frost_day: float | None) -> list[Choice]:
    """All three. last_frost_day: the usual last spring frost in days from day 0, negative when past; None: never any."""
    crop = outlook.crop
    if crop.winter or not len(outlook.days_to):
        return []
    found = {
        School.MINIMUM: _first(outlook, _share_above(outlook, crop.minimum_c) >= LIKELY),
        School.COMFORTABLE: _first(outlook, _comfortable(outlook) >= SURE),
        School.CALENDAR: _by_calendar(outlook, last_frost_day),
    }
    up = {school: _expected_up(outlook, index) for school, index in found.items() if index is not None}
    soonest = min(up.values(), default=0.0)
    return [
        Choice(school, None) if index is None else _choice(outlook, school, index, up[school] - soonest)
        for school, index in found.items()
    ]


def _share_above(outlook: Outlook, limit_c: float) -> np.ndarray:
    return np.asarray((outlook.soil_c >= limit_c - HALF_A_DEGREE_F).mean(axis=1))


def _comfortable(outlook: Outlook) -> np.ndarray:
    crop: Crop = outlook.crop
    inside = (outlook.soil_c >= crop.optimum_from_c - HALF_A_DEGREE_F) & (outlook.soil_c <= crop.optimum_to_c + HALF_A_DEGREE_F)
    return np.asarray(inside.mean(axis=1))


def _first(outlook: Outlook, meets: np.ndarray) -> int | None:
    return int(np.argmax(meets)) if meets.any() else None


def _by_calendar(outlook: Outlook, last_frost_day: float | None) -> int | None:
    wanted = 0.0 if last_frost_day is None else last_frost_day + CALENDAR_D[outlook.crop.hardiness]
    if wanted < -MISSED_D or wanted > outlook.day[-1]:
        return None
    return int(np.searchsorted(outlook.day, max(wanted, 0.0)))


def _choice(outlook: Outlook, school: School, index: int, lost_d: float) -> Choice:
    fails = 1 - float(outlook.success[index])
    limit = max(outlook.failing, key=lambda each: float(outlook.failing[each][index])) if fails >= 0.05 else None
    half_d, share = float(outlook.days_to[HALF, 1, index]), float(outlook.share[1, index])
    return Choice(school, int(outlook.day[index]), fails, float(outlook.soil_mid_c[index]), half_d, share, lost_d, limit)


def _expected_up(outlook: Outlook, index: int) -> float:
    """Day on which half are up on average, where what fails is noticed and sown again."""
    day, lie_d = float(outlook.day[index]), longest_lie_d(outlook.crop)
    fails, half_d = 1 - float(outlook.success[index]), float(outlook.days_to[HALF, 1, index])
    first = day + min(half_d, lie_d)
    again = min(int(np.searchsorted(outlook.day, day + lie_d)), len(outlook.day) - 1)
    second = day + lie_d + min(float(outlook.days_to[HALF, 1, again]), lie_d)
    return (1 - fails) * first + fails * second
