"""When a cover goes on, is opened and comes off, against nights of which everything is known."""

from __future__ import annotations

from math import inf

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from cloche_engine.crops.catalogue import crop
from cloche_engine.hazards.air_limits import off_night_c
from cloche_engine.protection.cover_benefit import STAYS_D, even_lows_c, off_day
from cloche_engine.protection.timetable import Covered, OffBy, OffRule, ends_night_c, off_from, timetable

WARMING = np.arange(0.0, 18.0, 0.1)
"""Nights that rise by a kelvin in ten days."""


def day_of(low_c: float) -> int:
    return round(low_c * 10)


def test_heat_lovers_are_uncovered_when_nights_stay_above_ten_degrees() -> None:
    # Common practice, no source: a tunnel over heat-lovers comes off at about 10 °C, 50 °F.
    for key in ("muskmelon", "cucumber", "eggplant"):
        assert off_night_c(crop(key)) == pytest.approx(10.0, abs=2.0)
    days = timetable(Covered(crop("muskmelon"), up_d=20), WARMING, OffRule.NIGHTS)
    assert days.off_by is OffBy.NIGHTS
    assert days.off_d == pytest.approx(day_of(off_night_c(crop("muskmelon"))), abs=1)


@pytest.mark.parametrize("key", ["lettuce", "pea", "muskmelon", "snap_bean", "kale"])
def test_it_is_aired_first_then_open_at_its_ends_then_off(key: str) -> None:
    days = timetable(Covered(crop(key), up_d=5), WARMING, OffRule.NIGHTS)
    assert days.ends_d is not None
    assert days.off_d is not None
    assert days.vent_d <= days.ends_d <= days.off_d
    assert ends_night_c(crop(key)) <= off_night_c(crop(key))


def test_no_rule_is_stricter_than_a_bare_sowing() -> None:
    bean = crop("snap_bean")
    for rule in OffRule:
        alone = timetable(Covered(bean, 10, touches_d=160), WARMING, rule)
        beside = timetable(Covered(bean, 10, touches_d=160, bare_up_d=15), WARMING, rule)
        assert alone.off_d is not None
        assert beside.off_d is not None
        assert beside.off_d == min(alone.off_d, 15)
    # What is not up yet is not uncovered either.
    assert timetable(Covered(bean, 30, bare_up_d=15), WARMING, OffRule.NIGHTS).off_d == 30


def test_by_height_it_is_off_when_they_touch_and_by_nights_it_may_be_too_low() -> None:
    bean = crop("snap_bean")
    assert timetable(Covered(bean, 10, touches_d=44), WARMING, OffRule.HEIGHT).off_d == 44
    by_nights = timetable(Covered(bean, 10, touches_d=44), WARMING, OffRule.NIGHTS)
    assert by_nights.off_d is not None
    assert by_nights.too_low_d == max(by_nights.off_d - 44, 0)
    assert timetable(Covered(bean, 10), WARMING, OffRule.NIGHTS).too_low_d == 0


def test_what_has_been_up_for_long_is_established_now_and_not_later_every_day() -> None:
    kale = crop("kale")
    assert [timetable(Covered(kale, up_d), WARMING, OffRule.ESTABLISHED).off_d for up_d in (0, -10, -20, -21, -60)] == [
        21,
        11,
        1,
        0,
        0,
    ]
    assert timetable(Covered(kale, -60), WARMING, OffRule.NIGHTS) == timetable(Covered(kale, 0), WARMING, OffRule.NIGHTS)


def test_where_nights_never_get_warm_it_stays_on() -> None:
    days = timetable(Covered(crop("muskmelon"), 10, touches_d=30), np.full(100, 2.0), OffRule.NIGHTS)
    assert (days.off_d, days.off_by) == (None, None)


@given(
    arrays(np.float64, (40, 9), elements=st.floats(-15, 25)),
    st.floats(-10, 20),
)
def test_one_lowest_tells_as_much_as_all_members(night_c: np.ndarray, wanted_c: float) -> None:
    """The plain words of the rule: on that day half of the members or more have a week above it, on none before."""
    weeks = np.stack([night_c[i : i + STAYS_D].min(axis=0) for i in range(len(night_c) - STAYS_D + 1)])
    fit = np.flatnonzero((weeks >= wanted_c).mean(axis=1) >= 0.5)
    expected = float(fit[0]) if len(fit) else inf
    assert off_day(night_c, wanted_c) == expected == off_from(even_lows_c(night_c), wanted_c)
