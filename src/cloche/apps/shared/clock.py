"""The one owner of "now". Everything else is told the time."""

from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

from django.conf import settings


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
