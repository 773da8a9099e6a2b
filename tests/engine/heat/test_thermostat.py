"""Thermostats against a plain integration of the same box, and against what growers know of mats and cables."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.heat.source import Heating
from cloche_engine.places.rooms import ROOMS, Room, room
from cloche_engine.soil.bed import Bed, Layer, Parameters, SmallVolume
from cloche_engine.soil.conduction import prepare, step
from cloche_engine.soil.hours import FINE
from cloche_engine.soil.layers import Columns
from cloche_engine.soil.place import Place
from cloche_engine.soil.simulate import Trajectory, simulate
from tests.engine.weathers import WAVE, spell

LID = (CoverPeriod(kind("lid"), 0.0, 1e6),)
TRAY = Bed(texture="potting", volume=SmallVolume(0.06, 10.0), indoors=True, wetness=0.4)
BOX_CELLS, LOSS_W_M2K, HELD_J_M3K, PASSES_W_MK, AROUND_C = 10, 9.0, 2.2e6, 0.9, 8.0


def in_room(bed: Bed, described: Room, *covers: CoverPeriod, days: int = 8, out_c: float = 4.0) -> Trajectory:
    """A tray or box in a room at the end of a cool week."""
    weather = room(spell(date(2026, 2, 1), out_c - 4, out_c + 4, 0.5, days=days), described)
    return simulate([Place(bed, WAVE, covers).case(weather, Parameters.typical(1))], [0.01, 0.03, 0.05])[0]


def box_by_scipy(power: float, start_c: float, stop_c: float, hours: int, look_s: float) -> tuple[float, float]:
    """Share of the time that a box's heater is on, and the mean at its probe, over its second half: heat in ten slabs, one of
    them heated, losing warmth at its top and bottom, its thermostat looked at every so often. Method of lines and LSODA."""
    thickness = 0.012
    capacity, between = HELD_J_M3K * thickness, PASSES_W_MK / thickness
    half = 1 / (1 / LOSS_W_M2K + thickness / 2 / PASSES_W_MK)

    def slope(_t: float, soil: np.ndarray, watts: float) -> np.ndarray:
        flow = between * (soil[:-1] - soil[1:])
        net = np.zeros(BOX_CELLS)
        net[:-1] -= flow
        net[1:] += flow
        net[0] -= half * (soil[0] - AROUND_C)
        net[-1] -= half * (soil[-1] - AROUND_C)
        net[7] += watts
        return net / capacity

    soil, on, log = np.full(BOX_CELLS, AROUND_C), True, []
    for _ in range(int(hours * 3600 / look_s)):
        on = soil[2] < start_c or (on and soil[2] <= stop_c)
        soil = solve_ivp(slope, (0, look_s), soil, method="LSODA", args=(power * on,), rtol=1e-6, atol=1e-6).y[:, -1]
        log.append((on, soil[2]))
    late = np.array(log[len(log) // 2 :], dtype=float)
    return float(late[:, 0].mean()), float(late[:, 1].mean())


def box_by_ours(power: float, start_c: float, stop_c: float, hours: int) -> tuple[float, float]:
    """The same box stepped as the engine steps it."""
    thickness = 0.012
    single = np.ones((1, BOX_CELLS))
    between = np.full((1, BOX_CELLS - 1), PASSES_W_MK / thickness)
    half = 1 / (1 / LOSS_W_M2K + thickness / 2 / PASSES_W_MK)
    capacity = HELD_J_M3K * thickness * single
    columns = Columns(capacity, capacity, 0 * single, between, between, np.array([1e3]), np.array([half]), 0 * single)
    ready, soil, work = prepare(columns, 3600.0 / FINE), np.full(BOX_CELLS, AROUND_C), np.zeros((11, BOX_CELLS))
    on, log = True, []
    for _ in range(hours * FINE):
        on = bool(soil[2] < start_c or (on and soil[2] <= stop_c))
        work[1, :] = 0.0
        work[1, 7] = power * on
        step(0, columns, ready, (half * AROUND_C, half, AROUND_C), soil, work)
        log.append((on, soil[2]))
    late = np.array(log[len(log) // 2 :], dtype=float)
    return float(late[:, 0].mean()), float(late[:, 1].mean())


@pytest.mark.parametrize(("power", "start_c", "stop_c"), [(250.0, 18.0, 20.0), (400.0, 16.0, 19.0)])
def test_duty_and_warmth_are_those_of_a_plain_integration_of_the_same_box(power: float, start_c: float, stop_c: float) -> None:
    """Within 2 %, which is what duty and kilowatt hours rest on: against SciPy's LSODA, which looks as often."""
    ours, scipys = box_by_ours(power, start_c, stop_c, 240), box_by_scipy(power, start_c, stop_c, 240, 600.0)
    assert ours[0] == pytest.approx(scipys[0], rel=0.02)
    assert ours[1] == pytest.approx(scipys[1], abs=0.1)
    # In the long run the heater replaces what is lost: a balance by hand.
    lost = 2 * 1 / (1 / LOSS_W_M2K + 0.006 / PASSES_W_MK) * (ours[1] - AROUND_C)
    assert ours[0] * power == pytest.approx(lost, rel=0.08)


