"""Lamps over trays."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi

from cloche_engine.heat.source import Span, span_hours

UMOL_PER_W = {"led": 2.3, "tube": 1.1, "bulb": 0.25}
"""Light of a watt at the plug [µmol/J]: grow LEDs 2 to 2.8, fluorescent tubes about 1, filament bulbs next to nothing (from
memory of makers' data)."""
CAUGHT = 0.75
"""Share of a lamp's light that falls on trays close beneath it."""
LEAST_DARK_H = 6.0
"""Three inches above cool-season seedlings; a dark night (common practice, no source)."""


@dataclass(frozen=True)
class Lamp:
    """A lamp over trays.

    Attributes
    ----------
    area_m2, away_m : float
        Area of the trays [m²] and distance above them [m].
    spans : tuple of Span
        Hours of the day in which it is on.
    ppfd : float or None
        Light measured at the leaves [µmol/m²s]; None to estimate it from power and kind.
    """

    spans: tuple[Span, ...]
    watts: float = 0.0
    kind: str = "led"
    area_m2: float = 0.3
    away_m: float = 0.15
    ppfd: float | None = None

    @property
    def hours(self) -> float:
        """Hours per day for which it is on."""
        return span_hours(self.spans)

    @property
    def umol_m2s(self) -> float:
        """Light at the leaves while it is on [µmol/m²s]."""
        return self.ppfd if self.ppfd is not None else ppfd_of(self.watts, self.kind, self.area_m2, self.away_m)

    @property
    def mol_a_day(self) -> float:
        """Daily light integral [mol/m²]."""
        return mol_of(self.umol_m2s, self.hours)

    @property
    def kwh_a_day(self) -> float:
        """Daily energy [kWh]."""
        return self.watts * self.hours / 1000


def mol_of(umol_m2s: float, hours: float) -> float:
    """Return the daily light integral of constant light [mol/m²].

    Parameters
    ----------
    umol_m2s : float
        Photosynthetic photon flux density [µmol/m²s].
    hours : float
        Hours a day.
    """
    return umol_m2s * hours * 3600 / 1e6


def ppfd_of(watts: float, kind: str, area_m2: float, away_m: float) -> float:
    """Return the light at the leaves [µmol/m²s].

    The lamp's output spreads over the trays and past their edges, more so with distance.

    Parameters
    ----------
    watts : float
        At the plug [W].
    kind : str
        Key of UMOL_PER_W.
    area_m2 : float
        Area of the trays beneath it [m²].
    away_m : float
        From lamp to leaves [m].

    Returns
    -------
    float
        [µmol/m²s].
    """
    side = 2 * (area_m2 / pi) ** 0.5
    lit_m2 = area_m2 * (1 + away_m / side) ** 2
    return watts * UMOL_PER_W[kind] * CAUGHT / lit_m2
