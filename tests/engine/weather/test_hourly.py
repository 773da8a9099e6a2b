"""From days to hours, and what the sky sends down."""

from datetime import date

import numpy as np
import pytest

from cloche_engine.errors import NotEnoughData
from cloche_engine.weather.hourly import hours_of, sun_share
from cloche_engine.weather.record import SUN_SHARE, DailyRecord, Site, Sky
from cloche_engine.weather.sky import clear_sky_emissivity, diffuse_share, saturation_kpa, sky_w_m2

SITE = Site(50.0, 10.0, 200.0, 1.0)


def days(low: float = 4.0, high: float = 16.0, count: int = 5, **values: float) -> DailyRecord:
    record = DailyRecord.of(date(2026, 4, 10), np.full((count, 1), low), np.full((count, 1), high))
    for name, value in values.items():
        getattr(record, name)[:] = value
    return record


def test_hours_keep_the_days_low_and_high_at_their_hours() -> None:
    air = hours_of(days(), SITE).air_c.reshape(5, 24)[2]
    assert air.min() == pytest.approx(4.0, abs=0.4)
    assert air.max() == pytest.approx(16.0, abs=0.2)
    assert 4 <= int(air.argmin()) <= 6
    assert 13 <= int(air.argmax()) <= 15


def test_saturation_vapour_pressure_is_the_published_table_s() -> None:
    """FAO-56, annex 2, table 2.3: 1.228 kPa at 10 °C, 2.338 at 20, 4.243 at 30."""
    assert saturation_kpa([10.0, 20.0, 30.0]) == pytest.approx([1.228, 2.338, 4.243], rel=0.002)


def test_a_cloudless_sky_is_far_colder_than_the_air_and_a_grey_one_is_not() -> None:
    """Prata 1996: emissivity between about 0.7 (dry, cold) and 0.85 (humid)."""
    assert 0.62 < float(clear_sky_emissivity(0.0, 0.3)) < float(clear_sky_emissivity(25.0, 2.0)) < 0.88
    clear, grey = sky_w_m2(10.0, 0.8, 0.0), sky_w_m2(10.0, 0.8, 1.0)
    assert float(grey) == pytest.approx(5.670374e-8 * 283.15**4)
    assert float(grey - clear) > 60


def test_thin_sun_comes_from_everywhere() -> None:
    """Erbs 1982: nearly all diffuse below a clearness of 0.22, a sixth of it on clear days."""
    share = diffuse_share([50.0, 400.0, 850.0, 0.0], [1000.0, 1000.0, 1000.0, 0.0])
    assert share[0] > 0.95
    assert share[2] == pytest.approx(0.165)
    assert share[0] > share[1] > share[2]


def test_noted_sky_beats_the_daily_range() -> None:
    by_range = sun_share(days(), SITE)[0, 0]
    assert 0.5 < by_range < 1.0
    assert sun_share(days(sun_share=SUN_SHARE[Sky.OVERCAST]), SITE)[0, 0] == pytest.approx(0.25)


def test_clear_noon_sun_is_what_such_a_day_has() -> None:
    """Common practice, no source: 650 to 800 W/m² on a clear noon of early April at 50° N."""
    weather = hours_of(days(sun_share=1.0), SITE)
    assert 600 < weather.sun_w_m2.max() < 850
    assert (weather.sun_w_m2[:4] == 0).all()


def test_rain_nobody_measured_is_guessed_from_dull_skies_only() -> None:
    dull, bright, given = (
        hours_of(d, SITE) for d in (days(sun_share=0.2), days(sun_share=0.95), days(rain_mm=0.0, sun_share=0.2))
    )
    assert dull.rain_mm.sum() > 5
    assert bright.rain_mm.sum() == 0
    assert given.rain_mm.sum() == 0


def test_a_gap_is_refused() -> None:
    record = days()
    record.low_c[2] = np.nan
    with pytest.raises(NotEnoughData, match="every day"):
        hours_of(record, SITE)


def test_the_southern_sun_is_the_northern_half_a_year_away() -> None:
    """Daily sums within 8 %: the earth's distance to the sun differs."""
    north = Site(45.0, 0.0, 100.0).sun(date(2026, 6, 21), 1).clear_w_m2.sum()
    south = Site(-45.0, 0.0, 100.0).sun(date(2026, 12, 21), 1).clear_w_m2.sum()
    assert south == pytest.approx(north, rel=0.08)
    assert south > north
