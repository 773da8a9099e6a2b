"""Zones and their standard time."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo


def standard_offset_h(timezone: ZoneInfo, day: date) -> float:
    """The zone's hours ahead of UTC without summer time: the lesser of its midwinter and midsummer offsets.

    Not the zone data's own word: they call Irish summer time the standard.
    """
    offsets = (datetime(day.year, month, 15, 12, tzinfo=timezone).utcoffset() or timedelta() for month in (1, 7))
    return min(offsets) / timedelta(hours=1)
