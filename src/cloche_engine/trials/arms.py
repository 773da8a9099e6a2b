"""A cover trial of several beds: what each did beyond what it was before it was covered, and days that tell of a slip.

The bare bed's change is taken from the covered bed's change (difference in differences), so that a bed which is warmer anyway
is not praised for it.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import hypot, inf, sqrt

import numpy as np
from numpy.typing import NDArray
from scipy.stats import t

from cloche_engine.trials.paired import CONFIDENCE, FEWEST_DAYS, Difference, difference
from cloche_engine.trials.slips import slips

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Arm:
    """Effect of a cover on one bed [K].

    Attributes
    ----------
    difference : Difference
        As in a paired trial.
    baseline : Difference or None
        Warmth of the bed before the cover, None if not measured. It is subtracted only if it rests on enough days.
    slips : tuple of int
        Excluded days, in the order of the input.
    """

    difference: Difference
    baseline: Difference | None
    slips: tuple[int, ...]


def daily_means(pairs_k: Sequence[float], day: Sequence[int]) -> dict[int, float]:
    """Average the pairs of each day, because they share its weather.

    Parameters
    ----------
    pairs_k : Sequence[float]
        Covered less bare of each pair [K].
    day : Sequence[int]
        Which day each belongs to.
    """
    numbers, which = np.unique(np.asarray(day), return_inverse=True)
    means = np.bincount(which, np.asarray(pairs_k, dtype=np.float64)) / np.bincount(which)
    return {int(number): float(mean) for number, mean in zip(numbers, means, strict=True)}


def arm(during: Mapping[int, float], before: Mapping[int, float] | None = None) -> Arm | None:
    """Return the effect of a cover from the days with it and before it, None without a day.

    Parameters
    ----------
    during : Mapping[int, float]
        Covered less bare, by the day, while it was on [K].
    before : Mapping[int, float] | None
        The same before it was put on [K].
    """
    if not during:
        return None
    odd = slips(during)
    kept = {day: value for day, value in during.items() if day not in odd}
    lay = difference(list(kept.values()), list(kept))
    early = {day: value for day, value in (before or {}).items() if day not in slips(before or {})}
    if not early:
        return Arm(lay, None, odd)
    base = difference(list(early.values()), list(early))
    if base.days < FEWEST_DAYS:
        # A day or two before say less about the bed than about their weather: nothing is taken off.
        return Arm(lay, base, odd)
    return Arm(_between(lay, base), base, odd)


def _between(lay: Difference, base: Difference) -> Difference:
    """Return the difference of two means with unequal spread [Welch1947]."""
    mean = lay.mean_k - base.mean_k
    if min(lay.days, base.days) < FEWEST_DAYS:
        return Difference(mean, -inf, inf, float("nan"), lay.days, lay.counts_as)
    arm, other = lay.sd_k**2 / lay.counts_as, base.sd_k**2 / base.counts_as
    error = sqrt(arm + other)
    if error == 0:
        return Difference(mean, mean, mean, 0.0, lay.days, lay.counts_as)
    freedom = (arm + other) ** 2 / (arm**2 / (lay.counts_as - 1) + other**2 / (base.counts_as - 1))
    half = float(t.ppf((1 + CONFIDENCE) / 2, freedom)) * error
    return Difference(mean, mean - half, mean + half, hypot(lay.sd_k, base.sd_k), lay.days, lay.counts_as)
