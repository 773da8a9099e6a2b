"""A silent row as the rooms ask about it. Light: pages use it."""

from __future__ import annotations

from collections.abc import Sequence

from cloche.bridge.services import crops
from cloche.core.germination.silent import Advice, Cause, Dug, Finding, silent

__all__ = ["Advice", "Cause", "Dug", "Finding", "came_so_far", "finding"]


def came_so_far(crop_key: str, soil_c: Sequence[float | None]) -> float:
    """How far the soil's warmth since it was sown has brought half of a crop's seed, 1: up. Days that are not known count as
    the mean of those that are; 0 where none is."""
    crop = crops.crop(crop_key)
    known = [value for value in soil_c if value is not None]
    if not known:
        return 0.0
    rates = [float(crop.rate.at(value)) for value in known]
    return sum(rates) / len(known) * len(soil_c) / crop.field_times


def finding(crop_key: str, dug: Dug, soil_c: Sequence[float | None], alive: float) -> Finding:
    """What the dig tells."""
    return silent(dug, crops.crop(crop_key).sowing_depth_m, came_so_far(crop_key, soil_c), alive)
