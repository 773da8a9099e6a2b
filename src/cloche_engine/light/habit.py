"""Light against warmth: seedlings too warm for their light stretch.

Growth wants light in proportion to how fast warmth drives it: mol/m² a day for each kelvin above the temperature at which a
kind stands still (the photothermal ratio of [LiuHeins1996, from memory]). How much of it keeps seedlings stocky is an
assumption, set by what growers say of windowsills in January and of lamps.
"""

from __future__ import annotations

from enum import StrEnum

STANDS_STILL_C = {"cool": 3.0, "warm": 8.0}
STOCKY_MOL_K, LEGGY_MOL_K = 0.55, 0.35
"""Light a day for each kelvin that keeps them stocky, and below which they stretch (assumption)."""
LEAST_MOL = 2.0
"""Less than this does not feed a seedling however cool it stands (assumption)."""


class Habit(StrEnum):
    """How the seedlings will look."""

    STOCKY = "stocky"
    SOFT = "soft"
    LEGGY = "leggy"
    STARVED = "starved"


def habit_of(mol: float, air_c: float, season: str) -> Habit:
    """Return how seedlings grow with this light and warmth.

    Parameters
    ----------
    mol : float
        Daily light integral [mol/m²].
    air_c : float
        Mean temperature of day and night at the leaves [°C].
    season : str
        "cool" or "warm".
    """
    drive = max(air_c - STANDS_STILL_C[season], 0.0)
    if mol < LEAST_MOL and drive > 0:
        return Habit.STARVED if mol < LEAST_MOL / 2 else Habit.LEGGY if mol < LEGGY_MOL_K * drive else Habit.SOFT
    if mol >= STOCKY_MOL_K * drive:
        return Habit.STOCKY
    return Habit.SOFT if mol >= LEGGY_MOL_K * drive else Habit.LEGGY


def wanted_mol(air_c: float, season: str) -> float:
    """Return the daily light that keeps seedlings stocky at a temperature [mol/m²].

    Parameters
    ----------
    air_c : float
        Mean temperature at the leaves [°C].
    season : str
        "cool" or "warm".
    """
    return max(STOCKY_MOL_K * max(air_c - STANDS_STILL_C[season], 0.0), LEAST_MOL)


def coolest_for(mol: float, season: str) -> float:
    """Return the temperature at which this much light is just enough [°C].

    Parameters
    ----------
    mol : float
        Daily light integral [mol/m²].
    season : str
        "cool" or "warm".
    """
    return STANDS_STILL_C[season] + mol / STOCKY_MOL_K
