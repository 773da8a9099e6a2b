"""Local clock times to instants, with the two awkward nights of the year."""

from __future__ import annotations

from datetime import UTC, date, datetime, time, timedelta
from zoneinfo import ZoneInfo

from django.utils.dateparse import parse_datetime
from django.utils.translation import gettext as _

from cloche.apps.shared import words
from cloche.bridge.values import border


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
            _("{at} did not happen on {day}: the clocks went forward over it. Was it {later}?").format(
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
