"""A stored forecast as a round needs it."""

from datetime import UTC, datetime, timedelta, timezone

import pytest

from cloche.bridge.services.readings import hours_from, most_telling
from tests.stored import stored_forecast

START = datetime(2026, 4, 1, 22, tzinfo=UTC)
NOW = datetime(2026, 4, 22, 6, 20, tzinfo=timezone(timedelta(hours=2)))
HOURS = 35 * 24


def ground(**values):  # type: ignore[no-untyped-def]
    plain = {
        "start": START,
        "depth_m": 0.05,
        "near_low_c": [8.0] * HOURS,
        "near_high_c": [10.0] * HOURS,
        "field_depths_m": [0.0, 0.05, 0.10, 0.45],
        "field_c": [[15.0] * (HOURS // 2), [9.0] * (HOURS // 2), [7.0] * (HOURS // 2), [5.0] * (HOURS // 2)],
        "outside_c": [20.0] * HOURS,
        "inside_mid_c": [],
        "far_mid_c": [9.0 + 0.2 * day for day in range(60)],
        "spread_start": START + timedelta(days=19),
        "spread_depths_m": [0.05, 0.10],
        "spread_k": [[0.4] * 24, [0.2] * 24],
    }
    return stored_forecast(**plain | values)


def test_hours_begin_with_this_one_and_carry_band_surface_and_air() -> None:
    hours = hours_from(ground(), NOW, 96)
    assert hours is not None
    assert hours.start == datetime(2026, 4, 22, 4, tzinfo=UTC)
    assert len(hours.low_c) == len(hours.air_c) == 96
    assert (hours.low_c[0], hours.high_c[0], hours.surface_c[0], hours.air_c[0]) == (8.0, 10.0, 15.0, 20.0)
    assert (hours.ask_low_c[0], hours.ask_high_c[0]) == (6.0, 12.0)


def test_under_a_cover_the_air_is_that_inside() -> None:
    hours = hours_from(ground(inside_mid_c=[31.0] * HOURS), NOW, 5)
    assert hours is not None
    assert hours.air_c == [31.0] * 5


def test_deeper_down_the_band_moves_with_the_mean() -> None:
    hours = hours_from(ground(), NOW, 5, deeper_m=0.10)
    assert hours is not None
    assert (hours.low_c[0], hours.high_c[0]) == (6.0, 8.0)


def test_beyond_the_end_nothing_is_expected() -> None:
    assert hours_from(ground(), NOW + timedelta(days=40), 5) is None


def test_the_most_telling_hour_lies_in_daylight_at_the_depth_of_most_doubt() -> None:
    spread = [[0.4] * 24, [0.4] * 24]
    spread[1][15] = 1.5
    spread[0][2] = 3.0  # at night nobody walks
    worth = most_telling(ground(spread_k=spread), NOW)
    assert (worth.depth_m, worth.at.astimezone(NOW.tzinfo), worth.worth_it) == (0.10, NOW.replace(hour=15, minute=0), True)
    assert worth.days == pytest.approx(worth.narrowed_k / 0.2)


def test_where_all_is_known_no_reading_is_worth_the_walk() -> None:
    worth = most_telling(ground(spread_k=[[0.1] * 24, [0.1] * 24]), NOW)
    assert not worth.worth_it


def test_an_hour_that_has_passed_comes_again_tomorrow() -> None:
    spread = [[0.4] * 24, [0.4] * 24]
    spread[0][7] = 1.5
    late = NOW.replace(hour=18)
    assert most_telling(ground(spread_k=spread), late).at == NOW.replace(day=23, hour=7, minute=0)
    assert most_telling(ground(spread_k=spread), NOW.replace(hour=7, minute=40)).at == NOW.replace(hour=7, minute=0)
