"""A sheet bent over a bed: how high it stands and how much ground it leaves to plant, by how far its edges are apart."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil, cos, pi, sin, sqrt

import numpy as np

from cloche_engine.errors import OutOfRange

ROUNDS = 60
"""Halvings of the angle: to the last digit."""
NEAREST = 0.35
"""Edges are not set nearer than this share of the sheet: it leans out beyond them (assumption)."""


@dataclass(frozen=True)
class Bend:
    """A sheet bent to a circular arc.

    Attributes
    ----------
    spread_m, height_m : float
        Distance between the edges and height in the middle [m].
    mean_height_m : float
        Mean height of the air under it [m].
    area_ratio : float
        Area of the sheet over that of the ground.
    """

    spread_m: float
    height_m: float
    mean_height_m: float
    area_ratio: float
    radius_m: float

    def plantable_m(self, plant_m: float) -> float:
        """Return the width in which plants of some height have room [m], 0 if none.

        Parameters
        ----------
        plant_m : float
            Distance of plants in the row [m].
        """
        if plant_m >= self.height_m:
            return 0.0
        # Height of the arc's middle point above the ground; below zero where the arc is less than half a circle.
        centre = self.height_m - self.radius_m
        return min(self.spread_m, 2 * sqrt(max(self.radius_m**2 - (plant_m - centre) ** 2, 0.0)))


def is_roof(sheet_m: float, spread_m: float) -> bool:
    """Return whether a sheet of this width can stand with its edges this far apart.

    Parameters
    ----------
    sheet_m : float
        Width of the flat sheet [m].
    spread_m : float
        How far apart its edges are set [m].
    """
    try:
        bend(sheet_m, spread_m)
    except OutOfRange:
        return False
    return True


def bend(sheet_m: float, spread_m: float) -> Bend:
    """Bend a sheet so that its edges stand a given distance apart.

    With half the angle a and the radius r, the sheet is 2 r a wide and its edges are 2 r sin a apart.

    Parameters
    ----------
    sheet_m : float
        Width of the flat sheet [m].
    spread_m : float
        How far apart its edges are set [m].

    Raises
    ------
    OutOfRange
        Unless the spread is less than the sheet and at least what a half circle and a half leaves.
    """
    if not 0 < spread_m < sheet_m:
        raise OutOfRange("The edges of a bent sheet stand nearer to each other than the sheet is wide.")
    low, high = 0.0, 0.75 * pi
    if sin(high) / high > spread_m / sheet_m:
        raise OutOfRange("That near to each other the edges make a tube, not a roof.")
    for _ in range(ROUNDS):
        middle = (low + high) / 2
        low, high = (middle, high) if sin(middle) / middle > spread_m / sheet_m else (low, middle)
    angle = (low + high) / 2
    radius = sheet_m / (2 * angle)
    area_m2 = radius**2 * (angle - sin(angle) * cos(angle))
    return Bend(spread_m, radius * (1 - cos(angle)), area_m2 / spread_m, sheet_m / spread_m, radius)


@dataclass(frozen=True)
class Fits:
    """A bend that leaves room for plants of some height, and the width left for them [m]."""

    bend: Bend
    plantable_m: float


def bends_over(sheet_m: float, strip_m: float, plant_m: float) -> Fits | None:
    """Return how to set a sheet so that plants have room over a strip, or None if no bend has room.

    The edges are as close together as possible, because a high bend carries more snow than a wide one.

    Parameters
    ----------
    sheet_m : float
        Width of the flat sheet [m].
    strip_m : float
        Width of the strip that is planted [m].
    plant_m : float
        Height of the plants [m].
    """
    for share in np.linspace(NEAREST, 0.995, 130):
        bent = bend(sheet_m, float(share) * sheet_m)
        if bent.plantable_m(plant_m) >= strip_m:
            return Fits(bent, bent.plantable_m(plant_m))
    return None


def sheet_for(strip_m: float, plant_m: float) -> float:
    """Return the narrowest sheet with room for the plants over a strip, rounded up to the centimetre [m].

    Parameters
    ----------
    strip_m : float
        Width of the strip [m].
    plant_m : float
        Height of the plants [m].
    """
    low, high = strip_m, 4 * (strip_m + plant_m)
    while high - low > 0.005:
        middle = (low + high) / 2
        low, high = (low, middle) if bends_over(middle, strip_m, plant_m) else (middle, high)
    return ceil(100 * high) / 100


def snow_strength(bent: Bend, sheet_m: float) -> float:
    """Return the snow load a bent sheet carries before it collapses, relative to the same sheet as a half circle.

    Pressure from all around on a circular arch hinged at its feet, E I / r³ ((π / a)² - 1), a half the angle that it spans
    [TimoshenkoGere1961 §7.8, from memory]. Where its edges stand nearer than in a half circle it is taken to bear no more.

    Parameters
    ----------
    sheet_m : float
        Width of the flat sheet [m].
    """
    angle = min(sheet_m / (2 * bent.radius_m), pi / 2)
    radius = sheet_m / (2 * angle)
    half = 3.0 / (sheet_m / pi) ** 3
    return ((pi / angle) ** 2 - 1) / radius**3 / half


LEAN_RISE, ARCH_OVER_MEAN = 1.4, 1.3
"""A frame's back over its front; the middle of a tunnel over its mean height (assumptions)."""
