"""Hotbeds. Common practice, no source: trodden hay and dung reach about 30 °C within a fortnight and fade over weeks."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from cloche.core.errors import OutOfRange
from cloche.core.heat.hotbed import USUAL, Build, core_share, heating_of
from cloche.core.soil.bed import Bed, Character
from cloche.core.soil.calibrate import names_for
from cloche.core.soil.place import Place
from cloche.core.soil.simulate import Course, simulate
from tests.core.weathers import MIXED_D, WAVE, spell, under

WEEKS_D = 60


def course(build: Build = USUAL, topped_d: float | None = None, character: Character | None = None) -> Course:
    """Filled on the first fair day of late winter under a glass frame."""
    weather = spell(date(2026, 2, 10), 1.0, 9.0, 0.5, days=WEEKS_D)
    filled = MIXED_D * 24.0
    heating = heating_of(build, filled, None if topped_d is None else filled + topped_d * 24)
    place = Place(Bed(heating=heating), WAVE, (under("glass_frame"),))
    return simulate([place.lane(weather, character or Character.plain(1))], [0.10])[0]


def daily(found: Course) -> np.ndarray:
    return found.at(0.10)[MIXED_D * 24 :, 0].reshape(-1, 24).mean(axis=1)


def test_hay_and_dung_reach_about_thirty_degrees_within_a_fortnight_and_fade() -> None:
    warm = daily(course(replace(USUAL, material="hay")))
    assert 25 < warm[:16].max() < 36
    assert warm[WEEKS_D - 1] < warm.max() - 5


@pytest.mark.parametrize("less", [{"moist": "dry"}, {"moist": "wet"}, {"depth_m": 0.35}, {"insulated": False, "width_m": 0.6}])
def test_dry_wet_shallow_or_draughty_heaps_stay_cooler(less: dict[str, object]) -> None:
    assert daily(course(replace(USUAL, **less))).max() < daily(course()).max() - 1


def test_loose_is_hot_and_short_and_trodden_hard_slow_and_long() -> None:
    loose, hard = (daily(course(replace(USUAL, trodden=key))) for key in ("loose", "hard"))
    assert loose.argmax() < hard.argmax()
    assert loose[-1] < hard[-1] + 2


def test_topping_up_warms_it_again() -> None:
    once, twice = daily(course()), daily(course(topped_d=40))
    assert np.abs(twice[:39] - once[:39]).max() < 0.01
    assert twice[50] > once[50] + 2


def test_a_bed_may_rise_later_and_fade_sooner_than_reckoned() -> None:
    plain, own = Character.plain(1), Character.plain(1)
    own = replace(own, fade=np.array([0.6]), rise=np.array([2.0]))
    told, found = daily(course(character=plain)), daily(course(character=own))
    assert found.argmax() > told.argmax()
    assert found[-1] < told[-1] - 2


def test_on_a_later_clock_it_is_as_old_as_it_is() -> None:
    place = Place(Bed(heating=heating_of(USUAL, 100.0, 900.0)), WAVE).shifted(240.0)
    assert place.bed.heating is not None
    assert (place.bed.heating.filled_h, place.bed.heating.topped_h) == (-140.0, 660.0)


def test_its_readings_teach_power_rise_and_fade() -> None:
    place = Place(Bed(heating=heating_of(USUAL, 0.0)), WAVE)
    assert {"heat", "rise", "fade"} <= set(names_for(place))


def test_a_larger_heap_has_less_edge_and_none_is_refused() -> None:
    assert core_share(USUAL) < core_share(replace(USUAL, length_m=6.0, width_m=2.0))
    with pytest.raises(OutOfRange):
        heating_of(replace(USUAL, depth_m=0.0), 0.0)
