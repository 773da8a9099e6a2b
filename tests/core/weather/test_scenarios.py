import numpy as np
import pytest

from cloche.core.weather.normals import Normals
from cloche.core.weather.scenarios import DailyAir, scenarios

NORMALS = Normals(np.full(12, 5.0), np.full(12, 15.0), np.full(12, 3.0), "typed")
TODAY = 30


def run(known_ahead: int = 0, days: int = 200, members: int = 400, seed: int = 1) -> DailyAir:
    low, high = np.full(days, np.nan), np.full(days, np.nan)
    low[: TODAY + 1 + known_ahead], high[: TODAY + 1 + known_ahead] = 8.0, 20.0
    return scenarios(DailyAir(60, low, high), NORMALS, TODAY, members, np.random.default_rng(seed))


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
    unknown = DailyAir(60, np.full(120, np.nan), np.full(120, np.nan))
    guess = Normals(NORMALS.low_c, NORMALS.high_c, NORMALS.day_sd_k, "guess")
    typed, guessed = (scenarios(unknown, n, 0, 400, np.random.default_rng(1)).mean_c[60:].std() for n in (NORMALS, guess))
    assert guessed > typed + 0.5


def test_days_of_the_year_run_on_through_new_year() -> None:
    air = DailyAir(364, np.zeros(5), np.ones(5))
    assert air.day_of_year[:2].tolist() == [364, 365]
    assert air.day_of_year[-1] < 4
