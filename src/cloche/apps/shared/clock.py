"""The time, and local time where it is read or typed."""

from __future__ import annotations

from datetime import UTC, date, datetime, time, timedelta
from zoneinfo import ZoneInfo

from django.conf import settings
from django.utils.dateparse import parse_datetime
from django.utils.translation import gettext as _

from cloche.apps.shared import words
from cloche.bridge.values import border


def now() -> datetime:
    """The present instant (UTC), moved by the demo's offset of whole days."""
    return datetime.now(UTC) + timedelta(days=settings.CLOCHE_DAY_OFFSET)


def real_now() -> datetime:
    """The present instant of the machine, for what machines do."""
    return datetime.now(UTC)


EARLIEST, LATEST = datetime(2026, 11, 1, tzinfo=UTC), datetime(2100, 1, 1, tzinfo=UTC)
"""This program was written after the first, and will not be used after the second."""


def is_believable() -> bool:
    """Whether the machine's clock can be right; a board without a battery starts in 1970."""
    return EARLIEST <= real_now() <= LATEST


def today(timezone: ZoneInfo) -> date:
    """The local calendar day."""
    return now().astimezone(timezone).date()


class NoSuchTime(ValueError):
    """The clocks jumped over this local time."""


def instant(day: date, at: time, timezone: ZoneInfo) -> datetime:
    """The UTC instant of a local clock time.

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
    """A moment with its offset as an address or a device gives it; None for whatever is none, or cannot be meant."""
    try:
        instant = parse_datetime(text) if isinstance(text, str) else None
        return border.instant(instant) if instant else None
    except ValueError:
        return None


def came_twice(day: date, at: time, timezone: ZoneInfo) -> bool:
    """Whether this local time came twice, the night the clocks go back."""
    first = datetime.combine(day, at, tzinfo=timezone)
    return first.utcoffset() != first.replace(fold=1).utcoffset() and first.astimezone(UTC) < first.replace(fold=1).astimezone(
        UTC
    )


def at_offset(day: date, at: time, hours: float) -> datetime:
    """The instant of a clock that stays at a fixed offset from UTC."""
    return datetime.combine(day, at, tzinfo=UTC) - timedelta(hours=hours)
