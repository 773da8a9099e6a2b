"""Courses of soil and air, from cases that are cut where anything changes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.periods import NOT_KNOWN, CoverPeriod
from cloche_engine.soil.batch import BY_AIR, Begin, Between, Points, Recorded, State, Top
from cloche_engine.soil.bed import Surface
from cloche_engine.soil.cases import Case, CaseBatch, sun_on_sides
from cloche_engine.soil.conduction import WORK_ROWS, prepare
from cloche_engine.soil.covered_air import FACTORS_OF_COVER, Cover
from cloche_engine.soil.heat_control import heat_of
from cloche_engine.soil.hours import FINE, run_hours
from cloche_engine.soil.layers import Columns
from cloche_engine.soil.side_by_side import in_blocks
from cloche_engine.soil.wetness import Water

BLANKET = {"solar": 0.05, "infrared": 0.02, "emissivity": 0.9, "conductance": 5.0}
"""A woven blanket laid over a cover at night (assumption, low confidence)."""


Array = NDArray[np.float64]


class Segment:
    """Properties of the batch from one hour on.

    `covers` holds the cover of each hour of the day, (24, cases, fields of `Cover` without its factors).
    """

    def __init__(self, batch: CaseBatch, hour: int) -> None:
        surfaces = batch.surfaces_at(hour)
        self.columns = batch.make_up(surfaces, hour)
        current = [case.cover_at(hour) for case in batch.cases]
        self.covers = np.zeros((24, len(current), len(Cover._fields) - FACTORS_OF_COVER))
        for case, cover in enumerate(current):
            if cover is not None:
                self.covers[:, case] = [_row(cover, of_day + 0.5) for of_day in range(24)]
        self.top = _top(batch, surfaces, self.columns, current, hour)


def _top(batch: CaseBatch, surfaces: list[Surface], columns: Columns, current: list[CoverPeriod | None], hour: int) -> Top:
    is_covered = batch.spread([cover is not None for cover in current]) > 0
    resistance = batch.spread([s.resistance_m2k_w for s in surfaces]) * batch.factor("surface_resistance")
    follows = is_covered & (batch.neighbour != np.arange(batch.columns))
    return Top(
        sun=batch.spread([s.sun for s in surfaces]),
        absorbs=batch.spread([1 - s.albedo for s in surfaces]),
        conductance=1.0 / (1.0 / columns.top + resistance),
        convection=batch.spread([s.convection for s in surfaces]) * batch.factor("convection"),
        wetness=batch.spread([s.wetness for s in surfaces]),
        evaporation=batch.factor("evaporation"),
        supply=batch.factor("supply"),
        **_of_cover(batch, current),
        passes=batch.spread([1.0 if cover is None else cover.kind.permeable for cover in current]),
        side_sun=batch.spread([sun_on_sides(case, hour) for case in batch.cases]),
        pool=batch.spread([texture.pool_mm for texture in batch.textures]),
        store=batch.spread([texture.store_mm for texture in batch.textures]),
        above=batch.spread([texture.above_mm for texture in batch.textures]),
        drains=batch.spread([np.exp(-1.0 / texture.drains_h) for texture in batch.textures]),
        heat=batch.factor("heat"),
        rise=batch.factor("rise"),
        fade=batch.factor("fade"),
        case=batch.spread(list(range(len(batch.cases)))).astype(np.int64),
        beside=np.where(follows, batch.neighbour, BY_AIR),
        is_covered=is_covered,
    )


def _of_cover(batch: CaseBatch, current: list[CoverPeriod | None]) -> dict[str, Array]:
    """Return the cover parameters of each column.

    They are those of the members, narrowed and shifted by what other beds show of the same kind.
    """
    known = [NOT_KNOWN if cover is None else cover.known for cover in current]
    parts = {}
    for i, name in enumerate(("light", "exchange", "loss")):
        middle, doubt = (batch.spread([cover[i][part] for cover in known]) for part in (0, 1))
        parts[name] = middle * batch.factor(name) ** doubt
    return parts


def _row(cover: CoverPeriod, of_day: float) -> tuple[float, ...]:
    """Return a cover at an hour of the day as the fields of `Cover` without its factors."""
    kind, vent = cover.kind, cover.vent
    if cover.blanket and _between(of_day, *cover.blanket):
        kind = replace(
            kind,
            solar=kind.solar * BLANKET["solar"],
            infrared=kind.infrared * BLANKET["infrared"],
            wet_infrared=kind.wet_infrared * BLANKET["infrared"],
            conductance_w_m2k=1 / (1 / kind.conductance_w_m2k + 1 / BLANKET["conductance"]),
        )
    open_now = vent.opening if vent.from_h is None or vent.to_h is None or _between(of_day, vent.from_h, vent.to_h) else 0.0
    at_hour = Cover(
        solar=kind.solar,
        absorbs=kind.absorbs,
        catches=kind.catches,
        infrared=kind.infrared,
        emissivity=kind.emissivity,
        wet_infrared=kind.wet_infrared,
        wet_emissivity=kind.wet_emissivity,
        conductance=kind.conductance_w_m2k,
        gap_m=kind.gap_m,
        area_ratio=kind.area_ratio,
        leans=kind.leans,
        stands=kind.stands,
        leak_m_h=cover.leak_m_h,
        open_m_h=kind.open_m_h,
        permeable=kind.permeable,
        opening=open_now,
        above_c=np.inf if vent.above_c is None else vent.above_c,
        light=1.0,
        exchange=1.0,
        loss=1.0,
    )
    return at_hour[:-FACTORS_OF_COVER]


def _between(hour: float, start: float, end: float) -> bool:
    return start <= hour < end if start <= end else hour >= start or hour < end


Small = NDArray[np.float32]

STEP_S = 3600.0


@dataclass(frozen=True)
class Trajectory:
    """Simulated course of a place, hours along axis 0.

    Attributes
    ----------
    soil_c : ndarray
        Soil temperature, (hours, depths, members) [°C].
    air_c, surface_c, cover_c : ndarray
        Temperature of the air among the plants, under a cover or open, of the surface, and of the inner face of the cover (the
        air without one), (hours, members) [°C].
    opening : ndarray
        Opening of the cover, 0-1, (hours, members).
    flux_w_m2, heat_w_m2 : ndarray
        Flux into the soil and heating from below, (hours, members) [W/m²].
    moist : ndarray
        Water near the surface relative to field capacity, (hours, members); above 1 for hours to days after heavy rain.
    end, end_beside : Begin or None
        State after the last hour, of the place and of the open ground simulated with it.
    """

    depths_m: tuple[float, ...]
    soil_c: Small
    air_c: Small
    surface_c: Small
    cover_c: Small
    opening: Small
    flux_w_m2: Small
    heat_w_m2: Small
    moist: Small
    end: Begin
    end_beside: Begin | None

    @property
    def hourly(self) -> dict[str, Small]:
        """Return all hourly arrays by name."""
        return {name: getattr(self, name) for name in Recorded._fields}

    def cut(self, hours: int) -> Trajectory:
        """Return the first hours; `end` stays that of the whole course.

        Parameters
        ----------
        hours : int
            Number of hours.
        """
        return Trajectory(
            self.depths_m, end=self.end, end_beside=self.end_beside, **{n: v[:hours] for n, v in self.hourly.items()}
        )

    def after(self, hours: int) -> Trajectory:
        """Return the course after the first hours.

        Parameters
        ----------
        hours : int
            Number of hours.
        """
        return Trajectory(
            self.depths_m, end=self.end, end_beside=self.end_beside, **{n: v[hours:] for n, v in self.hourly.items()}
        )

    def at(self, depth_m: float) -> Small:
        """Return the hourly means at one of the simulated depths, (hours, members) [°C].

        Parameters
        ----------
        depth_m : float
            Depth below the surface, positive down [m].
        """
        return self.soil_c[:, self.depths_m.index(depth_m)]


def simulate(cases: Sequence[Case], depths_m: Sequence[float]) -> list[Trajectory]:
    """Simulate cases of equal length.

    Parameters
    ----------
    cases : Sequence[Case]
        Cases of equal length.
    depths_m : Sequence[float]
        Where the soil is wanted, 0 being its face.
    """
    batch = CaseBatch(cases)
    forcing, soil = batch.forcing(), batch.start_c()
    air = forcing.air[0]
    off, on = np.zeros(batch.columns), np.ones(batch.columns, dtype=bool)
    water = Water.usual(*(batch.spread([getattr(t, name) for t in batch.textures]) for name in ("pool_mm", "store_mm")))
    surface, inside, inner, outer = (air.copy() for _ in range(4))
    state = State(soil, surface, inside, inner, outer, off, forcing.vapour[0].copy(), on, water)
    for case, columns in zip(batch.cases, batch.slices, strict=True):
        if case.begin is not None:
            case.begin.put(state, columns)
    recorded = _room(batch, len(depths_m))
    heat = heat_of([case.bed.heating for case in batch.cases], [case.grid for case in batch.cases], batch.hours)
    points, between = _points(batch, depths_m), Between.room(*state.soil.shape)
    for span in _spans(batch):
        segment = Segment(batch, span[0])
        ready = prepare(segment.columns, STEP_S)
        fine = prepare(segment.columns, STEP_S / FINE) if heat.is_ruled else ready
        makeup = (segment.columns, ready, fine, in_blocks(segment.columns, ready), segment.top, segment.covers, heat)
        run_hours(span, *makeup, forcing, points, state, recorded, between, np.zeros((WORK_ROWS, state.soil.shape[1])))
    return [_trajectory(batch, i, depths_m, state, recorded) for i in range(batch.own)]


def _trajectory(batch: CaseBatch, i: int, depths_m: Sequence[float], state: State, recorded: Recorded) -> Trajectory:
    own, side = batch.slices[i], batch.beside.get(i)
    beside = None if side is None else Begin.of(state, batch.slices[side])
    parts = {name: values[..., own] for name, values in recorded._asdict().items()}
    return Trajectory(tuple(depths_m), end=Begin.of(state, own), end_beside=beside, **parts)


def _spans(batch: CaseBatch) -> list[tuple[int, int]]:
    """Return the spans of hours between changes."""
    marks = sorted({0, batch.hours}.union(*(case.changes_h for case in batch.cases)))
    return list(pairwise(marks))


def _room(batch: CaseBatch, depths: int) -> Recorded:
    shape = (batch.hours, batch.columns)
    others = [np.zeros(shape, dtype=np.float32) for _ in Recorded._fields[1:]]
    return Recorded(np.empty((batch.hours, depths, batch.columns), dtype=np.float32), *others)


def _points(batch: CaseBatch, depths_m: Sequence[float]) -> Points:
    at = [case.grid.between(np.minimum(depths_m, case.grid.depth_m)) for case in batch.cases]
    return Points(np.stack([above for above, _ in at]), np.stack([part for _, part in at]))
