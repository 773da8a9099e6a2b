"""Hotbeds. Common practice, no source: a first flush, then about 30 °C after a fortnight, fading over weeks."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from cloche_engine.errors import OutOfRange
from cloche_engine.heat.hotbed import USUAL, Build, core_share, heating_of
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.learned import names_for
from cloche_engine.soil.place import Place
from cloche_engine.soil.simulate import Trajectory, simulate
from tests.engine.weathers import MIXED_D, WAVE, spell, under

WEEKS_D, CORE_M = 60, 0.30


def trajectory(build: Build = USUAL, topped_d: float | None = None, parameters: Parameters | None = None) -> Trajectory:
    """Filled on the first fair day of late winter under a glass frame."""
    weather = spell(date(2026, 2, 10), 1.0, 9.0, 0.5, days=WEEKS_D)
    filled = MIXED_D * 24.0
    heating = heating_of(build, filled, None if topped_d is None else filled + topped_d * 24)
    place = Place(Bed(heating=(heating,)), WAVE, (under("glass_frame"),))
    return simulate([place.case(weather, parameters or Parameters.typical(1))], [0.10, CORE_M])[0]


def daily(trajectory: Trajectory, depth_m: float = 0.10) -> np.ndarray:
    return trajectory.at(depth_m)[MIXED_D * 24 :, 0].reshape(-1, 24).mean(axis=1)


@pytest.mark.parametrize("build", [USUAL, replace(USUAL, material="hay"), replace(USUAL, material="hay", trodden="hard")])
def test_trodden_manure_or_hay_and_dung_hold_about_thirty_degrees_after_a_fortnight_and_fade(build: Build) -> None:
    warm = daily(trajectory(build))
    assert warm[14] == pytest.approx(30, abs=3)
    assert warm[WEEKS_D - 1] < warm[14] - 5


def test_the_first_flush_is_waited_for_until_roots_can_bear_the_soil() -> None:
    """Core 50 to 65 °C from the third to the seventh day; the soil on it below 27 to 30 °C in the third week."""
    core = daily(trajectory(), CORE_M)
    assert 50 < core[3:8].max() < 65
    warm = daily(trajectory())
    assert warm[:8].max() > 33
    assert (warm[14:21] < 30.5).all()
    assert daily(trajectory(replace(USUAL, trodden="hard")))[:8].max() < warm[:8].max() - 3


@pytest.mark.parametrize("less", [{"moist": "dry"}, {"moist": "wet"}, {"depth_m": 0.35}, {"insulated": False, "width_m": 0.6}])
def test_dry_wet_shallow_or_draughty_heaps_stay_cooler(less: dict[str, object]) -> None:
    assert daily(trajectory(replace(USUAL, **less))).max() < daily(trajectory()).max() - 1


def test_loose_is_hot_and_short_and_trodden_hard_slow_and_long() -> None:
    loose, hard = (daily(trajectory(replace(USUAL, trodden=key))) for key in ("loose", "hard"))
    assert loose.argmax() < hard.argmax()
    assert loose[-1] < hard[-1] + 2


def test_topping_up_warms_it_again() -> None:
    once, twice = daily(trajectory()), daily(trajectory(topped_d=40))
    assert np.abs(twice[:39] - once[:39]).max() < 0.01
    assert twice[50] > once[50] + 2


def test_a_bed_may_rise_later_and_fade_sooner_than_reckoned() -> None:
    plain, own = Parameters.typical(1), Parameters.typical(1)
    own = replace(own, fade=np.array([0.6]), rise=np.array([2.0]))
    given, bed_c = daily(trajectory(parameters=plain)), daily(trajectory(parameters=own))
    assert bed_c.argmax() > given.argmax()
    assert bed_c[-1] < given[-1] - 2


def test_on_a_later_clock_it_is_as_old_as_it_is() -> None:
    place = Place(Bed(heating=(heating_of(USUAL, 100.0, 900.0),)), WAVE).shifted(240.0)
    heap = place.bed.heating[0]
    assert (heap.filled_h, heap.topped_h) == (-140.0, 660.0)


def test_its_readings_teach_power_rise_and_fade() -> None:
    place = Place(Bed(heating=(heating_of(USUAL, 0.0),)), WAVE)
    assert {"heat", "rise", "fade"} <= set(names_for(place))


def test_a_larger_heap_has_less_edge_and_none_is_refused() -> None:
    assert core_share(USUAL) < core_share(replace(USUAL, length_m=6.0, width_m=2.0))
    with pytest.raises(OutOfRange):
        heating_of(replace(USUAL, depth_m=0.0), 0.0)
