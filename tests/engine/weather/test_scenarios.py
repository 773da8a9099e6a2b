from datetime import date

import numpy as np
import pytest

from cloche_engine.weather.normals import Normals
from cloche_engine.weather.record import DailyRecord
from cloche_engine.weather.scenarios import Ensemble, Known, Past, scenarios

NORMALS = Normals(np.full(12, 5.0), np.full(12, 15.0), np.full(12, 3.0), "typed")
TODAY = 30
FIRST = date(2026, 3, 1)


def run(known_ahead: int = 0, days: int = 200, members: int = 400, seed: int = 1, stale_d: int = 0) -> DailyRecord:
    low, high = np.full(days, np.nan), np.full(days, np.nan)
    low[: TODAY + 1 + known_ahead], high[: TODAY + 1 + known_ahead] = 8.0, 20.0
    lead = np.clip(np.arange(days) - TODAY + stale_d, 0, None)
    return scenarios(Known(DailyRecord.of(FIRST, low, high), lead), NORMALS, members, np.random.default_rng(seed))


def test_known_days_are_the_same_in_every_member() -> None:
    air = run()
    assert np.ptp(air.mean_c[: TODAY + 1], axis=1) == pytest.approx(np.zeros(TODAY + 1))


def test_the_same_stream_gives_the_same_weather_to_the_digit() -> None:
    assert (run().low_c == run().low_c).all()
    assert (run(seed=1).low_c != run(seed=2).low_c).any()


def test_far_days_return_to_the_normals_with_their_spread() -> None:
    far = run().mean_c[120:]
    assert far.mean() == pytest.approx(10.0, abs=0.3)
    assert far.std() == pytest.approx(np.hypot(3.0, 1.0), rel=0.15)


def test_tomorrow_remembers_today() -> None:
    air = run()
    assert 11.5 < air.mean_c[TODAY + 1].mean() < 14.0


def test_a_forecast_is_less_sure_the_further_it_reaches() -> None:
    spread = run(known_ahead=7).mean_c[TODAY + 1 : TODAY + 8].std(axis=1)
    assert (np.diff(spread) > -0.15).all()
    assert spread[0] == pytest.approx(0.9, rel=0.15)
    assert spread[6] == pytest.approx(3.0, rel=0.15)


def test_highs_lie_above_lows() -> None:
    air = run()
    assert (air.high_c > air.low_c).all()


def test_a_guessed_climate_is_less_sure_than_a_typed_one() -> None:
    unknown = Known(DailyRecord.of(FIRST, np.full(120, np.nan), np.full(120, np.nan)), np.zeros(120))
    guess = Normals(NORMALS.low_c, NORMALS.high_c, NORMALS.day_sd_k, "guess", off_k=2.5)
    typed, guessed = (scenarios(unknown, n, 400, np.random.default_rng(1)).mean_c[60:].std() for n in (NORMALS, guess))
    assert guessed > typed + 0.5


def test_days_of_the_year_run_on_through_new_year() -> None:
    air = DailyRecord.of(date(2026, 12, 30), np.zeros(5), np.ones(5))
    assert air.day_of_year.tolist() == [364, 365, 1, 2, 3]


def test_a_stale_forecast_is_a_wide_one() -> None:
    """The day after tomorrow, foretold today and foretold four days ago."""
    fresh, stale = (run(known_ahead=7, stale_d=days).mean_c[TODAY + 2].std() for days in (0, 4))
    assert stale > 1.5 * fresh


