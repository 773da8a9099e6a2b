"""Arrays of a batch of columns: forcing, state and hourly results."""

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
    """Hourly weather of every column, arrays of (hours, columns).

    The fields up to `vapour` are those of `soil_surface.Hour`.

    Attributes
    ----------
    rain, given : ndarray
        Rain and watering by hand [mm].
    deep : ndarray
        Temperature below the column [°C].
    unlogged_wetness : ndarray
        Wetness added to the simulated wetness.
    snow : ndarray
        Recorded snow depth [m], nan where none was recorded.
    """

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
    """Surface properties of every column during one segment, arrays of (columns,).

    Attributes
    ----------
    sun, convection, evaporation, light, exchange, loss, heat : ndarray
        Factors from the parameters of the same name.
    absorbs : ndarray
        Fraction of the sun absorbed.
    conductance : ndarray
        Conductance from the surface to the first cell centre, dry and without snow [W/m²K].
    wetness : ndarray
        Usual wetness, 0-1.
    supply : ndarray
        Factor of the water that rises to the surface.
    passes : ndarray
        Fraction of the rain that reaches the ground.
    pool, store, above, drains : ndarray
        Water capacity, see `wetness.Holds`.
    side_sun : ndarray
        Warming of exposed sides above the air, per unit of sun [K m²/W].
    rise, fade : ndarray
        Factors of the days a hotbed takes to rise and to fade.
    case : ndarray
        Index of the case of each column.
    beside : ndarray
        Index of the neighbouring column, or BY_AIR.
    is_covered : ndarray
        Whether the column stands under a cover.
    """

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
    """State of every column, advanced in place each hour.

    Attributes
    ----------
    soil : ndarray
        Soil temperature, (columns, cells) [°C].
    surface, air, inner, outer : ndarray
        Temperature of the surface, of the air among the plants and of both faces of the cover, (columns,) [°C].
    opening : ndarray
        Opening of the cover, 0-1, (columns,).
    vapour : ndarray
        Vapour pressure under the cover, (columns,) [kPa].
    on : ndarray
        Whether the thermostat is on, (columns,).
    water : Water
        Water near the surface.
    """

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
    """State of one place between two hours, from which a simulation can resume.

    The fields are those of `State` with (members,) in place of (columns,); `pool`, `store` and `snow` hold water [mm].
    """

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
        """Copy the state of some columns of a batch.

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
        """Write this state into some columns of a batch.

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
    """Hourly results, see `simulate.Trajectory`.

    `soil_c` has the shape (hours, depths, columns), all other arrays (hours, columns).
    """

    soil_c: Small
    air_c: Small
    surface_c: Small
    cover_c: Small
    opening: Small
    flux_w_m2: Small
    heat_w_m2: Small
    moist: Small


class Points(NamedTuple):
    """Interpolation weights for the requested depths, arrays of (cases, depths).

    Attributes
    ----------
    above : ndarray
        Index of the cell centre above each depth, -1 for the soil surface.
    part : ndarray
        Weight of the cell below, 0-1.
    """

    above: Index
    part: Array


class Between(NamedTuple):
    """Values passed between the steps of one hour, arrays of (columns,).

    Attributes
    ----------
    a, b : ndarray
        Flux into the first cell, a - b T [W/m²].
    s0, s1 : ndarray
        Surface temperature, s0 + s1 T [°C].
    latent : ndarray
        Latent heat flux away from the surface [W/m²].
    snow, melt : ndarray
        Snow on the ground and snow melted during the hour [mm of water].
    watts : ndarray
        Heating from below [W/m²].
    mean : ndarray
        Mean soil temperature of the hour, (columns, cells) [°C].
    """

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
        """Allocate arrays of zeros.

        Parameters
        ----------
        columns : int
            Number of columns.
        """
        alone = (np.zeros(columns) for _ in cls._fields[:-1])
        return cls(*alone, np.zeros((columns, cells)))  # type: ignore[call-arg]
