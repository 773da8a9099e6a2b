"""Potatoes from chitting to lifting, in beds and tubs: common practice, no source."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

CHIT_BASE_C, CHIT_K_D = 4.0, 210.0
"""Sprouts grow above 4 °C; some 210 kelvin days, five weeks at 10 °C, make short stout ones of two centimetres (assumption)."""
LONG_K_D = 420.0
"""Twice as much and they are long and break."""
FROST_C = 1.0
TUB_LITRES_EACH = 9.0
"""Three to four to a tub of 30 litres."""
WEEKS = {"potato_first_early": (10, 12), "potato_second_early": (12, 16), "potato_maincrop": (16, 20)}
"""Weeks from planting to lifting by group; lifted at the early end they are fewer and smaller."""


@dataclass(frozen=True)
class Chitting:
    """Dates of a batch of chitting tubers, each None if not in sight.

    Attributes
    ----------
    ready, long : date or None
        When the sprouts are sturdy, and when they become too long.
    frost : date or None
        First day on which the place becomes so cold that they have to come in.
    """

    ready: date | None
    long: date | None
    frost: date | None


def chitting(set_out: date, mean_c: list[float], low_c: list[float]) -> Chitting:
    """Predict chitting from the day the tubers are set out upright in the light.

    Parameters
    ----------
    set_out : date
        First day.
    mean_c : list[float]
        Daily means of the place from then on [°C].
    low_c : list[float]
        Daily lows [°C].
    """
    made, ready, long = 0.0, None, None
    for day, mean in enumerate(mean_c):
        made += max(mean - CHIT_BASE_C, 0.0)
        ready = ready or (set_out + timedelta(days=day) if made >= CHIT_K_D else None)
        long = long or (set_out + timedelta(days=day) if made >= LONG_K_D else None)
    frost = next((set_out + timedelta(days=day) for day, low in enumerate(low_c) if low < FROST_C), None)
    return Chitting(ready, long, frost)


def lifting(group: str, planted: date) -> tuple[date, date]:
    """Return the first and last usual day of lifting.

    Parameters
    ----------
    group : str
        Key of WEEKS.
    planted : date
        Day of planting.
    """
    first, last = WEEKS[group]
    return planted + timedelta(weeks=first), planted + timedelta(weeks=last)


def tubers_in(litres: float) -> int:
    """Return the number of tubers for a tub.

    Parameters
    ----------
    litres : float
        What it holds.
    """
    return max(round(litres / TUB_LITRES_EACH), 1)
