"""Many places side by side: each case is a place in all its members; a batch lays the cases' columns next to each other.

A cover narrower than the ground is deep loses heat sideways, so a covered case gets an open neighbour that runs along with it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.periods import CoverPeriod, as_one
from cloche_engine.soil import materials
from cloche_engine.soil.batch import Begin, Forcing
from cloche_engine.soil.bed import FACTORS, USUAL_WATER_MM, Bed, Parameters, Surface, Work, filmed, surface_at
from cloche_engine.soil.grid import Grid, open_ground, small_volume
from cloche_engine.soil.layers import Columns
from cloche_engine.soil.plane import low_sun_on, puddles_on, sun_on
from cloche_engine.weather.record import HourlyWeather

Array = NDArray[np.float64]

SIDE_RATE_M2_S = 2.1e-6
SIDE_POWER = 1.7
"""Rate at which covered ground follows its open neighbour, by the cover's width in metres: fitted to a two-dimensional
solution of 21 days, in the middle of the bed (trial in docs/engine.md)."""
RAISED_SIDE_W_M2K = 4.0
MAT_BOTTOM_W_M2K = 1.8
"""What passes below a tray on a mat or a cable, which are insulated (assumption)."""
CONTACT_W_M2K = 12.0
"""What passes between the ground and a tray set upon it: thin plastic, and air in its ribs (assumption)."""
SIDE_SUN_K_M2_W = 0.014
"""Sun on boards and pots: warmer than the air by so much for each W/m² on the level: walls of four sides get about a third of
it, take up 0.6 of that and hand it on at some 15 W/m²K (assumption)."""
WIDE_M = 3.0
WALLS_W_M2K = 5.6
"""What a room's walls radiate more for each kelvin, about 17 °C."""


@dataclass(frozen=True)
class Case:
    """A place to simulate.

    Attributes
    ----------
    start_c : ndarray
        Soil temperature at the first hour, (cells,) or (members, cells) [°C].
    deep_c : ndarray
        Temperature below the column without `deep_k`, (hours,) [°C].
    unlogged_wetness : ndarray
        Wetness added to the simulated wetness, (hours, members).
    begin, begin_beside : Begin or None
        State from which the place and the open ground beside it resume; replaces `start_c`.
    """

    bed: Bed
    weather: HourlyWeather
    parameters: Parameters
    start_c: Array
    deep_c: Array
    covers: tuple[CoverPeriod, ...] = field(default=())
    unlogged_wetness: Array | None = None
    begin: Begin | None = None
    begin_beside: Begin | None = None

    @property
    def members(self) -> int:
        """Return the number of columns of the case."""
        return len(self.parameters.sun)

    @property
    def grid(self) -> Grid:
        """Return the cells of the case."""
        return small_volume(self.bed.volume.depth_m) if self.bed.volume else open_ground()

    def cover_at(self, hour: float) -> CoverPeriod | None:
        """Return the cover over the place during an hour, with layers combined.

        A film on the ground counts only where nothing stands over it.

        Parameters
        ----------
        hour : float
            Hour of the run.
        """
        roofs, films = self._there(hour)
        return as_one(roof.aired_at(hour) for roof in roofs or films[:1])

    def _there(self, hour: float) -> tuple[list[CoverPeriod], list[CoverPeriod]]:
        """Return the covers with space beneath them and the films on the ground."""
        there = [c for c in self.covers if c.start_h <= hour < c.end_h]
        return [c for c in there if not c.kind.lies_on_soil], [c for c in there if c.kind.lies_on_soil]

    def film_at(self, hour: float) -> CoverPeriod | None:
        """Return the film on the ground beneath another cover, if there is one.

        Parameters
        ----------
        hour : float
            Hour of the run.
        """
        roofs, films = self._there(hour)
        return next(iter(films if roofs else films[1:]), None)

    def stands_at(self, hour: int) -> bool:
        """Return whether the place stands on warm ground at an hour instead of free.

        Parameters
        ----------
        hour : int
            Hour of the run.
        """
        below = self.weather.below_c
        return below is not None and bool(np.isfinite(below[hour, 0]))

    def bare(self) -> Case:
        """Return the open ground beside the place."""
        begin = self.begin_beside or self.begin
        return replace(self, covers=(), bed=replace(self.bed, heating=()), begin=begin, begin_beside=None)

    @property
    def ground(self) -> tuple[object, ...]:
        """Return a key shared by all cases on the same ground.

        Cases with the same key have one open neighbour.
        """
        parts = (self.weather, self.parameters, self.start_c, self.deep_c, self.unlogged_wetness, self.begin)
        return (self.bed, *map(id, parts))

    @property
    def changes_h(self) -> set[int]:
        """Return the hours at which the cover, the events or the heat of the place change."""
        marks = [h for c in self.covers for h in (c.start_h, c.end_h)]
        marks += [h for c in self.covers for noted in c.noted for h in (noted.start_h, noted.end_h)]
        marks += [e.hour for e in self.bed.events if e.work not in (Work.WATERED, Work.FILLED)]
        if self.weather.below_c is not None:
            marks += list(np.flatnonzero(np.diff(np.isfinite(self.weather.below_c[:, 0]))) + 1)
        return {int(np.ceil(m)) for m in marks if 0 < m < len(self.weather)}


