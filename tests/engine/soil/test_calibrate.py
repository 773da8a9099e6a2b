"""Learning a place from readings: made-up truth, found again."""

from dataclasses import replace
from datetime import date
from functools import cache

import numpy as np
import pytest

from cloche_engine.places.rooms import room
from cloche_engine.soil import verify
from cloche_engine.soil.bed import Bed, Parameters, SmallVolume
from cloche_engine.soil.calibrate import learn, log_evidence
from cloche_engine.soil.drift import Drift, ReadingKernel, Wandering, apply, covariance, hourly
from cloche_engine.soil.learned import Learned, names_for, parameters_of
from cloche_engine.soil.physical import run
from cloche_engine.soil.place import Place
from cloche_engine.soil.readings import Readings
from cloche_engine.soil.simulate import simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, HourlyWeather
from tests.engine.weathers import SITE, WAVE

DAYS, KNOWN_D = 34, 20
PLACE = Place(Bed(), WAVE)
NONE = Readings(np.empty(0), np.empty(0), np.empty(0))


@cache
def weather() -> HourlyWeather:
    """A changeable spring."""
    rng = np.random.default_rng(3)
    mean = 8 + np.linspace(0, 5, DAYS) + np.convolve(rng.normal(0, 4, DAYS + 3), np.ones(4) / 4, "valid")
    half = rng.uniform(2, 7, DAYS)
    return hours_of(DailyRecord.of(date(2026, 3, 20), (mean - half)[:, None], (mean + half)[:, None]), SITE)


def truth() -> np.ndarray:
    """A bed that takes more sun and lies in wind, at 5 cm."""
    values = {"sun": 1.25, "convection": 1.5, "evaporation": 0.6, "conduction": 1.3, "deep_k": 1.5}
    own = replace(Parameters.typical(1), **{name: np.array([value]) for name, value in values.items()})
    return simulate([PLACE.case(weather(), own)], [0.05])[0].at(0.05)[:, 0]


def readings(slip: int | None = None, days: int = KNOWN_D) -> Readings:
    """Two a day, to a tenth, a quarter of a degree off."""
    hour = np.sort(np.concatenate([np.arange(days) * 24 + 7.5, np.arange(days) * 24 + 16.5]))
    value = np.interp(hour, np.arange(DAYS * 24) + 0.5, truth()) + np.random.default_rng(5).normal(0, 0.25, len(hour))
    if slip is not None:
        value[slip] += 11.0
    return Readings(hour, np.full(len(hour), 0.05), np.round(value, 1))


@cache
def learned() -> Learned:
    return learn(PLACE, weather(), readings())


def test_a_fortnight_ahead_is_foretold_within_a_degree() -> None:
    """With the weather as it comes; what the description alone says is further off."""
    trajectory = run(PLACE, learned(), weather(), [0.05], 40, seed=1).at(0.05)[KNOWN_D * 24 :]
    plain = run(PLACE, learn(PLACE, weather(), NONE), weather(), [0.05], 40, seed=1).at(0.05)[KNOWN_D * 24 :]
    missed, guessed = (float(np.sqrt(np.mean((c.mean(axis=1) - truth()[KNOWN_D * 24 :]) ** 2))) for c in (trajectory, plain))
    assert missed < 1.0
    assert missed < guessed
    low, high = np.quantile(trajectory, [0.1, 0.9], axis=1)
    assert ((truth()[KNOWN_D * 24 :] >= low) & (truth()[KNOWN_D * 24 :] <= high)).mean() > 0.6


def test_readings_narrow_the_band() -> None:
    wide, week, three = (
        float(run(PLACE, learn(PLACE, weather(), r), weather(), [0.05], 40, seed=1).at(0.05)[KNOWN_D * 24 :].std(axis=1).mean())
        for r in (NONE, readings(days=7), readings())
    )
    assert three < wide / 1.5
    assert week < wide


def test_the_same_evidence_gives_the_same_place_and_course_to_the_digit() -> None:
    again = learn(PLACE, weather(), readings())
    assert np.array_equal(again.mean, learned().mean)
    once, two = (run(PLACE, place, weather(), [0.05], 8, seed=4).soil_c for place in (again, learned()))
    assert np.array_equal(once, two)
    assert not np.array_equal(once, run(PLACE, again, weather(), [0.05], 8, seed=5).soil_c)


def test_a_wild_reading_is_named_and_does_little_harm() -> None:
    wild = learn(PLACE, weather(), readings(slip=21))
    assert list(verify.strange(wild)) == [21]
    assert not verify.strange(learned())
    ahead = slice(KNOWN_D * 24, None)
    with_it, without = (run(PLACE, p, weather(), [0.05], 40, seed=1).at(0.05)[ahead].mean(axis=1) for p in (wild, learned()))
    assert np.abs(with_it - without).mean() < 0.6


