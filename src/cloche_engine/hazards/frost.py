"""What a night of frost does to crops, and how sure one is of it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.hazards.air_limits import Stage, cold_c

MARKS_WITHIN_K = 1.0
"""So far about its limit a crop is marked rather than killed: plants differ, and so do corners of a bed (assumption)."""
ROOTS_KEEP_K = 4.0
"""So far beyond the limit of its leaves a plant still comes again whose growing point lies below ground (assumption)."""


class Harm(StrEnum):
    """Damage from one night."""

    UNHURT = "unhurt"
    MARKED = "marked"
    REGROWS = "regrows"
    LOST = "lost"


def harm(crop: Crop, stage: Stage, coldest_c: float) -> Harm:
    """Return the damage of a night's frost to plants at a stage.

    Parameters
    ----------
    stage : Stage
        Stage of growth.
    coldest_c : float
        What the plants felt [°C].
    """
    limit_c = cold_c(crop, stage)
    if limit_c is None or coldest_c > limit_c + MARKS_WITHIN_K:
        return Harm.UNHURT
    if coldest_c > limit_c - MARKS_WITHIN_K:
        return Harm.MARKED
    return Harm.REGROWS if _comes_again(crop, stage) and coldest_c > limit_c - ROOTS_KEEP_K else Harm.LOST


def likeliest(crop: Crop, stage: Stage, coldest_c: NDArray[np.float64]) -> tuple[Harm, float]:
    """Return the most likely damage over all members of a night, and its probability, 0-1.

    Parameters
    ----------
    stage : Stage
        Stage of growth.
    coldest_c : ndarray
        What the plants felt in the coldest hour, any shape [°C].
    """
    harms = [harm(crop, stage, float(value)) for value in coldest_c]
    best = max(Harm, key=harms.count)
    return best, harms.count(best) / len(harms)


def _comes_again(crop: Crop, stage: Stage) -> bool:
    """Return whether a crop recovers from frost.

    Tubers always do; peas, broad beans and cereals while small; sweetcorn until it is knee-high.
    """
    if crop.life.regrows == "shoots":
        return True
    return bool(crop.life.regrows) and stage is Stage.SEEDLING


Array = NDArray[np.float64]

EVENING_H, MORNING_H = 17, 33
"""A night's hours, from the midnight before it."""
MOST_RISK = 0.15
MARGIN_K = 0.0
"""So far above the limit the plan aims (chosen on made-up springs, see docs/engine.md)."""


class NightWay(StrEnum):
    """A way of protecting plants for a night; doing nothing is not one."""

    CAP_ENDS = "cap_ends"
    BLANKET = "blanket"
    FLEECE = "fleece"
    FLEECE_AND_BLANKET = "fleece_and_blanket"
    BRING_IN = "bring_in"


@dataclass(frozen=True)
class NightPlan:
    """The choice for a night.

    Attributes
    ----------
    way : int
        Number of the chosen way, 0 to leave everything as it is.
    risk, risk_left : float
        Probability of passing the limit with this way, and if nothing is done.
    coldest_c, coldest_left_c
        Median and worst case of the temperature at the plants [°C].
    holds : bool
        Whether the way is safe enough.
    """

    way: int
    risk: float
    risk_left: float
    coldest_c: tuple[float, float]
    coldest_left_c: tuple[float, float]
    holds: bool


def coldest_c(felt: Array, night: int) -> Array:
    """Return the minimum of a night, (members,) [°C].

    Night 0 is the coming one; `felt` (hours, members) starts at midnight.

    Parameters
    ----------
    felt : ndarray
        What the plants felt, (hours, members) from a midnight [°C].
    night : int
        Number of the night, 0 the coming one.
    """
    start = night * 24
    return np.asarray(felt[start + EVENING_H : start + MORNING_H].min(axis=0))


def plan_night(coldest: Array, limit_c: float, margin_k: float = MARGIN_K, most_risk: float = MOST_RISK) -> NightPlan:
    """Choose the first way that keeps the limit, or else the safest one.

    Parameters
    ----------
    coldest : ndarray
        (ways, members), in the order of the work they make.
    limit_c : float
        Temperature of the air among the plants that is not to be passed [°C].
    margin_k : float
        Distance that is kept from the limit [K].
    most_risk : float
        Most risk that is run, 0-1.
    """
    risks = (coldest < limit_c + margin_k).mean(axis=1)
    enough = np.flatnonzero(risks <= most_risk)
    way = int(enough[0]) if len(enough) else int(np.argmin(risks))
    plain = (coldest < limit_c).mean(axis=1)
    return NightPlan(way, float(plain[way]), float(plain[0]), _ends(coldest[way]), _ends(coldest[0]), bool(len(enough)))


def _ends(values: Array) -> tuple[float, float]:
    return float(np.median(values)), float(np.quantile(values, MOST_RISK))
