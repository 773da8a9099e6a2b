"""Running places through weather. Between changes (a cover on or off, mulch, digging) the columns' make-up is constant."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil.batch import Begin, Between, Points, Recorded, State
from cloche.core.soil.cases import Case, CaseBatch
from cloche.core.soil.conduction import WORK_ROWS, prepare
from cloche.core.soil.heat_control import heat_of
from cloche.core.soil.hours import FINE, run_hours
from cloche.core.soil.segment import Segment
from cloche.core.soil.side_by_side import in_blocks
from cloche.core.soil.wetness import Water

Small = NDArray[np.float32]

STEP_S = 3600.0


@dataclass(frozen=True)
class Trajectory:
    """A place through time, hours along axis 0. soil_c: (hours, depths, members); (hours, members) each: air_c among the
    plants, inside a cover or open; surface_c; cover_c, its inner face (air where there is none); opening 0-1; flux_w_m2
    into the soil; heat_w_m2 from below; moist, water in the top as a share of what it
    holds once it has drained: above 1 for hours to days after much rain. end: how it stands after the last
    hour; end_beside: so the open ground at its side, where it was run along."""

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
        """All that is known of its hours, by name."""
        return {name: getattr(self, name) for name in Recorded._fields}

    def cut(self, hours: int) -> Trajectory:
        """Its first hours; `end` stays that of the whole.

        Parameters
        ----------
        hours : int
            Number of hours.

        Returns
        -------
        Trajectory
        """
        return Trajectory(
            self.depths_m, end=self.end, end_beside=self.end_beside, **{n: v[:hours] for n, v in self.hourly.items()}
        )

    def after(self, hours: int) -> Trajectory:
        """All but its first hours.

        Parameters
        ----------
        hours : int
            Number of hours.

        Returns
        -------
        Trajectory
        """
        return Trajectory(
            self.depths_m, end=self.end, end_beside=self.end_beside, **{n: v[hours:] for n, v in self.hourly.items()}
        )

    def at(self, depth_m: float) -> Small:
        """Hourly means at one of the depths asked for, (hours, members).

        Parameters
        ----------
        depth_m : float
            Depth below the surface, positive down [m].

        Returns
        -------
        Small
        """
        return self.soil_c[:, self.depths_m.index(depth_m)]


def simulate(cases: Sequence[Case], depths_m: Sequence[float]) -> list[Trajectory]:
    """Run cases of equal length.

    Parameters
    ----------
    cases : Sequence[Case]
        Cases of equal length.
    depths_m : Sequence[float]
        Where the soil is wanted, 0 being its face.

    Returns
    -------
    list[Trajectory]
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
    """Hours between changes."""
    marks = sorted({0, batch.hours}.union(*(case.changes_h for case in batch.cases)))
    return list(pairwise(marks))


def _room(batch: CaseBatch, depths: int) -> Recorded:
    shape = (batch.hours, batch.columns)
    others = [np.zeros(shape, dtype=np.float32) for _ in Recorded._fields[1:]]
    return Recorded(np.empty((batch.hours, depths, batch.columns), dtype=np.float32), *others)


def _points(batch: CaseBatch, depths_m: Sequence[float]) -> Points:
    at = [case.grid.between(np.minimum(depths_m, case.grid.depth_m)) for case in batch.cases]
    return Points(np.stack([above for above, _ in at]), np.stack([part for _, part in at]))
