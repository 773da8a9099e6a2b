"""Heat in the ground against published solutions for a half-space [CarslawJaeger1959, sections 2.4 to 2.6]."""

import numpy as np
import pytest
from scipy.special import erfc

from cloche_engine.soil.grid import open_ground
from cloche_engine.soil.layers import Columns
from tests.engine.soil.columns import CAPACITY, CONDUCTIVITY, Moving, columns, held_at

DIFFUSIVITY = CONDUCTIVITY / CAPACITY
DAY_S = 86400.0


def test_a_daily_wave_is_damped_and_delayed_as_published() -> None:
    """Amplitude and lag within 2 % at 2, 5 and 10 cm and 3 % at 20."""
    depths = [0.02, 0.05, 0.10, 0.20]
    column = columns()
    moving = Moving(column, depths, 10.0)
    kept = []
    for hour in range(24 * 20):
        mean_c = 10 + 10 * np.sin(2 * np.pi * (hour + 0.5) / 24) * np.sinc(1 / 24)
        points_c, _ = moving.step(*held_at(column, mean_c), 10.0)
        kept.append(points_c[0])
    last = np.array(kept[-24:])
    wave = 2 * np.mean(last * np.exp(-2j * np.pi * (np.arange(24) + 0.5) / 24)[:, None], axis=0) / np.sinc(1 / 24)
    reach = np.array(depths) * np.sqrt(np.pi / (DAY_S * DIFFUSIVITY))
    amplitude, lag = np.abs(wave), (-np.pi / 2 - np.angle(wave)) % (2 * np.pi)
    tolerance = np.array([0.02, 0.02, 0.02, 0.03])
    assert (np.abs(amplitude / (10 * np.exp(-reach)) - 1) < tolerance).all()
    assert (np.abs(lag / reach - 1) < tolerance).all()


def test_a_step_at_the_surface_spreads_as_published() -> None:
    """Within 2 % of the step from 24 h on, 1 to 40 cm."""
    depths = [0.01, 0.05, 0.10, 0.20, 0.40]
    column = columns()
    moving = Moving(column, depths, 0.0)
    for hour in range(1, 24 * 4 + 1):
        points_c, _ = moving.step(*held_at(column, 10.0), 0.0)
        if hour >= 24:
            exact = 10 * erfc(np.array(depths) / (2 * np.sqrt(DIFFUSIVITY * (hour - 0.5) * 3600)))
            assert np.abs(points_c[0] - exact).max() < 0.2


def test_columns_side_by_side_do_not_touch() -> None:
    column = columns()
    both = Columns(*(np.repeat(part, 2, axis=0) for part in column))
    moving = Moving(both, [0.05], 10.0)
    for _ in range(48):
        moving.step(both.top * np.array([20.0, 10.0]), both.top, 10.0)
    warm, still = moving.soil_c
    assert warm[0] > 18
    assert still == pytest.approx(np.full(22, 10.0))


def test_a_straight_profile_is_given_back_between_the_cells() -> None:
    grid = open_ground()
    above, part = grid.between([0.0, 0.003, 0.05, 0.3, 5.0])
    straight = 2.0 + 10 * np.concatenate([[0.0], grid.centre_m])
    between = straight[above + 1] + part * (straight[above + 2] - straight[above + 1])
    assert between == pytest.approx([2.0, 2.03, 2.5, 5.0, straight[-1]])
