"""Kinds of cover as data, and a cover's time on the bed."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache
from math import hypot
from typing import Literal, get_args

from cloche.core import tables
from cloche.core.covers.bend import bend
from cloche.core.errors import UnknownCover

LIES_M = 0.01
PLANTED_THROUGH_M = 0.002
"""A film drawn as tight as this is a mulch: what grows there stands above it in the open air."""
STILL_AIR_W_MK = 0.025
"""Conductivity of still air."""
WALLS = 0.4
"""A frame's boards lose so much of what as much lid would: with it a usual frame has its 1.2 (assumption)."""
MOST_LIGHT_LOST, DIRT = 0.20, 0.05
"""Of the sun, the share of it all that is let through less at most with the years, and when dirty (assumptions)."""
DrawnAs = Literal["sheet", "tunnel", "fleece", "frame", "bell", "arch", "house"]
GoesOver = Literal["bed", "tray", "house"]


@dataclass(frozen=True)
class CoverKind:
    """Optical and thermal properties of a cover.

    solar, infrared: transmitted shares 0-1, for the whole sky, new and dry; absorbs: share of the sun that it takes up itself;
    catches: of what it lets through, the share that warms the air by way of frame, hoops and dust; emissivity of its faces;
    conductance from face to face [W/m²K]; wet_*: with condensed water. gap_m: mean height of air under it; area_ratio: its
    surface over the ground it covers; leans, stands: what it keeps of a low sun beyond what a level pane would, by a lid that
    slopes towards noon and by its walls or hoops, as a share of the beam on an upright face as large as the ground (slope and
    height over width, less what leaves again: assumptions); leak_m_h, ends_open_m_h, open_m_h: air that passes each square
    metre of ground, closed, with both ends open (assumption) and more at full opening, at 2 m/s of wind [m³/m²h]; permeable:
    share of the rain that comes through; width_m: usual.

    with_article: a cold frame with glass; drawn_as: its shape over a slice of ground; common: its place among what growers
    could get, 0: not among them; opened: whether anybody opens it on a sunny day; bends: whether it is a sheet or film bent
    over the bed, whose height follows from its spread; lasts_y: film five years, unprotected rigid sheet two (common practice,
    no source; the others are assumptions); light_lost_a_year: share of the sun (assumption).
    """

    key: str
    name: str
    with_article: str
    drawn_as: DrawnAs
    common: int
    opened: bool
    bends: bool
    goes_over: GoesOver
    lasts_y: float
    light_lost_a_year: float
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
    leans: float
    stands: float
    leak_m_h: float
    ends_open_m_h: float
    open_m_h: float
    permeable: float
    width_m: float
    source: str
    confidence: str

    @property
    def is_house(self) -> bool:
        """Whether beds and frames stand inside it."""
        return self.goes_over == "house"

    @property
    def is_box(self) -> bool:
        """Whether it is a lid on walls, whose heights are the grower's."""
        return self.drawn_as == "frame"

    @property
    def lies_on_soil(self) -> bool:
        """Whether it is a film upon the ground itself, over which another cover may stand."""
        return self.gap_m <= LIES_M

    @property
    def is_planted_through(self) -> bool:
        """Whether it is drawn tight as a mulch: what grows there stands above it."""
        return self.gap_m <= PLANTED_THROUGH_M

    def bent(self, sheet_m: float, spread_m: float) -> CoverKind:
        """The same of a sheet so wide, its edges so far apart.

        Parameters
        ----------
        sheet_m : float
            Width of the flat sheet [m].
        spread_m : float
            How far apart its edges are set [m].

        Returns
        -------
        CoverKind

        Raises
        ------
        OutOfRange
            Where a value is outside what can be.
        """
        shape = bend(sheet_m, spread_m)
        return replace(self, gap_m=shape.mean_height_m, area_ratio=shape.area_ratio, width_m=spread_m)

    def boxed(self, width_m: float, low_m: float, high_m: float) -> CoverKind:
        """The same on a box of one's own, its lid sloping from back to front.

        Parameters
        ----------
        width_m : float
            From front to back [m].
        low_m : float
            Height at the front [m].
        high_m : float
            Height at the back [m].

        Returns
        -------
        CoverKind
        """
        lid_m, walls_m = hypot(width_m, high_m - low_m), low_m + high_m
        return replace(
            self,
            gap_m=walls_m / 2,
            area_ratio=(lid_m + WALLS * walls_m) / width_m,
            leans=max(high_m - low_m, 0.0) / width_m,
            width_m=width_m,
        )

    def aged(self, years: float, dirty: bool = False) -> CoverKind:
        """The same after years in the sun: it lets less light through.

        Parameters
        ----------
        years : float
            Years in the sun.
        dirty : bool
            Whether dust and algae lie on it.

        Returns
        -------
        CoverKind
        """
        lost = min(self.light_lost_a_year * years, MOST_LIGHT_LOST) + (DIRT if dirty else 0.0)
        return replace(self, solar=max(self.solar - lost, min(self.solar, 0.3)))

    def with_ends_open(self) -> CoverKind:
        """The same with both ends open.

        Returns
        -------
        CoverKind
        """
        return replace(self, leak_m_h=self.ends_open_m_h)


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
class Noted:
    """From one hour of the run to another somebody wrote down how far it stood open, 0 shut to 1 wide."""

    start_h: float
    end_h: float
    opening: float


