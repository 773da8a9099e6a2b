"""The sun against the worked examples of FAO Irrigation and Drainage Paper 56 (Allen et al. 1998, from memory) and pvlib."""

import pandas as pd
import pvlib
import pytest

from cloche_engine.weather import sun


def test_day_length_of_the_worked_example() -> None:
    """FAO-56 example 9: 20 degrees south on 3 September: 11.7 hours."""
    assert float(sun.day_length_h(246, -20.0)) == pytest.approx(11.7, abs=0.05)


def test_extraterrestrial_radiation_of_the_worked_example() -> None:
    """FAO-56 example 8: 20 degrees south on 3 September: 32.2 MJ/m² a day."""
    assert float(sun.extraterrestrial_w_m2(246, -20.0)) * 0.0864 == pytest.approx(32.2, abs=0.1)


@pytest.mark.parametrize("latitude", [-45.0, 0.0, 35.0, 50.0])
def test_day_length_lies_just_below_the_refracted_one(latitude: float) -> None:
    """pvlib counts the disc's edge and refraction: minutes more, never less."""
    days = pd.date_range("2026-01-15", "2026-12-15", freq="30D", tz="UTC")
    seen = pvlib.solarposition.sun_rise_set_transit_spa(days, latitude, 0.0)
    refracted = ((seen["sunset"] - seen["sunrise"]) / pd.Timedelta(hours=1)).to_numpy() % 24
    ours = sun.day_length_h(days.day_of_year.to_numpy(), latitude)
    assert ((refracted - ours) > 0).all()
    assert ((refracted - ours) < 0.35).all()


def test_polar_night_and_midnight_sun_are_not_errors() -> None:
    assert float(sun.day_length_h(355, 75.0)) == 0.0
    assert float(sun.day_length_h(172, 75.0)) == pytest.approx(24.0)
    assert float(sun.extraterrestrial_w_m2(355, 75.0)) == pytest.approx(0.0, abs=1e-9)


def test_southern_midsummer_is_in_december() -> None:
    assert sun.day_length_h(355, -41.0) > sun.day_length_h(172, -41.0)
