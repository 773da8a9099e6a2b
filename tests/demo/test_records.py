from datetime import UTC, date, datetime

import numpy as np
import pytest

from cloche.demo.day import demo_day
from cloche.demo.plan import HILL, SOUTH, GardenPlan
from cloche.demo.records import GardenRecords, invent

NOW = datetime(2026, 4, 21, 22, tzinfo=UTC)


@pytest.fixture(scope="module")
def hill() -> GardenRecords:
    return invent(HILL, NOW, 7)


def test_the_same_seed_and_day_make_the_same_records(hill: GardenRecords) -> None:
    assert invent(HILL, NOW, 7) == hill
    assert invent(HILL, NOW, 8) != hill


def test_nothing_was_read_in_the_future(hill: GardenRecords) -> None:
    assert all(row.taken_at <= NOW for rows in hill.readings.values() for row in rows)


def test_two_past_seasons_and_a_running_one(hill: GardenRecords) -> None:
    assert {row.taken_at.year for row in hill.readings["North bed"]} == {2024, 2025, 2026}


def test_no_place_is_read_twice_at_one_instant_and_depth(hill: GardenRecords) -> None:
    for rows in hill.readings.values():
        keys = [(row.taken_at, row.depth_m) for row in rows]
        assert len(keys) == len(set(keys))


def test_there_are_gaps_and_slips_and_nothing_of_today(hill: GardenRecords) -> None:
    rows = hill.readings["North bed"]
    assert any(row.temperature_c > 40 for row in rows)
    days_in_season = 2 * 270 + 71
    assert len(rows) < 0.95 * 2 * days_in_season
    assert max(day for day, *_ in hill.weather) == NOW.date()  # it is past midnight in the garden


def test_covered_ground_is_warmer_than_open_ground(hill: GardenRecords) -> None:
    mean = {name: np.mean([r.temperature_c for r in rows[-40:]]) for name, rows in hill.readings.items()}
    assert mean["Arch"] > mean["North bed"] + 2
    assert mean["Hotbed"] > mean["Arch"] + 5


def test_all_values_are_ones_a_probe_can_show(hill: GardenRecords) -> None:
    assert all(-15 < row.temperature_c < 50 for rows in hill.readings.values() for row in rows)


def test_the_south_is_in_autumn() -> None:
    south = invent(SOUTH, NOW, 7)
    by_month: dict[int, list[float]] = {}
    for day, low, high, _ in south.weather:
        by_month.setdefault(day.month, []).append((low + high) / 2)
    assert np.mean(by_month[1]) > np.mean(by_month[7]) + 5


@pytest.mark.parametrize("plan", [HILL, SOUTH])
def test_the_plans_name_each_place_once(plan: GardenPlan) -> None:
    names = [place.name for place in plan.places]
    assert len(names) == len(set(names))


@pytest.mark.parametrize(
    ("word", "real", "expected"),
    [
        ("", date(2026, 11, 24), date(2026, 4, 22)),
        ("", date(2027, 2, 1), date(2026, 4, 22)),
        ("today", date(2026, 11, 24), date(2026, 11, 24)),
        ("2028-02-29", date(2026, 11, 24), date(2028, 2, 29)),
    ],
)
def test_the_demo_s_day(word: str, real: date, expected: date) -> None:
    assert demo_day(word, real) == expected


def test_a_day_that_is_none_is_refused() -> None:
    with pytest.raises(ValueError, match="isoformat"):
        demo_day("next week", date(2026, 1, 1))
