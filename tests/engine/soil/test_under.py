"""What is seen under a cover teaches: its air, its lows and highs, a bare bed beside it. Synthetic gardens whose truth is
known."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.calibrate import learn
from cloche_engine.soil.learned import COVER_FACTORS, Learned
from cloche_engine.soil.physical import run
from cloche_engine.soil.place import Place
from cloche_engine.soil.readings import AuxiliaryObservations, Readings, What
from cloche_engine.soil.simulate import Trajectory, simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, HourlyWeather
from tests.engine.weathers import SITE, WAVE

DAYS, KNOWN_D = 34, 20
SEEN_FROM_D = KNOWN_D - 7
AHEAD = slice(KNOWN_D * 24, DAYS * 24)
DRAUGHTY = {"exchange": 6.0, "light": 0.72, "loss": 1.3}
"""A frame far outside what its kind is reckoned to be: beyond two standard deviations of its leakage and its light."""


def weather() -> HourlyWeather:
    rng = np.random.default_rng(4)
    sun = rng.uniform(0.2, 0.95, (DAYS, 1))
    low = rng.normal(4, 2, (DAYS, 1))
    columns = (low, low + 4 + 9 * sun, sun, np.where(sun < 0.4, 3.0, 0.0), np.full((DAYS, 1), 2.0), np.zeros((DAYS, 1)))
    return hours_of(DailyRecord(date(2026, 4, 1), *columns), SITE)


def place(key: str = "glass_frame") -> Place:
    return Place(Bed(), WAVE, (CoverPeriod(kind(key), 0.0, 1e6),))


def truth(factors: dict[str, float], at: Place) -> Trajectory:
    own = replace(Parameters.typical(1), **{name: np.array([value]) for name, value in factors.items()})
    return simulate([at.case(weather(), own)], [0.05])[0]


def soil_of(trajectory: Trajectory) -> Readings:
    hour = np.sort(np.concatenate([np.arange(SEEN_FROM_D, KNOWN_D) * 24 + h for h in (7.5, 16.5)]))
    value = np.interp(hour, np.arange(DAYS * 24) + 0.5, trajectory.at(0.05)[:, 0].astype(float))
    return Readings(hour, np.full(len(hour), 0.05), value)


def air_of(trajectory: Trajectory) -> AuxiliaryObservations:
    """A week of it: the air at eight and two, and each evening the day's lowest and highest."""
    rng, rows = np.random.default_rng(8), []
    inside = trajectory.air_c[:, 0].astype(float)
    for day in range(SEEN_FROM_D, KNOWN_D):
        start = day * 24.0
        read = {start + hour: inside[int(start + hour)] + rng.normal(0, 1.0) for hour in (8.0, 14.0)}
        rows += [(What.AIR, at, at, 0.0, value) for at, value in read.items()]
        span = inside[int(start) : int(start) + 18]
        rows.append((What.LOWEST, start + 18, start, 0.0, span.min() + rng.normal(0, 0.5)))
        rows.append((What.HIGHEST, start + 18, start, 0.0, span.max() + rng.normal(0, 1.5)))
    return AuxiliaryObservations.of(rows)


def air_error_k(result: Learned, at: Place, trajectory: Trajectory) -> float:
    """Of the middle course's inside air in the fortnight after, root mean square."""
    predicted = run(at, result, weather(), [0.05], 40, seed=2)
    away = np.median(predicted.air_c[AHEAD], axis=1) - trajectory.air_c[AHEAD, 0]
    return float(np.sqrt(np.mean(away**2)))


@pytest.mark.parametrize("key", ["glass_frame", "film_tunnel"])
def test_air_seen_for_a_week_takes_its_error_down_by_half_in_a_garden_unlike_the_prior(key: str) -> None:
    at = place(key)
    trajectory = truth(DRAUGHTY, at)
    soil, nothing = soil_of(trajectory), Readings(*(np.empty(0) for _ in range(3)))
    unknown = air_error_k(learn(at, weather(), nothing), at, trajectory)
    by_air, by_both = (
        air_error_k(learn(at, weather(), known, air_of(trajectory)), at, trajectory) for known in (nothing, soil)
    )
    assert by_air < unknown / 2
    assert by_both < unknown / 2


def test_what_is_learned_lies_where_it_is() -> None:
    at = place()
    result = learn(at, weather(), soil_of(truth(DRAUGHTY, at)), air_of(truth(DRAUGHTY, at)))
    plain = learn(at, weather(), soil_of(truth({}, at)), air_of(truth({}, at)))
    assert result.factor("exchange")[0] > 1.2
    # Under a cover less light and a shadier bed are one and the same.
    assert result.factor("light")[1] * result.factor("sun")[1] == pytest.approx(DRAUGHTY["light"], abs=0.1)
    for name in COVER_FACTORS:
        low, _, high = plain.factor(name)
        assert low < 1.0 < high


def test_a_bare_bed_beside_it_tells_what_the_cover_gives() -> None:
    """Soil warmer than the bare bed's by less than is reckoned: the gain told for the fortnight after comes down to it."""
    at, bare = place("film_tunnel"), Place(Bed(), WAVE)
    covered, open_bed = truth(DRAUGHTY, at), truth({}, bare)
    gain = (covered.at(0.05) - open_bed.at(0.05))[:, 0].astype(float)
    hours = [day * 24.0 + h for day in range(SEEN_FROM_D, KNOWN_D) for h in (8.0, 16.0)]
    beside = AuxiliaryObservations.of(
        [(What.GAIN, h, h, 0.05, float(np.interp(h, np.arange(len(gain)) + 0.5, gain))) for h in hours]
    )
    given = []
    for known in (AuxiliaryObservations.of([]), beside):
        result = learn(at, weather(), soil_of(covered), known)
        own = result.draws(40, np.random.default_rng(3), DAYS * 24)[0]
        pair = [place.case(weather(), own) for place in (at, bare)]
        warm, cold = simulate(pair, [0.05])
        given.append(float((warm.at(0.05) - cold.at(0.05))[AHEAD].mean()))
    real = float(gain[AHEAD].mean())
    assert abs(given[1] - real) < abs(given[0] - real) / 1.5 + 0.1


def test_air_under_a_cover_whose_opening_is_guessed_counts_for_less() -> None:
    at = place()
    seen = air_of(truth(DRAUGHTY, at))
    nothing = Readings(*(np.empty(0) for _ in range(3)))
    sure, guessed = (learn(at, weather(), nothing, replace(seen, guessed=np.full(len(seen), doubt))) for doubt in (False, True))
    spread = [result.factor("exchange")[2] / result.factor("exchange")[0] for result in (sure, guessed)]
    assert spread[1] > spread[0]
    assert guessed.factor("exchange")[1] > 1.0
