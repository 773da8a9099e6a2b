"""What is doubtful is found, what is merely lively is not, and a lone reading is moved to its day."""

from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche_engine.quantities import fahrenheit_from_celsius
from cloche_engine.records import quality
from cloche_engine.records.quality import QualityFlag, Series, day_mean_from_one, flags

HOURS = 24 * 7


def week(**values: Any) -> Series:
    """A week of hours as a bed in April has it, expected within a kelvin, under lively air."""
    hour = np.arange(HOURS, dtype=float)
    trajectory = 10.0 + 4.0 * np.sin(2 * np.pi * (hour - 10) / 24)
    plain = {
        "hour": hour,
        "temperature_c": trajectory.copy(),
        "depth_m": np.full(HOURS, 0.05),
        "low_c": trajectory - 1.0,
        "high_c": trajectory + 1.0,
        "air_c": 12.0 + 9.0 * np.sin(2 * np.pi * (hour - 8) / 24),
        "usual_depths_m": (0.05, 0.10),
    }
    return Series(**(plain | values))


def with_values(changes: dict[int, float]) -> Series:
    values = week().temperature_c
    for index, value in changes.items():
        values[index] = value
    return week(temperature_c=values)


def only(series: Series) -> dict[int, QualityFlag]:
    return {i: d for i, d in enumerate(flags(series)) if d is not None}


def test_a_good_week_raises_no_doubt() -> None:
    assert only(week()) == {}


@given(st.lists(st.floats(-0.9, 0.9), min_size=HOURS, max_size=HOURS))
def test_what_stays_in_the_band_is_never_far_air_or_fahrenheit(noise: list[float]) -> None:
    series = week(temperature_c=week().temperature_c + np.array(noise))
    assert set(only(series).values()) <= {QualityFlag.SPIKE, QualityFlag.FLAT, QualityFlag.STEP}


def test_the_air_instead_of_the_soil() -> None:
    series = week()
    assert only(with_values({40: float(series.air_c[40])})) == {40: QualityFlag.AIR}


def test_the_wrong_scale() -> None:
    typed = float(fahrenheit_from_celsius(week().temperature_c[30]))
    assert only(with_values({30: typed})) == {30: QualityFlag.FAHRENHEIT}


def test_a_moment_that_soil_does_not_have() -> None:
    series = with_values({50: float(week().temperature_c[50]) + 6.0})
    assert quality.spike(series).nonzero()[0].tolist() == [50]
    unknown = np.full(HOURS, np.nan)
    blind = week(temperature_c=series.temperature_c, low_c=unknown, high_c=unknown, air_c=unknown)
    assert only(blind) == {50: QualityFlag.SPIKE}


def test_two_readings_a_day_are_no_spikes() -> None:
    hour = np.arange(0, HOURS, 9, dtype=float)
    values = np.where(np.arange(len(hour)) % 2, 17.0, 6.0)
    unknown = np.full(len(hour), np.nan)
    series = Series(hour, values, np.full(len(hour), 0.05), unknown, unknown, unknown, (0.05,))
    assert not quality.spike(series).any()


def test_a_probe_that_hangs() -> None:
    series = with_values(dict.fromkeys(range(60, 90), 10.0))
    assert set(only(series)) >= set(range(60, 90))
    assert set(only(series).values()) == {QualityFlag.FLAT}


def test_ground_that_stands_still_may_be_read_still() -> None:
    """Under snow soil hangs at zero for days: that is no fault."""
    still = np.zeros(HOURS)
    assert only(week(temperature_c=still, low_c=still - 0.3, high_c=still + 0.3)) == {}


def test_a_moved_probe_is_found_once_where_it_was_moved() -> None:
    values = week().temperature_c
    values[80:] += 6.0
    moves = quality.step(week(temperature_c=values)).nonzero()[0]
    assert len(moves) == 1
    assert abs(moves[0] - 80) <= 2


def test_a_change_of_weather_is_no_moved_probe() -> None:
    """The first frosts of autumn drop the ground by as much; it was expected."""
    values = week().temperature_c
    values[80:] -= 6.0
    middle = values.copy()
    assert not quality.step(week(temperature_c=values, low_c=middle - 1, high_c=middle + 1)).any()


def test_a_third_depth_and_not_the_two_that_are_read() -> None:
    depth = np.full(HOURS, 0.05)
    depth[10], depth[11] = 0.10, 0.20
    assert only(week(depth_m=depth)) == {11: QualityFlag.DEPTH}


def test_far_without_a_likely_cause_is_only_far() -> None:
    assert only(with_values({20: 16.5, 21: 16.0}))[20] in (QualityFlag.FAR, QualityFlag.AIR)


@pytest.mark.parametrize("count", [0, 1, 2])
def test_few_readings_are_no_trouble(count: int) -> None:
    full = week()
    cut = {name: getattr(full, name)[:count] for name in ("hour", "temperature_c", "depth_m", "low_c", "high_c", "air_c")}
    assert flags(Series(**cut, usual_depths_m=(0.05,))) == [None] * count


def test_a_morning_reading_is_moved_by_the_place_s_own_day() -> None:
    """Common practice, no source: a bed at eight in April stands some kelvin below its day's mean."""
    assert day_mean_from_one(7.0, expected_now_c=6.5, expected_mean_c=9.5) == 10.0


STATION = Path(__file__).parents[3] / "bench" / "data" / "station_hourly_2025.csv"
"""Seven months of a flux station's soil, hourly [soil_heat 0.1.3, MIT]: good data, on which a check must keep quiet."""


def station(column: str) -> Any:
    table = np.genfromtxt(STATION, delimiter=",", names=True, dtype=None, encoding="utf-8")
    return np.asarray(table[column], dtype=float)


@pytest.mark.parametrize("depth_cm", [5, 10, 20])
def test_real_soil_makes_next_to_no_spikes_and_never_hangs(depth_cm: int) -> None:
    values = station(f"soil_{depth_cm:02d}cm_c")
    unknown = np.full(len(values), np.nan)
    depth = np.full(len(values), depth_cm / 100)
    series = Series(np.arange(len(values), dtype=float), values, depth, unknown, unknown, unknown, (depth_cm / 100,))
    spikes = [d for d in flags(series) if d is not None]
    assert len(spikes) <= 0.0005 * len(values), spikes


def test_a_morning_reading_alone_moved_by_the_days_before_it_comes_near_the_true_mean() -> None:
    days = station("soil_05cm_c")
    days = days[: len(days) // 24 * 24].reshape(-1, 24)
    days = days[np.isfinite(days).all(axis=1)]
    true = days.mean(axis=1)
    raw, moved = [], []
    for i in range(10, len(days)):
        usual = days[i - 10 : i].mean(axis=0)
        raw.append(days[i, 7] - true[i])
        moved.append(day_mean_from_one(days[i, 7], usual[7], usual.mean()) - true[i])
    assert np.sqrt(np.mean(np.square(raw))) > 4.0
    assert np.sqrt(np.mean(np.square(moved))) < 2.0
    assert abs(np.mean(moved)) < 0.2
