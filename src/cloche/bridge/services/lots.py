"""How alive a lot of seed is, and what a garden's counted batches tell of all its sowings, as the rooms see it. Light: pages
use it."""

from __future__ import annotations

from collections.abc import Iterable

from cloche.core.crops.catalogue import Crop
from cloche.core.crops.lots import FRESH_RATE, Viability, by_age, viability
from cloche.core.germination.pooling import pooled_pace, pooled_stand

__all__ = ["pooled_pace", "pooled_stand", "viability_of"]


def viability_of(crop: Crop, age_y: int | None, trials: Iterable[tuple[int, int, float]]) -> Viability:
    """See core.crops.lots; age_y None: not known, taken as fresh."""
    return viability(FRESH_RATE if age_y is None else by_age(crop, age_y), trials)
