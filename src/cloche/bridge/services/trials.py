"""What trials show: of germination in several warmths, of a cover beside a bare bed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from math import isfinite

from cloche.bridge.services import crops
from cloche_engine.trials.arms import arm
from cloche_engine.trials.germinated import Half, Share, half_of, share_of
from cloche_engine.trials.paired import FEWEST_DAYS, Difference, days_for_power, days_for_width, more_days
from cloche_engine.windows.readiness import steady_outlook

__all__ = [
    "TO_K",
    "BatchResult",
    "Difference",
    "Half",
    "Share",
    "TrialResult",
    "days_to_half",
    "result",
    "share_up",
    "trial_result",
]


LABORATORY = 1.0
"""Trays and damp paper are as kind to seed as a laboratory (assumption)."""


@dataclass(frozen=True)
class BatchResult:
    """share: what is up, with its interval; half: days to half of those, None where too few came up to tell; expected_d,
    expected_share: of the tables at its warmth, None where that is not known or nothing would come."""

    share: Share
    half: Half | None
    expected_d: float | None
    expected_share: float | None


def days_to_half(begun_on: date, counts: Sequence[tuple[date, int]]) -> Half | None:
    """counts: day and how many were up, in order of the days. None where too few came up to tell."""
    return half_of([(float((on - begun_on).days), up) for on, up in counts])


def share_up(up: int, seeds: int) -> Share:
    """With its interval. Raises ValueError where more came up than were laid out."""
    return share_of(up, seeds)


def result(
    crop_key: str, seeds: int, begun_on: date, counts: Sequence[tuple[date, int]], warmth_c: float | None
) -> BatchResult:
    """counts: day and how many were up, in order of the days."""
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
