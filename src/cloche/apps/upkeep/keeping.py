"""Which backups are kept: of the last days each, then one a week, then one a month."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date, timedelta

DAYS, WEEKS, MONTHS = 7, 4, 12


def kept(days: Iterable[date], today: date) -> set[date]:
    """Of days on which backups were made, those whose backup stays: the latest of each of the last seven days, four weeks and
    twelve months that have one. What lies ahead, as a clock that was wrong left it, stays too."""
    past = sorted({day for day in days if day <= today}, reverse=True)
    days_kept = {day for day in days if day > today}
    days_kept |= {day for day in past if day > today - timedelta(days=DAYS)}
    for names, most in (
        ([(day.isocalendar().year, day.isocalendar().week) for day in past], WEEKS),
        ([(day.year, day.month) for day in past], MONTHS),
    ):
        first: dict[tuple[int, int], date] = {}
        for day, name in zip(past, names, strict=True):
            first.setdefault(name, day)
        days_kept |= set(list(first.values())[:most])
    return days_kept
