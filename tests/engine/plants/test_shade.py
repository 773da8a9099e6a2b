"""Shadows against pvlib's sun, and what rows take from their neighbours."""

from datetime import UTC, datetime, timedelta

import pandas as pd
import pvlib
import pytest

from cloche_engine.plants.shade import shadow, sun_at


@pytest.mark.parametrize("latitude", [51.0, 35.0, -38.0, 64.0])
@pytest.mark.parametrize("day", [21, 80, 172, 300])
def test_the_sun_stands_where_pvlib_has_it(latitude: float, day: int) -> None:
    """pvlib [pvlib]; the declination here is a sine, so half a degree and the equation of time are allowed for."""
    noon = datetime(2026, 1, 1, tzinfo=UTC) + timedelta(days=day - 1)
    for hour in (9.0, 12.0, 16.0):
        known = pvlib.solarposition.get_solarposition(pd.DatetimeIndex([noon + timedelta(hours=hour)]), latitude, 0.0)
        solar = hour + float(known["equation_of_time"].iloc[0]) / 60
        up, towards = sun_at(day, solar, latitude)
        assert up == pytest.approx(float(known["elevation"].iloc[0]), abs=1.0)
        if up > 5:
            assert (towards - float(known["azimuth"].iloc[0]) + 180) % 360 - 180 == pytest.approx(0, abs=2.0)


def test_shadows_fall_away_from_the_sun_in_both_hemispheres() -> None:
    north, south = shadow(172, 12, 51.0), shadow(355, 12, -38.0)
    assert north
    assert south
    assert north.north > 0.4
    assert south.north < -0.2
    assert abs(north.east) < 0.01
    morning = shadow(172, 8, 51.0)
    assert morning
    assert morning.east < 0
    assert shadow(172, 0, 51.0) is None
