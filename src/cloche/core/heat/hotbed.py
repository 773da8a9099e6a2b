"""A hotbed from what it was built of: how much heat, how soon, for how long.

Common practice, no source: trodden hay and dung reach about 30 °C within a fortnight and fade over weeks; hollow stems keep
air in it; too dry it does not start, too wet it sours; a larger heap keeps its heat, insulated edges help. The numbers are
assumptions, and a bed's own readings correct all three of power, rise and fade.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import sqrt

from cloche.core.errors import OutOfRange
from cloche.core.soil.bed import Heating

USUAL_DEPTH_M, USUAL_POWER_W_M2 = 0.6, 240.0
"""So much reaches about 30 °C at 10 cm under glass at the end of winter (fitted to the practice above)."""
MATERIALS = {
    # name: (share of the usual power, days to rise, days to fade)
    "horse": (1.00, 4.0, 40.0),
    "hay": (0.95, 5.0, 38.0),
    "leaves": (0.60, 8.0, 70.0),
    "compost": (0.75, 3.0, 25.0),
}
MOIST = {"dry": (0.45, 2.0), "moist": (1.0, 1.0), "wet": (0.7, 1.5)}
"""Share of the power, and times the days to rise."""
TRODDEN = {"loose": (1.10, 0.7, 0.65), "firm": (1.0, 1.0, 1.0), "hard": (0.75, 1.5, 1.2)}
"""Share of the power, times the days to rise and to fade: loose is hot and short."""
EDGE_M, INSULATED_EDGE_M = 0.16, 0.07
"""So much of the heap along its edges gives its heat to the outside."""


@dataclass(frozen=True)
class Build:
    """Keys of MATERIALS, MOIST, TRODDEN; depth_m of material; soil_m of earth on top; length_m, width_m; insulated edges."""

    material: str
    depth_m: float
    length_m: float
    width_m: float
    moist: str
    trodden: str
    insulated: bool
    soil_m: float


def heating_of(build: Build, filled_h: float, topped_h: float | None = None) -> Heating:
    """The heat source that it makes; raises OutOfRange for a heap of no size."""
    if min(build.depth_m, build.length_m, build.width_m) <= 0:
        raise OutOfRange("A hotbed has a length, a width and a depth.")
    share, rise_d, fade_d = MATERIALS[build.material]
    moist_share, moist_rise = MOIST[build.moist]
    trodden_share, trodden_rise, trodden_fade = TRODDEN[build.trodden]
    deep = build.depth_m / USUAL_DEPTH_M
    power = USUAL_POWER_W_M2 * share * moist_share * trodden_share * deep * core_share(build) / core_share(USUAL)
    fading = (rise_d * moist_rise * trodden_rise, fade_d * trodden_fade * sqrt(deep))
    return Heating(power, build.soil_m + build.depth_m / 4, fading_d=fading, filled_h=filled_h, topped_h=topped_h)


def core_share(build: Build) -> float:
    """Share of the heap that lies within its edges, 0-1."""
    edge = INSULATED_EDGE_M if build.insulated else EDGE_M
    across = max(build.width_m - 2 * edge, 0.0) / build.width_m
    return max(across * max(build.length_m - 2 * edge, 0.0) / build.length_m, 0.05)


USUAL = Build("horse", USUAL_DEPTH_M, 2.0, 1.2, "moist", "firm", True, 0.15)