class CaseBatch:
    """Cases simulated together, with their open neighbours and the columns of each."""

    def __init__(self, cases: Sequence[Case]) -> None:
        self.own = len(cases)
        self.cases = list(cases)
        self.beside: dict[int, int] = {}
        grounds: dict[tuple[object, ...], int] = {}
        for i, case in enumerate(cases):
            if case.covers and not case.bed.indoors and case.bed.volume is None:
                bare = case.bare()
                self.beside[i] = grounds.setdefault(bare.ground, len(self.cases))
                if self.beside[i] == len(self.cases):
                    self.cases.append(bare)
        ends = np.cumsum([case.members for case in self.cases])
        self.slices = [slice(int(end) - case.members, int(end)) for end, case in zip(ends, self.cases, strict=True)]
        self.columns = int(ends[-1])
        self.neighbour = np.arange(self.columns)
        for i, j in self.beside.items():
            self.neighbour[self.slices[i]] = np.arange(self.columns)[self.slices[j]]
        self.hours = len(self.cases[0].weather)

    def spread(self, values: Sequence[float]) -> Array:
        """Expand one value per case to one per column."""
        return np.repeat(np.asarray(values, dtype=np.float64), [case.members for case in self.cases])

    def factor(self, name: str) -> Array:
        """Return one parameter of all members, (columns,).

        Parameters
        ----------
        name : str
            Name of the factor.

        Returns
        -------
        ndarray
            (columns,).
        """
        if name not in FACTORS:
            raise KeyError(name)
        return np.concatenate([getattr(case.parameters, name) for case in self.cases])

    def forcing(self) -> Forcing:
        """Return the weather of every column."""
        sun = self._wide([sun_on(case.bed, case.weather) for case in self.cases]) * self.factor("sun")
        parts = {
            name: self._wide([getattr(case.weather, f"{name}{unit}") for case in self.cases])
            for name, unit in (("air", "_c"), ("sky", "_w_m2"), ("wind", "_m_s"), ("vapour", "_kpa"))
        }
        warmer = np.where(self.spread([case.bed.indoors for case in self.cases]) > 0, self.factor("room_k"), 0.0)
        parts["air"], parts["sky"] = parts["air"] + warmer, parts["sky"] + WALLS_W_M2K * warmer
        parts["wind"] = parts["wind"] * self.spread([case.bed.wind for case in self.cases])
        unlogged_wetness = self._wide(
            [np.zeros((1, 1)) if case.unlogged_wetness is None else case.unlogged_wetness for case in self.cases]
        )
        rain = self._wide([case.weather.rain_mm * (not case.bed.indoors) for case in self.cases])
        given = self._wide([_given(case) for case in self.cases])
        snow = self._wide([case.weather.snow_m for case in self.cases])
        low_sun = [low_sun_on(case.bed, case.weather) for case in self.cases]
        toward, around = (self._wide([of_case[face] for of_case in low_sun]) * self.factor("sun") for face in (0, 1))
        filmed = [any(period.kind.lies_on_soil for period in case.covers) for case in self.cases]
        puddles = [
            puddles_on(case.weather) if film else np.zeros((1, 1)) for film, case in zip(filmed, self.cases, strict=True)
        ]
        return Forcing(
            sun=sun,
            toward=toward,
            around=around,
            puddles=self._wide(puddles),
            rain=rain,
            given=given,
            deep=self._deep(),
            unlogged_wetness=unlogged_wetness,
            snow=snow,
            **parts,
        )

    def _wide(self, parts: list[Array]) -> Array:
        wide = [np.broadcast_to(p, (self.hours, case.members)) for p, case in zip(parts, self.cases, strict=True)]
        return np.concatenate(wide, axis=1)

    def _deep(self) -> Array:
        parts = []
        for case in self.cases:
            free = case.bed.volume is not None
            warmer = case.parameters.room_k if case.bed.indoors else 0.0
            around = case.weather.air_c + warmer if free else case.deep_c[:, None] + case.parameters.deep_k
            below = case.weather.below_c
            parts.append(around if below is None or not free else np.where(np.isfinite(below), below, around))
        return self._wide(parts)

    def start_c(self) -> Array:
        """Return the soil temperature at the first hour, (columns, cells) [°C].

        Returns
        -------
        ndarray
            (columns, cells).
        """
        shapes = [(case.members, len(case.grid.thickness_m)) for case in self.cases]
        return np.concatenate([np.broadcast_to(case.start_c, shape) for case, shape in zip(self.cases, shapes, strict=True)])

    @property
    def textures(self) -> list[materials.Texture]:
        """Return the texture of each case."""
        return [materials.TEXTURES[case.bed.texture] for case in self.cases]

    def surfaces_at(self, hour: float) -> list[Surface]:
        """Return the surface of each case at an hour.

        Parameters
        ----------
        hour : float
            Hour of the run.
        """
        each = ((surface_at(case.bed, hour), case.film_at(hour)) for case in self.cases)
        return [bare if film is None else filmed(bare, film.kind) for bare, film in each]

    def make_up(self, surfaces: list[Surface], hour: float) -> Columns:
        """Return the thermal properties of all columns.

        Parameters
        ----------
        surfaces : list[Surface]
            The surface of each case.
        hour : float
            Hour of the run.
        """
        parts = [_columns(case, surface, hour) for case, surface in zip(self.cases, surfaces, strict=True)]
        return Columns(*(np.ascontiguousarray(np.concatenate(part)) for part in zip(*parts, strict=True)))