def test_its_own_record_is_honest() -> None:
    checks = {check.lead_d: check for check in verify.record(learned())}
    assert set(checks) == {1, 3, 7}
    assert checks[1].error_k < 1.2
    assert checks[1].count > checks[7].count
    assert 0.6 < checks[1].inside <= 1.0


def test_a_wild_reading_does_not_spoil_its_record() -> None:
    wild, tame = (verify.record(learn(PLACE, weather(), readings(slip=s)))[0] for s in (21, None))
    assert wild.count == tame.count - 1
    assert wild.error_k < tame.error_k + 0.5


def test_few_readings_have_no_record_and_none_are_strange() -> None:
    few = learn(PLACE, weather(), readings(days=2))
    assert verify.record(few) == []
    assert verify.strange(few) == {}


def test_readings_at_two_depths_and_out_of_order_are_taken() -> None:
    known = readings()
    rng = np.random.default_rng(1)
    order = rng.permutation(len(known))
    mixed = Readings(known.hour[order], np.where(order % 2, 0.05, 0.06), known.temperature_c[order])
    assert np.isfinite(learn(PLACE, weather(), mixed).mean).all()


def test_thousands_of_readings_are_thinned_to_the_latest_weeks() -> None:
    hour = np.arange(0, KNOWN_D * 24, 0.2)
    value = np.interp(hour, np.arange(DAYS * 24) + 0.5, truth())
    many = learn(PLACE, weather(), Readings(hour, np.full(len(hour), 0.05), value))
    assert len(many.used) <= 160
    assert np.isfinite(many.mean).all()


def test_a_tray_tells_how_warm_its_room_is() -> None:
    """Half the way or more from the usual room to one four kelvin warmer, and what is ahead to a degree."""
    tray = Place(Bed(texture="potting", volume=SmallVolume(0.06, 12.0), indoors=True, wetness=0.4), WAVE)
    indoors = room(weather())
    warm = replace(Parameters.typical(1), room_k=np.array([4.0]))
    trajectory = simulate([tray.case(indoors, warm)], [0.02])[0].at(0.02)[:, 0].astype(float)
    hour = np.sort(np.concatenate([np.arange(10) * 24 + 7.5, np.arange(10) * 24 + 16.5]))
    taken = np.round(np.interp(hour, np.arange(len(trajectory)) + 0.5, trajectory), 1)
    result = learn(tray, indoors, Readings(hour, np.full(len(hour), 0.02), taken))
    assert 2.0 < result.factor("room_k")[1] < 5.5
    ahead = run(tray, result, indoors, [0.02], 20, seed=1).at(0.02)[12 * 24 : 18 * 24].mean()
    assert ahead == pytest.approx(trajectory[12 * 24 : 18 * 24].mean(), abs=1.0)


def test_numbers_stand_for_what_they_say() -> None:
    names = names_for(PLACE)
    parameters, start_k = parameters_of(names, np.eye(len(names))[:, :2])
    assert parameters.sun[0] == pytest.approx(np.exp(0.2))
    assert parameters.sun[1] == 1.0
    assert start_k == pytest.approx([0.0, 0.0])
    low, middle, high = learned().factor("sun")
    assert low < middle < high


def test_a_drift_draws_about_what_the_readings_say_and_forgets() -> None:
    hour = np.arange(10) * 24 + 12.0
    seen = Drift(Wandering(level_k=2.0, level_d=4.0, stays_k=0.1), hour, np.full(10, 3.0), np.zeros(10), np.ones(10))
    level, gain = seen.draw(60, 400, np.random.default_rng(1))
    assert level[8].mean() == pytest.approx(2.8, abs=0.3)
    assert abs(level[50].mean()) < 0.3
    assert level[50].std() > 2 * level[8].std()
    assert gain.shape == (60, 400)
    trajectory = 10 + 5 * np.sin(2 * np.pi * np.arange(48) / 24)[:, None]
    raised = apply(trajectory, hourly(np.full((2, 1), 2.0)), 1 + hourly(np.full((2, 1), -0.5)))
    assert raised.mean() == pytest.approx(12.0, abs=0.1)
    assert np.ptp(raised) == pytest.approx(5.0, abs=0.2)


def test_evidence_prefers_the_noise_that_was_there() -> None:
    hour = np.arange(60) * 12.0
    residual = np.random.default_rng(2).normal(0, 0.3, 60)
    quiet, loud = (Wandering(0.3, 3.0, 0.3, scatter_k=s) for s in (0.3, 1.0))
    evidence = [log_evidence(covariance(w, ReadingKernel(hour), np.zeros(60), np.ones(60)), residual) for w in (quiet, loud)]
    assert evidence[0] > evidence[1]
    assert hourly(np.arange(3.0)[:, None]).shape == (72, 1)
