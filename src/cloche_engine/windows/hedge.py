"""Hedged sowing: a packet split over days and places, so that some of it comes through most courses of the weather."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

MISHAP = 0.1
"""Chance that a sowing fails by itself, whatever the weather: eaten, crusted over, forgotten (assumption)."""
MOST_PARTS = 5
CLOSE_D = 6
"""Two sowings of one place nearer in time than this are as good as one."""


@dataclass(frozen=True)
class Candidate:
    """A possible sowing; `succeeds` says for each of the shared members whether it crops in time, (members,), 0-1."""

    place: int
    day: int
    succeeds: NDArray[np.float64]


@dataclass(frozen=True)
class Hedge:
    """A packet divided into several sowings.

    Attributes
    ----------
    parts : list of Candidate
        The chosen sowings, earliest first.
    chance : list of float
        Probability that at least one gives a crop, after each further part in the order of choice.
    lost_mean, lost_worst : float
        Fraction of the seed lost on average, and in the worst tenth of the members.
    """

    parts: list[Candidate]
    chance: list[float]
    lost_mean: float
    lost_worst: float

    @property
    def reached(self) -> float:
        """Chance with all parts sown."""
        return self.chance[-1] if self.chance else 0.0


def hedge(candidates: Sequence[Candidate], wanted: float, most: int = MOST_PARTS) -> Hedge:
    """Return as few sowings as reach a wanted chance, at most `most`, each chosen to help most beside the earlier ones.

    Parameters
    ----------
    candidates : Sequence[Candidate]
        Days to sow on, each with its chance of success in every scenario.
    wanted : float
        Chance of a harvest that is wanted, 0-1.
    most : int
        Most sowings.
    """
    left, taken, chance = list(candidates), list[Candidate](), list[float]()
    none_yet = np.ones_like(candidates[0].succeeds) if candidates else np.ones(1)
    while left and len(taken) < most and (not chance or chance[-1] < wanted):
        best = max(left, key=lambda candidate: float((none_yet * candidate.succeeds).sum()))
        if (none_yet * best.succeeds).sum() <= 0:
            break
        taken.append(best)
        none_yet = none_yet * (1 - (1 - MISHAP) * best.succeeds)
        chance.append(float(1 - none_yet.mean()))
        left = [candidate for candidate in left if candidate.place != best.place or abs(candidate.day - best.day) >= CLOSE_D]
    if not taken:
        return Hedge([], [], 0.0, 0.0)
    lost = 1 - np.mean([candidate.succeeds for candidate in taken], axis=0)
    worst = float(np.quantile(lost, 0.9, method="higher"))
    return Hedge(sorted(taken, key=lambda candidate: (candidate.day, candidate.place)), chance, float(lost.mean()), worst)
