"""The morning after a frost: what a night did to a crop at its stage, by the cold that its plants felt."""

from __future__ import annotations

from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from cloche.core.crops.catalogue import Crop
from cloche.core.hazards.air_limits import Stage, cold_c

MARKS_WITHIN_K = 1.0
"""So far about its limit a crop is marked rather than killed: plants differ, and so do corners of a bed (assumption)."""
ROOTS_KEEP_K = 4.0
"""So far beyond the limit of its leaves a plant still comes again whose growing point lies below ground (assumption)."""


class Harm(StrEnum):
    """What a night did."""

    UNHURT = "unhurt"
    MARKED = "marked"
    REGROWS = "regrows"
    LOST = "lost"


def harm(crop: Crop, stage: Stage, coldest_c: float) -> Harm:
    """What a night's frost did to plants of a stage.

    Parameters
    ----------
    crop : Crop
        The crop.
    stage : Stage
        Stage of growth.
    coldest_c : float
        What the plants felt [°C].

    Returns
    -------
    Harm
    """
    limit_c = cold_c(crop, stage)
    if limit_c is None or coldest_c > limit_c + MARKS_WITHIN_K:
        return Harm.UNHURT
    if coldest_c > limit_c - MARKS_WITHIN_K:
        return Harm.MARKED
    return Harm.REGROWS if _comes_again(crop, stage) and coldest_c > limit_c - ROOTS_KEEP_K else Harm.LOST


def likeliest(crop: Crop, stage: Stage, coldest_c: NDArray[np.float64]) -> tuple[Harm, float]:
    """Over the courses that a night may have taken, (members,): the likeliest harm, and its chance, 0-1.

    Parameters
    ----------
    crop : Crop
        The crop.
    stage : Stage
        Stage of growth.
    coldest_c : ndarray
        What the plants felt in the coldest hour, any shape [°C].

    Returns
    -------
    tuple[Harm, float]
    """
    harms = [harm(crop, stage, float(value)) for value in coldest_c]
    best = max(Harm, key=harms.count)
    return best, harms.count(best) / len(harms)


def _comes_again(crop: Crop, stage: Stage) -> bool:
    """Tubers always; peas, beans of the field and cereals while they are small; corn until it is knee-high."""
    if crop.life.regrows == "shoots":
        return True
    return bool(crop.life.regrows) and stage is Stage.SEEDLING
