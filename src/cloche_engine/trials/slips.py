"""Days of a trial on which something went wrong: a probe read in the wrong bed, a cover that lay off."""

from __future__ import annotations

from collections.abc import Mapping
from statistics import median

FEWEST, MOST = 6, 0.2
"""Days from which one can be far off; more than this share of them are no slips but how the bed is."""
LEAST_K, FAR_TIMES = 0.3, 5
"""How far from the middle of all others a slip lies, in times of what days usually differ from it by (assumptions)."""


def slips(daily_k: Mapping[int, float]) -> tuple[int, ...]:
    """Return the days whose difference is so far from all others that a mistake is likely.

    Parameters
    ----------
    daily_k : Mapping[int, float]
        Covered less bare, by the day [K].
    """
    if len(daily_k) < FEWEST:
        return ()
    middle = median(daily_k.values())
    usual = max(median(abs(value - middle) for value in daily_k.values()), LEAST_K)
    odd = [day for day, value in daily_k.items() if abs(value - middle) > FAR_TIMES * usual]
    return tuple(sorted(odd)) if len(odd) <= MOST * len(daily_k) else ()
