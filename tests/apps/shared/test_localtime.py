"""Local clock times, with the awkward nights of several zones."""

from datetime import UTC, date, datetime, time
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche.apps.shared.clock import NoSuchTime, at_offset, came_twice, instant

VIENNA, AUCKLAND, LORD_HOWE = (ZoneInfo(name) for name in ("Europe/Vienna", "Pacific/Auckland", "Australia/Lord_Howe"))


def test_summer_and_winter() -> None:
    assert instant(date(2026, 7, 1), time(7, 30), VIENNA) == datetime(2026, 7, 1, 5, 30, tzinfo=UTC)
    assert instant(date(2026, 1, 1), time(7, 30), VIENNA) == datetime(2026, 1, 1, 6, 30, tzinfo=UTC)


@pytest.mark.parametrize(
    ("zone", "day", "at", "suggested"),
    [
        (VIENNA, date(2026, 3, 29), time(2, 30), "03:30"),
        (AUCKLAND, date(2026, 9, 27), time(2, 0), "03:00"),
        (LORD_HOWE, date(2026, 10, 4), time(2, 15), "02:45"),  # half an hour only
    ],
)
def test_a_skipped_time_is_refused_with_the_likely_one(zone: ZoneInfo, day: date, at: time, suggested: str) -> None:
    with pytest.raises(NoSuchTime, match=f"Did you mean {suggested}"):
        instant(day, at, zone)


def test_the_doubtful_hour_is_its_first_run() -> None:
    assert instant(date(2026, 10, 25), time(2, 30), VIENNA) == datetime(2026, 10, 25, 0, 30, tzinfo=UTC)
    assert came_twice(date(2026, 10, 25), time(2, 30), VIENNA)
    assert not came_twice(date(2026, 10, 25), time(3, 0), VIENNA)
    assert not came_twice(date(2026, 3, 29), time(2, 30), VIENNA)  # skipped, not doubled


def test_a_fixed_clock_knows_no_seasons() -> None:
    assert at_offset(date(2026, 7, 1), time(7, 30), 1.0) == datetime(2026, 7, 1, 6, 30, tzinfo=UTC)
    assert at_offset(date(2026, 7, 1), time(0, 30), 5.5) == datetime(2026, 6, 30, 19, 0, tzinfo=UTC)


@given(st.datetimes(datetime(2000, 1, 1), datetime(2040, 1, 1)), st.sampled_from([VIENNA, AUCKLAND, LORD_HOWE]))  # noqa: DTZ001
def test_every_time_that_exists_comes_back_as_it_was(moment: datetime, zone: ZoneInfo) -> None:
    try:
        back = instant(moment.date(), moment.time(), zone)
    except NoSuchTime:
        return
    assert back.astimezone(zone).replace(tzinfo=None) == moment
