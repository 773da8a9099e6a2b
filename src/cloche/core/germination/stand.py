"""Of live seed that could come up where it lies, what does: crust, slugs, mice, birds and rot take the rest.

Apart from whether seed is alive: a poor stand of a good lot must not blame the seed.
"""

from __future__ import annotations

from cloche.core.crops.catalogue import Crop

SMALL_STANDS, LARGE_STANDS, SET_STANDS, BENCH_STANDS = 0.7, 0.8, 0.95, 0.95
"""Share that comes through in a garden's bed of small seed, of large seed, of sets and tubers; of any on a bench. Field
factors of handbooks lie at 0.5-0.8 (from memory)."""
SMALL_M = 0.016
"""Seed that is sown no deeper is small."""
STAND_LOG_SD = 0.22
"""How far gardens and weeks differ (assumption)."""


def stands(crop: Crop, bench: bool = False) -> float:
    """Share of live seed that comes through, 0-1, where soil and depth suit it.

    Parameters
    ----------
    crop : Crop
        The crop.
    bench : bool
        Whether it stands on a bench, where nothing crusts or eats it.

    Returns
    -------
    float
    """
    if bench:
        return BENCH_STANDS
    if crop.start != "seed":
        return SET_STANDS
    return SMALL_STANDS if crop.sowing_depth_m <= SMALL_M else LARGE_STANDS
