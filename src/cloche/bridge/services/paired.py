"""Cover trials as the rooms see them. Loads SciPy: ask for it where a page needs it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from cloche.core.trials.arms import arm
from cloche.core.trials.paired import FEWEST_DAYS, Difference, days_for_power, days_for_width, more_days

__all__ = ["TO_K", "Difference", "TrialResult", "trial_result"]

TO_K = 0.5
"""To how many degrees either way a cover's worth is usefully known."""


@dataclass(frozen=True)
class TrialResult:
    """difference: None without a pair; to_width: more days until it is known to half a degree; to_sign: until it is known from
    nothing; baseline: of the days before the cover came, None where none were read; slips: days left aside."""

    difference: Difference | None
    to_width: int | None
    to_sign: int | None
    baseline: Difference | None = None
    slips: tuple[date, ...] = ()

    @property
    def baseline_counts(self) -> bool:
        """Whether the baseline rests on enough days, and is taken off."""
        return self.baseline is not None and self.baseline.days >= FEWEST_DAYS


def trial_result(pairs: Sequence[tuple[date, float]], before: Sequence[tuple[date, float]] = ()) -> TrialResult:
    """pairs: (day, covered less bare [K]) while it was covered, before: of the days before."""
    measured = arm({on.toordinal(): k for on, k in pairs}, {on.toordinal(): k for on, k in before})
    if measured is None:
        return TrialResult(None, None, None)
    difference, slips = measured.difference, tuple(date.fromordinal(day) for day in measured.slips)
    if difference.sd_k != difference.sd_k:
        return TrialResult(difference, None, None, measured.baseline, slips)
    width, sign = days_for_width(difference.sd_k, TO_K), days_for_power(difference.mean_k, difference.sd_k)
    return TrialResult(difference, more_days(difference, width), more_days(difference, sign), measured.baseline, slips)
