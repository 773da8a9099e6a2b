"""What a cover buys, on courses whose answer is known by hand."""

from dataclasses import replace
from datetime import date
from math import inf

import numpy as np
import pytest

from cloche_engine.crops.catalogue import crop
from cloche_engine.hazards.air_limits import off_night_c
from cloche_engine.protection import cover_benefit
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.place import Place
from cloche_engine.soil.simulate import simulate
from tests.engine.weathers import WAVE, closed_and, spell


def days(*values: float) -> np.ndarray:
    return np.repeat(np.array(values)[:, None], 4, axis=1)


def test_ground_is_ready_when_it_stays_warm_for_a_week() -> None:
    one_warm_day = days(5, 5, 15, *[5] * 6, *[11] * 12)
    assert cover_benefit.ready_day(one_warm_day, 10.0) == 8.0  # one day of 5 and six of 11 have a mean of 10.1
    assert cover_benefit.ready_day(one_warm_day, 12.0) == inf


def test_half_of_the_courses_are_enough() -> None:
    split = np.hstack([days(*[12] * 14)[:, :2], days(*[8] * 14)[:, :2]])
    assert cover_benefit.ready_day(split, 10.0) == 0.0
    split[:, 1] = 8.0
    assert cover_benefit.ready_day(split, 10.0) == inf


def test_a_cover_comes_off_when_no_night_of_a_week_is_too_cold() -> None:
    nights = days(*[12] * 5, 2, *[12] * 14)
    assert cover_benefit.off_day(nights, 10.0) == 6.0
    assert cover_benefit.off_day(nights, 13.0) == inf


def test_over_heat_lovers_nights_of_ten_degrees_are_wanted() -> None:
    """Common practice, no source: a tunnel over heat-lovers comes off when nights stay above about 10 °C."""
    assert off_night_c(crop("cucumber")) == crop("cucumber").plant_night_c >= 8.0
    assert off_night_c(crop("lettuce")) < 10.0


def test_seed_in_steady_soil_comes_up_as_in_the_table() -> None:
    """Carrot at 20 °C: 7 days in the published table, here without a field factor; hours at its own depth."""
    result = cover_benefit.emerging(np.full((60 * 24, 3), 20.0), crop("carrot"), 1.0, 0)
    assert result.half_d == pytest.approx([7.0] * 3, abs=0.6)
    assert result.share > 0.9


def test_frozen_ground_brings_nothing_up() -> None:
    result = cover_benefit.emerging(np.full((40 * 24, 2), -3.0), crop("carrot"), 1.0, 0)
    assert (result.half_d == inf).all()
    assert result.share == 0.0


def test_hours_of_opening_are_those_of_the_sun() -> None:
    weather = spell(date(2026, 5, 1), 8, 22, 0.9, days=4)
    shut, aired = closed_and(0.5, above_c=24.0)
    place = Place(Bed(), WAVE, (shut,))
    case = place.case(weather, Parameters.typical(1))
    closed, ruled = simulate([case, replace(case, covers=(aired,))], (0.05,))
    assert cover_benefit.opening_h(closed, 16) == 0.0
    assert 0.5 < cover_benefit.opening_h(ruled, 16) < 8.0
    assert cover_benefit.hottest_c(closed, 16)[1] > cover_benefit.hottest_c(ruled, 16)[1] + 2
    assert cover_benefit.coldest_c(closed, 16)[1] < closed.air_c.min() + 0.01
