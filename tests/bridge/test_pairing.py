"""Readings that were taken together, and days that were a slip."""

from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest

from cloche.bridge.services import pairing

NOON = datetime(2026, 4, 22, 12, tzinfo=UTC)


def at(*minutes: float) -> list[tuple[datetime, float]]:
    """Readings at minutes from noon, each as warm as its minute."""
    return [(NOON + timedelta(minutes=minute), minute) for minute in minutes]


@pytest.mark.parametrize(
    ("covered", "bare", "pairs"),
    [
        ([0], [5], [(0, 5)]),
        ([0], [-20, 10], [(0, 10)]),
        ([0], [31], []),
        ([0, 10], [4], [(0, 4)]),
        ([0, 10], [1, 9], [(0, 1), (10, 9)]),
        ([0, 600], [590], [(600, 590)]),
        ([], [1], []),
    ],
)
def test_each_reading_goes_with_the_nearest_within_half_an_hour_and_none_twice(
    covered: list[float], bare: list[float], pairs: list[tuple[float, float]]
) -> None:
    matched = pairing.paired_up(at(*covered), at(*bare))
    assert [(pair.covered_c, pair.bare_c) for pair in matched] == pairs


def test_a_days_pairs_are_one_difference_by_the_local_calendar() -> None:
    late = NOON + timedelta(hours=11)
    pairs = [pairing.Pair(NOON, 12.0, 10.0), pairing.Pair(NOON, 14.0, 10.0), pairing.Pair(late, 9.0, 8.0)]
    assert pairing.by_day(pairs, ZoneInfo("UTC")) == [(date(2026, 4, 22), pytest.approx(7 / 3))]
    assert pairing.by_day(pairs, ZoneInfo("Europe/Vienna")) == [(date(2026, 4, 22), 3.0), (date(2026, 4, 23), 1.0)]


def test_a_day_far_from_all_others_is_named_once_there_are_enough() -> None:
    days = [(date(2026, 4, day), 2.0 + 0.1 * (day % 3)) for day in range(1, 8)]
    slip = (date(2026, 4, 20), 9.0)
    assert pairing.astray(days) == []
    assert pairing.astray([*days, slip]) == [slip[0]]
    assert pairing.astray([*days[:4], slip]) == []
