"""A place as it is described: ground, lie of the land, what was done to it, and what is known of it by number."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.kinds import STILL_AIR_W_MK, CoverKind
from cloche_engine.heat.source import Heating

Array = NDArray[np.float64]


class Work(StrEnum):
    """What growers do to a place that changes how it warms."""

    WATERED = "watered"
    MULCHED = "mulched"
    MULCH_OFF = "mulch_off"
    COMPOST = "compost"
    STONES = "stones"
    DUG = "dug"
    CANOPY = "canopy"
    THINNED = "thinned"
    HARVESTED = "harvested"
    FILLED = "filled"
    OPENED = "opened"
    SHUT = "shut"


AIRING = (Work.OPENED, Work.SHUT)
"""What is done to the cover rather than to the ground."""


@dataclass(frozen=True)
class Event:
    """Something done at an hour of the run. amount: mm of water, m of mulch or compost; 0 for the usual."""

    work: Work
    hour: float
    amount: float = 0.0


@dataclass(frozen=True)
class Layer:
    """A layer of a box or bench, from above: thickness_m of a material of `materials.TEXTURES`; moist: its degree of
    saturation, None: as is usual."""

    thickness_m: float
    texture: str
    moist: float | None = None


@dataclass(frozen=True)
class SmallVolume:
    """A tray, cell, pot, tub or box: exposed below and at its sides. depth_m of what fills it; perimeter_per_area [1/m];
    bottom_w_m2k, side_w_m2k: what its bottom and its sides pass to the air; layers: what fills it from above where that is not
    all the same."""

    depth_m: float
    perimeter_per_area: float
    bottom_w_m2k: float = 5.0
    side_w_m2k: float = 7.0
    layers: tuple[Layer, ...] = ()


@dataclass(frozen=True)
class Bed:
    """A place's make-up. Angles [°]: slope, and aspect from north through east. shade: share of the sun's beam kept away at
    each hour of the day. wetness 0-1: how moist its surface usually is. wind: share of the site's wind that it feels.

    crust_m2k_w: resistance of a dry or littered surface. width_m: across the cover or the raised bed. indoors: no sky above,
    air of a room.
    """

    texture: str = "loam"
    moist: float | None = None
    albedo: float = 0.20
    wetness: float = 0.25
    crust_m2k_w: float = 0.01
    mulch_m: float = 0.0
    slope_deg: float = 0.0
    aspect_deg: float = 180.0
    shade: tuple[float, ...] = ()
    wind: float = 1.0
    width_m: float = 1.2
    raised_m: float = 0.0
    volume: SmallVolume | None = None
    heating: tuple[Heating, ...] = ()
    indoors: bool = False
    events: tuple[Event, ...] = field(default=())

    def with_events(self, *events: Event) -> Bed:
        """The same with what was done to it."""
        return replace(self, events=tuple(sorted(events, key=lambda e: e.hour)))

    def with_heat(self, *heating: Heating) -> Bed:
        """The same with other heat below it, or none."""
        return replace(self, heating=heating)


FACTORS = (
    "sun",
    "convection",
    "evaporation",
    "supply",
    "conduction",
    "capacity",
    "deep_k",
    "room_k",
    "surface_resistance",
    "light",
    "exchange",
    "loss",
    "heat",
    "rise",
    "fade",
)


BELIEVABLE = {"evaporation": 8.0, "surface_resistance": 6.0, "exchange": 6.0, "heat": 2.2, "rise": 3.0, "fade": 2.5}
"""How many times more or less than described a place can be (assumptions: bare clay to deep mulch, a sealed lid to one ajar);
of the others three standard deviations of the prior are few enough. What readings ask for beyond is drift, and is asked
about."""


@dataclass(frozen=True)
class Parameters:
    """What calibration learns, one value a member, (members,): factors of sun, convection, evaporation, water rising or given
    to the surface, conduction, heat capacity, soil_surface resistance, a cover's light, its leakage and what it lets out by
    conduction and infrared, heating, and of a hotbed the days it takes to rise and to fade, all 1 by description; deep_k
    warmer below, room_k a room warmer than usual [K]."""

    sun: Array
    convection: Array
    evaporation: Array
    supply: Array
    conduction: Array
    capacity: Array
    deep_k: Array
    room_k: Array
    surface_resistance: Array
    light: Array
    exchange: Array
    loss: Array
    heat: Array
    rise: Array
    fade: Array

    @classmethod
    def typical(cls, members: int) -> Parameters:
        """As described, for every member.

        Parameters
        ----------
        members : int
            Number of members.
        """
        ones = np.ones(members)
        zeros = np.zeros(members)
        return cls(**{name: zeros if name.endswith("_k") else ones for name in FACTORS})


@dataclass(frozen=True)
class Surface:
    """A bed's surface for a stretch of time: what events have made of its description."""

    albedo: float
    wetness: float
    resistance_m2k_w: float
    sun: float = 1.0
    convection: float = 1.0
    conduction: float = 1.0
    capacity: float = 1.0


