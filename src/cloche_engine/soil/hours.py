"""The engine's inner loop: every column of every case, hour by hour, over a segment in which nothing is put on, taken off or
dug. The surface, open or covered, becomes a flux that is straight in the first cell's temperature; the soil takes a step; the
surface's water is brought up to date."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche_engine.compiled import lean, woven
from cloche_engine.covers.kinds import PLANTED_THROUGH_M
from cloche_engine.soil.batch import BY_AIR, Between, Forcing, Points, Recorded, State, Top
from cloche_engine.soil.conduction import Ready, step
from cloche_engine.soil.covered_air import Cover, Inside, covered_balance
from cloche_engine.soil.heat_control import Heat, eased, is_on, watts_of
from cloche_engine.soil.layers import Columns
from cloche_engine.soil.side_by_side import BESIDE, Blocks, fetch, put_back, stayed_thawed, step_block
from cloche_engine.soil.soil_surface import Balance, Hour, SoilSurface, open_balance
from cloche_engine.soil.wetness import Holds, after_hour, held_at_freezing, snow_on, soil_surface_of

Array = NDArray[np.float64]

FINE = 6
"""Looks of a thermostat an hour: a mat warms its tray by half a kelvin in ten minutes."""


@lean
def run_hours(
    span: tuple[int, int],
    columns: Columns,
    ready: Ready,
    ready_fine: Ready,
    blocks: Blocks,
    top: Top,
    covers: Array,
    heat: Heat,
    forcing: Forcing,
    points: Points,
    state: State,
    recorded: Recorded,
    between: Between,
    work: Array,
) -> None:
    """Advance all columns over a span of hours.

    Each hour solves the surfaces, then the soil, then the water, and records the result.

    Parameters
    ----------
    span : tuple[int, int]
        First hour and the hour after the last.
    columns : Columns
        The batch's columns: conductances, capacities, water that freezes.
    ready : Ready
        The matrix of a step, factored.
    ready_fine : Ready
        The same for FINE steps an hour: a thermostat switches within the hour.
    blocks : Blocks
        The columns laid side by side.
    top : Top
        The surfaces with their covers and water.
    covers : ndarray
        (24, cases, fields of `Cover` less the last), by the day's hour.
    heat : Heat
        Heat sources of the batch.
    forcing : Forcing
        Weather of the hours, by case.
    points : Points
        Hours and depths that are recorded.
    state : State
        State of the columns.
    recorded : Recorded
        Where results are written.
    between : Between
        Scratch memory of an hour.
    work : ndarray
        Scratch memory, (WORK_ROWS, cells), zeros.
    """
    count, whole = len(state.soil), len(blocks.sided)
    for hour in range(span[0], span[1]):
        for c in range(count):
            _surface(c, hour, top, covers, forcing, state, between)
        for k in range(whole):
            beside = len(heat.cell) == 0 and fetch(k, state.soil, blocks)
            if beside:
                _side_by_side(k, hour, blocks, top, forcing, state, between)
            for j in range(BESIDE):
                c = k * BESIDE + j
                if beside and stayed_thawed(j, blocks):
                    put_back(k, j, blocks, state.soil, between.mean)
                    between.watts[c] = 0.0
                else:
                    _alone(c, hour, columns, ready, ready_fine, top, heat, forcing, state, between, work)
        for c in range(whole * BESIDE, count):
            _alone(c, hour, columns, ready, ready_fine, top, heat, forcing, state, between, work)
        for c in range(count):
            _end_hour(c, hour, columns, top, forcing, points, state, recorded, between)


@woven
def _surface(c: int, hour: int, top: Top, covers: Array, forcing: Forcing, state: State, between: Between) -> None:
    """Solve the surface balance of column c for one hour."""
    first_c = state.soil[c, 0]
    now = Hour(
        forcing.sun[hour, c] * top.sun[c],
        forcing.air[hour, c],
        forcing.sky[hour, c],
        forcing.wind[hour, c],
        forcing.vapour[hour, c],
        forcing.toward[hour, c] * top.sun[c],
        forcing.around[hour, c] * top.sun[c],
        forcing.puddles[hour, c],
    )
    water = (
        state.water.pool[c],
        state.water.store[c],
        snow_on(state.water.snow[c], forcing.snow[hour, c], top.is_covered[c]),
    )
    bare = SoilSurface(top.absorbs[c], top.conductance[c], top.convection[c], 0.0)
    holds = Holds(top.pool[c], top.store[c], top.above[c], top.drains[c])
    soil_surface = soil_surface_of(bare, top.wetness[c], top.evaporation[c], forcing.unlogged_wetness[hour, c], water, holds)
    balance = _balance(c, top, covers[hour % 24], soil_surface, now, state)
    melt = 0.0
    if water[2] > 0.0:
        balance, melt = held_at_freezing(balance, soil_surface, first_c)
    between.a[c], between.b[c], between.s0[c], between.s1[c] = balance.a, balance.b, balance.s0, balance.s1
    between.latent[c], between.snow[c], between.melt[c] = balance.latent, water[2], melt


@woven
def _side_by_side(k: int, hour: int, blocks: Blocks, top: Top, forcing: Forcing, state: State, between: Between) -> None:
    """Advance the soil of a block by one hour, without ice and heating."""
    if blocks.sided[k]:
        for j in range(BESIDE):
            c = k * BESIDE + j
            air_c = _beside_c(c, hour, top, forcing)
            for i in range(len(blocks.soil)):
                blocks.beside[i, j] = air_c if top.beside[c] == BY_AIR else state.soil[top.beside[c], i]
    step_block(k, blocks, between.a, between.b, forcing.deep[hour])


@woven
def _beside_c(c: int, hour: int, top: Top, forcing: Forcing) -> float:
    """Return the temperature of the air at the sides, warmed by the sun on them [°C]."""
    return forcing.air[hour, c] + top.side_sun[c] * (forcing.sun[hour, c] * top.sun[c])


@woven
def _alone(
    c: int,
    hour: int,
    columns: Columns,
    ready: Ready,
    ready_fine: Ready,
    top: Top,
    heat: Heat,
    forcing: Forcing,
    state: State,
    between: Between,
    work: Array,
) -> None:
    """Advance the soil of column c by one hour, with ice and heating."""
    _stand_beside(c, columns, top, _beside_c(c, hour, top, forcing), state, work)
    drive = (between.a[c], between.b[c], forcing.deep[hour, c])
    if len(heat.cell) > 0 and heat.start_c[hour, top.case[c]] > -np.inf:
        watts = _switched(c, hour, columns, ready_fine, drive, top, heat, state, work)
    else:
        watts = _warm(c, hour, top, heat, state, work)
        step(c, columns, ready, drive, state.soil[c], work)
    between.watts[c] = watts
    for i in range(work.shape[1]):
        between.mean[c, i] = work[0, i]


@woven
def _end_hour(
    c: int,
    hour: int,
    columns: Columns,
    top: Top,
    forcing: Forcing,
    points: Points,
    state: State,
    recorded: Recorded,
    between: Between,
) -> None:
    """Advance the surface and water of column c and record the hour."""
    mean_c = between.mean[c]
    flux = between.a[c] - between.b[c] * mean_c[0]
    state.surface[c] = between.s0[c] + between.s1[c] * mean_c[0]
    water = (state.water.pool[c], state.water.store[c], between.snow[c])
    holds = Holds(top.pool[c], top.store[c], top.above[c], top.drains[c])
    falls = (forcing.rain[hour, c] * top.passes[c], forcing.air[hour, c], between.melt[c], forcing.given[hour, c])
    after = after_hour(water, falls, between.latent[c], top.supply[c], holds, top.is_covered[c])
    state.water.pool[c], state.water.store[c], state.water.snow[c] = after
    _keep(hour, c, top.case[c], points, mean_c, mean_c[0] + flux / columns.top[c], state, recorded)
    recorded.flux_w_m2[hour, c], recorded.heat_w_m2[hour, c] = flux, between.watts[c]
    recorded.moist[hour, c] = (after[0] + after[1]) / (holds.pool + holds.store)


@woven
def _balance(c: int, top: Top, covers: Array, soil_surface: SoilSurface, now: Hour, state: State) -> Balance:
    """Return the surface balance and advance what stands above the surface."""
    first_c, surface_c = state.soil[c, 0], state.surface[c]
    if not top.is_covered[c]:
        state.air[c] = state.inner[c] = state.outer[c] = now.air
        state.opening[c], state.vapour[c] = 0.0, now.vapour
        return open_balance(soil_surface, now, first_c, surface_c)
    p = covers[top.case[c]]
    optics, shape = (p[0], p[1], p[2], p[3], p[4], p[5], p[6]), (p[7], p[8], p[9], p[10], p[11])
    air = (p[12], p[13], p[14], p[15], p[16])
    cover = Cover(*optics, *shape, *air, top.light[c], top.exchange[c], top.loss[c])
    before = Inside(state.air[c], state.inner[c], state.outer[c], state.opening[c], state.vapour[c])
    balance, inside = covered_balance(soil_surface, cover, now, first_c, surface_c, before)
    state.air[c], state.inner[c], state.outer[c], state.opening[c], state.vapour[c] = inside
    if cover.gap_m <= PLANTED_THROUGH_M:
        state.air[c] = now.air
    return balance


@woven
def _stand_beside(c: int, columns: Columns, top: Top, air_c: float, state: State, work: Array) -> None:
    """Write the temperature of what stands beside the column to row 2 of work.

    A neighbour comes later in the batch, so it has not yet been advanced.
    """
    if columns.side_per_s[c, 0] == 0.0:
        return
    for i in range(work.shape[1]):
        work[2, i] = air_c if top.beside[c] == BY_AIR else state.soil[top.beside[c], i]


@woven
def _warm(c: int, hour: int, top: Top, heat: Heat, state: State, work: Array) -> float:
    """Add the heating from below to its cell in row 1 of work and return it [W/m²]."""
    if len(heat.cell) == 0:
        return 0.0
    work[1, :] = 0.0
    case = top.case[c]
    watts = watts_of(heat, hour, case, top.rise[c], top.fade[c]) * top.heat[c]
    if watts == 0.0:
        return 0.0
    probe_c = state.soil[c, heat.probe[hour, case]]
    state.on[c] = is_on(probe_c, heat.start_c[hour, case], heat.stop_c[hour, case], state.on[c])
    if not state.on[c]:
        return 0.0
    cell = heat.cell[hour, case]
    watts = eased(watts, state.soil[c, cell], heat.full_c[hour, case], heat.none_c[hour, case])
    work[1, cell] = watts
    return watts


@woven
def _switched(
    c: int,
    hour: int,
    columns: Columns,
    ready: Ready,
    drive: tuple[float, float, float],
    top: Top,
    heat: Heat,
    state: State,
    work: Array,
) -> float:
    """Advance an hour in FINE steps with a thermostat that may switch between them.

    Returns the mean power [W/m²]; the mean soil temperature is left in row 0 of work.
    """
    watts, last = 0.0, work.shape[0] - 1
    work[last, :] = 0.0
    for _ in range(FINE):
        watts += _warm(c, hour, top, heat, state, work) / FINE
        step(c, columns, ready, drive, state.soil[c], work)
        for i in range(work.shape[1]):
            work[last, i] += work[0, i] / FINE
    for i in range(work.shape[1]):
        work[0, i] = work[last, i]
    return watts


@woven
def _keep(hour: int, c: int, case: int, points: Points, mean_c: Array, face_c: float, state: State, recorded: Recorded) -> None:
    """Record the means of the hour. The soil surface lies below crust, mulch and snow."""
    for d in range(points.above.shape[1]):
        above, part = points.above[case, d], points.part[case, d]
        upper = face_c if above < 0 else mean_c[above]
        recorded.soil_c[hour, d, c] = upper + part * (mean_c[above + 1] - upper)
    recorded.air_c[hour, c], recorded.surface_c[hour, c] = state.air[c], state.surface[c]
    recorded.cover_c[hour, c], recorded.opening[hour, c] = state.inner[c], state.opening[c]
