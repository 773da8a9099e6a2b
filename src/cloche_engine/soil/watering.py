"""Water on a tray: how far the roots dip, and how long they take to come back."""

from __future__ import annotations

from math import log

from cloche_engine.soil.materials import TEXTURES, WATER_J_M3K, heat_capacity_j_m3k

LITRE_M3 = 0.001
PASSES_W_M2K = 11.0
"""What a tray of usual depth passes to the air about it on all sides (assumption)."""
NEAR_K = 1.0
COLD_TAP_C, TEMPERED_C = 8.0, 20.0
"""Water from a cold butt or tap in winter; what some growers warm it to (common practice, no source)."""


def dipped_c(roots_c: float, water_c: float, litres: float, area_m2: float, depth_m: float) -> float:
    """Return the root temperature just after watering, by heat balance [°C].

    Parameters
    ----------
    roots_c : float
        Roots before [°C].
    water_c : float
        The water [°C].
    litres : float
        How much.
    area_m2 : float
        Of the tray [m²].
    depth_m : float
        Of its mix [m].
    """
    mix = heat_capacity_j_m3k(TEXTURES["potting"], TEXTURES["potting"].moist) * area_m2 * depth_m
    water = WATER_J_M3K * LITRE_M3 * litres
    return (mix * roots_c + water * water_c) / (mix + water)


def back_h(dip_k: float, depth_m: float) -> float:
    """Return the hours until the roots are within 1 K of their former temperature.

    Parameters
    ----------
    dip_k : float
        How far they fell [K].
    depth_m : float
        Depth of the mix [m].
    """
    if dip_k <= NEAR_K:
        return 0.0
    held = heat_capacity_j_m3k(TEXTURES["potting"], TEXTURES["potting"].moist) * depth_m
    return held / PASSES_W_M2K / 3600 * log(dip_k / NEAR_K)
