import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche_engine.crops.catalogue import catalogue
from cloche_engine.crops.curves import SLOWEST_RATE_PER_D, GridPosition, RateCurve, ShareCurve

TEMPERATURES = st.floats(-30, 60)


def test_published_knots_are_met_exactly() -> None:
    curve = RateCurve.through([(0, 0.0), (10, 0.05), (20, 0.2), (30, 0.0)])
    assert curve.at([10, 20]) == pytest.approx([0.05, 0.2])


def test_nothing_moves_beyond_the_ends() -> None:
    curve = RateCurve.through([(5, 0.0), (15, 0.1), (25, 0.0)])
    assert curve.at([-20, 4.9, 25.1, 59]).tolist() == [0, 0, 0, 0]


@given(TEMPERATURES)
def test_rates_lie_between_nothing_and_the_best_cell(temperature: float) -> None:
    for crop in catalogue().values():
        assert 0 <= crop.rate.at(temperature) <= max(rate for _, rate in crop.rate.knots) + 1e-12


@given(TEMPERATURES)
def test_shares_are_shares(temperature: float) -> None:
    for crop in catalogue().values():
        assert 0 <= crop.share.at(temperature) <= 1


def test_noise_of_the_interpolation_is_not_germination() -> None:
    curve = RateCurve.through([(0, 0.0), (20, 0.1)])
    grid = curve.at(np.arange(0, 20, 0.05))
    assert not ((grid > 0) & (grid < SLOWEST_RATE_PER_D)).any()


def test_a_missing_temperature_stays_missing() -> None:
    curve = ShareCurve.through([(0, 0.5), (20, 1.0)])
    assert np.isnan(curve.at([np.nan, 10.0])).tolist() == [True, False]
    assert GridPosition.of([np.nan, 3.0]).missing.tolist() == [True, False]


def test_scalars_and_arrays_agree() -> None:
    curve = RateCurve.through([(0, 0.0), (20, 0.1)])
    assert float(curve.at(12.3)) == pytest.approx(float(curve.at([12.3])[0]))
    assert curve.at(np.zeros((2, 3))).shape == (2, 3)
