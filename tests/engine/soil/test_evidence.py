"""Sizes of drift weighed by evidence, against SciPy's multivariate normal."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.stats import multivariate_normal

from cloche_engine.soil.calibrate import BASES, UNLOGGED_SD, log_evidence, over_grid, weighed
from cloche_engine.soil.drift import ReadingKernel, Wandering, covariance

HOURS = np.sort(np.random.default_rng(4).uniform(0, 24 * 30, 40))
HOURS[7] = HOURS[6]  # two depths in one minute


def direct(total: np.ndarray, residual: np.ndarray) -> float:
    return float(multivariate_normal(np.zeros(len(total)), total).logpdf(residual) + len(total) * np.log(2 * np.pi) / 2)


def test_all_sizes_at_once_are_each_by_itself() -> None:
    rng, alike = np.random.default_rng(8), ReadingKernel(HOURS)
    swing, scatter = rng.normal(0, 3, 40), rng.uniform(0.8, 4.0, 40)
    residual, slope, unlogged = rng.normal(0, 1, 40), rng.normal(0, 0.7, (40, 6)), rng.normal(0, 2, (40, 3))
    both = over_grid(alike, swing, scatter, residual, slope, unlogged)
    assert both.shape == (len(BASES), len(UNLOGGED_SD))
    for i in (0, 17, 40, len(BASES) - 1):
        for k, sd in enumerate(UNLOGGED_SD):
            total = covariance(BASES[i], alike, swing, scatter) + slope @ slope.T + sd**2 * unlogged @ unlogged.T
            assert both[i, k] == pytest.approx(direct(total, residual), abs=1e-8)
            assert log_evidence(total, residual) == pytest.approx(direct(total, residual), abs=1e-8)


def test_a_place_without_wetness_of_its_own_or_without_readings_weighs_all_alike() -> None:
    nothing, alike = np.empty(0), ReadingKernel(np.empty(0))
    empty = over_grid(alike, nothing, nothing, nothing, np.empty((0, 6)), np.empty((0, 3)))
    assert np.ptp(empty) == 0.0
    middle = weighed(empty)
    assert middle.level_k == pytest.approx((0.3 * 0.8 * 2.0) ** (1 / 3))
    indoors = over_grid(ReadingKernel(HOURS), np.zeros(40), np.ones(40), np.sin(HOURS), np.ones((40, 1)), np.empty((40, 0)))
    assert np.ptp(indoors, axis=1).max() == 0.0


def test_what_is_far_the_likeliest_is_taken() -> None:
    evidence = np.full((len(BASES), len(UNLOGGED_SD)), -1e6)
    evidence[30, 2] = 0.0
    expected = replace(BASES[30], unlogged_sd=UNLOGGED_SD[2])
    assert weighed(evidence) == Wandering(*(pytest.approx(value) for value in vars(expected).values()))
