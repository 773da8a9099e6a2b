"""Water that nobody logged: a process of its own, found again from readings."""

import numpy as np
import pytest

from cloche_engine.soil import unlogged_wetness
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.calibrate import learn
from cloche_engine.soil.physical import run
from cloche_engine.soil.place import Place
from cloche_engine.soil.readings import Readings
from cloche_engine.soil.simulate import simulate
from cloche_engine.soil.soil_surface import SoilSurface
from cloche_engine.soil.wetness import Holds, soil_surface_of
from tests.engine.soil.test_calibrate import DAYS, KNOWN_D, NONE, PLACE, weather
from tests.engine.weathers import WAVE

FROM_D = 8
HOLDS = Holds(8.0, 40.0, 30.0, 0.96)


def watered(place: Place = PLACE, added: float = 0.6) -> np.ndarray:
    """Course at 5 cm of a bed that is kept wet from the ninth day on."""
    wet = np.zeros((DAYS * 24, 1))
    wet[FROM_D * 24 :] = added
    return (
        simulate([place.case(weather(), Parameters.typical(1), unlogged_wetness=wet)], [0.05])[0].at(0.05)[:, 0].astype(float)
    )


def readings(days: int = KNOWN_D) -> Readings:
    hour = np.sort(np.concatenate([np.arange(days) * 24 + 7.5, np.arange(days) * 24 + 16.5]))
    value = np.interp(hour, np.arange(DAYS * 24) + 0.5, watered()) + np.random.default_rng(5).normal(0, 0.25, len(hour))
    return Readings(hour, np.full(len(hour), 0.05), np.round(value, 1))


def test_watering_nobody_logged_is_noticed_and_carried_on() -> None:
    """What the readings tell of it holds for the fortnight to come."""
    result = learn(PLACE, weather(), readings())
    _, _, added = result.draws(60, np.random.default_rng(1), DAYS * 24)
    before, after, ahead = (float(added[24 * a : 24 * b].mean()) for a, b in ((2, 7), (12, 20), (20, 34)))
    assert before < 0.15
    assert after > before + 0.2
    assert ahead > before + 0.2
    low, middle, high = learn(PLACE, weather(), readings(days=15)).lately_wetter()
    assert 0.0 < low < middle < high
    assert learn(PLACE, weather(), NONE).lately_wetter() == (0.0, 0.0, 0.0)
    trajectory = run(PLACE, result, weather(), [0.05], 40, seed=1).at(0.05)[KNOWN_D * 24 :].mean(axis=1)
    dry = run(PLACE, result, weather(), [0.05], 40, seed=1).at(0.05)[: FROM_D * 24].mean(axis=1)
    assert np.sqrt(np.mean((trajectory - watered()[KNOWN_D * 24 :]) ** 2)) < 1.0
    assert np.sqrt(np.mean((dry - watered()[: FROM_D * 24]) ** 2)) < 1.0


def test_a_wetter_surface_is_cooler_and_mulch_keeps_it_out_of_reach() -> None:
    mulched = Place(Bed(mulch_m=0.06), WAVE)
    cooler = [float((watered(p, 0.0) - watered(p))[FROM_D * 24 :].mean()) for p in (PLACE, mulched)]
    assert cooler[0] > 1.0
    assert 0 < cooler[1] < cooler[0] / 3


def test_wetness_stays_between_dry_and_water() -> None:
    bare, half_full = SoilSurface(0.8, 60.0, 1.0, 0.0), (4.0, 20.0, 0.0)
    wets = [soil_surface_of(bare, 0.25, 1.0, added, half_full, HOLDS).wet for added in (-2.0, 0.0, 0.2, 2.0)]
    assert wets == pytest.approx([0.0, 0.5, 0.7, 1.0])


def test_knots_remember_and_wander_as_said() -> None:
    knots = unlogged_wetness.path(np.random.default_rng(1).standard_normal((400, 500)), 0.3)
    assert knots.std(axis=1) == pytest.approx(np.full(400, 0.3), abs=0.05)
    later = int(unlogged_wetness.MEMORY_D / unlogged_wetness.KNOT_D)
    both = np.corrcoef(knots[:-later].ravel(), knots[later:].ravel())[0, 1]
    assert both == pytest.approx(np.exp(-1), abs=0.05)


def test_between_knots_it_is_straight_and_held_outside() -> None:
    hours = int(24 * unlogged_wetness.KNOT_D)
    trajectory = unlogged_wetness.hourly(np.array([[1.0], [3.0]]), float(hours), 3 * hours)[:, 0]
    assert trajectory[: hours // 2] == pytest.approx(np.ones(hours // 2))
    assert trajectory[hours + hours // 2] == pytest.approx(2.0, abs=0.05)
    assert trajectory[-1] == 3.0
    assert unlogged_wetness.knots_over(0) == 2
    assert unlogged_wetness.knots_over(2.5 * hours) == 4
