"""Kinds of cover as data, and a cover's time on the bed."""

from __future__ import annotations

import csv
from dataclasses import dataclass, replace
from functools import cache
from importlib.resources import files

from cloche.core.covers.bend import bend
from cloche.core.errors import UnknownCover

ENDS_OPEN_M_H = {"film_tunnel": 15.0, "thermal_tunnel": 15.0, "bent_sheet": 20.0, "twin_wall_arch": 20.0}
"""Leakage where both ends stand open (assumption)."""


LIES_M = 0.01
PLANTED_THROUGH_M = 0.002
"""A film drawn as tight as this is a mulch: what grows there stands above it in the open air."""
STILL_AIR_W_MK = 0.025
"""Conductivity of still air."""
BENT = ("film_tunnel", "thermal_tunnel", "bent_sheet", "twin_wall_arch")
USUAL_LIGHT_LOST, MOST_LIGHT_LOST, DIRT = 0.03, 0.20, 0.05
LIGHT_LOST_A_YEAR = {"glass_pane": 0.0, "glass_frame": 0.0, "greenhouse": 0.0, "bent_sheet": 0.05, "plastic_pane": 0.05}
LIGHT_LOST_A_YEAR |= {"fleece": 0.05, "thick_fleece": 0.05}
"""Of the sun, the share of it all that is let through less after each year, at most, and when dirty (assumptions)."""
LASTS_Y = {"glass_pane": 30.0, "glass_frame": 30.0, "greenhouse": 30.0, "bell": 10.0, "bent_sheet": 2.0, "plastic_pane": 2.0}
LASTS_Y |= {"fleece": 2.0, "thick_fleece": 3.0, "twin_wall_arch": 10.0, "twin_wall_frame": 10.0, "bin": 4.0}
"""Film five years, unprotected rigid sheet two (common practice, no source); the others are assumptions."""


@dataclass(frozen=True)
class CoverKind:
    """Optical and thermal properties of a cover.

    solar, infrared: transmitted shares 0-1, for the whole sky, new and dry; absorbs: share of the sun that it takes up itself;
    catches: of what it lets through, the share that warms the air by way of frame, hoops and dust; emissivity of its faces;
    conductance from face to face [W/m²K]; wet_*: with condensed water. gap_m: mean height of air under it; area_ratio: its
    surface over the ground it covers; leak_m_h, open_m_h: air that passes each square metre of ground, closed and more at full
    opening, at 2 m/s of wind [m³/m²h]; permeable: share of the rain that comes through; width_m: usual.
    """

    key: str
    name: str
    solar: float
    absorbs: float
    catches: float
    infrared: float
    emissivity: float
    conductance_w_m2k: float
    wet_infrared: float
    wet_emissivity: float
    gap_m: float
    area_ratio: float
    leak_m_h: float
    open_m_h: float
    permeable: float
    width_m: float
    source: str
    confidence: str

    @property
    def is_house(self) -> bool:
        """Whether beds and frames stand inside it."""
        return self.gap_m >= 1.5

    @property
    def lies_on_soil(self) -> bool:
        """Whether it is a film upon the ground itself, over which another cover may stand."""
        return self.gap_m <= LIES_M

    @property
    def is_planted_through(self) -> bool:
        """Whether it is drawn tight as a mulch: what grows there stands above it."""
        return self.gap_m <= PLANTED_THROUGH_M

    @property
    def bends(self) -> bool:
        """Whether it is a sheet or film bent over the bed, whose height follows from its spread."""
        return self.key in BENT

    def bent(self, sheet_m: float, spread_m: float) -> CoverKind:
        """The same of a sheet so wide, its edges so far apart; raises OutOfRange."""
        shape = bend(sheet_m, spread_m)
        return replace(self, gap_m=shape.mean_height_m, area_ratio=shape.area_ratio, width_m=spread_m)

    def aged(self, years: float, dirty: bool = False) -> CoverKind:
        """The same after years in the sun: it lets less light through."""
        lost = min(LIGHT_LOST_A_YEAR.get(self.key, USUAL_LIGHT_LOST) * years, MOST_LIGHT_LOST) + (DIRT if dirty else 0.0)
        return replace(self, solar=max(self.solar - lost, min(self.solar, 0.3)))

    @property
    def lasts_y(self) -> float:
        """Years it usually lasts: film about five, unprotected rigid sheet about two (common practice, no source)."""
        return LASTS_Y.get(self.key, 5.0)

    def with_ends_open(self) -> CoverKind:
        """The same with both ends open."""
        return replace(self, leak_m_h=ENDS_OPEN_M_H.get(self.key, self.leak_m_h))


@dataclass(frozen=True)
class Vent:
    """How a cover is opened. opening: share of full, 0-1, between two hours of local standard time (None: at all hours).

    above_c: open only as far as needed to keep the inside below this [°C]; None: open as said, whatever the warmth.
    """

    opening: float = 0.0
    from_h: float | None = None
    to_h: float | None = None
    above_c: float | None = None


Known = tuple[tuple[float, float], tuple[float, float], tuple[float, float]]
NOT_KNOWN: Known = ((1.0, 1.0), (1.0, 1.0), (1.0, 1.0))


@dataclass(frozen=True)
class CoverPeriod:
    """A cover on a bed from one hour of the run to another. blanket: hours of the day a night blanket lies on it; known: what
    other beds tell of its light, its leakage and its loss: how much more than the usual, and how much of the usual doubt is
    left, 0-1."""

    kind: CoverKind
    start_h: float
    end_h: float
    vent: Vent = Vent()
    ends_capped: bool = True
    blanket: tuple[float, float] | None = None
    width_m: float | None = None
    known: Known = NOT_KNOWN

    @property
    def leak_m_h(self) -> float:
        """Air that passes with the vent shut [m³/m²h]."""
        return self.kind.leak_m_h if self.ends_capped else self.kind.with_ends_open().leak_m_h


@cache
def kinds() -> dict[str, CoverKind]:
    """All kinds by key, in the order of the file."""
    text = files("cloche.core.covers").joinpath("data/kinds.csv").read_text(encoding="utf-8")
    words = {"key", "name", "source", "confidence"}
    rows = csv.DictReader(text.splitlines())
    return {r["key"]: CoverKind(**{k: v if k in words else float(v) for k, v in r.items()}) for r in rows}  # type: ignore[arg-type]


def kind(key: str) -> CoverKind:
    """One kind; raises UnknownCover."""
    try:
        return kinds()[key]
    except KeyError:
        raise UnknownCover(f"There is no cover called “{key}”.") from None
