"""Kinds of cover as data."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache
from math import hypot
from typing import Any, Literal, get_args

from cloche_engine import tables
from cloche_engine.covers.bend import bend
from cloche_engine.errors import UnknownCover

LIES_M = 0.01
PLANTED_THROUGH_M = 0.002
"""A film drawn as tight as this is a mulch: what grows there stands above it in the open air."""
STILL_AIR_W_MK = 0.025
"""Conductivity of still air."""
WALLS = 0.4
"""A frame's boards lose so much of what as much lid would: with it a usual frame has its 1.2 (assumption)."""
GAP_W_M2K, RADIATES_W_M2K, TOUCHES_M = 3.9, 5.1, 0.005
"""What the air between two covers carries from one to the other [ISO 6946, twice the 1.95 of a still gap, as it is slightly
vented, from memory]; what black faces radiate to each other about 10 °C; sheets laid on each other lie so far apart
(assumption)."""
MOST_LIGHT_LOST, DIRT = 0.20, 0.05
"""Of the sun, the share of it all that is let through less at most with the years, and when dirty (assumptions)."""
DrawnAs = Literal["sheet", "tunnel", "fleece", "frame", "bell", "arch", "house"]
GoesOver = Literal["bed", "tray", "house"]


@dataclass(frozen=True)
class CoverKind:
    """Optical and thermal properties of a cover.

    Attributes
    ----------
    solar, infrared : float
        Transmission for the whole sky, new and dry, 0-1.
    absorbs : float
        Fraction of the sun that the cover itself absorbs.
    catches : float
        Fraction of the transmitted sun that warms the air through frame, hoops and dust.
    emissivity, conductance_w_m2k : float
        Emissivity of the faces, and conductance from face to face [W/m²K].
    wet_infrared, wet_emissivity : float
        The same properties with condensed water.
    gap_m : float
        Mean height of the air under it [m].
    area_ratio : float
        Its surface over the ground it covers.
    leans, stands : float
        Share of the direct sun on a vertical face as large as the ground that it gains from a low sun over a level pane, by a
        lid that slopes towards noon and by its walls or hoops (slope and height over width, less what leaves again:
        assumptions).
    leak_m_h, ends_open_m_h, open_m_h : float
        Air exchange per area of ground at 2 m/s of wind: closed, with both ends open (assumption), and in addition at full
        opening [m³/m²h].
    permeable : float
        Fraction of the rain that comes through.
    width_m : float
        Usual width [m].
    with_article : str
        Name with its article, such as "a cold frame with glass".
    drawn_as : DrawnAs
        Shape in a cross-section of the ground.
    common : int
        Rank among the covers growers can easily obtain, 0 if not among them.
    parts : tuple of str
        Keys of the two covers that it combines, the lower one first.
    opened : bool
        Whether growers open it on sunny days.
    bends : bool
        Whether it is a sheet or film bent over the bed, whose height follows from the distance of its edges.
    lasts_y : float
        Film lasts five years, unprotected rigid sheet two (common practice, no source; the others are assumptions).
    light_lost_a_year : float
        Share of the sun lost with each year (assumption).
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
    parts: tuple[str, ...] = ()

    @property
    def is_house(self) -> bool:
        """Whether beds and frames stand inside it."""
        return self.goes_over == "house"

    @property
    def is_round(self) -> bool:
        """Whether it covers a single round spot instead of a row."""
        return self.drawn_as == "bell"

    @property
    def is_box(self) -> bool:
        """Whether it is a lid on walls whose heights are the grower's own."""
        return self.drawn_as == "frame" and not self.parts

    @property
    def lies_on_soil(self) -> bool:
        """Whether it is a film directly on the ground, over which another cover may stand."""
        return self.gap_m <= LIES_M

    @property
    def is_planted_through(self) -> bool:
        """Whether it is stretched over the ground as a mulch, with the plants growing above it."""
        return self.gap_m <= PLANTED_THROUGH_M

    def bent(self, sheet_m: float, spread_m: float) -> CoverKind:
        """Return the cover made of a sheet of this width with its edges this far apart.

        Parameters
        ----------
        sheet_m : float
            Width of the flat sheet [m].
        spread_m : float
            How far apart its edges are set [m].

        Raises
        ------
        OutOfRange
            Where a value is outside what can be.
        """
        shape = bend(sheet_m, spread_m)
        return replace(self, gap_m=shape.mean_height_m, area_ratio=shape.area_ratio, width_m=spread_m)

    def boxed(self, width_m: float, low_m: float, high_m: float) -> CoverKind:
        """Return the cover on a box of these measurements, its lid sloping from back to front.

        Parameters
        ----------
        width_m : float
            From front to back [m].
        low_m : float
            Height at the front [m].
        high_m : float
            Height at the back [m].
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
        """Return the cover after years in the sun, which let less light through.

        Parameters
        ----------
        years : float
            Years in the sun.
        dirty : bool
            Whether dust and algae lie on it.
        """
        lost = min(self.light_lost_a_year * years, MOST_LIGHT_LOST) + (DIRT if dirty else 0.0)
        return replace(self, solar=max(self.solar - lost, min(self.solar, 0.3)))

    def under(self, upper: CoverKind) -> CoverKind:
        """Combine this cover, nearest to the ground, with another one over it, such as fleece under hoops.

        Light and infrared pass through both and are thrown back and forth between them; heat is conducted through one, the gap
        and the other; air passes both one after the other, as through two orifices. Whatever else it is, it is the upper one.

        Parameters
        ----------
        upper : CoverKind
            What stands over this one.
        """
        thrown_back = (1 - self.solar - self.absorbs) * (1 - upper.solar - upper.absorbs)
        enters = upper.solar / (1 - thrown_back)
        # Vapour passes cloth and gathers on what stands over it; else on the lower one, which is the nearer to moist ground.
        fogged = (upper.wet_infrared, upper.wet_emissivity) if self.permeable else (upper.infrared, upper.emissivity)
        leak = _one_after_the_other(self.leak_m_h, upper.leak_m_h)
        wide = _one_after_the_other(self.leak_m_h + self.open_m_h, upper.leak_m_h + upper.open_m_h)
        return replace(
            upper,
            solar=enters * self.solar,
            # What frame and hoops of the upper one warm lies outside the lower one: as if the upper one had taken it up.
            absorbs=min(upper.absorbs + enters * (self.absorbs + upper.catches * self.solar), 1 - enters * self.solar),
            catches=self.catches,
            infrared=self.infrared * upper.infrared,
            emissivity=_of_both(self.emissivity, self.infrared, upper.emissivity, upper.infrared),
            conductance_w_m2k=1
            / (1 / self.conductance_w_m2k + 1 / self._gap_w_m2k(upper, fogged[1]) + 1 / upper.conductance_w_m2k),
            wet_infrared=self.wet_infrared * fogged[0],
            wet_emissivity=_of_both(self.wet_emissivity, self.wet_infrared, fogged[1], fogged[0]),
            gap_m=self.gap_m,
            area_ratio=(self.area_ratio + upper.area_ratio) / 2,
            leans=max(self.leans, upper.leans),
            stands=max(self.stands, upper.stands),
            leak_m_h=leak,
            ends_open_m_h=_one_after_the_other(self.leak_m_h, upper.ends_open_m_h),
            open_m_h=max(wide - leak, 0.0),
            permeable=self.permeable * upper.permeable,
            width_m=max(self.width_m, upper.width_m),
        )

    def _gap_w_m2k(self, upper: CoverKind, emissivity: float) -> float:
        """Return the heat exchange between two layers [W/m²K].

        It passes through the air of the gap, and by radiation from the lower layer and from the ground that shows through
        it.
        """
        apart_m, shines = max(upper.gap_m - self.gap_m, TOUCHES_M), self.emissivity + self.infrared
        return max(GAP_W_M2K, STILL_AIR_W_MK / apart_m) + RADIATES_W_M2K / (1 / shines + 1 / emissivity - 1)

    def with_ends_open(self) -> CoverKind:
        """Return the cover with both ends open."""
        return replace(self, leak_m_h=self.ends_open_m_h)


def _one_after_the_other(first_m_h: float, second_m_h: float) -> float:
    """Return the flow through two orifices in series from the flow through each alone [m³/m²h]."""
    return first_m_h * second_m_h / hypot(first_m_h, second_m_h) if first_m_h and second_m_h else 0.0


def _of_both(lower: float, lower_through: float, upper: float, upper_through: float) -> float:
    """Return the emissivity of two layers, averaged over the inner and the outer side.

    Each side shows its own face and part of the other layer through it.
    """
    return (lower + lower_through * upper + upper + upper_through * lower) / 2


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


LAYERED: dict[str, tables.Check] = {name: COLUMNS[name] for name in ("key", "name", "with_article", "common")}


def _layered(row: dict[str, Any], single: dict[str, CoverKind]) -> CoverKind:
    """Combine two kinds, one over the other, into a kind of the usual size."""
    lower, upper = single[row.pop("lower")], single[row.pop("upper")]
    return replace(
        lower.under(upper),
        **row,
        parts=(lower.key, upper.key),
        opened=lower.opened or upper.opened,
        bends=False,
        lasts_y=min(lower.lasts_y, upper.lasts_y),
        light_lost_a_year=lower.light_lost_a_year + upper.light_lost_a_year,
        source=f"{lower.name} under {upper.with_article}",
        confidence="low",
    )


@cache
def kinds() -> dict[str, CoverKind]:
    """Return all kinds by key, in the order of the file.

    Raises
    ------
    BadTable
        Where a row says what cannot be; the message names row and column.
    """
    single = {key: CoverKind(**row) for key, row in tables.rows("cloche_engine.covers", "kinds.csv", COLUMNS).items()}
    both = tables.rows(
        "cloche_engine.covers", "layered.csv", LAYERED | dict.fromkeys(("lower", "upper"), tables.one_of(*single))
    )
    return single | {key: _layered(row, single) for key, row in both.items()}


def kind(key: str) -> CoverKind:
    """Return one kind by its key.

    Parameters
    ----------
    key : str
        Its key in the table.

    Raises
    ------
    UnknownCover
        Where there is no cover of that key.
    """
    try:
        return kinds()[key]
    except KeyError:
        raise UnknownCover(f"There is no cover called “{key}”.") from None
