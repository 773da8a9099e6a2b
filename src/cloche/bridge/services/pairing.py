"""Paired readings of a covered and a bare place, and outlying days. Does not import SciPy."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo

from cloche_engine.trials.slips import slips

TOGETHER = timedelta(minutes=30)
Taken = Sequence[tuple[datetime, float]]
"""Readings in order of time: when, and how warm [°C]."""


@dataclass(frozen=True)
class Pair:
    """Two readings taken together, one covered and one bare."""

    at: datetime
    covered_c: float
    bare_c: float

    @property
    def warmer_k(self) -> float:
        """Return the covered temperature minus the bare one [K]."""
        return self.covered_c - self.bare_c


def paired_up(covered: Taken, bare: Taken) -> list[Pair]:
    """Pair each covered reading with the nearest bare reading within half an hour; no reading is used twice."""
    pairs, j = [], 0
    for at, value in covered:
        while j < len(bare) and bare[j][0] < at - TOGETHER:
            j += 1
        near = j
        while near + 1 < len(bare) and abs(bare[near + 1][0] - at) < abs(bare[near][0] - at):
            near += 1
        if near < len(bare) and abs(bare[near][0] - at) <= TOGETHER:
            pairs.append(Pair(at, value, bare[near][1]))
            j = near + 1
    return pairs


def by_day(pairs: Sequence[Pair], zone: ZoneInfo) -> list[tuple[date, float]]:
    """Return the mean difference of each local day [K]."""
    by_date: dict[date, list[float]] = {}
    for pair in pairs:
        by_date.setdefault(pair.at.astimezone(zone).date(), []).append(pair.warmer_k)
    return [(on, sum(values) / len(values)) for on, values in sorted(by_date.items())]


def astray(days: Sequence[tuple[date, float]]) -> list[date]:
    """Return the days whose difference is an outlier, more likely a misreading than an effect of the cover."""
    return [date.fromordinal(day) for day in slips({on.toordinal(): k for on, k in days})]
