"""The day in the soil against the analytic damped wave (Campbell and Norman 1998, ch. 2)."""

import numpy as np
import pytest

from cloche.core.soil.diurnal import damped_wave, day_shapes

HOUR = np.arange(0, 24, 0.1)


@pytest.mark.parametrize("depth_m", [0.02, 0.05, 0.10, 0.20])
def test_a_wave_shrinks_and_lags_as_the_textbook_says(depth_m: float) -> None:
    wave = damped_wave(HOUR, depth_m, 0.10)
    assert wave.max() == pytest.approx(np.exp(-depth_m / 0.10), rel=1e-3)
    assert HOUR[wave.argmax()] == pytest.approx(depth_m / 0.10 * 24 / (2 * np.pi), abs=0.06)


def test_faster_waves_die_sooner() -> None:
    assert damped_wave(HOUR, 0.1, 0.1, harmonic=4).max() == pytest.approx(np.exp(-2.0), rel=1e-3)


def test_a_day_has_no_mean_of_its_own() -> None:
    assert day_shapes([8.0, 12.0, 16.0], 0.05, 0.1).mean(axis=1) == pytest.approx(np.zeros(3), abs=1e-9)


def test_deeper_soil_swings_less_and_later() -> None:
    shallow, deep = day_shapes(13.0, 0.01, 0.1)[0], day_shapes(13.0, 0.10, 0.1)[0]
    assert np.ptp(deep) < 0.55 * np.ptp(shallow)
    assert deep.argmax() > shallow.argmax()


def test_seeds_at_one_centimetre_see_half_as_much_swing_again_as_at_five() -> None:
    """About 1.4 to 1.5 times, as a trial of the physics showed."""
    ratio = np.ptp(day_shapes(13.0, 0.01, 0.1)[0]) / np.ptp(day_shapes(13.0, 0.05, 0.1)[0])
    assert 1.35 < ratio < 1.7


def test_soil_at_seed_depth_is_coldest_after_sunrise_and_warmest_in_mid_afternoon() -> None:
    """Common practice, no source: read early and late, about half past seven and half past four."""
    day = day_shapes(12.5, 0.05, 0.1)[0]
    assert 5 <= day.argmin() <= 9
    assert 14 <= day.argmax() <= 17
