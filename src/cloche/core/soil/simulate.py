"""Running places through weather: hour by hour, all columns of all lanes at once.

Each hour the surface, open or covered, becomes a flux that is straight in the first cell's temperature; the soil takes a step;
the surface's wetness and snow are brought up to date. Between changes (a cover on or off, mulch, digging) the columns' make-up
is constant.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from cloche.core.heat.control import Heater
from cloche.core.soil.conduction import Conductor, Step
from cloche.core.soil.faces import Faces, State
from cloche.core.soil.lanes import Batch, Lane
from cloche.core.soil.stretch import Stretch
from cloche.core.soil.wetness import Water

Array = NDArray[np.float64]
Small = NDArray[np.float32]

STEP_S = 3600.0
WETNESS_EVERY_H = 3
"""Surfaces dry and wet slowly: their wetness is brought up to date so often."""


@dataclass(frozen=True)
class Course:
    """A place through time, hours along axis 0. soil_c: (hours, depths, members); (hours, members) each: air_c among the
    plants, inside a cover or open; surface_c; cover_c, its inner face (air where there is none); opening 0-1; flux_w_m2
    into the soil; heat_w_m2 from below."""

    depths_m: tuple[float, ...]
    soil_c: Small
    air_c: Small
    surface_c: Small
    cover_c: Small
    opening: Small
    flux_w_m2: Small
    heat_w_m2: Small
    end_c: Array

    def at(self, depth_m: float) -> Small:
        """Hourly means at one of the depths asked for, (hours, members)."""
        return self.soil_c[:, self.depths_m.index(depth_m)]


KEPT = ("air_c", "surface_c", "cover_c", "opening", "flux_w_m2", "heat_w_m2")


def simulate(lanes: Sequence[Lane], depths_m: Sequence[float]) -> list[Course]:
    """Run lanes of equal length; depths_m: where the soil is wanted, 0 being its face."""
    runner = _Runner(Batch(lanes), tuple(depths_m))
    for start, end in runner.stretches():
        runner.run(start, end)
    return runner.courses()


class _Runner:
    def __init__(self, batch: Batch, depths_m: tuple[float, ...]) -> None:
        self.batch, self.depths_m = batch, depths_m
        self.forcing = batch.forcing()
        self.soil = batch.start_c()
        air = self.forcing.air[0]
        self.state = State(air.copy(), air.copy(), air.copy(), air.copy(), np.zeros(batch.columns))
        self.water, self.heater = Water(batch.columns), Heater(batch)
        self.soil_kept = np.empty((batch.hours, len(depths_m), batch.columns), dtype=np.float32)
        self.kept = {name: np.zeros((batch.hours, batch.columns), dtype=np.float32) for name in KEPT}
        at = [lane.grid.weights_at(np.minimum(depths_m, lane.grid.depth_m)) for lane in batch.lanes]
        members = [lane.members for lane in batch.lanes]
        self.cell_weights = np.repeat(np.stack([cells for cells, _ in at]), members, axis=0)
        self.face_weights = np.repeat(np.stack([face for _, face in at]), members, axis=0).T

    def stretches(self) -> list[tuple[int, int]]:
        """Spans of hours between changes."""
        marks = sorted({0, self.batch.hours}.union(*(lane.changes_h for lane in self.batch.lanes)))
        return list(pairwise(marks))

    def run(self, start: int, end: int) -> None:
        """One stretch of constant make-up."""
        stretch = Stretch(self.batch, start)
        conductor = Conductor(stretch.columns, STEP_S, self.soil, self.cell_weights, stretch.side_per_s)
        self.heater.enter(conductor)
        faces = Faces(stretch, self.forcing, start, end)
        state, water = self.state, self.water
        state.air_c, state.inner_c, state.outer_c = state.air_c.copy(), state.inner_c.copy(), state.outer_c.copy()
        state.opening = np.where(stretch.is_covered, state.opening, 0.0)
        skin = water.skin(stretch)
        for hour in range(start, end):
            first = conductor.first_c
            balance = faces.balance(hour - start, skin, first, state)
            balance, melt = water.hold_at_freezing(balance, skin, first)
            heat = self.heater.modes_at(hour)
            step = conductor.step(balance.a, balance.b, self.forcing.deep[hour], self._side(stretch, conductor, hour), heat)
            state.surface_c = balance.s0 + balance.s1 * step.first_c
            self._keep(hour, step, stretch)
            water.note(self.forcing.rain[hour], self.forcing.air[hour], balance.latent, melt)
            if water.any_snow or water.snows or hour % WETNESS_EVERY_H == 0 or hour + 1 == end:
                water.settle(stretch)
                skin = water.skin(stretch)
        self.soil = conductor.soil_c

    def _side(self, stretch: Stretch, conductor: Conductor, hour: int) -> Array | None:
        """Modes of what stands at the side: the open neighbour under a cover, the air elsewhere."""
        if not stretch.has_sides:
            return None
        beside = conductor.one * self.forcing.air[hour]
        follows = stretch.follows_neighbour & stretch.is_covered
        beside[:, follows] = conductor.modes[:, self.batch.neighbour[follows]]
        return beside

    def _keep(self, hour: int, step: Step, stretch: Stretch) -> None:
        # The soil's face lies below crust, mulch and snow.
        face = step.first_c + step.flux_w_m2 / stretch.columns.top
        self.soil_kept[hour] = step.points_c + self.face_weights * face
        state = self.state
        values = (state.air_c, state.surface_c, state.inner_c, state.opening, step.flux_w_m2, self.heater.power_w_m2)
        for name, value in zip(KEPT, values, strict=True):
            self.kept[name][hour] = value

    def courses(self) -> list[Course]:
        """Each own lane's part."""
        own = self.batch.slices[: self.batch.own]
        return [
            Course(self.depths_m, self.soil_kept[:, :, s], **{n: v[:, s] for n, v in self.kept.items()}, end_c=self.soil[s])
            for s in own
        ]
