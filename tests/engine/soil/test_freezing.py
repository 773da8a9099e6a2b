"""Freezing ground: the two-phase Neumann solution [CarslawJaeger1959, section 11.2], and heat that is neither made nor lost."""

import numpy as np
import pytest
from scipy.optimize import brentq
from scipy.special import erf, erfc

from cloche_engine.soil.layers import Columns, enthalpy, ice_share
from cloche_engine.soil.materials import LATENT_HEAT_J_M3
from tests.engine.soil.columns import CAPACITY, CONDUCTIVITY, Moving, columns, held_at

FROZEN_W_MK, FROZEN_J = 1.8, 1.6e6
WATER = 0.25 * LATENT_HEAT_J_M3
START_C, SURFACE_C = 4.0, -6.0


def neumann_depth_m(seconds: float) -> float:
    """Depth of the frost by the published solution."""
    frozen, thawed = FROZEN_W_MK / FROZEN_J, CONDUCTIVITY / CAPACITY

    def balance(x: float) -> float:
        ratio = np.sqrt(frozen / thawed)
        solid = np.exp(-x * x) / erf(x)
        liquid = CONDUCTIVITY / FROZEN_W_MK * ratio * START_C / SURFACE_C * np.exp(-x * x * ratio**2) / erfc(x * ratio)
        return float(solid + liquid - x * WATER * np.sqrt(np.pi) / (FROZEN_J * -SURFACE_C))

    return float(2 * brentq(balance, 1e-3, 3.0) * np.sqrt(frozen * seconds))


def test_frozen_water_per_area_is_that_of_the_two_phase_solution() -> None:
    """Within 5 % after five and ten days."""
    column = columns(water=WATER, frozen_w_mk=FROZEN_W_MK, frozen_j=FROZEN_J)
    moving = Moving(column, [0.05], START_C)
    for hour in range(1, 24 * 10 + 1):
        moving.step(*held_at(column, SURFACE_C, FROZEN_W_MK), START_C)
        if hour in (120, 240):
            ice_m = float((ice_share(moving.soil_c) * column.latent).sum() / WATER)
            assert ice_m == pytest.approx(neumann_depth_m(hour * 3600.0), rel=0.05)


def held(column: Columns, moving: Moving) -> float:
    """Heat in the column [J/m²]."""
    return float(enthalpy(moving.soil_c, column.capacity, column.frozen_capacity, column.latent).sum())


def test_heat_used_is_heat_stored_over_a_year_with_freezing() -> None:
    """To one part in a million of the heat that passed."""
    column = columns(water=WATER, frozen_w_mk=FROZEN_W_MK, frozen_j=FROZEN_J)
    moving = Moving(column, [0.05], 8.0)
    before, used, passed = held(column, moving), 0.0, 0.0
    b = np.array([12.0])
    for hour in range(24 * 365):
        air = 8 - 14 * np.cos(2 * np.pi * hour / 8766) + 6 * np.sin(2 * np.pi * hour / 24)
        _, flux = moving.step(b * air, b, 8.0)
        used += flux[0] * 3600
        passed += abs(flux[0]) * 3600
    stored = held(column, moving) - before
    assert (moving.soil_c.min(), passed) > (-20.0, 1e7)
    assert stored == pytest.approx(used, abs=1e-6 * passed)


def test_frozen_ground_lingers_at_zero() -> None:
    """A thaw of the air is felt at 5 cm only once the ice is gone."""
    after = {}
    for name, column in (("wet", columns(water=WATER)), ("dry", columns())):
        moving = Moving(column, [0.10], -1.0)
        for _ in range(24):
            points_c, _ = moving.step(*held_at(column, 4.0), -1.0)
        after[name] = points_c[0, 0]
    assert after["wet"] < 0.1
    assert after["dry"] > 1.0
