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
    """A lamp over an area_m2 of trays, away_m above them, lit in spans of the day. ppfd: measured at the leaves [µmol/m²s],
    else from its watts and kind."""

    spans: tuple[Span, ...]
    watts: float = 0.0
    kind: str = "led"
    area_m2: float = 0.3
    away_m: float = 0.15
    ppfd: float | None = None

    @property
    def hours(self) -> float:
        """Hours a day that it is lit."""
        return span_hours(self.spans)

    @property
    def umol_m2s(self) -> float:
        """Light at the leaves while it is lit [µmol/m²s]."""
        return self.ppfd if self.ppfd is not None else ppfd_of(self.watts, self.kind, self.area_m2, self.away_m)

    @property
    def mol_a_day(self) -> float:
        """Daily light integral [mol/m²]."""
        return mol_of(self.umol_m2s, self.hours)

    @property
    def kwh_a_day(self) -> float:
        """What it uses."""
        return self.watts * self.hours / 1000


def mol_of(umol_m2s: float, hours: float) -> float:
    """Daily light integral of steady light [mol/m²].

    Parameters
    ----------
    umol_m2s : float
        Photosynthetic photon flux density [µmol/m²s].
    hours : float
        Hours a day.
    """
    return umol_m2s * hours * 3600 / 1e6


def ppfd_of(watts: float, kind: str, area_m2: float, away_m: float) -> float:
    """Light at the leaves: what the lamp gives, over the trays and what spills past them, which grows with the distance.

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
