"""A tray upon a hotbed: it feels the air under the bed's cover and the bed's face below it, for as long as it stands there."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from functools import cache

import numpy as np
import pytest

from cloche.bridge.services import hotbeds
from cloche_engine.api import forecast
from cloche_engine.forecast.heat_and_light import kwh_behind
from cloche_engine.forecast.places import local_weather
from cloche_engine.forecast.steps import (
    Run,
    behind,
    describe_place,
    draw_members,
    gather_observations,
    know_weather,
    learn_place,
    run_ahead,
)
from cloche_engine.heat.hotbed import core_m
from cloche_engine.inputs import Build, Day, ForecastInputs, HeatSpan, OnHotbed
from cloche_engine.layout import PAST_D
from cloche_engine.results import PlaceForecast
from cloche_engine.weather.record import HourlyWeather
from tests.engine.forecast.test_forecasting import inputs

TODAY = date(2026, 3, 10)
FILLED = TODAY - timedelta(days=14)
HEAP = Build("horse", 0.6, 2.0, 1.2, "moist", "firm", True, 0.15)


def place_of(kind: str, **values: object) -> ForecastInputs:
    weather = [Day(TODAY - timedelta(days=back), -1.0, 8.0) for back in range(40, -1, -1)]
    return inputs(days_read=0, **({"kind": kind, "today": TODAY, "weather": weather, "seed_depth_m": 0.02} | values))


def hotbed(**values: object) -> ForecastInputs:
    return place_of("hotbed", **({"hotbed": (HEAP, FILLED, None)} | values))


@cache
def ground(kind: str, *stays: tuple[date, date | None, float]) -> PlaceForecast:
    below = tuple(OnHotbed(hotbed(), {"heat": heat}, first, last) for first, last, heat in stays)
    return forecast(place_of(kind, below=below)).ground


def week(result: PlaceForecast) -> float:
    return sum(result.far_mid_c[:7]) / 7


@pytest.mark.parametrize("kind", ["cells", "tray"])
def test_a_tray_on_a_hotbed_is_as_warm_as_growers_expect(kind: str) -> None:
    # Common practice, no source: trays stand on a hotbed once it holds some 18 to 27 °C; outdoors in March they freeze.
    upon = week(ground(kind, (FILLED + timedelta(days=7), None, 1.0)))
    assert 16 < upon < 30
    assert week(ground("cells")) < 9


def test_a_weaker_heap_makes_a_colder_tray_and_one_taken_off_is_cold_again() -> None:
    strong, weak = (week(ground("cells", (FILLED, None, heat))) for heat in (1.0, 0.6))
    assert strong > weak + 2
    gone = week(ground("cells", (FILLED, TODAY - timedelta(days=1), 1.0)))
    assert gone == pytest.approx(week(ground("cells")), abs=1.0)


def weather_of(given: ForecastInputs) -> tuple[HourlyWeather, HourlyWeather]:
    """What is felt, and what is outside."""
    known = know_weather(given)
    outside = behind(given, draw_members(given, known))
    return local_weather(describe_place(given, known).situation, outside), outside


def test_before_and_after_it_feels_what_it_felt_without_the_bed() -> None:
    first, last = TODAY - timedelta(days=10), TODAY - timedelta(days=5)
    alone, _ = weather_of(place_of("cells"))
    around, outside = weather_of(place_of("cells", below=(OnHotbed(hotbed(), {}, first, last),)))
    assert around.below_c is not None
    there = np.isfinite(around.below_c[:, 0])
    start = (first - (TODAY - timedelta(days=PAST_D))).days * 24
    assert list(np.flatnonzero(there)) == list(range(start, start + 6 * 24))
    assert np.array_equal(around.air_c[~there], alone.air_c[~there])
    assert around.air_c[there].mean() > outside.air_c[there].mean() + 3
    assert around.cut(1, 3).below_c is not None
    assert np.array_equal(around.rain_mm[there], np.zeros_like(around.rain_mm[there]))


def test_a_mat_over_a_young_hotbed_keeps_its_heat_in() -> None:
    young = {"hotbed": (HEAP, TODAY - timedelta(days=6), None)}
    open_, matted = (
        forecast(replace(hotbed(**young), matted_until=until)).ground for until in (None, TODAY + timedelta(days=10))
    )
    assert sum(matted.far_mid_c[2:9]) > sum(open_.far_mid_c[2:9]) + 7 * 1.0
    # Once it is off, the sun has the bed again, and both go the same way.
    assert matted.far_mid_c[40] == pytest.approx(open_.far_mid_c[40], abs=0.6)


def run_of(given: ForecastInputs) -> Run:
    weather = know_weather(given)
    members = draw_members(given, weather)
    described = describe_place(given, weather)
    learned = learn_place(given, described, gather_observations(given, described), members)
    return run_ahead(given, described, learned, members, weather)


def test_energy_behind_is_the_sources_own_by_the_day() -> None:
    on = TODAY - timedelta(days=12)
    spans = (
        HeatSpan("mat", on, TODAY - timedelta(days=6), watts=20.0),
        HeatSpan("mat", TODAY - timedelta(days=4), None, watts=40.0, control="timer", spans=((6.0, 18.0),)),
    )
    given = place_of("mat", heat=spans)
    used = kwh_behind(given, run_of(given))
    # A mat of 20 W that is always on uses 0.48 kWh a day; one of 40 W for twelve hours the same.
    expected = [0.0] * (len(used) - 12) + [0.48] * 7 + [0.0] + [0.48] * 4
    assert used == pytest.approx(expected, abs=0.005)
    assert kwh_behind(place_of("mat"), run_of(place_of("mat"))) == []


def bed_at(course_c: list[float]) -> PlaceForecast:
    """A stored forecast of a heap whose middle is so warm, by the day, from three weeks ago on."""
    stored = ground("hotbed")
    return replace(stored, near_mid_c=[value for value in course_c[:35] for _hour in range(24)], far_mid_c=course_c[21:])


def test_summer_is_not_taken_for_the_heat_of_the_heap() -> None:
    """A heap without much heat in March, below an open sky that warms it to 31 °C by May."""
    course = [8.0, 12.0, 16.5, 16.5, 16.0, *([15.5] * 42), *(15.5 + 0.4 * day for day in range(40))]
    times = hotbeds.times_of(bed_at(course), TODAY, TODAY - timedelta(days=21))
    assert times.peak_c == 16.5
    assert times.peak_on < TODAY
    assert (times.trays, times.plant) == (None, None)


def test_trays_come_before_roots_and_roots_once_it_has_cooled() -> None:
    course = [10.0, 30.0, 50.0, 45.0, 40.0, 35.0, 32.0, *([31.0] * 10), *(31.0 - 0.25 * day for day in range(100))]
    times = hotbeds.times_of(bed_at(course), TODAY, TODAY - timedelta(days=21))
    assert times.gets_too_hot
    assert times.trays < times.plant < times.fades


def test_a_core_that_stays_cool_teaches_that_the_soil_above_it_will() -> None:
    """Common practice, no source: the core of a heap that heats reaches 50 to 65 °C; at 30 it has not started well."""
    usual, noon = ground("hotbed"), datetime(FILLED.year, FILLED.month, FILLED.day, 12, tzinfo=UTC)
    cores = [(-day, noon + timedelta(days=day), core_m(HEAP), 30.0) for day in (4, 7, 10, 13)]
    cool = forecast(hotbed(readings=cores)).ground
    low, middle, high = cool.parameters["heat"]
    assert low < middle < high < 0.9
    assert week(cool) < week(usual) - 2
