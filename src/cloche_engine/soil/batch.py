"""What a batch of columns is given by the hour, remembers and records."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from cloche_engine.soil.wetness import Water

Array = NDArray[np.float64]
Small = NDArray[np.float32]
Index = NDArray[np.int64]
Flags = NDArray[np.bool_]

BY_AIR = -1


class Forcing(NamedTuple):
    """Weather on every column by the hour, (hours, columns); see `soil_surface.Hour`; rain and water given by hand [mm], deep
    [°C] below the column, unlogged_wetness: wetness added to what is reckoned; snow [m] lying where it was noted, else nan."""

    sun: Array
    toward: Array
    around: Array
    puddles: Array
    air: Array
    sky: Array
    wind: Array
    vapour: Array
    rain: Array
    given: Array
    deep: Array
    unlogged_wetness: Array
    snow: Array


class Top(NamedTuple):
    """Surfaces of a segment, (columns,): factor of sun; share of it absorbed, conductance to the first centre, factor of
    convection, dry and free of snow; wetness usual, factors of evaporation, rising water, a cover's light, leakage and loss,
    heating, and a hotbed's days to rise and fade; passes: share of the rain that reaches the ground; pool, store, above [mm],
    drains: see `wetness.Holds`; side_sun: warmer than the air its sides are in the sun [K m²/W];
    case of each column; beside: the column that stands at its side, or BY_AIR; is_covered."""

    sun: Array
    absorbs: Array
    conductance: Array
    convection: Array
    wetness: Array
    evaporation: Array
    supply: Array
    light: Array
    exchange: Array
    loss: Array
    passes: Array
    pool: Array
    store: Array
    above: Array
    drains: Array
    side_sun: Array
    heat: Array
    rise: Array
    fade: Array
    case: Index
    beside: Index
    is_covered: Flags


class State(NamedTuple):
    """What every column remembers, moved on by the hour: soil (columns, cells) [°C]; surface, air among the plants, inner and
    outer face of a cover [°C], opening 0-1, vapour under it [kPa], thermostat's switch, (columns,); water."""

    soil: Array
    surface: Array
    air: Array
    inner: Array
    outer: Array
    opening: Array
    vapour: Array
    on: Flags
    water: Water


class Begin(NamedTuple):
    """How a place stands between two hours, so that it can be taken up again: soil (members, cells) [°C], the rest as in
    `State`, (members,); water's pool, store and snow [mm]."""

    soil: Array
    surface: Array
    air: Array
    inner: Array
    outer: Array
    opening: Array
    vapour: Array
    on: Flags
    pool: Array
    store: Array
    snow: Array

    @classmethod
    def of(cls, state: State, columns: slice) -> Begin:
        """Of some of a batch's columns, copied.

        Parameters
        ----------
        state : State
            State of the columns.
        columns : slice
            Which columns of the batch.
        """
        parts = (*state[:-1], *state.water)
        return cls(*(part[columns].copy() for part in parts))  # type: ignore[arg-type]

    def put(self, state: State, columns: slice) -> None:
        """Set a batch's columns to it.

        Parameters
        ----------
        state : State
            State of the columns.
        columns : slice
            Which columns of the batch.
        """
        for part, own in zip((*state[:-1], *state.water), self, strict=True):
            part[columns] = own


class Recorded(NamedTuple):
    """What is kept of every hour: soil_c (hours, depths, columns); all else (hours, columns); see `simulate.Course`."""

    soil_c: Small
    air_c: Small
    surface_c: Small
    cover_c: Small
    opening: Small
    flux_w_m2: Small
    heat_w_m2: Small
    moist: Small


class Points(NamedTuple):
    """Where the soil is wanted, (cases, depths): the cell above (-1: the soil's face), and the share of the one below it."""

    above: Index
    part: Array


class Between(NamedTuple):
    """What an hour's passes hand to each other, (columns,): the surface's flux a - b T, its temperature s0 + s1 T, latent heat
    leaving [W/m²], snow lying and snow that melted [mm], heat from below [W/m²]; mean: soil over the hour, (columns, cells)."""

    a: Array
    b: Array
    s0: Array
    s1: Array
    latent: Array
    snow: Array
    melt: Array
    watts: Array
    mean: Array

    @classmethod
    def room(cls, columns: int, cells: int) -> Between:
        """Scratch memory.

        Parameters
        ----------
        columns : int
            Number of columns.
        """
        alone = (np.zeros(columns) for _ in cls._fields[:-1])
        return cls(*alone, np.zeros((columns, cells)))  # type: ignore[call-arg]
