"""Germination trials as the rooms see them. Loads SciPy: ask for it where a page needs it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from math import isfinite

from cloche.bridge.services import crops
from cloche.core.trials.germinated import Half, Share, half_of, share_of
from cloche.core.windows.readiness import steady_outlook

LABORATORY = 1.0
"""Trays and damp paper are as kind to seed as a laboratory (assumption)."""
__all__ = ["BatchResult", "Half", "Share", "days_to_half", "result", "share_up"]


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
