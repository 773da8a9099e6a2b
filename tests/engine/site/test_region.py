"""The shipped climate against towns and a record that it was not made from."""

import lzma

import numpy as np
import pytest

from bench.climate import Town, last_frosts, record, rms, towns
from cloche_engine.site.estimate import LEAST_RANGE_K, daily_range_k, normals_at, sun_above_air
from cloche_engine.site.region import Grid, Region, pack, region_at, shipped, unpack
from cloche_engine.weather.normals import MID_MONTH_DAY

CELLS = np.array([40 * 1440, 40 * 1440 + 1, 41 * 1440, 41 * 1440 + 1439, 300 * 1440 + 7], dtype=np.int32)
"""Rows 40 and 41 are 80 and 79.75 degrees north; column 0 is Greenwich, 1439 a quarter of a degree west of it."""


def small() -> Grid:
    level = np.array([-100, -80, -60, -40, 250], dtype=np.int16)
    season = (np.arange(12, dtype=np.int16) * 10)[:, None]
    return Grid(
        CELLS,
        (level + season).astype(np.int16),
        np.full((12, 5), 64, dtype=np.uint8),
        np.array([[0, 10, 20, -30, 4000]], dtype=np.int16),
    )


def test_what_is_packed_comes_out_again() -> None:
    again = unpack(pack(small()))
    assert (again.cells == CELLS).all()
    assert (again.tenths_c == small().tenths_c).all()
    assert (again.rain == small().rain).all()
    assert (again.height_m == small().height_m).all()


def test_what_is_no_such_file_is_refused() -> None:
    with pytest.raises(lzma.LZMAError):
        unpack(b"no grid")


@pytest.mark.parametrize(
    ("latitude", "longitude", "january_c"),
    [
        (80.0, 0.0, -10.0),
        (80.0, 0.125, -9.0),  # half way between two cells
        (79.75, -0.25, -4.0),  # west of Greenwich, where columns go around
        (79.875, 0.0, -8.0),
        (80.0, 0.375, -8.0),  # of two cells one is sea: the other alone
    ],
)
def test_a_point_lies_between_the_cells_about_it(latitude: float, longitude: float, january_c: float) -> None:
    region = region_at(latitude, longitude, small())
    assert region is not None
    assert region.mean_c[0] == pytest.approx(january_c)
    assert region.mean_c[11] - region.mean_c[0] == pytest.approx(11.0)
    assert region.rain_mm == pytest.approx(np.full(12, np.expm1(4.0)))


def test_a_small_island_takes_the_nearest_cell_and_the_open_sea_has_none() -> None:
    near = region_at(15.0, 2.75, small())
    assert near is not None
    assert near.away_km == pytest.approx(1.0 * 111.2 * np.cos(np.radians(15)), rel=0.01)
    assert region_at(0.0, -140.0, small()) is None
    assert normals_at(0.0, -140.0, 0.0).source == "guess"


def test_hills_and_coasts_leave_more_open_than_plains() -> None:
    alps, plain = normals_at(47.0, 11.0, 600.0), normals_at(52.0, 20.0, 100.0)
    assert alps.off_k > plain.off_k + 0.5


def test_the_record_of_thirty_years_is_met() -> None:
    """Brussels, 1976 to 2005: daily data of the PyPI package aquacrop 3.1.0. Later years are some tenths warmer."""
    own_record = record()
    assert np.abs(own_record.mean_off_k).max() < 1.6
    assert abs(own_record.range_off_k.mean()) < 1.5
    own, from_region = last_frosts()
    assert own.spring is not None
    assert from_region.spring is not None
    assert from_region.spring[1] == pytest.approx(own.spring[1], abs=14)
    assert own.autumn is not None
    assert from_region.autumn is not None
    assert from_region.autumn[1] == pytest.approx(own.autumn[1], abs=14)


@pytest.mark.parametrize("town", towns(), ids=lambda town: town.name)
def test_a_town_lies_within_three_times_what_is_said_to_be_open(town: Town) -> None:
    """Monthly normals from memory."""
    assert abs(town.mean_off_k.mean()) < 2 * town.shipped.off_k
    assert np.abs(town.mean_off_k).max() < 3.0
    assert np.abs(town.range_off_k).max() < 6.0


def test_towns_on_all_continents_are_met_as_closely_as_is_said() -> None:
    rows = towns()
    assert len(rows) >= 20
    assert rms(np.concatenate([town.mean_off_k for town in rows])) < 0.9
    assert rms(np.concatenate([town.range_off_k for town in rows])) < 1.7


def test_the_sun_above_the_air_is_as_published() -> None:
    """Allen et al. 1998, FAO-56, example 8: 20 degrees south, 3 September, 32.2 MJ m-2 d-1; no sun in the polar night."""
    assert sun_above_air(-20.0, np.array([246.0]))[0] == pytest.approx(32.2, abs=0.1)
    assert sun_above_air(75.0, np.array([355.0]))[0] == pytest.approx(0.0, abs=0.01)


def test_days_swing_more_in_dry_thin_air_far_from_the_sea() -> None:
    def mean_range(rain_mm: float = 60.0, swing_k: float = 15.0, elevation_m: float = 100.0, people: float = 0.0) -> float:
        mean_c = 10 - swing_k / 2 * np.cos(2 * np.pi * MID_MONTH_DAY / 365)
        region = Region(mean_c, np.full(12, rain_mm), 0.0, 0.0, 0.0)
        return float(daily_range_k(region, mean_c, 45.0, elevation_m, people).mean())

    assert mean_range(rain_mm=5.0) > mean_range() > mean_range(rain_mm=250.0) >= LEAST_RANGE_K
    assert mean_range(swing_k=35.0) > mean_range()
    assert mean_range(elevation_m=2000.0) > mean_range() > mean_range(people=5e6)


def test_every_month_of_every_cell_is_a_temperature_of_this_earth() -> None:
    grid = shipped()
    assert len(grid.cells) > 250_000
    assert -600 < grid.tenths_c.min() < -300
    assert 330 < grid.tenths_c.max() < 450
