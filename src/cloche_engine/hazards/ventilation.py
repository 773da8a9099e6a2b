"""How far to open a cover, from when to when, from the inside air at several openings side by side.

A plan is one opening between two hours of a day: what a person does in the morning and undoes in the evening. The least that
keeps the air under the limit is chosen, as every opening gives warmth away; where none does, the most that can be done. If the
day may still go either way, the air inside at the hour of opening decides: below `look_c` it may stay shut.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

OPENINGS = (0.0, 0.05, 0.12, 0.25, 0.5, 1.0)
"""Of full: shut, a finger, a hand's width, a quarter, half, wide open."""
FIRST_H, LAST_H = 6, 20
"""Between these hours of standard time a cover is opened and shut."""
MOST_RISK = 0.025
"""Chance of passing the limit that is put up with."""
MARGIN_K, LOOK_MARGIN_K = 1.0, 0.5
"""So far below the limit the plan aims, and below what any member that needs opening shows at its hour: a forecast's members do
not stand for all that can come (chosen on made-up springs, see docs/engine.md)."""
WORTH_A_LOOK = 0.1
"""Share of the members that a look must spare the opening."""


@dataclass(frozen=True)
class Tried:
    """One day at several constant openings: inside_c (openings, 24, members) and outside_c (24, members) [°C]."""

    openings: tuple[float, ...]
    inside_c: Array
    outside_c: Array

    @property
    def warmth_k(self) -> Array:
        """Warmth above the outside air, (openings, 24, members) [K], zero where it is colder."""
        return np.maximum(self.inside_c - self.outside_c, 0.0)


@dataclass(frozen=True)
class Plan:
    """The opening of a cover for one day.

    Attributes
    ----------
    opening : float
        Fraction of the full opening, from `from_h` to `to_h`; 0 to keep it closed.
    risk, risk_shut : float
        Probability of passing the limit with this plan, and if kept closed.
    hottest_c, hottest_shut_c
        Median of the maximum, and the maximum at the accepted risk [°C].
    given_away : float
        Fraction of the closed cover's warmth that is lost.
    holds : bool
        Whether any opening keeps the limit well enough.
    look_c : float or None
        Inside air at `from_h` below which it may stay closed; None to open it in any case [°C].
    """

    opening: float
    from_h: int
    to_h: int
    risk: float
    risk_shut: float
    hottest_c: tuple[float, float]
    hottest_shut_c: tuple[float, float]
    given_away: float
    holds: bool
    look_c: float | None = None


def plan_day(tried: Tried, limit_c: float, margin_k: float = MARGIN_K, most_risk: float = MOST_RISK) -> Plan:
    """Choose the opening and its hours that lose the least warmth among those that keep the limit.

    If none does, the one that comes closest.

    Parameters
    ----------
    tried : Tried
        What each opening would do, by the run of it.
    limit_c : float
        Temperature of the air among the plants that is not to be passed [°C].
    margin_k : float
        Distance that is kept from the limit [K].
    most_risk : float
        Most risk that is run, 0-1.
    """
    hours = [(start, end) for start in range(FIRST_H, LAST_H) for end in range(start + 1, LAST_H + 1)]
    plan = _best(tried, limit_c - margin_k, limit_c, most_risk, hours)
    return replace(plan, look_c=_look_c(tried, plan, limit_c)) if plan.opening else plan


def _look_c(tried: Tried, plan: Plan, limit_c: float) -> float | None:
    """Return the least inside air at the hour of opening on those courses that need the opening [°C]."""
    at_hour, needs = tried.inside_c[0, plan.from_h - 1], (tried.inside_c[0] > limit_c).any(axis=0)
    if not plan.holds or not needs.any():
        return None
    least = float(at_hour[needs].min()) - LOOK_MARGIN_K
    return least if (at_hour < least).mean() >= WORTH_A_LOOK else None


def plan_away(tried: Tried, limit_c: float, away: tuple[int, int], margin_k: float = MARGIN_K) -> Plan:
    """Choose the one opening that suits the hours from leaving home to coming back.

    Parameters
    ----------
    tried : Tried
        What each opening would do, by the run of it.
    limit_c : float
        Temperature of the air among the plants that is not to be passed [°C].
    away : tuple[int, int]
        First and last hour of the day in which nobody is there to open or shut.
    margin_k : float
        Distance that is kept from the limit [K].
    """
    return _best(tried, limit_c - margin_k, limit_c, MOST_RISK, [away])


def choices(tried: Tried, limit_c: float, away: tuple[int, int]) -> list[Plan]:
    """Return the plan of every opening for the hours away, with its risks.

    Parameters
    ----------
    tried : Tried
        What each opening would do, by the run of it.
    limit_c : float
        Temperature of the air among the plants that is not to be passed [°C].
    away : tuple[int, int]
        First and last hour of the day in which nobody is there to open or shut.
    """
    return [_plan_of(tried, limit_c, i, away, True) for i in range(len(tried.openings))]


def _best(tried: Tried, aim_c: float, limit_c: float, most_risk: float, hours: list[tuple[int, int]]) -> Plan:
    over = tried.inside_c > aim_c
    if over[0].any(axis=0).mean() <= most_risk:
        return _plan_of(tried, limit_c, 0, hours[0], True)
    warmth, clock = tried.warmth_k.mean(axis=2), np.arange(24)
    plans: list[tuple[float, float, int, tuple[int, int]]] = []
    for start, end in hours:
        within = (clock >= start) & (clock < end)
        outside_risk = over[0][~within].any(axis=0)
        for i in range(1, len(tried.openings)):
            risk = float((outside_risk | over[i][within].any(axis=0)).mean())
            if risk <= most_risk:
                plans.append((float((warmth[0] - warmth[i])[within].sum()), tried.openings[i], i, (start, end)))
    if plans:
        _, _, i, span = min(plans)
        return _plan_of(tried, limit_c, i, span, True)
    widest = len(tried.openings) - 1
    return _plan_of(tried, limit_c, widest, _longest(over[0], hours), False)


def _longest(over_shut: NDArray[np.bool_], hours: list[tuple[int, int]]) -> tuple[int, int]:
    """Return the shortest span that includes every hour that is too hot when closed, or else the longest one."""
    hot = np.flatnonzero(over_shut.any(axis=1))
    spans = [span for span in hours if span[0] <= hot.min() and span[1] > hot.max()]
    return min(spans, key=lambda span: span[1] - span[0]) if spans else max(hours, key=lambda span: span[1] - span[0])


def _plan_of(tried: Tried, limit_c: float, i: int, span: tuple[int, int], holds: bool) -> Plan:
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
