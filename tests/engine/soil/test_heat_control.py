"""What switches heat from below: thermostats, timers, and where it enters the ground."""

from datetime import date

import numpy as np
import pytest

from cloche_engine.heat.source import Heating, span_hours
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.grid import Grid
from cloche_engine.soil.heat_control import NO_HOTBED, TOPPED_SHARE, eased, heat_of, hotbed_share, is_on, watts_of
from cloche_engine.soil.place import Place
from cloche_engine.soil.simulate import simulate
from tests.engine.weathers import WAVE, spell

GRID = Grid(np.array([0.02, 0.02, 0.04, 0.06, 0.1, 0.2, 0.4, 0.8]))


@pytest.mark.parametrize(
    ("probe_c", "was_on", "on"),
    [
        (17.9, False, True),
        (18.5, False, False),
        (18.5, True, True),
        (20.0, True, True),
        (20.1, True, False),
        (25, False, False),
    ],
)
def test_a_thermostat_keeps_as_it_was_between_its_two_temperatures(probe_c: float, was_on: bool, on: bool) -> None:
    assert is_on(probe_c, 18.0, 20.0, was_on) is on


@pytest.mark.parametrize(
    ("from_h", "to_h", "hours"),
    [(0, 24, 24), (6, 10, 4), (22, 6, 8), (18.5, 20, 1.5)],
    ids=["always", "a morning", "over midnight", "half an hour is half of it"],
)
def test_a_timer_gives_its_hours_every_day(from_h: float, to_h: float, hours: float) -> None:
    spans = ((from_h, to_h),)
    heat = heat_of([(Heating(80.0, 0.05, spans=spans),)], [GRID], 48)
    for day in (slice(0, 24), slice(24, 48)):
        assert heat.watts_m2[day].sum() == 80.0 * hours
    given = sum(watts_of(heat, hour, 0, 1.0, 1.0) for hour in range(48))
    assert given / 80.0 == 2 * span_hours(spans) == 2 * hours


def test_a_timer_of_two_spans_leaves_a_dark_night() -> None:
    heat = heat_of([(Heating(80.0, 0.05, spans=((5.5, 9.0), (16.0, 21.0))),)], [GRID], 24)
    assert heat.watts_m2[:, 0].sum() == 80.0 * 8.5
    assert heat.watts_m2[[0, 4, 10, 15, 22], 0].sum() == 0.0


def test_of_two_sources_the_one_that_came_last_counts_while_it_is_there() -> None:
    mat, cable = Heating(100.0, 0.05, during=(0.0, np.inf)), Heating(60.0, 0.2, 18.0, 20.0, during=(24.0, 48.0))
    for sources in ((mat, cable), (cable, mat)):
        heat = heat_of([sources], [GRID], 72)
        assert [float(heat.watts_m2[hour, 0]) for hour in (0, 23, 24, 47, 48, 71)] == [100, 100, 60, 60, 100, 100]
        assert heat.start_c[24, 0] == 18.0
        assert heat.start_c[0, 0] == -np.inf


def test_without_a_thermostat_it_is_on_whatever_was_before() -> None:
    assert is_on(25.0, -np.inf, np.inf, False)
    mat = Heating(90.0, 0.12, start_c=2.0, stop_c=3.0, during=(-np.inf, 10 * 24.0))
    after = soil_c(mat, Heating(90.0, 0.12, during=(10 * 24.0, np.inf)))
    assert after.mean() > soil_c().mean() + 3


def test_a_self_regulating_mat_gives_less_the_warmer_it_is() -> None:
    assert [eased(100.0, element_c, 15.0, 55.0) for element_c in (5.0, 15.0, 35.0, 60.0)] == [100.0, 100.0, 50.0, 0.0]
    assert eased(100.0, 80.0, np.inf, np.inf) == 100.0
    plain, always, itself = soil_c(), soil_c(Heating(90.0, 0.12)), soil_c(Heating(90.0, 0.12, eases_c=(0.0, 20.0)))
    assert plain[-24:].mean() < itself[-24:].mean() < always[-24:].mean()


