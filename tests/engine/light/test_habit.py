"""Light against warmth, and rooms: every step of light is no worse than the one below, every degree no better."""

from __future__ import annotations

from datetime import date

import numpy as np
import pytest

from cloche_engine.light.habit import LEAST_MOL, Habit, coolest_for, habit_of, wanted_mol
from cloche_engine.light.lamp import LEAST_DARK_H, Lamp
from cloche_engine.places.rooms import ROOMS, room
from tests.engine.weathers import spell

ORDER = [Habit.STARVED, Habit.LEGGY, Habit.SOFT, Habit.STOCKY]
MOLS = [0.2, 0.9, 1.5, 2.5, 4.0, 6.0, 9.0, 14.0]


@pytest.mark.parametrize("season", ["cool", "warm"])
@pytest.mark.parametrize("air_c", [5.0, 10.0, 16.0, 22.0, 28.0])
def test_more_light_never_makes_them_leggier(season: str, air_c: float) -> None:
    habits = [ORDER.index(habit_of(mol, air_c, season)) for mol in MOLS]
    assert habits == sorted(habits)


@pytest.mark.parametrize("season", ["cool", "warm"])
@pytest.mark.parametrize("mol", [2.5, 5.0, 10.0])
def test_more_warmth_never_makes_them_stockier(season: str, mol: float) -> None:
    habits = [ORDER.index(habit_of(mol, float(c), season)) for c in range(9, 31)]
    assert habits == sorted(habits, reverse=True)


@pytest.mark.parametrize("mol", [3.0, 6.0, 12.0])
def test_warm_season_seedlings_bear_five_degrees_more_under_the_same_light(mol: float) -> None:
    assert coolest_for(mol, "warm") - coolest_for(mol, "cool") == pytest.approx(5.0)


def test_a_little_light_is_wanted_however_cool_it_is() -> None:
    assert wanted_mol(-5.0, "cool") == LEAST_MOL
    assert wanted_mol(30.0, "cool") > wanted_mol(20.0, "cool") > LEAST_MOL


def test_a_lamp_of_two_spans_leaves_a_dark_night() -> None:
    """Common practice, no source: two blocks about daylight with a dark night."""
    lamp = Lamp(((5.5, 9.0), (16.0, 21.0)), watts=30.0)
    assert lamp.hours == 8.5
    assert LEAST_DARK_H <= 24 - 21.0 + 5.5
    assert Lamp(((22.0, 6.0),)).hours == 8.0


@pytest.mark.parametrize("kind", list(ROOMS))
def test_a_room_swings_about_its_mean_and_is_warmest_at_its_hour(kind: str) -> None:
    described = ROOMS[kind]
    air = room(spell(date(2026, 3, 1), described.mean_c - 1, described.mean_c + 1, 0.5, days=20), described).air_c[-24:, 0]
    assert air.mean() == pytest.approx(described.mean_c, abs=1.2)
    assert np.ptp(air) == pytest.approx(2 * described.swing_k, abs=1.5)
    assert abs(int(np.argmax(air)) + 0.5 - described.warmest_h) <= 2


def test_a_room_kept_between_two_temperatures_follows_the_weather_no_more_than_a_heated_one() -> None:
    kept = ROOMS["garage"].between(10.0, 14.0)
    cold, mild = (room(spell(date(2026, 1, 1), low, low + 5, 0.4, days=6), kept).air_c[-24:].mean() for low in (-12.0, 6.0))
    assert mild - cold < 1.5