MULCH_W_MK, MULCH_ALBEDO, MULCH_WETNESS = 0.09, 0.33, 0.05
"""Straw of 5-10 cm passes about 1.2 W/m²K and reflects a third [BussiereCellier1994, ChungHorton1987, from memory]."""
USUAL_MULCH_M, USUAL_WATER_MM = 0.06, 10.0


def surface_at(bed: Bed, hour: float) -> Surface:
    """The bed's surface at an hour: its description and every event up to then (effects of events: assumptions).

    Parameters
    ----------
    bed : Bed
        The bed: its slope, surface and what was done to it.
    hour : float
        Hour of the run.
    """
    now = Surface(bed.albedo, bed.wetness, bed.crust_m2k_w)
    if bed.mulch_m > 0:
        now = _mulched(now, bed.mulch_m)
    plain = Surface(bed.albedo, bed.wetness, bed.crust_m2k_w)
    for event in bed.events:
        if event.hour > hour:
            break
        now = _after(now, plain, event)
    return now


def _after(now: Surface, plain: Surface, event: Event) -> Surface:
    if event.work is Work.MULCHED:
        return _mulched(now, event.amount or USUAL_MULCH_M)
    if event.work is Work.COMPOST:
        return replace(now, albedo=0.10, resistance_m2k_w=plain.resistance_m2k_w + (event.amount or 0.02) / 0.25)
    if event.work is Work.STONES:
        return replace(now, albedo=0.15, wetness=0.5 * plain.wetness, conduction=1.15, capacity=0.95)
    if event.work is Work.DUG:
        return replace(plain, conduction=0.75, capacity=0.85, resistance_m2k_w=1.5 * plain.resistance_m2k_w)
    if event.work is Work.CANOPY:
        return replace(now, sun=0.40, convection=0.7, wetness=max(now.wetness, 0.5))
    if event.work is Work.THINNED:
        return replace(now, sun=(now.sun + 1.0) / 2, convection=(now.convection + 1.0) / 2)
    if event.work in (Work.HARVESTED, Work.MULCH_OFF):
        return plain
    return now


UNDER_FILM_WETNESS, OPAQUE, FILM_RADIATES_W_M2K = 0.1, 0.1, 5.5


def filmed(now: Surface, film: CoverKind) -> Surface:
    """The surface with a film upon it, beneath another cover: it dries hardly at all; a film that lets no light through takes
    up the sun itself and hands it on across its gap, a clear one keeps its own share of it (assumptions).

    Parameters
    ----------
    now : Surface
        The surface without it.
    film : CoverKind
        The film's kind.
    """
    wetness = now.wetness * UNDER_FILM_WETNESS
    if film.solar >= OPAQUE:
        return replace(now, wetness=wetness, sun=now.sun * (film.solar + film.absorbs))
    gap = 1 / (STILL_AIR_W_MK / film.gap_m + FILM_RADIATES_W_M2K)
    return replace(now, wetness=wetness, albedo=1 - film.absorbs, resistance_m2k_w=now.resistance_m2k_w + gap)


def _mulched(now: Surface, thickness_m: float) -> Surface:
    resistance = now.resistance_m2k_w + thickness_m / MULCH_W_MK
    return replace(now, albedo=MULCH_ALBEDO, wetness=MULCH_WETNESS, resistance_m2k_w=resistance)
