"""How alive a lot of seed is, as the rooms see it. Light: pages use it."""

from __future__ import annotations

from collections.abc import Iterable

from cloche.core.crops.catalogue import Crop
from cloche.core.crops.lots import FRESH_RATE, Viability, by_age, viability


def viability_of(crop: Crop, age_y: int | None, trials: Iterable[tuple[int, int, float]]) -> Viability:
    """See core.crops.lots; age_y None: not known, taken as fresh."""
    return viability(FRESH_RATE if age_y is None else by_age(crop, age_y), trials)
