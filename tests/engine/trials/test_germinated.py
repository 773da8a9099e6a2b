"""Shares and days to half against statsmodels and SciPy."""

import numpy as np
import pytest
from scipy.stats import CensoredData, lognorm
from statsmodels.stats.meta_analysis import combine_effects
from statsmodels.stats.proportion import proportion_confint

from cloche_engine.trials.germinated import Half, half_of, intervals, pace_of, share_of


@pytest.mark.parametrize(("up", "seeds"), [(0, 10), (10, 10), (7, 10), (81, 100), (1, 3)])
def test_wilson_as_statsmodels_has_it(up: int, seeds: int) -> None:
    share = share_of(up, seeds)
    assert (share.low, share.high) == pytest.approx(proportion_confint(up, seeds, method="wilson"), abs=1e-9)


def test_more_than_were_laid_out_is_refused() -> None:
    for up, seeds in ((4, 3), (-1, 3), (0, 0)):
        with pytest.raises(ValueError, match="laid out"):
            share_of(up, seeds)


def test_a_smaller_count_says_that_some_died() -> None:
    assert intervals([(4, 0), (6, 3), (8, 2), (10, 7)]) == [(4, 6, 3), (8, 10, 4)]


COUNTS = [(5.0, 0), (7.0, 6), (8.0, 15), (10.0, 31), (13.0, 40), (20.0, 43)]


def test_days_to_half_as_scipy_fits_seeds_known_between_two_counts() -> None:
    rows = [[low, high] for low, high, number in intervals(COUNTS) for _ in range(number)]
    sigma, _, scale = lognorm.fit(CensoredData(interval=np.array(rows)), floc=0)
    half = half_of(COUNTS)
    assert half
    assert half.days == pytest.approx(scale, rel=0.005)
    assert half.spread == pytest.approx(sigma, rel=0.02)
    assert half.low < half.days < half.high


def test_the_interval_holds_the_truth_as_often_as_it_says() -> None:
    rng = np.random.default_rng(5)
    inside = 0
    for _ in range(300):
        days = np.exp(rng.normal(np.log(9.0), 0.25, 40))
        counts = [(float(day), int((days <= day).sum())) for day in (4, 6, 8, 10, 12, 16, 24)]
        half = half_of(counts)
        assert half
        inside += half.low <= 9.0 <= half.high
    assert 0.91 <= inside / 300 <= 0.985


def test_two_seedlings_tell_nothing_and_one_count_tells_an_upper_edge() -> None:
    assert half_of([(6, 0), (9, 2)]) is None
    at_once = half_of([(9, 30)])
    assert at_once
    assert at_once.days < 9


@pytest.mark.parametrize("days", [(8.0, 9.5, 21.0), (5.0, 5.1, 5.2)], ids=["batches that disagree", "that agree"])
def test_the_pace_of_seed_is_a_mean_of_batches_as_statsmodels_has_it(days: tuple[float, ...]) -> None:
    halves = [Half(day, day / 1.15, day * 1.15, 0.2) for day in days]
    pace = pace_of([(half, 6.0) for half in halves])
    theirs = combine_effects(np.log(np.array(days) / 6.0), np.full(3, (np.log(1.15) / 1.959964) ** 2), method_re="dl")
    assert pace
    # Batches that agree leave nothing between them; statsmodels would subtract a little there.
    mean, sd = (theirs.mean_effect_re, theirs.sd_eff_w_re) if theirs.tau2 > 0 else (theirs.mean_effect_fe, theirs.sd_eff_w_fe)
    assert np.log(pace.times) == pytest.approx(mean, abs=1e-6)
    assert np.log(pace.high / pace.low) / (2 * 1.959964) == pytest.approx(sd, abs=1e-6)
    assert pace.batches == 3


def test_batches_of_which_nothing_is_known_tell_no_pace() -> None:
    assert pace_of([]) is None
    assert pace_of([(Half(9.0, 4.0, np.inf, 0.4), 6.0)]) is None
