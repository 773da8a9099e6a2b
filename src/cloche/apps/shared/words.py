"""Dates, lists and probabilities in a grower's words."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime

_TENTHS: tuple[str, ...] = (
    "hardly ever",
    "one time in ten",
    "two times in ten",
    "three times in ten",
    "four times in ten",
    "half the time",
)
_TENTHS += ("six times in ten", "seven times in ten", "eight times in ten", "nine times in ten", "nearly always")


def day(on: date, today: date | None = None) -> str:
    """9 April; with the year when it is not this one's; “today” when it is."""
    if today is not None and on == today:
        return "today"
    year = f" {on.year}" if today is not None and abs((on - today).days) > 300 else ""
    return f"{on.day} {on:%B}{year}"


def span(start: date, end: date, today: date) -> str:
    """9–12 April, 9 April to 3 July, today to 3 July."""
    if start == end:
        return day(start, today)
    if start != today and (start.year, start.month) == (end.year, end.month):
        return f"{start.day}–{end.day} {end:%B}"
    return f"{day(start, today)} to {day(end, today)}"


def weekday(on: date) -> str:
    """Tuesday 24 March 2026."""
    return f"{on:%A} {on.day} {on:%B %Y}"


def weekday_name(on: date) -> str:
    """Tuesday."""
    return f"{on:%A}"


def clock(at: datetime) -> str:
    """08:10."""
    return f"{at:%H:%M}"


def listed(names: Sequence[str], most: int = 4) -> str:
    """peas, beets and carrots; beyond so many, “and 5 more”."""
    shown = list(names[:most])
    if len(names) > most:
        return f"{', '.join(shown)} and {len(names) - most} more"
    if len(shown) < 2:
        return "".join(shown)
    return f"{', '.join(shown[:-1])} and {shown[-1]}"


def likely(probability: float) -> str:
    """Eight times in ten."""
    return _TENTHS[round(probability * 10)]


def sentence(text: str) -> str:
    """First letter large."""
    return text[:1].upper() + text[1:]


def within(name: str) -> str:
    """A crop's name within a sentence: French keeps its capital."""
    return name[:1].lower() + name[1:]


def count(number: int, one: str, many: str = "") -> str:
    """1 day, 12 days."""
    return f"{number} {one if number == 1 else many or one + 's'}"
