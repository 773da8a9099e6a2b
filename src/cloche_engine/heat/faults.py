"""Sources that have failed or warm unevenly, by what was read."""

from __future__ import annotations

from collections.abc import Sequence
from enum import StrEnum
from math import exp, log, pi

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

SLACK_K = 2.0
"""So far readings lie from a set-point before it counts: probe against probe, warm and cool corners (assumption)."""
DEAD_SHARE = 0.3
"""Less than this share of the expected lift is no heat."""
LEAST_LIFT_K = 2.5
"""Where heat would lift less than this, nothing can be told."""
FLAT_K, FLAT_READINGS, FLAT_H, MOVES_K = 0.05, 10, 12.0, 0.4
"""A logger that moves no more over so many readings and hours, where the place should move, is not in the mix."""


class Fault(StrEnum):
    """What is wrong with a heater."""

    COLD = "cold"
    HOT = "hot"
    FLAT = "flat"


def fault_of(
    hour: Array, seen_c: Array, expected_c: Array, without_c: Array, ruled: tuple[float, float] | None
) -> Fault | None:
    """Return the fault that the latest readings show.

    Parameters
    ----------
    hour : ndarray
        Hours of the readings, in order of time.
    seen_c : ndarray
        The readings [°C].
    expected_c : ndarray
        What the place would be at those moments with its heater working [°C].
    without_c : ndarray
        What it would be without it [°C].
    ruled : tuple[float, float] | None
        Start and stop of its thermostat; None: always on, or by the clock.
    """
    if len(seen_c) < 2:
        return None
    last = slice(-2, None)
    if ruled is not None and (seen_c[last] > np.maximum(ruled[1], without_c[last]) + SLACK_K).all():
        return Fault.HOT
    # While the sun warms a tray beyond its set-point a heater has nothing to do: such readings say nothing of it.
    tell = np.flatnonzero(expected_c - without_c >= LEAST_LIFT_K)[-2:]
    if len(tell) == 2 and _unheated(seen_c[tell], expected_c[tell], without_c[tell], ruled):
        return Fault.COLD
    return Fault.FLAT if _flat(hour, seen_c, expected_c) else None


def _unheated(seen_c: Array, expected_c: Array, without_c: Array, ruled: tuple[float, float] | None) -> bool:
    dead = seen_c < without_c + DEAD_SHARE * (expected_c - without_c)
    if ruled is not None:
        dead &= seen_c < np.minimum(ruled[0], expected_c) - SLACK_K
    return bool(dead.all())


def _flat(hour: Array, seen_c: Array, expected_c: Array) -> bool:
    if len(hour) < FLAT_READINGS:
        return False
    lately = hour >= hour[-1] - FLAT_H
    if lately.sum() < FLAT_READINGS:
        return False
    return bool(np.ptp(seen_c[lately]) <= FLAT_K and np.ptp(expected_c[lately]) >= MOVES_K)


USUAL_SPACING_M = 0.10
EVEN_K = 2.0
"""So much between the warmest and the coldest spot is even enough (assumption)."""


def spread_k(spots: Sequence[float | None]) -> float | None:
    """Return the difference between the warmest and coldest spot [K], None with too few spots.

    Parameters
    ----------
    spots : Sequence[float | None]
        Temperatures [°C].
    """
    known = [spot for spot in spots if spot is not None]
    return max(known) - min(known) if len(known) > 1 else None


def evened(layer_m: float, spacing_m: float = USUAL_SPACING_M) -> float:
    """Return the fraction of the warm stripes that remains above a layer.

    This is the steady conduction above a row of wires, whose first harmonic decays as exp(-2 pi h / s).

    Parameters
    ----------
    layer_m : float
        Thickness above the wires [m].
    spacing_m : float
        Between the wires [m].
    """
    return exp(-2 * pi * layer_m / spacing_m)


def layer_for(spread: float, spacing_m: float = USUAL_SPACING_M) -> float:
    """Return the layer that reduces a spread to EVEN_K, 0 where it is even enough [m].

    Parameters
    ----------
    spread : float
        Between the warmest and the coldest spot [K].
    spacing_m : float
        Between the wires [m].
    """
    return max(log(spread / EVEN_K), 0.0) * spacing_m / (2 * pi) if spread > 0 else 0.0
