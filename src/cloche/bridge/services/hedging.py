"""Splitting a packet of seed over several days and places to reach a wanted chance of success."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from cloche_engine import outlook_days
from cloche_engine.layout import MEMBERS
from cloche_engine.results import CandidateDays
from cloche_engine.windows.hedge import MISHAP, Candidate, Hedge, hedge

__all__ = ["MISHAP", "Candidate", "Hedge", "split"]

EVERY = 2
"""Days between those that are tried: neighbours differ little."""


def split(outlooks: Sequence[tuple[CandidateDays, str]], chance: float, last_day: int | None) -> Hedge:
    """Split a packet over days and places.

    `outlooks` holds a crop's stored days and scenarios by place; `last_day` is the latest day for emergence, counted from
    today, or None.
    """
    candidates = [
        candidate for place, (days, members) in enumerate(outlooks) for candidate in _candidates(place, days, members, last_day)
    ]
    return hedge(candidates, chance)


def _candidates(place: int, days: CandidateDays, members: str, last_day: int | None) -> list[Candidate]:
    succeeds = np.isfinite(outlook_days.members_of(members, MEMBERS)).astype(np.float64)
    harvest = outlook_days.harvests(days)
    candidates = []
    for i in range(0, len(days.day), EVERY):
        in_time = last_day is None or (np.isfinite(harvest[i]) and int(days.day[i] + harvest[i]) <= last_day)
        if in_time and succeeds[i].any():
            candidates.append(Candidate(place, days.day[i], succeeds[i]))
    return candidates
