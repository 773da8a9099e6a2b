"""Dates, counts, lists and quantities in words."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime, time
from functools import cache, lru_cache
from typing import Any, cast

from babel import Locale
from babel.dates import format_date, format_time
from babel.numbers import format_decimal
from django.conf import settings
from django.utils.translation import get_language, gettext_lazy, ngettext, to_locale
from django.utils.translation import gettext as _


def lazy(text: str) -> str:
    """Mark a module-level sentence for translation each time it is shown."""
    return cast(str, gettext_lazy(text))


_TENTHS: tuple[str, ...] = (
    lazy("hardly ever"),
    lazy("one time in ten"),
    lazy("two times in ten"),
    lazy("three times in ten"),
    lazy("four times in ten"),
    lazy("half the time"),
)
_TENTHS += (
    lazy("six times in ten"),
    lazy("seven times in ten"),
    lazy("eight times in ten"),
    lazy("nine times in ten"),
    lazy("nearly always"),
)


A_THOUSAND = 1000


@lru_cache(maxsize=16)
def _locale(language: str) -> Locale:
    return Locale.parse(to_locale(language))


def locale() -> Locale:
    """Return the reader's Babel locale."""
    return _locale(get_language() or "en-gb")


def _date(on: date, pattern: str) -> str:
    return _dated(on, pattern, locale())


@lru_cache(maxsize=4096)
def _dated(on: date, pattern: str, language: Locale) -> str:
    """Format a date, cached because a large page writes the same few days again and again."""
    return format_date(on, pattern, locale=language)


def day(on: date, today: date | None = None) -> str:
    """Format a date as 9 April, with the year if it differs from this one, or "today"."""
    if today is not None and on == today:
        return _("today")
    if today is not None and abs((on - today).days) > 300:
        return _date(on, _("d MMMM y"))
    return _date(on, _("d MMMM"))


def day_with_year(on: date) -> str:
    """Format a date as 9 April 2026."""
    return _date(on, _("d MMMM y"))


def short_month(on: date) -> str:
    """Format a month as Apr."""
    return _date(on, "LLL")


def short_day(on: date) -> str:
    """Format a date as 9 Apr."""
    return _date(on, _("d MMM"))


def day_with_weekday(on: date) -> str:
    """Format a date as Tue 9 Apr."""
    return _date(on, _("EEE d MMM"))


def span(start: date, end: date, today: date) -> str:
    """Format a period as 9–12 April, 9 April to 3 July, or today to 3 July."""
    if start == end:
        return day(start, today)
    if start != today and (start.year, start.month) == (end.year, end.month):
        return _("{first}–{last} {month}").format(first=start.day, last=end.day, month=_date(end, "MMMM"))
    return _("{first} to {last}").format(first=day(start, today), last=day(end, today))


def weekday(on: date) -> str:
    """Format a date as Tuesday 24 March 2026."""
    return _date(on, _("EEEE d MMMM y"))


def weekday_this_year(on: date) -> str:
    """Format a date as Tuesday 24 March."""
    return _date(on, _("EEEE d MMMM"))


def weekday_name(on: date) -> str:
    """Return the name of the weekday."""
    return _date(on, "EEEE")


def month_name(number: int) -> str:
    """Return the name of a month by number."""
    return _date(date(2000, number, 1), "LLLL")


def clock(at: datetime | time) -> str:
    """Format a time as 08:10 or 8:10 AM."""
    return _time(at, _("HH:mm"))


def hour(of_day: int) -> str:
    """Format a full hour as 8:00 or 8 AM."""
    return _time(time(of_day % 24), _("H:mm"))


def short_hour(of_day: int) -> str:
    """Format a full hour as 8 or 8 AM."""
    return _time(time(of_day % 24), _("H")) if of_day < 24 else _("midnight")


def _time(at: datetime | time, pattern: str) -> str:
    return _timed(at.time() if isinstance(at, datetime) else at, pattern, locale())


@lru_cache(maxsize=2048)
def _timed(at: time, pattern: str, language: Locale) -> str:
    # A line never ends between 7:00 and PM.
    return format_time(at, pattern, locale=language).replace(" ", "\u00a0")


def listed(names: Sequence[str], most: int = 4) -> str:
    """Join names as "peas, beets and carrots", ending in "and 5 more" beyond a maximum."""
    shown = [str(name) for name in names[:most]]
    if len(names) > most:
        return _("{names} and {number} more").format(names=", ".join(shown), number=len(names) - most)
    if len(shown) < 2:
        return "".join(shown)
    return _("{names} and {last}").format(names=", ".join(shown[:-1]), last=shown[-1])


def likely(probability: float) -> str:
    """Express a probability as "eight times in ten"."""
    return str(_TENTHS[round(probability * 10)])


def sentence(text: str) -> str:
    """Capitalise the first letter."""
    return text[:1].upper() + text[1:]


def within(name: str) -> str:
    """Return a crop's name as written within a sentence: French keeps its capital."""
    return name[:1].lower() + name[1:]


def count(number: int, singular: str, many: str) -> str:
    """Return a number with its noun in the right plural form: 1 day, 12 days, 10,689 days."""
    return f"{whole(number)} {ngettext(singular, many, number)}"


def whole(number: int) -> str:
    """Format a whole number with the reader's thousands separator."""
    return str(number) if abs(number) < A_THOUSAND else format_decimal(number, locale=locale())


SECONDS = (0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 10.0)
METHODS = {"GET", "HEAD", "POST", "OPTIONS"}


@cache
def _counters() -> tuple[Any, Any] | None:
    """Return the metrics, or None where they are not collected.

    The library reads the folder from the environment when first imported (scripts/serve.sh).
    """
    if not settings.CLOCHE_METRICS_PORT:
        return None
    from prometheus_client import Counter, Histogram

    requests = Counter("cloche_requests", "Requests answered", ["method", "page", "status"])
    return requests, Histogram("cloche_request_seconds", "Time until a request was answered", ["page"], buckets=SECONDS)


def answered(method: str, page: str, status: int, took_s: float) -> None:
    """Count a response for the metrics.

    `page` is the URL name, of which there is a limited number, and empty for unknown URLs.
    """
    counters = _counters()
    if counters is not None:
        counters[0].labels(method if method in METHODS else "other", page or "none", str(status)).inc()
        counters[1].labels(page or "none").observe(took_s)
