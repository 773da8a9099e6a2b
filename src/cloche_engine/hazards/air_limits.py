"""How hot and how cold it may get among what stands in a place, by crop and stage."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from cloche_engine.crops.catalogue import Crop
from cloche_engine.windows.limits import YOUNG_NIGHT, among_plants_c

HOT_C = {"cool": 27.0, "warm": 35.0}
"""Air that sets plants of a season back when they are shut in with it (assumption; growers open from the low twenties)."""
OFF_NIGHT_C = 4.0
"""Nights in which cool-season crops need no cover any more (assumption)."""
LYING_HOT_C = 40.0
"""While seed lies in the ground only its soil counts, which stays well below the air (assumption)."""
UNKNOWN_COLD_C = -2.0
"""What most hardy and half-hardy seedlings stand, where nobody noted what grows (common practice, no source)."""


class Stage(StrEnum):
    """Stage of development of a crop."""

    LYING = "lying"
    SEEDLING = "seedling"
    GROWN = "grown"


@dataclass(frozen=True)
class Limits:
    """Limits of the air among the plants [°C].

    `cold_c` is None where nothing grows that frost could harm. `hot_by` and `cold_by` are the numbers of the crops that set
    the limits, None if nothing is recorded.
    """

    hot_c: float
    cold_c: float | None
    hot_by: int | None
    cold_by: int | None


def limits_of(grown_there: Sequence[tuple[Crop, Stage]]) -> Limits:
    """Return the strictest limits of all crops in a place.

    Where nothing is recorded, cool-season seedlings are assumed: excessive care is the cheaper mistake.

    Parameters
    ----------
    grown_there : Sequence[tuple[Crop, Stage]]
        Crops with the stage at which they stand there.
    """
    if not grown_there:
        return Limits(HOT_C["cool"], UNKNOWN_COLD_C, None, None)
    hot = [LYING_HOT_C if stage is Stage.LYING else HOT_C[crop.season] for crop, stage in grown_there]
    cold = [cold_c(crop, stage) for crop, stage in grown_there]
    feels = [i for i, value in enumerate(cold) if value is not None]
    hot_by = min(range(len(hot)), key=hot.__getitem__)
    if not feels:
        return Limits(hot[hot_by], None, hot_by, None)
    cold_by = max(feels, key=lambda i: cold[i] or 0.0)
    return Limits(hot[hot_by], cold[cold_by], hot_by, cold_by)


def cold_c(crop: Crop, stage: Stage) -> float | None:
    """Return the coldest air a crop survives at its stage [°C], the same as in windows; None before emergence.

    Parameters
    ----------
    stage : Stage
        Stage of growth.
    """
    if stage is Stage.LYING:
        return None
    return among_plants_c(crop, crop.frost_limit_c if stage is Stage.SEEDLING else crop.frost_grown_c)


def off_night_c(crop: Crop) -> float:
    """Return the night temperature a crop needs without its cover [°C].

    These are nights in which it may be planted out, or be up from seed, in the open.

    Returns
    -------
    float
        [°C].
    """
    if crop.hardiness != "tender":
        return min(max(crop.plant_night_c, 0.0), OFF_NIGHT_C)
    return crop.plant_night_c if crop.planted_out else YOUNG_NIGHT * crop.plant_night_c
