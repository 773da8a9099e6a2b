"""A bench as it is built: layers and bags, the cable's path, watts, what fits on it."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from cloche_engine.errors import OutOfRange

MARGIN_M = 0.05
"""A cable keeps so far from the boards."""
LEAST_SPACING_M = 0.05
"""Nearer to each other runs overheat; about 10 cm is usual (common practice, no source)."""
LITRES_M3 = 1000.0


@dataclass(frozen=True)
class Cable:
    """A heating cable of some length and power per metre."""

    length_m: float
    w_m: float


@dataclass(frozen=True)
class Laid:
    """A cable laid back and forth along a bench.

    Attributes
    ----------
    runs : int
        Number of lengths.
    spacing_m, left_m : float
        Distance between runs, and cable that does not fit [m].
    path : tuple
        Corners from one corner of the bench, (x, y) [m].
    watts, watts_m2 : float
        Total power [W] and power per area [W/m²].
    """

    runs: int
    spacing_m: float
    left_m: float
    path: tuple[tuple[float, float], ...]
    watts: float
    watts_m2: float


def litres(length_m: float, width_m: float, thickness_m: float) -> float:
    """Return the volume of a layer [L].

    Parameters
    ----------
    length_m : float
        Inner length of the bench [m].
    width_m : float
        Inner width of the bench [m].
    thickness_m : float
        Of the layer [m].

    Returns
    -------
    float
        [litres].
    """
    return length_m * width_m * thickness_m * LITRES_M3


def bags(wanted: float, bag: float) -> int:
    """Return the number of whole bags that hold a volume in litres.

    Parameters
    ----------
    wanted : float
        Litres.
    bag : float
        Litres in a bag.
    """
    return ceil(wanted / bag - 1e-9)


def lay(length_m: float, width_m: float, cable: Cable, across: bool = False) -> Laid:
    """Lay the cable back and forth on the bench as evenly as its length allows.

    The runs are straight; turns at the ends count as part of them.

    Parameters
    ----------
    length_m : float
        Inner length of the bench [m].
    width_m : float
        Inner width of the bench [m].
    cable : Cable
        The cable.
    across : bool
        Whether the runs go across the bench rather than along it.

    Raises
    ------
    OutOfRange
        Where it is too short to go there and back, or too long to keep its runs apart.
    """
    run, side = length_m - 2 * MARGIN_M, width_m - 2 * MARGIN_M
    if across:
        run, side = side, run
    if run <= 0 or side <= 0:
        raise OutOfRange("A bench is wider than the margins of its cable.")
    runs = int((cable.length_m - side) / run + 1e-9)
    if runs < 2:
        raise OutOfRange("This cable is too short to go along the bench and back.")
    spacing = side / (runs - 1)
    if spacing < LEAST_SPACING_M:
        raise OutOfRange("This cable is too long for the bench: its runs would lie nearer than 5 cm and overheat.")
    path = []
    for i in range(runs):
        at = MARGIN_M + i * spacing
        ends = [(MARGIN_M, at), (MARGIN_M + run, at)]
        path += ends if i % 2 == 0 else ends[::-1]
    if across:
        path = [(y, x) for x, y in path]
    watts = cable.length_m * cable.w_m
    left = cable.length_m - runs * run - side
    return Laid(runs, spacing, max(left, 0.0), tuple(path), watts, watts / (length_m * width_m))


def fits(length_m: float, width_m: float, tray_m: tuple[float, float]) -> tuple[int, bool]:
    """Return how many trays fit on the bench in the better of the two orientations, and whether it is lengthwise.

    Parameters
    ----------
    length_m : float
        Inner length of the bench [m].
    width_m : float
        Inner width of the bench [m].
    tray_m : tuple[float, float]
        Length and width of a tray [m].

    Returns
    -------
    tuple[int, bool]
        How many; whether their length lies along the bench.
    """
    along = int(length_m / tray_m[0] + 1e-9) * int(width_m / tray_m[1] + 1e-9)
    across = int(length_m / tray_m[1] + 1e-9) * int(width_m / tray_m[0] + 1e-9)
    return (along, True) if along >= across else (across, False)
