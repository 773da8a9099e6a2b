"""Covered beds against what they were before: coverage in trials of known truth, slips, SciPy."""

import numpy as np
import pytest
from scipy.stats import ttest_ind

from cloche_engine.trials.arms import arm, daily_means
from cloche_engine.trials.paired import days_for_width, more_days
from cloche_engine.trials.slips import slips


def days(values: list[float]) -> dict[int, float]:
    return dict(enumerate(values))


def test_without_a_baseline_it_is_the_paired_trial() -> None:
    result = arm(days([2.1, 1.8, 2.4, 2.0, 1.9]))
    assert result
    assert result.baseline is None
    assert result.difference.mean_k == pytest.approx(2.04)
    assert arm({}) is None


def test_a_bed_that_was_warmer_anyway_is_not_praised_for_it() -> None:
    rng = np.random.default_rng(2)
    before, during = rng.normal(1.0, 0.3, 12), rng.normal(1.0, 0.4, 15)
    result = arm(days(list(during)), days(list(before)))
    assert result
    assert result.baseline
    known = ttest_ind(during, before, equal_var=False).confidence_interval(0.95)
    if result.difference.counts_as == 15 and result.baseline.counts_as == 12:
        assert (result.difference.low_k, result.difference.high_k) == pytest.approx(tuple(known), abs=1e-9)
    assert result.difference.low_k < 0 < result.difference.high_k


def test_welch_as_scipy_has_it() -> None:
    """Days too few to ask whether they hang together count in full."""
    before, during = [0.4, 0.9, 0.6, 0.7, 0.5], [2.0, 2.9, 2.4, 1.8, 2.6, 2.2]
    result = arm(days(during), days(before))
    known = ttest_ind(during, before, equal_var=False).confidence_interval(0.95)
    assert result
    assert (result.difference.low_k, result.difference.high_k) == pytest.approx(tuple(known), abs=1e-9)


def test_the_interval_holds_the_truth_as_often_as_it_says() -> None:
    rng = np.random.default_rng(11)
    inside = sum(
        result.difference.low_k <= 2.0 <= result.difference.high_k
        for result in (arm(days(list(rng.normal(2.7, 0.8, 14))), days(list(rng.normal(0.7, 0.5, 10)))) for _ in range(800))
        if result
    )
    assert 0.92 <= inside / 800 <= 0.985


def test_two_bad_days_of_eighteen_do_not_unsettle_a_settled_trial() -> None:
    rng = np.random.default_rng(4)
    good = list(rng.normal(2.2, 0.5, 18))
    bad = [*good[:6], -9.0, *good[7:12], 14.0, *good[13:]]
    sound, slipped = arm(days(good)), arm(days(bad))
    assert sound
    assert slipped
    assert slipped.slips == (6, 12)
    assert slipped.difference.mean_k == pytest.approx(sound.difference.mean_k, abs=0.2)
    assert more_days(slipped.difference, days_for_width(slipped.difference.sd_k, 0.5)) == 0


def test_a_bed_that_is_often_odd_has_no_slips() -> None:
    assert slips(days([2.0, 2.1, 1.9, 2.0, 9.0, 9.5, 8.8, 2.0])) == ()
    assert slips(days([2.0, 2.0, 9.0])) == ()


def test_pairs_of_a_day_count_once() -> None:
    assert daily_means([1.0, 3.0, 5.0], [7, 7, 9]) == {7: 2.0, 9: 5.0}