def test_a_ten_watt_cable_under_five_centimetres_holds_eighteen_degrees_in_a_house_of_five() -> None:
    """Common practice, no source: 10 W/m at 10 cm spacing; its thermostat still switches off now and then."""
    layers = (Layer(0.05, "potting"), Layer(0.05, "sharp_sand"), Layer(0.03, "sharp_sand"))
    volume = SmallVolume(0.13, 5.0, bottom_w_m2k=1.0, side_w_m2k=2.0, layers=layers)
    bed = replace(TRAY, volume=volume, heating=(Heating(100.0, 0.10, 17.0, 19.0, probe_m=0.03),))
    held = in_room(bed, ROOMS["shed"].between(4.0, 6.0), *LID, days=14)
    last = slice(-72, None)
    assert held.at(0.03)[last].mean() == pytest.approx(18.0, abs=1.0)
    duty = held.heat_w_m2[last].mean() / 100.0
    assert 0.3 < duty < 0.98


def test_a_thermostat_that_is_turned_down_uses_less_and_one_in_a_colder_room_more() -> None:
    def used(start_c: float, about: Room) -> float:
        bed = replace(TRAY, heating=(Heating(140.0, 0.06, start_c, start_c + 2, probe_m=0.03),))
        return float(in_room(bed, about, *LID).heat_w_m2[-72:].mean())

    cool, cold = ROOMS["shed"].between(13.0, 15.0), ROOMS["shed"].between(8.0, 10.0)
    assert used(16.0, cool) < used(20.0, cool) < used(20.0, cold)


def test_sand_below_a_tray_evens_out_what_its_mat_does() -> None:
    """Common practice, no source: a spreading layer holds heat, so the tray swings less with the room."""
    bare = replace(TRAY, heating=(Heating(110.0, 0.06, spans=((6.0, 22.0),)),))
    volume = SmallVolume(0.12, 10.0, layers=(Layer(0.06, "potting"), Layer(0.06, "sharp_sand")))
    spread = replace(bare, volume=volume, heating=(Heating(110.0, 0.12, spans=((6.0, 22.0),)),))
    swings = [float(np.ptp(in_room(bed, ROOMS["shed"]).at(0.03)[-24:])) for bed in (bare, spread)]
    assert swings[1] < 0.8 * swings[0]


def test_dry_vermiculite_keeps_the_heat_from_the_tray_and_wet_lets_it_through() -> None:
    """Common practice, no source: the layer must be kept moist."""

    def warm_c(moist: float) -> float:
        volume = SmallVolume(0.12, 10.0, layers=(Layer(0.06, "potting"), Layer(0.06, "vermiculite", moist)))
        bed = replace(TRAY, volume=volume, heating=(Heating(110.0, 0.12),))
        return float(in_room(bed, ROOMS["shed"]).at(0.03)[-24:].mean())

    assert warm_c(0.6) > warm_c(0.03)
