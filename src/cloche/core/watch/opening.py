"""How far to open a cover, from when to when, from the inside air at several openings side by side.

A plan is one opening between two hours of a day: what a person does in the morning and undoes in the evening. The least that
keeps the air under the limit is chosen, as every opening gives warmth away.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

OPENINGS = (0.0, 0.05, 0.12, 0.25, 0.5, 1.0)
"""Of full: shut, a finger, a hand's width, a quarter, half, wide open."""
FIRST_H, LAST_H = 6, 20
"""Between these hours of standard time a cover is opened and shut."""
MOST_RISK = 0.025
"""Chance of passing the limit that is put up with."""
MARGIN_K = 3.0
"""So far below the limit the plan aims: a forecast's members do not stand for all that can come (chosen on made-up springs, see
docs/engine.md)."""


@dataclass(frozen=True)
class Tried:
    """One day at several openings, each kept all day: inside_c (openings, 24, members), outside_c (24, members) [°C]."""

    openings: tuple[float, ...]
    inside_c: Array
    outside_c: Array

    @property
    def warmth_k(self) -> Array:
        """Degrees above outside, (openings, 24, members); what lies below it is no warmth."""
        return np.maximum(self.inside_c - self.outside_c, 0.0)


@dataclass(frozen=True)
class Plan:
    """opening of full from from_h to to_h; 0: keep shut. risk, risk_shut: chance of passing the limit so, and kept shut;
    hottest_c, hottest_shut_c: of the members, their middle and all but the risk put up with; given_away: share of the shut
    cover's warmth lost; holds: whether any opening could hold it well enough."""

    opening: float
    from_h: int
    to_h: int
    risk: float
    risk_shut: float
    hottest_c: tuple[float, float]
    hottest_shut_c: tuple[float, float]
    given_away: float
    holds: bool


def plan_day(tried: Tried, limit_c: float, margin_k: float = MARGIN_K, most_risk: float = MOST_RISK) -> Plan:
    """The opening, and its hours, that gives least warmth away of those that hold the limit; else the safest."""
    over = tried.inside_c > limit_c - margin_k
    hours = [(start, end) for start in range(FIRST_H, LAST_H) for end in range(start + 1, LAST_H + 1)]
    return _best(tried, over, limit_c, most_risk, hours)


def plan_away(tried: Tried, limit_c: float, away: tuple[int, int], margin_k: float = MARGIN_K) -> Plan:
    """The one opening that is right from the hour one leaves to the hour one is back."""
    return _best(tried, tried.inside_c > limit_c - margin_k, limit_c, MOST_RISK, [away])


def choices(tried: Tried, limit_c: float, away: tuple[int, int]) -> list[Plan]:
    """Every opening for the hours one is away, with what it risks."""
    return [_told(tried, limit_c, i, away, True) for i in range(len(tried.openings))]


def _best(tried: Tried, over: NDArray[np.bool_], limit_c: float, most_risk: float, hours: list[tuple[int, int]]) -> Plan:
    if over[0].any(axis=0).mean() <= most_risk:
        return _told(tried, limit_c, 0, hours[0], True)
    warmth, shut = tried.warmth_k.mean(axis=2), np.arange(24)
    found: list[tuple[float, float, float, int, tuple[int, int]]] = []
    for start, end in hours:
        within = (shut >= start) & (shut < end)
        outside_risk = over[0][~within].any(axis=0)
        for i in range(1, len(tried.openings)):
            risk = float((outside_risk | over[i][within].any(axis=0)).mean())
            lost = float((warmth[0] - warmth[i])[within].sum())
            found.append((max(risk, most_risk), lost, tried.openings[i], i, (start, end)))
    # Least risk first, but none below what is put up with; then the least warmth lost.
    least_risk, _, _, i, span = min(found)
    return _told(tried, limit_c, i, span, least_risk <= most_risk)


def _told(tried: Tried, limit_c: float, i: int, span: tuple[int, int], holds: bool) -> Plan:
    hour = np.arange(24)
    within = ((hour >= span[0]) & (hour < span[1]))[:, None]
    inside = np.where(within, tried.inside_c[i], tried.inside_c[0])
    day, shut = inside.max(axis=0), tried.inside_c[0].max(axis=0)
    warmth = tried.warmth_k[0].sum()
    lost = (np.where(within, tried.warmth_k[0] - tried.warmth_k[i], 0.0)).sum()
    return Plan(
        opening=tried.openings[i],
        from_h=span[0],
        to_h=span[1],
        risk=float((day > limit_c).mean()),
        risk_shut=float((shut > limit_c).mean()),
        hottest_c=_ends(day),
        hottest_shut_c=_ends(shut),
        given_away=float(lost / warmth) if warmth > 0 else 0.0,
        holds=holds,
    )


def _ends(values: Array) -> tuple[float, float]:
    return float(np.median(values)), float(np.quantile(values, 1 - MOST_RISK))
