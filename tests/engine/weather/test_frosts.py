"""Frost dates and zones."""

from datetime import date, timedelta

import numpy as np
import pytest

from bench.reliability import record
from cloche_engine.errors import OutOfRange
from cloche_engine.weather.frosts import REACH_D, midsummer, midsummer_after, of_lows, of_years
from cloche_engine.weather.record import DailyRecord
from cloche_engine.weather.zones import winter_lows_c


def lows(last: int, first: int) -> np.ndarray:
    """A year of mild nights with frost on two days, counted from midsummer."""
    column = np.full(2 * REACH_D, 5.0)
    column[REACH_D + last] = column[REACH_D + first] = -1.0
    return column


def test_last_and_first_frost_of_known_years() -> None:
    years = np.stack([lows(-80 + i, 90 + i) for i in range(11)], axis=1)
    frosts = of_lows(years)
    assert frosts.spring == pytest.approx((-79, -75, -71))
    assert frosts.autumn == pytest.approx((91, 95, 99))
    assert frosts.last_spring(date(2026, 7, 15)) == date(2026, 5, 1)


def test_where_frost_is_rare_none_is_named() -> None:
    frosts = of_lows(np.full((2 * REACH_D, 10), 3.0))
    assert frosts.spring is None
    assert frosts.autumn is None
    assert frosts.last_spring(date(2026, 7, 15)) is None


def test_thirty_years_at_brussels_end_their_frosts_in_april() -> None:
    """Data: aquacrop 3.1.0 (Apache-2.0). Counted again here, year by year, without the module."""
    own = record()
    frosts = of_years(own, 50.8)
    assert frosts is not None
    by_hand = []
    for year in range(1976, 2005):
        days = [(date(year, 1, 15) + timedelta(days=i)) for i in range(181)]
        frost = [d for d in days if own.low_c[(d - own.first).days] < 0]
        by_hand.append((frost[-1] - date(year, 7, 15)).days)
    assert frosts.spring is not None
    assert frosts.spring[1] == pytest.approx(np.median(by_hand), abs=1.5)
    assert date(2026, 3, 20) < frosts.last_spring(date(2026, 7, 15)) < date(2026, 5, 5)  # type: ignore[operator]
    assert -14 < frosts.lowest_c < -4


def test_the_south_has_its_midsummer_in_january() -> None:
    assert midsummer(2026, -41.0) == date(2026, 1, 15)
    assert midsummer_after(date(2026, 4, 22), -41.0) == date(2027, 1, 15)
    assert midsummer_after(date(2026, 4, 22), 48.0) == date(2026, 7, 15)
    assert midsummer_after(date(2028, 2, 29), 48.0) == date(2028, 7, 15)


def test_gaps_and_short_records_are_left_out() -> None:
    short = DailyRecord.of(date(2025, 1, 1), np.zeros(200), np.ones(200))
    assert of_years(short, 48.0) is None


@pytest.mark.parametrize(
    ("zone", "low_f", "high_f"), [("7", 0, 10), ("7a", 0, 5), ("7b", 5, 10), ("1", -60, -50), ("13b", 65, 70)]
)
def test_zones_are_winter_lows_in_tens_of_fahrenheit(zone: str, low_f: float, high_f: float) -> None:
    """USDA Plant Hardiness Zone Map, from memory."""
    low, high = winter_lows_c(zone)
    assert (low * 1.8 + 32, high * 1.8 + 32) == pytest.approx((low_f, high_f))


@pytest.mark.parametrize("no_zone", ["0", "14", "7c", "cold", ""])
def test_what_is_no_zone_is_refused(no_zone: str) -> None:
    with pytest.raises(OutOfRange, match="no hardiness zone"):
        winter_lows_c(no_zone)
