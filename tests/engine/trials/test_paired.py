"""The paired trial's figures against statsmodels (TTestPower, DescrStatsW) and SciPy."""

from math import inf

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats
from statsmodels.stats.power import TTestPower
from statsmodels.stats.weightstats import DescrStatsW

from cloche_engine.trials.paired import MOST_DAYS, days_for_power, days_for_width, difference, half_width_k, more_days

RNG = np.random.default_rng(5)


@pytest.mark.parametrize("count", [3, 5, 7])
def test_the_interval_is_students(count: int) -> None:
    pairs = RNG.normal(2.0, 1.2, count)
    result = difference(list(pairs), list(range(count)))
    assert (result.low_k, result.high_k) == pytest.approx(DescrStatsW(pairs).tconfint_mean(0.05))
    assert result.settled is bool(stats.ttest_1samp(pairs, 0.0).pvalue < 0.05)


@pytest.mark.parametrize(("mean", "sd"), [(1.0, 1.0), (2.0, 1.5), (0.5, 1.2), (3.0, 1.0)])
def test_days_to_tell_it_from_nothing_are_statsmodels(mean: float, sd: float) -> None:
    wanted = TTestPower().solve_power(effect_size=mean / sd, power=0.8, alpha=0.05, alternative="two-sided")
    assert days_for_power(mean, sd) == max(int(np.ceil(wanted)), 3)


@given(st.floats(0.2, 3.0), st.floats(0.2, 2.0))
def test_days_to_know_it_to_a_width_are_the_fewest(sd: float, half: float) -> None:
    days = days_for_width(sd, half)
    if days is None:
        assert half_width_k(sd, MOST_DAYS - 1) > half
        return
    low, high = stats.t.interval(0.95, days - 1, scale=sd / np.sqrt(days))
    assert (high - low) / 2 <= half * (1 + 1e-9)
    if days > 3:
        low, high = stats.t.interval(0.95, days - 2, scale=sd / np.sqrt(days - 1))
        assert (high - low) / 2 > half


def test_two_pairs_of_a_day_are_one_day() -> None:
    result = difference([1.0, 3.0, 2.0, 2.0, 4.0, 0.0], [1, 1, 2, 2, 3, 3])
    assert (result.days, result.mean_k, result.sd_k) == (3, 2.0, 0.0)


def test_one_or_two_days_settle_nothing() -> None:
    result = difference([3.0, 3.1], [1, 2])
    assert (result.low_k, result.high_k) == (-inf, inf)
    assert not result.settled


def test_days_of_one_spell_count_as_fewer() -> None:
    spell = np.repeat([1.0, 3.0, 1.5, 3.5], 5) + RNG.normal(0, 0.1, 20)
    mixed = RNG.permutation(spell)
    held, free = (difference(list(values), list(range(20))) for values in (spell, mixed))
    assert held.counts_as < 8
    assert held.high_k - held.low_k > free.high_k - free.low_k
    assert more_days(held, 30) > more_days(free, 30)


def test_intervals_hold_the_truth_nineteen_times_in_twenty() -> None:
    rng, held = np.random.default_rng(8), 0
    for _ in range(400):
        result = difference(list(rng.normal(1.0, 1.0, 6)), list(range(6)))
        held += result.low_k <= 1.0 <= result.high_k
    assert held / 400 == pytest.approx(0.95, abs=0.035)


def test_none_is_no_trial() -> None:
    with pytest.raises(ValueError, match="at least one"):
        difference([], [])