def ten_years() -> Past:
    """Years whose every day says which year it is by its mean."""
    first, days = date(2010, 1, 1), 365 * 12 + 3
    year = np.array([(first.toordinal() + i - date(2010, 1, 1).toordinal()) // 365.25 for i in range(days)])
    return Past(DailyRecord.of(first, year - 5.0, year + 5.0, None, np.zeros(days)))


def test_past_years_are_replayed_each_as_often_as_any_other() -> None:
    unknown = DailyRecord.of(date(2028, 2, 29), np.full(100, np.nan), np.full(100, np.nan))
    years = ten_years()
    air = scenarios(Known(unknown, np.zeros(100), years), NORMALS, 2 * len(years.years), np.random.default_rng(1))
    values, counts = np.unique(np.round(air.mean_c[50]), return_counts=True)
    assert len(values) == len(years.years)
    assert set(counts) == {2}


def test_few_years_are_not_replayed() -> None:
    few = Past(ten_years().record.cut(0, 365 * 5))
    unknown = DailyRecord.of(FIRST, np.full(60, np.nan), np.full(60, np.nan))
    air = scenarios(Known(unknown, np.zeros(60), few), NORMALS, 40, np.random.default_rng(1))
    assert len(np.unique(air.mean_c[30])) == 40


def test_generated_wet_days_are_duller() -> None:
    air = run()
    far = slice(60, None)
    wet = air.rain_mm[far] > 0
    assert 0.3 < wet.mean() < 0.5
    assert air.sun_share[far][wet].mean() < air.sun_share[far][~wet].mean() - 0.2


def with_runs(runs_k: list[float], members: int = 400, rain_mm: float = 0.0) -> DailyRecord:
    """Seven days ahead, each run off by so much on all of them."""
    days, many = TODAY + 30, len(runs_k)
    low, high = np.full(days, np.nan), np.full(days, np.nan)
    ahead = slice(TODAY + 1, TODAY + 8)
    low[: ahead.stop], high[: ahead.stop] = 8.0, 20.0
    lead = np.clip(np.arange(days) - TODAY, 0, None)
    columns = np.full((3, days, many), np.nan)
    columns[0, ahead], columns[1, ahead] = 8.0 + np.array(runs_k), 20.0 + np.array(runs_k)
    columns[2, ahead, 0], columns[2, ahead, 1:] = rain_mm, 0.0
    known = Known(DailyRecord.of(FIRST, low, high), lead, None, Ensemble(*columns))
    return scenarios(known, NORMALS, members, np.random.default_rng(1))


def test_members_follow_the_runs_of_an_ensemble_and_the_sites_own_error_is_left() -> None:
    week = with_runs([-4.0, 4.0]).mean_c[TODAY + 1 : TODAY + 8]
    # Two runs 8 K apart, and 0.9 K around each: on every day as sure as the service is, and far ahead no less for being far.
    assert week.std(axis=1) == pytest.approx(np.full(7, np.hypot(4.0, 0.9)), rel=0.08)
    assert (np.sign(week[0] - 14.0) == np.sign(week[-1] - 14.0)).mean() > 0.98  # each keeps to its own run
    assert np.ptp(with_runs([0.0, 0.0]).mean_c[: TODAY + 1], axis=1) == pytest.approx(np.zeros(TODAY + 1))


def test_runs_that_agree_are_surer_than_one_value_and_runs_that_differ_less() -> None:
    alone = run(known_ahead=7).mean_c[TODAY + 7].std()
    assert with_runs([0.0] * 20).mean_c[TODAY + 7].std() < 0.5 * alone
    assert with_runs(list(np.linspace(-8, 8, 20))).mean_c[TODAY + 7].std() > 1.3 * alone


def test_rain_is_of_the_run_that_brings_it() -> None:
    air = with_runs([-4.0, 4.0], rain_mm=12.0)
    wet = air.rain_mm[TODAY + 3] > 0
    assert wet.mean() == pytest.approx(0.5, abs=0.01)
    assert air.mean_c[TODAY + 3][wet].max() < air.mean_c[TODAY + 3][~wet].min()


def test_every_run_is_followed_as_often_as_any_other() -> None:
    air = with_runs([-20.0, 0.0, 20.0], members=40)
    nearest = np.round((air.mean_c[TODAY + 1] - 14.0) / 20.0)
    assert sorted((nearest == k).sum() for k in (-1, 0, 1)) == [13, 13, 14]