@dataclass(frozen=True)
class CoverPeriod:
    """A cover on a bed from one hour of the run to another. blanket: hours of the day a night blanket lies on it; known: what
    other beds tell of its light, its leakage and its loss: how much more than the usual, and how much of the usual doubt is
    left, 0-1. noted: when it was seen to be open or shut, which goes before its usual airing."""

    kind: CoverKind
    start_h: float
    end_h: float
    vent: Vent = Vent()
    ends_capped: bool = True
    blanket: tuple[float, float] | None = None
    width_m: float | None = None
    known: Known = NOT_KNOWN
    noted: tuple[Noted, ...] = ()

    def aired_at(self, hour: float) -> CoverPeriod:
        """As it stands at an hour: aired as usual, or as somebody wrote down.

        Parameters
        ----------
        hour : float
            Hour of the run.

        Returns
        -------
        CoverPeriod
        """
        seen = next((one for one in self.noted if one.start_h <= hour < one.end_h), None)
        return self if seen is None else replace(self, vent=Vent(seen.opening))

    def shifted(self, hours: float) -> CoverPeriod:
        """The same on a run whose first hour is so many hours later.

        Parameters
        ----------
        hours : float
            Hours by which to shift.

        Returns
        -------
        CoverPeriod
        """
        noted = tuple(replace(one, start_h=one.start_h - hours, end_h=one.end_h - hours) for one in self.noted)
        return replace(self, start_h=self.start_h - hours, end_h=self.end_h - hours, noted=noted)

    @property
    def leak_m_h(self) -> float:
        """Air that passes with the vent shut [m³/m²h]."""
        return self.kind.leak_m_h if self.ends_capped else self.kind.with_ends_open().leak_m_h


SHARE, METRES, AIR = tables.number(0, 1), tables.number(0, 10), tables.number(0, 1000)
COLUMNS: dict[str, tables.Check] = {
    "key": tables.text,
    "name": tables.text,
    "with_article": tables.text,
    "drawn_as": tables.one_of(*get_args(DrawnAs)),
    "common": int,
    "opened": tables.yes_or_no,
    "bends": tables.yes_or_no,
    "goes_over": tables.one_of(*get_args(GoesOver)),
    "lasts_y": tables.number(0.5, 100),
    "light_lost_a_year": SHARE,
    "solar": SHARE,
    "absorbs": SHARE,
    "catches": SHARE,
    "infrared": SHARE,
    "emissivity": SHARE,
    "conductance_w_m2k": tables.number(0.1, 5000),
    "wet_infrared": SHARE,
    "wet_emissivity": SHARE,
    "gap_m": METRES,
    "area_ratio": tables.number(1, 5),
    "leans": tables.number(0, 1),
    "stands": tables.number(0, 1),
    "leak_m_h": AIR,
    "ends_open_m_h": AIR,
    "open_m_h": AIR,
    "permeable": SHARE,
    "width_m": METRES,
    "source": tables.text,
    "confidence": tables.one_of("high", "medium", "low"),
}


@cache
def kinds() -> dict[str, CoverKind]:
    """All kinds by key, in the order of the file.

    Returns
    -------
    dict[str, CoverKind]

    Raises
    ------
    BadTable
        Where a row says what cannot be; the message names row and column.
    """
    return {key: CoverKind(**row) for key, row in tables.rows("cloche.core.covers", "kinds.csv", COLUMNS).items()}


def kind(key: str) -> CoverKind:
    """One kind.

    Parameters
    ----------
    key : str
        Its key in the table.

    Returns
    -------
    CoverKind

    Raises
    ------
    UnknownCover
        Where there is no cover of that key.
    """
    try:
        return kinds()[key]
    except KeyError:
        raise UnknownCover(f"There is no cover called “{key}”.") from None
