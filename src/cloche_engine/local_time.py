"""Local standard time: the offset from UTC that a place keeps all year."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo


def standard_offset_h(timezone: ZoneInfo, day: date) -> float:
    """Return the zone's hours ahead of UTC without summer time, the lesser of its January and July offsets.

    The zone data's own flag for summer time is not used, because in Ireland it calls summer time the standard.
    """
    offsets = (datetime(day.year, month, 15, 12, tzinfo=timezone).utcoffset() or timedelta() for month in (1, 7))
    return min(offsets) / timedelta(hours=1)


def midnight_of(day: date, utc_h: float) -> datetime:
    """Return the first instant of a day on a clock that keeps its offset all year."""
    return datetime(day.year, day.month, day.day, tzinfo=UTC) - timedelta(hours=utc_h)