def test_heat_enters_at_its_depth_and_a_thermostat_looks_at_its_own() -> None:
    given = [(Heating(60.0, 0.22, start_c=18.0, stop_c=20.0, probe_m=0.06),), (), (Heating(60.0, 0.01),)]
    heat = heat_of(given, [GRID] * 3, 24)
    assert [round(float(GRID.centre_m[cell]), 2) for cell in heat.cell[0]] == [0.19, 0.01, 0.01]
    assert round(float(GRID.centre_m[heat.probe[0, 0]]), 2) == 0.06
    assert (heat.start_c[0, 0], heat.stop_c[0, 0]) == (18.0, 20.0)
    assert (heat.start_c[0, 2], heat.stop_c[0, 2]) == (-np.inf, np.inf)
    assert heat.watts_m2[:, 1].sum() == 0.0
    assert (heat.rise_d == NO_HOTBED).all()


def test_where_nothing_is_heated_there_is_nothing_to_carry() -> None:
    assert heat_of([(), ()], [GRID, GRID], 24).watts_m2.shape == (0, 0)


def test_a_hotbed_gives_nothing_before_its_fill_rises_flushes_and_fades() -> None:
    days = np.linspace(-2, 80, 400)
    share = np.array([hotbed_share(day, 4.0, 30.0, 1.5) for day in days])
    assert (share[days <= 0] == 0).all()
    top = days[np.argmax(share)]
    # Common practice, no source: the flush is over within the first week or ten days.
    assert 2.0 < top < 7.0
    after = share[days > top]
    assert (np.diff(after) < 0).all()
    plain = np.array([hotbed_share(day, 4.0, 30.0, 0.0) for day in days])
    assert share[-1] == pytest.approx(plain[-1], abs=0.01)
    assert share.max() > 1.5 * plain.max()


def test_topping_up_adds_half_a_fill_from_its_hour_on() -> None:
    once = heat_of([(Heating(100.0, 0.3, fading_d=(4.0, 30.0), flush=1.0),)], [GRID], 60 * 24)
    twice = heat_of([(Heating(100.0, 0.3, fading_d=(4.0, 30.0), flush=1.0, topped_h=30 * 24.0),)], [GRID], 60 * 24)
    for hour in (5 * 24, 29 * 24):
        assert watts_of(once, hour, 0, 1.0, 1.0) == watts_of(twice, hour, 0, 1.0, 1.0)
    added = watts_of(twice, 36 * 24, 0, 1.0, 1.0) - watts_of(once, 36 * 24, 0, 1.0, 1.0)
    assert added == pytest.approx(TOPPED_SHARE * watts_of(once, 6 * 24, 0, 1.0, 1.0), rel=1e-9)


def soil_c(*heating: Heating) -> np.ndarray:
    weather = spell(SPRING, 2.0, 9.0, 0.5, days=12)
    return simulate([Place(Bed(heating=heating), WAVE).case(weather, Parameters.typical(1))], [0.05])[0].at(0.05)[-72:, 0]


SPRING = date(2026, 3, 10)


def test_a_thermostat_holds_the_ground_where_it_looks_and_uses_less_than_always_on() -> None:
    """A cable of 90 W/m² under a bed in March; its thermostat holds 16 to 17 °C at 5 cm as well as it can."""
    cold, always = soil_c(), soil_c(Heating(90.0, 0.12))
    held = soil_c(Heating(90.0, 0.12, start_c=14.0, stop_c=15.0, probe_m=0.05))
    assert always.mean() > cold.mean() + 3
    assert cold.mean() < held.mean() <= always.mean() + 0.01
    # It is never on while the probe is above where it stops: the warmest hour is the sun's or little more.
    assert held.max() <= max(always.max(), 15.0 + 4.0)
    assert held.min() >= cold.min()
    night = soil_c(Heating(90.0, 0.12, spans=((20, 6),)))
    assert cold.mean() < night.mean() < always.mean()
