import numpy as np
import pytest

from cloche_engine.weather.normals import Normals, from_record, guess_from_latitude


def test_the_guess_knows_which_half_of_the_globe_it_is_on() -> None:
    north, south = guess_from_latitude(48.0, 100.0), guess_from_latitude(-41.0, 100.0)
    assert north.mean_c.argmax() in (6, 7)
    assert south.mean_c.argmax() in (0, 1)


def test_height_cools_by_six_degrees_a_kilometre() -> None:
    low, high = guess_from_latitude(48.0, 0.0), guess_from_latitude(48.0, 1000.0)
    assert (low.mean_c - high.mean_c) == pytest.approx(np.full(12, 6.0))


def test_the_guess_is_within_a_few_degrees_of_known_places() -> None:
    """Brussels, 1976-2005 (daily data of the PyPI package aquacrop 3.1.0): about 3 °C in January and 18 °C in July."""
    guess = guess_from_latitude(50.8, 100.0)
    assert guess.mean_c[0] == pytest.approx(3.2, abs=4.5)
    assert guess.mean_c[6] == pytest.approx(18.0, abs=3.0)


def test_a_full_record_takes_the_guess_s_place() -> None:
    month = np.repeat(np.arange(1, 13), 28)
    low = month.astype(float)
    normals = from_record(month, low, low + 8, guess_from_latitude(48.0, 100.0))
    assert normals.source == "record"
    assert normals.mean_c == pytest.approx(np.arange(1, 13) + 4.0)


def test_a_short_record_moves_the_guess_and_stays_a_guess() -> None:
    guess = guess_from_latitude(48.0, 100.0)
    month = np.full(28, 4)
    normals = from_record(month, np.full(28, guess.low_c[3] + 2), np.full(28, guess.high_c[3] + 2), guess)
    assert normals.source == "guess"
    assert normals.mean_c[9] == pytest.approx(guess.mean_c[9] + 2)


def test_too_few_days_change_nothing() -> None:
    guess = guess_from_latitude(48.0, 100.0)
    assert from_record(np.full(5, 4), np.zeros(5), np.ones(5), guess) is guess


def test_the_year_runs_smoothly_through_new_year() -> None:
    normals = Normals(np.arange(12.0), np.arange(12.0) + 10, np.full(12, 3.0), "typed")
    across = normals.mean_on(np.array([364, 365, 366, 1, 2]))
    assert np.abs(np.diff(across)).max() < 0.5
