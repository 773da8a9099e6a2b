"""Windows move the right way, each under its condition."""

from dataclasses import replace
from datetime import date, timedelta

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cloche_engine.crops.catalogue import catalogue, crop
from cloche_engine.germination.emergence import SeedBed, develop, hours_to_emergence
from cloche_engine.germination.steady import field_factors
from cloche_engine.weather.record import DailyRecord
from cloche_engine.windows.limits import HALF
from cloche_engine.windows.outlook import planting_outlook, sowing_outlook
from cloche_engine.windows.season import Season
from tests.engine.windows.years import CANDIDATES, DAYS, bed

SOWN = ("carrot", "pea", "lettuce", "radish", "spinach", "snap_bean", "cucumber", "onion")
RUNS = settings(max_examples=20, deadline=None)
NEVER = 10_000


def earliest(key: str, **year: object) -> int:
    first = sowing_outlook(crop(key), bed(**year), CANDIDATES).windows  # type: ignore[arg-type]
    return first[0].earliest if first else NEVER


def half_d(key: str, soil_c: np.ndarray, depth_m: float = 0.013) -> float:
    grown = crop(key)
    return float(hours_to_emergence(develop(SeedBed.of(soil_c), grown), [12], grown, depth_m=depth_m)[0, 0, 0]) / 24


@RUNS
@given(st.sampled_from(SOWN), st.floats(2, 14), st.floats(0, 0.08), st.floats(0.1, 5), st.floats(0, 4))
def test_warmer_soil_is_never_later_while_every_hour_stays_below_the_optimum(
    key: str, start_c: float, warming_k_d: float, warmer_k: float, swing_k: float
) -> None:
    hours = np.arange(100 * 24)
    soil = start_c + warming_k_d * hours / 24 + swing_k * np.sin(2 * np.pi * hours / 24)
    warmer = np.minimum(soil + warmer_k, crop(key).rate.fastest_c)
    soil = np.minimum(soil, crop(key).rate.fastest_c)
    assert half_d(key, warmer) <= half_d(key, soil) + 1e-9


@RUNS
@given(st.sampled_from(SOWN), st.floats(4, 12), st.floats(0.01, 0.15), st.floats(0.5, 6))
def test_deeper_is_never_earlier_in_a_warming_spring(key: str, start_c: float, warming_k_d: float, swing_k: float) -> None:
    """Deeper soil lags the season and swings less about a mean that is no warmer, and there is further to push up."""
    hours = np.arange(140 * 24)
    season = start_c + warming_k_d * hours / 24
    shallow = season + 0.0 * hours
    deep = start_c + warming_k_d * np.maximum(hours / 24 - 2, 0)
    assert half_d(key, deep, 0.05) >= half_d(key, shallow, 0.013) - 1e-9
    assert half_d(key, season + swing_k * np.sin(hours), 0.05) >= half_d(key, season + swing_k * np.sin(hours), 0.013)


@RUNS
@given(st.sampled_from(["cucumber", "snap_bean", "lettuce", "pea"]), st.floats(0.5, 5), st.floats(0.5, 5))
def test_a_clear_cover_never_opens_a_window_later_except_through_heat(key: str, soil_k: float, air_k: float) -> None:
    plain = earliest(key)
    covered = earliest(key, soil_shift_k=1.0 + soil_k, shelter_k=air_k)
    assert covered <= plain


@pytest.mark.parametrize("key", SOWN)
def test_poleward_is_later(key: str) -> None:
    """The same continent-like wave, colder by 0.6 K a degree of latitude (about what land means do at mid-latitudes)."""
    start = date(2026, 1, 5)
    first = [earliest(key, mean_c=17.0 - 0.6 * (lat - 35), latitude_deg=lat, first=start) for lat in (38.0, 44.0, 50.0)]
    assert first == sorted(first)
    assert first[0] < first[2]


@pytest.mark.parametrize("key", ["carrot", "lettuce", "snap_bean", "spinach", "pea"])
def test_mirrored_forcing_gives_the_mirrored_southern_answer(key: str) -> None:
    """Temperatures are mirrored to the day; the light is the real sun's, whose halves of the year differ by days."""
    north = sowing_outlook(crop(key), bed(first=date(2026, 3, 2)), CANDIDATES)
    # 183 days later and half a year apart: to the half day the same place on the wave.
    south = sowing_outlook(crop(key), bed(first=date(2026, 8, 31), latitude_deg=-48.0), CANDIDATES)
    assert [w.opens_after for w in north.windows] == [w.opens_after for w in south.windows]
    for ours, other in zip(north.windows, south.windows, strict=True):
        assert abs(ours.earliest - other.earliest) <= 2
        assert abs(ours.last - other.last) <= 5


@pytest.mark.parametrize("key", ["carrot", "lettuce", "snap_bean", "spinach", "pea", "onion_autumn"])
def test_mirrored_forcing_and_light_give_exactly_the_same_answer(key: str) -> None:
    """The northern air, soil and light half a year later and south of the line: to the day the same windows; with the real
    southern sun in place of the mirrored one, within five days."""
    north = bed()
    air = north.season.air
    later = DailyRecord.of(air.first + timedelta(days=183), air.low_c, air.high_c)
    mirrored = replace(north, season=replace(north.season, air=later))
    real_sun = replace(north, season=Season.of(later, -48.0))
    slow, exact, real = (sowing_outlook(crop(key), each, CANDIDATES) for each in (north, mirrored, real_sun))
    assert exact.windows == slow.windows
    assert (exact.success == slow.success).all()
    assert len(real.windows) == len(slow.windows)
    for a, b in zip(slow.windows, real.windows, strict=True):
        assert abs(a.earliest - b.earliest) <= 5
        assert abs(a.last - b.last) <= 5


@pytest.mark.parametrize("key", ["tomato", "cabbage", "cucumber", "lettuce"])
def test_plants_go_out_later_where_nights_are_colder(key: str) -> None:
    first = []
    for mean in (13.0, 11.5, 10.0):
        later = planting_outlook(crop(key), bed(mean_c=mean), CANDIDATES).windows
        first.append(later[0].earliest if later else NEVER)
    assert first == sorted(first)
    assert first[0] < NEVER


def test_wider_doubt_of_the_ground_widens_the_band() -> None:
    narrow, wide = (sowing_outlook(crop("carrot"), bed(spread_k=k), CANDIDATES) for k in (0.3, 2.0))
    spans = [each.days_to[HALF, 2, 20] - each.days_to[HALF, 0, 20] for each in (narrow, wide)]
    assert spans[0] < spans[1]


def test_every_crop_of_the_catalogue_can_be_judged() -> None:
    year = bed()
    for crop_row in catalogue().values():
        result = sowing_outlook(crop_row, year, CANDIDATES[::6])
        assert ((result.success >= 0) & (result.success <= 1)).all()
        assert ((result.growth >= 0) & (result.growth <= 1)).all()
        if crop_row.planted_out:
            assert len(planting_outlook(crop_row, year, CANDIDATES[::6]).day) == len(CANDIDATES[::6])


def test_doubt_of_the_soil_s_pace_is_even_and_keeps_its_middle() -> None:
    factors = field_factors(1.2, 0.15, 40, seed=3)
    assert np.median(factors) == pytest.approx(1.2, rel=0.02)
    assert np.log(factors).std() == pytest.approx(0.15, rel=0.06)
    assert DAYS > 365
