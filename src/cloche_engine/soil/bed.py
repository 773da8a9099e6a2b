"""Description of a place: soil, slope and aspect, work done on it, and the parameters learned from readings."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.kinds import STILL_AIR_W_MK, CoverKind
from cloche_engine.heat.source import Heating

Array = NDArray[np.float64]


class Work(StrEnum):
    """Work on a place that changes how it warms."""

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
    """Work done at one hour of the run.

    Attributes
    ----------
    work : Work
        What was done.
    hour : float
        Hours since the start of the run.
    amount : float
        Water [mm] or thickness of mulch or compost [m]; 0 stands for the usual amount.
    """

    work: Work
    hour: float
    amount: float = 0.0


@dataclass(frozen=True)
class Layer:
    """A layer of the filling of a box or bench.

    Attributes
    ----------
    thickness_m : float
        Thickness [m].
    texture : str
        Key of `materials.TEXTURES`.
    moist : float or None
        Degree of saturation, 0-1; None for the usual value of the texture.
    """

    thickness_m: float
    texture: str
    moist: float | None = None


@dataclass(frozen=True)
class SmallVolume:
    """A tray, cell, pot, tub or box, exposed at its bottom and sides.

    Attributes
    ----------
    depth_m : float
        Depth of the filling [m].
    perimeter_per_area : float
        Perimeter over area [1/m].
    bottom_w_m2k, side_w_m2k : float
        Conductance of the bottom and of the sides to the air [W/m²K].
    layers : tuple of Layer
        Layers of the filling from the top down; empty for a uniform filling.
    """

    depth_m: float
    perimeter_per_area: float
    bottom_w_m2k: float = 5.0
    side_w_m2k: float = 7.0
    layers: tuple[Layer, ...] = ()


@dataclass(frozen=True)
class Bed:
    """Physical description of a place.

    Attributes
    ----------
    texture : str
        Key of `materials.TEXTURES`.
    moist : float or None
        Degree of saturation, 0-1; None for the usual value of the texture.
    albedo : float
        Fraction of the sun reflected.
    wetness : float
        Usual wetness of the surface, 0-1.
    crust_m2k_w : float
        Thermal resistance of a dry or littered surface [m²K/W].
    mulch_m : float
        Thickness of the mulch [m].
    slope_deg, aspect_deg : float
        Slope, and aspect from north through east [°].
    shade : tuple of float
        Fraction of the direct sun blocked in each hour of the day; empty for none.
    wind : float
        Fraction of the site's wind that reaches the place.
    width_m : float
        Width of the cover or of the raised bed [m].
    raised_m : float
        Height of the bed above the ground [m].
    volume : SmallVolume or None
        The container, if the place is one.
    heating : tuple of Heating
        Heat sources below.
    indoors : bool
        Whether the place stands in a room, without sky above.
    events : tuple of Event
        Work done, in order of time.
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
        """Return the bed with these events in order of time."""
        return replace(self, events=tuple(sorted(events, key=lambda e: e.hour)))

    def with_heat(self, *heating: Heating) -> Bed:
        """Return the bed with other heating, or with none."""
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
"""Largest factor, or smallest as its reciprocal, that calibration accepts (assumptions: bare clay to deep mulch, a sealed lid
to one ajar). All other parameters are bounded by three standard deviations of the prior. What the readings show beyond these
bounds counts as drift, and the grower is asked about it."""


@dataclass(frozen=True)
class Parameters:
    """Parameters that calibration estimates, one value per member, (members,).

    A factor of 1 leaves the description as it is.

    Attributes
    ----------
    sun, convection, evaporation, supply, conduction, capacity, surface_resistance : ndarray
        Factors of the absorbed sun, convection, evaporation, water rising to the surface, conductivity, heat capacity and
        resistance of the surface.
    deep_k, room_k : ndarray
        Offset of the deep soil and of the room from their usual temperature [K].
    light, exchange, loss : ndarray
        Factors of a cover's transmission, air exchange, and loss by conduction and infrared.
    heat, rise, fade : ndarray
        Factors of the heating power and of the days a hotbed takes to rise and to fade.
    """

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
        """Return the parameters of the description, the same for every member.

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
    """Surface properties of a bed for a period, after the events up to then."""

    albedo: float
    wetness: float
    resistance_m2k_w: float
    sun: float = 1.0
    convection: float = 1.0
    conduction: float = 1.0
    capacity: float = 1.0


MULCH_W_MK, MULCH_ALBEDO, MULCH_WETNESS = 0.09, 0.33, 0.05
"""Straw 5-10 cm thick conducts about 1.2 W/m²K and reflects a third of the sun
[BussiereCellier1994, ChungHorton1987, from memory]."""
USUAL_MULCH_M, USUAL_WATER_MM = 0.06, 10.0


def surface_at(bed: Bed, hour: float) -> Surface:
    """Return the surface of a bed at an hour, after all events up to then (effects of events: assumptions).

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
    """Return the surface under a film on the ground that lies beneath another cover (assumptions).

    It hardly dries. An opaque film absorbs the sun itself and passes the heat across its gap; a clear one absorbs its own
    share.

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