def _given(case: Case) -> Array:
    """Return the water given by hand, (hours, 1) [mm]. It reaches the ground under every cover."""
    given = np.zeros((len(case.weather), 1))
    for event in case.bed.events:
        hour = int(event.hour)
        if event.work is Work.WATERED and 0 <= hour < len(given):
            given[hour] += event.amount or USUAL_WATER_MM
    return given


def _columns(case: Case, surface: Surface, hour: float) -> Columns:
    thickness, ones = case.grid.thickness_m, np.ones((case.members, 1))
    filled = _filled(case)
    dense = surface.capacity * case.parameters.capacity[:, None]
    capacity = np.array([materials.heat_capacity_j_m3k(*shares) for shares in filled]) * dense
    water = np.array([materials.water_share(*shares) for shares in filled])
    frozen = np.maximum(capacity - water * (materials.WATER_J_M3K - materials.ICE_J_M3K), 0.4 * capacity)
    factor = case.parameters.conduction[:, None] * surface.conduction
    thawed_w_mk, frozen_w_mk = (
        np.array([materials.conductivity_w_mk(*shares, ice) for shares in filled]) for ice in (False, True)
    )
    half = thawed_w_mk[0] * factor[:, 0] / (thickness[0] / 2)
    below = thawed_w_mk[-1] * factor[:, 0] / (thickness[-1] / 2)
    return Columns(
        capacity * thickness * ones,
        frozen * thickness * ones,
        materials.LATENT_HEAT_J_M3 * water * thickness * ones,
        _between_cells(thawed_w_mk, thickness) * factor,
        _between_cells(frozen_w_mk, thickness) * factor,
        half,
        1 / (1 / below + 1 / _bottom_w_m2k(case, hour)) if case.bed.volume else below,
        np.repeat(_side_rates(case, case.cover_at(hour))[None, :], case.members, axis=0),
    )


