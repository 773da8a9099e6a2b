"""A place stopped at a midnight and taken up again is the place that ran through."""

from dataclasses import replace
from datetime import date
from functools import cache

import numpy as np
import pytest

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.soil.bed import Bed
from cloche_engine.soil.calibrate import learn
from cloche_engine.soil.physical import Checkpoint, draw, run, stop
from cloche_engine.soil.place import Place
from cloche_engine.soil.readings import Readings
from tests.engine.weathers import FOR_EVER_H, WAVE, spell, under

MEMBERS, DAYS, STOP_D = 6, 18, 12
DEPTHS = (0.0, 0.05)
NOTHING = Readings(np.empty(0), np.empty(0), np.empty(0))
LATER = CoverPeriod(kind("glass_frame"), STOP_D * 24 + 48.0, FOR_EVER_H)


@cache
def checkpoint(covers: tuple[CoverPeriod, ...] = ()) -> Checkpoint:
    weather = spell(date(2026, 3, 20), 1.0, 14.0, 0.8, days=DAYS - STOP_D)
    place = Place(Bed(), WAVE, covers)
    drawn = draw(learn(place, weather, NOTHING), len(weather), MEMBERS, 3)
    return stop(place, drawn, weather, DEPTHS, STOP_D)


def through(covers: tuple[CoverPeriod, ...]) -> np.ndarray:
    """The same place run through in one piece."""
    weather = spell(date(2026, 3, 20), 1.0, 14.0, 0.8, days=DAYS - STOP_D)
    place = Place(Bed(), WAVE, covers)
    return run(place, learn(place, weather, NOTHING), weather, DEPTHS, MEMBERS, 3).soil_c[STOP_D * 24 :]


@pytest.mark.parametrize("covers", [(), (under("film_tunnel"),)], ids=["open", "covered all along"])
def test_taken_up_again_it_is_as_if_never_stopped(covers: tuple[CoverPeriod, ...]) -> None:
    again = checkpoint(covers).simulate_covers([checkpoint(covers).place.covers], DAYS - STOP_D)[0]
    assert np.abs(again.soil_c - through(covers)).max() < 0.02


def test_a_cover_put_on_later_is_as_if_it_had_been_known_from_the_start() -> None:
    own = replace(LATER, start_h=LATER.start_h - STOP_D * 24)
    again = checkpoint().simulate_covers([(own,)], DAYS - STOP_D)[0]
    assert np.abs(again.soil_c - through((LATER,))).max() < 0.02
    assert (again.soil_c[-24:] - checkpoint().simulate_covers([()], DAYS - STOP_D)[0].soil_c[-24:]).mean() > 1.0


def test_covers_side_by_side_share_the_open_ground_beside_them() -> None:
    ways = [(replace(under("bell"), start_h=0.0),), (replace(under("film_tunnel"), start_h=0.0),)]
    together, alone = checkpoint().simulate_covers(ways, 4), [checkpoint().simulate_covers([way], 4)[0] for way in ways]
    for together_c, other in zip(together, alone, strict=True):
        np.testing.assert_array_equal(together_c.soil_c, other.soil_c)


def test_what_was_kept_can_begin_another_run_more_than_once() -> None:
    first, second = (checkpoint().simulate_covers([()], 3)[0].soil_c for _ in range(2))
    np.testing.assert_array_equal(first, second)


def test_a_cover_in_the_past_leaves_its_open_neighbour_behind() -> None:
    covered = checkpoint((under("glass_frame"),)).behind
    assert covered.end_beside is not None
    assert (covered.end.soil[:, 2] > covered.end_beside.soil[:, 2]).all()


def test_stopped_twice_it_is_as_if_stopped_once() -> None:
    later, own = checkpoint().later(2), (replace(LATER, start_h=0.0),)
    first = checkpoint().simulate_covers([(replace(own[0], start_h=48.0),)], DAYS - STOP_D)[0]
    assert np.abs(later.simulate_covers([own], DAYS - STOP_D - 2)[0].soil_c - first.soil_c[48:]).max() < 0.02
