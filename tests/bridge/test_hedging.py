"""A packet split over days and places, out of stored outlooks."""

import numpy as np
import pytest

from cloche.bridge.services import hedging
from cloche_engine.layout import MEMBERS
from cloche_engine.packing import DAYS, SHARES, TENTHS, Grain
from cloche_engine.results import CandidateDays

LENGTH = 40
HARVEST_D = 60.0


def outlook(first_half: bool, second_half: bool, from_day: int = 0) -> tuple[CandidateDays, str]:
    """A place where sowings from a day on succeed in one half of the scenarios, in the other, in both, or never."""
    half = np.arange(MEMBERS) < MEMBERS // 2
    succeeds = np.where(half, first_half, second_half)[None, :] & (np.arange(LENGTH) >= from_day)[:, None]
    whole = np.ones(LENGTH)
    days = CandidateDays(
        day=list(range(LENGTH)),
        success=succeeds.mean(axis=1).tolist(),
        soil_c=[12.0] * LENGTH,
        growth=SHARES.pack(whole),
        worth=SHARES.pack(whole),
        harvest_d=TENTHS.pack(HARVEST_D * whole),
        limits=[],
        failing="",
    )
    return days, DAYS.pack(np.where(succeeds, 9.0, np.inf))


def test_one_sure_sowing_is_enough_and_no_surer_than_mishap_allows() -> None:
    plan = hedging.split([outlook(True, True)], 0.85, None)
    assert [(part.place, part.day) for part in plan.parts] == [(0, 0)]
    assert plan.reached == pytest.approx(1 - hedging.MISHAP)


def test_two_places_that_fail_in_different_years_make_up_for_each_other() -> None:
    plan = hedging.split([outlook(True, False), outlook(False, True)], 0.85, None)
    assert {part.place for part in plan.parts} == {0, 1}
    assert plan.reached >= 0.85
    alone = hedging.split([outlook(True, False)], 0.85, None)
    assert alone.reached < 0.55


def test_only_days_that_give_a_crop_in_time_are_taken() -> None:
    for last_day, none in ((59, True), (60, False), (None, False)):
        assert (hedging.split([outlook(True, True)], 0.85, last_day).parts == []) is none
    late = hedging.split([outlook(True, True, from_day=20)], 0.85, 85)
    assert [part.day for part in late.parts] == [20]
    assert hedging.split([outlook(True, True, from_day=30)], 0.85, 85).parts == []


def test_without_any_place_there_is_no_plan() -> None:
    assert hedging.split([], 0.9, None).reached == 0.0
    assert hedging.split([outlook(False, False)], 0.9, None).parts == []


@pytest.mark.parametrize(("grain", "most"), [(DAYS, 254.0), (TENTHS, 6553.4), (SHARES, 1.0)])
def test_what_is_packed_is_read_back_to_half_a_step_and_never_stays_never(grain: Grain, most: float) -> None:
    values = np.array([[0.0, most, np.inf], [most / 2, most / 3, np.inf]])
    days = grain.unpack(grain.pack(values), 2, 3)
    assert np.isinf(days[:, 2]).all()
    assert days[:, :2] == pytest.approx(values[:, :2], abs=grain.step / 2 + 1e-9)