def _filled(case: Case) -> list[tuple[materials.Texture, float]]:
    """Return the material of each cell and its degree of saturation."""
    bed, volume = case.bed, case.bed.volume
    own = materials.TEXTURES[bed.texture]
    usual = (own, own.moist if bed.moist is None else bed.moist)
    if volume is None or not volume.layers:
        return [usual] * len(case.grid.thickness_m)
    ends = np.cumsum([layer.thickness_m for layer in volume.layers])
    which = np.minimum(np.searchsorted(ends, case.grid.centre_m), len(ends) - 1)
    layers = [(materials.TEXTURES[layer.texture], layer.moist) for layer in volume.layers]
    return [(texture, texture.moist if moist is None else moist) for texture, moist in (layers[i] for i in which)]


def _between_cells(w_mk: Array, thickness: Array) -> Array:
    """Return the conductance between neighbouring cell centres in series [W/m²K]."""
    halves = thickness / (2 * w_mk)
    return np.asarray(1 / (halves[1:] + halves[:-1]))


def _bottom_w_m2k(case: Case, hour: float) -> float:
    bed = case.bed
    assert bed.volume is not None  # noqa: S101 - asked for
    if case.stands_at(int(hour)):
        return CONTACT_W_M2K
    return min(bed.volume.bottom_w_m2k, MAT_BOTTOM_W_M2K) if bed.heating else bed.volume.bottom_w_m2k


def sun_on_sides(case: Case, hour: int) -> float:
    """Return how much the sun warms the sides above the air [K m²/W].

    Parameters
    ----------
    case : Case
        The place.
    hour : int
        Hour of the run.
    """
    bed = case.bed
    exposed = bed.volume is not None or bed.raised_m > 0
    sheltered = bed.indoors or case.cover_at(hour) is not None or case.stands_at(hour)
    return SIDE_SUN_K_M2_W if exposed and not sheltered else 0.0


def _side_rate(span_m: float) -> float:
    """Return the rate at which ground follows the open ground on both sides of a cover of this span [1/s]."""
    return 0.0 if span_m >= WIDE_M else SIDE_RATE_M2_S / span_m**SIDE_POWER


def _side_rates(case: Case, cover: CoverPeriod | None) -> Array:
    """Return the rate at which each cell follows what stands beside it [1/s].

    Under a cover that is the open ground, for pots and raised beds the air.
    """
    texture, grid = materials.TEXTURES[case.bed.texture], case.grid
    everywhere = np.ones(len(grid.thickness_m))
    capacity = everywhere * materials.heat_capacity_j_m3k(texture, texture.moist)
    if case.bed.volume and case.bed.volume.layers:
        capacity = np.array([materials.heat_capacity_j_m3k(*shares) for shares in _filled(case)])
    if case.bed.volume:
        return everywhere * case.bed.volume.side_w_m2k * case.bed.volume.perimeter_per_area / capacity
    if cover is not None:
        width = cover.width_m or min(cover.kind.width_m, case.bed.width_m)
        return everywhere * sum(_side_rate(span) for span in (width, width if cover.kind.is_round else cover.length_m) if span)
    above = grid.centre_m < case.bed.raised_m
    return np.asarray(above * 2 * RAISED_SIDE_W_M2K / (capacity * case.bed.width_m), dtype=np.float64)
