"""Results of germination trials and of covers tried beside a bare bed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from math import isfinite

from cloche.bridge.services import crops
from cloche_engine.trials.arms import arm
from cloche_engine.trials.germinated import Half, Pace, Share, half_of, pace_of, share_of
from cloche_engine.trials.paired import FEWEST_DAYS, Difference, days_for_power, days_for_width, more_days
from cloche_engine.windows.readiness import steady_outlook

__all__ = [
    "TO_K",
    "BatchResult",
    "Difference",
    "Half",
    "Pace",
    "Share",
    "TrialResult",
    "days_to_half",
    "pace_of",
    "result",
    "share_up",
    "trial_result",
]


LABORATORY = 1.0
"""Trays and damp paper are as kind to seed as a laboratory (assumption)."""


@dataclass(frozen=True)
class BatchResult:
    """Result of one batch of a germination trial.

    Share germinated with its interval, days to half of those (None with too few), and the table values expected at its
    temperature (None where unknown or where nothing would germinate).
    """

    share: Share
    half: Half | None
    expected_d: float | None
    expected_share: float | None


def days_to_half(begun_on: date, counts: Sequence[tuple[date, int]]) -> Half | None:
    """Return the days to half of the germinated seeds, from counts in order of their days; None with too few to tell.

    Where all were up at the first count, only the day by which they came is known, which is no estimate either.
    """
    if counts and counts[0][1] == max(up for _, up in counts):
        return None
    return half_of([(float((on - begun_on).days), up) for on, up in counts])


def share_up(up: int, seeds: int) -> Share:
    """Return the share germinated with its interval. Raises ValueError for more seedlings than seeds."""
    return share_of(up, seeds)


def result(
    crop_key: str, seeds: int, begun_on: date, counts: Sequence[tuple[date, int]], warmth_c: float | None
) -> BatchResult:
    """Return the result of a batch from counts in order of their days."""
    most = max((up for _, up in counts), default=0)
    outlook = steady_outlook(crops.crop(crop_key), warmth_c, LABORATORY, LABORATORY) if warmth_c is not None else None
    comes = outlook is not None and isfinite(outlook.days)
    return BatchResult(
        share_up(most, seeds),
        days_to_half(begun_on, counts),
        outlook.days if outlook and comes else None,
        outlook.share if outlook and comes else None,
    )


TO_K = 0.5
"""To how many degrees either way a cover's worth is usefully known."""


@dataclass(frozen=True)
class TrialResult:
    """Result of a cover trial.

    `difference` is None without a pair; `to_width` and `to_sign` are the further days needed to know it to half a degree and
    to tell it from zero; `baseline` comes from the days before the cover, None without readings; `slips` are excluded days.
    """

    difference: Difference | None
    to_width: int | None
    to_sign: int | None
    baseline: Difference | None = None
    slips: tuple[date, ...] = ()

    @property
    def baseline_counts(self) -> bool:
        """Return whether the baseline covers enough days to be subtracted."""
        return self.baseline is not None and self.baseline.days >= FEWEST_DAYS


def trial_result(pairs: Sequence[tuple[date, float]], before: Sequence[tuple[date, float]] = ()) -> TrialResult:
    """Return a trial's result from daily differences [K] under the cover and before it."""
    measured = arm({on.toordinal(): k for on, k in pairs}, {on.toordinal(): k for on, k in before})
    if measured is None:
        return TrialResult(None, None, None)
    difference, slips = measured.difference, tuple(date.fromordinal(day) for day in measured.slips)
    if difference.sd_k != difference.sd_k:
        return TrialResult(difference, None, None, measured.baseline, slips)
    width, sign = days_for_width(difference.sd_k, TO_K), days_for_power(difference.mean_k, difference.sd_k)
    return TrialResult(difference, more_days(difference, width), more_days(difference, sign), measured.baseline, slips)
