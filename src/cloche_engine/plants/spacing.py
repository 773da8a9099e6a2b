"""How plants are spaced in a bed: squares, rows and broadcast seed; how many, where each stands, how much seed it takes."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import ceil

from cloche_engine.crops.catalogue import Crop
from cloche_engine.errors import OutOfRange

FOOT_M = 0.3048
NEAREST_M = FOOT_M / 4
"""Nearer than three inches plants in squares are thinned, not placed: sixteen to a square foot (common practice, no source)."""
NO_PATHS = 3.0
"""Rows are so many times wider than they need be for the plants, for feet and hoes; in squares nobody walks (assumption)."""
SOWN_OVER = 2.0
"""Seeds broadcast for each plant that is to stand there: half is thinned young, and eaten (assumption)."""
HAIR = 1e-6
MOST_STATIONS = 4000


class Layout(StrEnum):
    """Arrangement of a planting."""

    SQUARES = "squares"
    ROWS = "rows"
    BROADCAST = "broadcast"


class Thinning(StrEnum):
    """What happens to surplus plants.

    With `pairs`, several seeds per station are thinned to one; with `every_other`, each second plant of a row is pulled
    young and eaten.
    """

    NONE = "none"
    PAIRS = "pairs"
    EVERY_OTHER = "every_other"


@dataclass(frozen=True)
class Spacing:
    """Distance between plants and between rows [m], equal in squares, and seeds sown together."""

    plant_m: float
    row_m: float
    per_station: int = 1


def square_m(crop: Crop) -> float:
    """Return the spacing of a crop in squares [m]."""
    return max(crop.plant_m, crop.row_m / NO_PATHS, NEAREST_M)


def usual(crop: Crop, layout: Layout) -> Spacing:
    """Return the usual spacing of a crop in a layout.

    Parameters
    ----------
    layout : Layout
        How it is planted.
    """
    if layout is Layout.ROWS:
        return Spacing(crop.plant_m, crop.row_m, crop.per_station)
    each_m = square_m(crop)
    return Spacing(each_m, each_m, crop.per_station)


def stations(length_m: float, width_m: float, layout: Layout, spacing: Spacing) -> list[tuple[float, float]]:
    """Return the positions of seeds or plants from the corner of the patch, along and across [m].

    Rows run along its length.

    In squares as many as come nearest to the distance fill the patch evenly; rows hold what fits. Broadcast seed has no
    stations.

    Parameters
    ----------
    length_m : float
        Length of the patch [m].
    width_m : float
        Width of the patch [m].
    layout : Layout
        How it is planted.
    spacing : Spacing
        Distances.

    Raises
    ------
    OutOfRange
        Where more would be drawn than anybody plants.
    """
    if layout is Layout.BROADCAST:
        return []
    along, across = _numbers(length_m, width_m, layout, spacing)
    if along * across > MOST_STATIONS:
        raise OutOfRange(f"That is {along * across} plants; at most {MOST_STATIONS} go into a patch.")
    step, side = length_m / along, width_m / across
    if layout is Layout.ROWS:
        step = min(step, spacing.plant_m)
    first = (length_m - step * (along - 1)) / 2
    return [(first + step * i, side * (j + 0.5)) for j in range(across) for i in range(along)]


def stand(length_m: float, width_m: float, layout: Layout, spacing: Spacing, thinning: Thinning = Thinning.NONE) -> int:
    """Return the number of plants that remain after thinning.

    Parameters
    ----------
    length_m : float
        Length of the patch [m].
    width_m : float
        Width of the patch [m].
    layout : Layout
        How it is planted.
    spacing : Spacing
        Distances.
    thinning : Thinning
        What is pulled.
    """
    if layout is Layout.BROADCAST:
        return max(1, round(length_m * width_m / (spacing.plant_m * spacing.row_m)))
    along, across = _numbers(length_m, width_m, layout, spacing)
    return across * (ceil(along / 2) if thinning is Thinning.EVERY_OTHER else along)


def seeds(length_m: float, width_m: float, layout: Layout, spacing: Spacing) -> int:
    """Return the number of seeds that a patch needs.

    Parameters
    ----------
    length_m : float
        Length of the patch [m].
    width_m : float
        Width of the patch [m].
    layout : Layout
        How it is planted.
    spacing : Spacing
        Distances.
    """
    plants = stand(length_m, width_m, layout, spacing)
    return ceil(plants * SOWN_OVER) if layout is Layout.BROADCAST else plants * spacing.per_station


def on_trellis(length_m: float, each_m: list[float]) -> list[int]:
    """Return the number of plants of each of several crops that alternate along a trellis.

    Parameters
    ----------
    length_m : float
        Length of the trellis [m].
    each_m : list[float]
        What a plant of each crop takes of it [m].

    Raises
    ------
    OutOfRange
        Where no length, no crop or no distance is given.
    """
    if length_m <= 0 or not each_m or min(each_m) <= 0:
        raise OutOfRange("A trellis has a length, and each of its crops a distance.")
    rounds, left = divmod(length_m + HAIR, sum(each_m))
    numbers = [int(rounds)] * len(each_m)
    for number, one_m in enumerate(each_m):
        if left < one_m:
            break
        numbers[number] += 1
        left -= one_m
    return numbers


def _numbers(length_m: float, width_m: float, layout: Layout, spacing: Spacing) -> tuple[int, int]:
    """Return the number of stations along and across."""
    if min(length_m, width_m, spacing.plant_m, spacing.row_m) <= 0:
        raise OutOfRange("A patch has a length and a width, and its plants a distance.")
    if layout is Layout.ROWS:
        # A row has room for half the distance before its first plant and after its last.
        return max(1, int(length_m / spacing.plant_m + HAIR)), max(1, int(width_m / spacing.row_m + HAIR))
    return max(1, round(length_m / spacing.plant_m)), max(1, round(width_m / spacing.row_m))
