"""Local standard time: the offset from UTC that a place keeps all year."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo


def standard_offset_h(timezone: ZoneInfo, day: date) -> float:
    """The zone's hours ahead of UTC without summer time: the lesser of its midwinter and midsummer offsets.

    Not the zone data's own word: they call Irish summer time the standard.
    """
    offsets = (datetime(day.year, month, 15, 12, tzinfo=timezone).utcoffset() or timedelta() for month in (1, 7))
    return min(offsets) / timedelta(hours=1)


def midnight_of(day: date, utc_h: float) -> datetime:
    """The first instant of a day on a clock that keeps its offset all year."""
    return datetime(day.year, day.month, day.day, tzinfo=UTC) - timedelta(hours=utc_h)
