"""A sheet bent over a bed: how high it stands and how much ground it leaves to plant, by how far its edges are apart."""

from __future__ import annotations

from dataclasses import dataclass
from math import cos, pi, sin, sqrt

from cloche.core.errors import OutOfRange

ROUNDS = 60
"""Halvings of the angle: to the last digit."""


@dataclass(frozen=True)
class Bend:
    """A sheet as a circular arc. spread_m between its edges, height_m in the middle, mean_height_m of the air under it,
    area_ratio of sheet to ground."""

    spread_m: float
    height_m: float
    mean_height_m: float
    area_ratio: float
    radius_m: float

    def plantable_m(self, plant_m: float) -> float:
        """Width in which plants of a height have room [m]; 0 where none has.

        Parameters
        ----------
        plant_m : float
            Distance of plants in the row [m].

        Returns
        -------
        float
        """
        if plant_m >= self.height_m:
            return 0.0
        # Height of the arc's middle point above the ground; below zero where the arc is less than half a circle.
        centre = self.height_m - self.radius_m
        return min(self.spread_m, 2 * sqrt(max(self.radius_m**2 - (plant_m - centre) ** 2, 0.0)))


def bend(sheet_m: float, spread_m: float) -> Bend:
    """A sheet sheet_m across, its edges set spread_m apart: sheet = 2 r a, spread = 2 r sin a, a half the angle it spans.

    . Sagging under snow is not covered: a wide, flat bend sags first.

    Parameters
    ----------
    sheet_m : float
        Width of the flat sheet [m].
    spread_m : float
        How far apart its edges are set [m].

    Returns
    -------
    Bend

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
