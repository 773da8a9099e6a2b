"""A hotbed from what it was built of: how much heat, how soon, for how long.

Common practice, no source: in its first flush, the third to the seventh day, the heap's core reaches 50 to 65 °C, and one
waits until the soil on it is below 27 to 30; after a fortnight trodden hay and dung hold about 30 °C and fade over weeks;
hollow stems keep air in it; too dry it does not start, too wet it sours; a larger heap keeps its heat, insulated edges help.
The numbers are assumptions, and a bed's own readings correct all three of power, rise and fade.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import sqrt

from cloche_engine.errors import OutOfRange
from cloche_engine.heat.source import Heating

USUAL_DEPTH_M, USUAL_POWER_W_M2 = 0.6, 260.0
"""So much reaches about 30 °C at 10 cm under glass after a fortnight at the end of winter (fitted to the practice above)."""
MATERIALS = {
    # name: (share of the usual power, days to rise, days to fade, first flush over the lasting power)
    "horse": (1.00, 4.0, 40.0, 0.7),
    "hay": (1.00, 4.5, 40.0, 0.6),
    "leaves": (0.60, 8.0, 70.0, 0.1),
    "compost": (0.75, 3.0, 25.0, 0.7),
}
MOIST = {"dry": (0.45, 2.0), "moist": (1.0, 1.0), "wet": (0.7, 1.5)}
"""Share of the power, and times the days to rise."""
TRODDEN = {"loose": (1.10, 0.8, 0.65, 1.2), "firm": (1.0, 1.0, 1.0, 1.0), "hard": (1.0, 1.3, 1.2, 0.5)}
"""Share of the power, times the days to rise and to fade and the first flush: loose is hot and short, hard slow and even."""
EDGE_M, INSULATED_EDGE_M = 0.16, 0.07
"""So much of the heap along its edges gives its heat to the outside."""


@dataclass(frozen=True)
class Build:
    """How a hotbed is built.

    Attributes
    ----------
    material, moist, trodden : str
        Keys of MATERIALS, MOIST and TRODDEN.
    depth_m, soil_m, length_m, width_m : float
        Depth of the material, soil on top, and size [m].
    insulated : bool
        Whether the edges are insulated.
    """

    material: str
    depth_m: float
    length_m: float
    width_m: float
    moist: str
    trodden: str
    insulated: bool
    soil_m: float


def heating_of(build: Build, filled_h: float, topped_h: float | None = None) -> Heating:
    """Return the heat source that the hotbed makes.

    Parameters
    ----------
    build : Build
        How the hotbed was built: material, depth, area.
    filled_h : float
        Hour at which it was filled.
    topped_h : float | None
        Hour at which it was topped up; None: never.

    Raises
    ------
    OutOfRange
        For a heap of no size.
    """
    if min(build.depth_m, build.length_m, build.width_m) <= 0:
        raise OutOfRange("A hotbed has a length, a width and a depth.")
    share, rise_d, fade_d, flush = MATERIALS[build.material]
    moist_share, moist_rise = MOIST[build.moist]
    trodden_share, trodden_rise, trodden_fade, trodden_flush = TRODDEN[build.trodden]
    deep = build.depth_m / USUAL_DEPTH_M
    power = USUAL_POWER_W_M2 * share * moist_share * trodden_share * deep * core_share(build) / core_share(USUAL)
    fading = (rise_d * moist_rise * trodden_rise, fade_d * trodden_fade * sqrt(deep))
    heat = {"fading_d": fading, "flush": flush * trodden_flush, "filled_h": filled_h, "topped_h": topped_h}
    heat |= {"during": (filled_h, float("inf"))}
    return Heating(power, core_m(build), **heat)  # type: ignore[arg-type]


def core_m(build: Build) -> float:
    """Return the depth at which a hotbed is hottest, where its heat enters the column [m].

    Parameters
    ----------
    build : Build
        How the hotbed was built: material, depth, area.
    """
    return build.soil_m + build.depth_m / 4


def core_share(build: Build) -> float:
    """Return the fraction of the heap that lies inside its edges, 0-1.

    Parameters
    ----------
    build : Build
        How the hotbed was built: material, depth, area.
    """
    edge = INSULATED_EDGE_M if build.insulated else EDGE_M
    across = max(build.width_m - 2 * edge, 0.0) / build.width_m
    return max(across * max(build.length_m - 2 * edge, 0.0) / build.length_m, 0.05)


USUAL = Build("horse", USUAL_DEPTH_M, 2.0, 1.2, "moist", "firm", True, 0.15)
