"""What one asks again, and what a reading tells."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche_engine.records.quality import LEAST_MARGIN_K, READING_SD_K, SLOWEST_K_D, asked_again, days_narrowed, narrowing_k

SPREAD = st.floats(0.0, 20.0)


@given(st.floats(-20, 40), st.floats(0, 15))
def test_the_range_holds_the_band_and_two_kelvin_more(low: float, width: float) -> None:
    ask_low, ask_high = asked_again(low, low + width)
    assert ask_low <= low - LEAST_MARGIN_K
    assert ask_high >= low + width + LEAST_MARGIN_K
    assert float(ask_high - ask_low) == pytest.approx(width + 2 * max(width / 2, LEAST_MARGIN_K))


def test_ranges_come_in_the_shape_of_the_band() -> None:
    low, high = asked_again(np.zeros((2, 3)), np.ones((2, 3)))
    assert low.shape == high.shape == (2, 3)


@given(SPREAD)
def test_a_reading_never_widens_and_never_tells_all(spread: float) -> None:
    params = float(narrowing_k(spread))
    assert 0.0 <= params <= spread


@given(SPREAD, SPREAD)
def test_the_more_is_in_doubt_the_more_it_tells(a: float, b: float) -> None:
    few, many = sorted((a, b))
    assert float(narrowing_k(few)) <= float(narrowing_k(many)) + 1e-12


def test_what_is_left_is_the_variance_of_two_normals_joined() -> None:
    """Against sampling: the posterior spread of a normal seen once through noise."""
    rng = np.random.default_rng(3)
    truth = rng.normal(0, 2.0, 400_000)
    seen = truth + rng.normal(0, READING_SD_K, truth.size)
    gain = np.cov(truth, seen)[0, 1] / seen.var()
    left = (truth - gain * seen).std()
    assert float(narrowing_k(2.0)) == pytest.approx(2.0 - left, abs=0.01)


def test_days_are_degrees_over_the_pace_of_the_season() -> None:
    assert days_narrowed(1.0, 0.2) == pytest.approx(5.0)
    assert days_narrowed(1.0, -0.2) == pytest.approx(5.0)
    assert days_narrowed(1.0, 0.0) == pytest.approx(1.0 / SLOWEST_K_D)
