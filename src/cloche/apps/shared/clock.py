"""Current time and conversion between local time and instants."""

from __future__ import annotations

from datetime import UTC, date, datetime, time, timedelta
from zoneinfo import ZoneInfo

from django.conf import settings
from django.utils.dateparse import parse_datetime
from django.utils.translation import gettext as _

from cloche.apps.shared import words
from cloche.bridge.values import border


def now() -> datetime:
    """Return the current time in UTC, shifted by the demo's offset of whole days."""
    return datetime.now(UTC) + timedelta(days=settings.CLOCHE_DAY_OFFSET)


def real_now() -> datetime:
    """Return the machine's own current time."""
    return datetime.now(UTC)


EARLIEST, LATEST = datetime(2026, 11, 1, tzinfo=UTC), datetime(2100, 1, 1, tzinfo=UTC)
"""This program was written after the first, and will not be used after the second."""


def is_believable() -> bool:
    """Return whether the machine's clock can be right; a board without a battery starts in 1970."""
    return EARLIEST <= real_now() <= LATEST


def today(timezone: ZoneInfo) -> date:
    """Return the local date."""
    return now().astimezone(timezone).date()


class NoSuchTime(ValueError):
    """Raised for a local time skipped when the clocks go forward."""


def instant(day: date, at: time, timezone: ZoneInfo) -> datetime:
    """Return the UTC time of a local date and time. Raises NoSuchTime.

    On the night the clocks go back the doubtful hour is taken as its first run (summer time). On the night they go forward
    the missing hour raises NoSuchTime with a sentence.
    """
    local = datetime.combine(day, at, tzinfo=timezone)
    utc = local.astimezone(UTC)
    if utc.astimezone(timezone).replace(tzinfo=None) != local.replace(tzinfo=None):
        later = utc.astimezone(timezone)
        raise NoSuchTime(
            _("{at} did not exist on {day}, because the clocks went forward. Did you mean {later}?").format(
                at=words.clock(at), day=words.day_with_year(day), later=words.clock(later)
            )
        )
    return utc


def asked_instant(text: object) -> datetime | None:
    """Parse a time with UTC offset from a URL or device; None for anything invalid or implausible."""
    try:
        instant = parse_datetime(text) if isinstance(text, str) else None
        return border.instant(instant) if instant else None
    except ValueError:
        return None


def came_twice(day: date, at: time, timezone: ZoneInfo) -> bool:
    """Return whether a local time occurs twice because the clocks go back."""
    first = datetime.combine(day, at, tzinfo=timezone)
    return first.utcoffset() != first.replace(fold=1).utcoffset() and first.astimezone(UTC) < first.replace(fold=1).astimezone(
        UTC
    )


def at_offset(day: date, at: time, hours: float) -> datetime:
    """Return the instant of a clock at a fixed offset from UTC."""
    return datetime.combine(day, at, tzinfo=UTC) - timedelta(hours=hours)
