"""The heat watch over made-up winters: a failing controller is told within two readings, a cold night is not."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.heat.faults import FLAT_READINGS, Fault, fault_of
from cloche_engine.heat.source import Heating
from cloche_engine.places.rooms import ROOMS, room
from cloche_engine.soil.bed import Bed, Parameters, SmallVolume
from cloche_engine.soil.place import Place
from cloche_engine.soil.simulate import simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord
from tests.engine.weathers import SITE, WAVE

DAYS, GROUNDS, FAILS_H = 120, 8, 60 * 24 + 6
RULED = (17.0, 20.0)
LID = (CoverPeriod(kind("lid"), 0.0, 1e6),)
TRAY = Bed(texture="potting", volume=SmallVolume(0.06, 10.0), indoors=True, wetness=0.4)
MAT = Heating(110.0, 0.06, *RULED, probe_m=0.03)
READ_H = [hour for day in range(3, DAYS) for hour in (day * 24 + 7, day * 24 + 17)]


def winter() -> DailyRecord:
    """Lows that wander between -14 and 8 °C: mild weeks, cold snaps."""
    chance, low = np.random.default_rng(3), [0.0]
    for _ in range(DAYS - 1):
        low.append(float(np.clip(0.85 * low[-1] - 0.3 + chance.normal(0, 2.6), -14.0, 8.0)))
    lows = np.array(low)[:, None]
    return DailyRecord.of(date(2025, 12, 1), lows, lows + 6.0)


def differing() -> Parameters:
    """Trays, rooms and mats that are not as described."""
    chance = np.random.default_rng(5)
    parameters = Parameters.typical(GROUNDS)
    for name, sd in (("convection", 0.3), ("conduction", 0.3), ("evaporation", 0.5), ("heat", 0.15)):
        getattr(parameters, name)[:] = np.exp(chance.normal(0, sd, GROUNDS))
    parameters.room_k[:] = chance.normal(0, 1.5, GROUNDS)
    return parameters


def course(heating: tuple[Heating, ...], parameters: Parameters, where: str = "garage") -> np.ndarray:
    """Roots by the hour in an unheated garage or another room, (hours, members)."""
    weather = room(hours_of(winter(), SITE), ROOMS[where])
    place = Place(replace(TRAY, heating=heating), WAVE, LID)
    return simulate([place.case(weather, parameters)], [0.02])[0].at(0.02).astype(np.float64)


@pytest.fixture(scope="module")
def described() -> tuple[np.ndarray, np.ndarray]:
    """As the watch takes it to be: with its heater, and without."""
    return course((MAT,), Parameters.typical(1))[:, 0], course((), Parameters.typical(1))[:, 0]


def alarms(seen: np.ndarray, described: tuple[np.ndarray, np.ndarray]) -> list[tuple[int, Fault]]:
    """What the watch says after every reading."""
    expected, without = described
    raised = []
    for number in range(4, len(READ_H)):
        hours = np.array(READ_H[number - 4 : number + 1])
        fault = fault_of(hours.astype(float), seen[hours], expected[hours], without[hours], RULED)
        if fault is not None:
            raised.append((READ_H[number], fault))
    return raised


def read(course_c: np.ndarray, seed: int) -> np.ndarray:
    """With what a probe and a hand add."""
    return course_c + np.random.default_rng(seed).normal(0, 0.4, len(course_c))


def test_over_eight_winters_of_trays_that_are_not_as_described_hardly_an_alarm_is_false(
    described: tuple[np.ndarray, np.ndarray],
) -> None:
    """Eight trays, 234 looks each; rooms differ by 1.5 K, mats by 15 %, and nights fall to -14 °C outdoors."""
    every = course((MAT,), differing())
    false = [fault for i in range(GROUNDS) for fault in alarms(read(every[:, i], i), described)]
    looks = GROUNDS * (len(READ_H) - 4)
    assert len(false) / looks < 0.005, false[:5]


@pytest.mark.parametrize("member", range(3))
def test_a_dead_controller_is_told_with_the_second_reading(member: int, described: tuple[np.ndarray, np.ndarray]) -> None:
    """Dead from one morning on: by the second reading after the tray has cooled for half a day."""
    dead = course((replace(MAT, during=(-np.inf, FAILS_H)),), differing())
    raised = alarms(read(dead[:, member], member), described)
    first = next(hour for hour, fault in raised if fault is Fault.COLD and hour >= FAILS_H)
    after = [hour for hour in READ_H if hour >= FAILS_H]
    assert after.index(first) <= 2


@pytest.mark.parametrize("member", range(3))
def test_a_stuck_relay_is_told_with_the_second_reading(member: int) -> None:
    """In a room of 17 °C; in a cold garage the same mat never gets too hot, and nothing is wrong with its tray."""
    typical = Parameters.typical(1)
    described = course((MAT,), typical, "shed")[:, 0], course((), typical, "shed")[:, 0]
    stuck = (replace(MAT, during=(-np.inf, FAILS_H)), Heating(150.0, 0.06, during=(FAILS_H, np.inf)))
    seen = course(stuck, differing(), "shed")
    raised = alarms(read(seen[:, member], member), described)
    first = next(hour for hour, fault in raised if fault is Fault.HOT and hour >= FAILS_H)
    after = [hour for hour in READ_H if hour >= FAILS_H]
    assert after.index(first) <= 2


def test_a_logger_that_has_fallen_out_of_the_mix_says_the_same_for_half_a_day() -> None:
    hour = np.arange(FLAT_READINGS + 4, dtype=float)
    moving = 18.0 + np.sin(hour / 4)
    flat = np.full(len(hour), 18.0)
    assert fault_of(hour, flat, moving, moving - 6, RULED) is Fault.FLAT
    assert fault_of(hour, moving, moving, moving - 6, RULED) is None
    assert fault_of(hour[:1], flat[:1], moving[:1], moving[:1], RULED) is None
    steady = np.full(len(hour), 18.0)
    assert fault_of(hour, flat, steady, steady - 6, RULED) is None
