"""How even a bench's heat is, and what a spreading layer would make of it."""

from __future__ import annotations

from collections.abc import Sequence
from math import exp, log, pi

USUAL_SPACING_M = 0.10
EVEN_K = 2.0
"""So much between the warmest and the coldest spot is even enough (assumption)."""


def spread_k(spots: Sequence[float | None]) -> float | None:
    """Between the warmest and the coldest spot that was read [K]; None: too few.

    Parameters
    ----------
    spots : Sequence[float | None]
        Temperatures [°C].

    Returns
    -------
    float | None
    """
    known = [spot for spot in spots if spot is not None]
    return max(known) - min(known) if len(known) > 1 else None


def evened(layer_m: float, spacing_m: float = USUAL_SPACING_M) -> float:
    """Share of warm stripes that is left above a layer: the steady solution of heat conduction over a row of wires, whose first
    wave falls off by exp(-2 pi h / s).

    Parameters
    ----------
    layer_m : float
        Thickness above the wires [m].
    spacing_m : float
        Between the wires [m].

    Returns
    -------
    float
    """
    return exp(-2 * pi * layer_m / spacing_m)


def layer_for(spread: float, spacing_m: float = USUAL_SPACING_M) -> float:
    """Layer that brings a spread down to EVEN_K [m]; 0 where it is even.

    Parameters
    ----------
    spread : float
        Between the warmest and the coldest spot [K].
    spacing_m : float
        Between the wires [m].

    Returns
    -------
    float
    """
    return max(log(spread / EVEN_K), 0.0) * spacing_m / (2 * pi) if spread > 0 else 0.0
