"""Germination trials: seeds laid out in several warmths and counted now and then. What share comes up, how long half takes.

A seed counted on a day came up between the count before and that day; one that never came up says nothing of how quick those
are that do.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, inf, log, sqrt

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import minimize
from scipy.special import ndtr
from scipy.stats import chi2, norm

CONFIDENCE = 0.95
SPREAD = (0.03, 1.5)
"""Least and most that days to emergence spread, as standard deviation of their logarithm."""
FIRST_D, FAR_D = 0.25, 400.0
FEWEST, HALVINGS = 3, 24
LEAST_LOG_SD = 0.03
"""Seedlings from which days to half can be told with an interval."""


@dataclass(frozen=True)
class Share:
    """Emerged fraction of the seeds with its 95 % interval, 0-1."""

    up: int
    seeds: int
    share: float
    low: float
    high: float


@dataclass(frozen=True)
class Half:
    """Days to half of the final emergence with the 95 % interval, and the spread of the logarithm.

    inf marks an open end.
    """

    days: float
    low: float
    high: float
    spread: float


def share_of(up: int, seeds: int) -> Share:
    """Return the fraction with its Wilson interval [Wilson1927].

    Parameters
    ----------
    up : int
        Seedlings.
    seeds : int
        Seeds laid out.

    Raises
    ------
    ValueError
        Where more came up than were laid out, or none were.

    References
    ----------
    Wilson1927: see :doc:`/sources`.
    """
    if not 0 <= up <= seeds or seeds == 0:
        raise ValueError("No more seeds come up than were laid out.")
    z = float(norm.ppf((1 + CONFIDENCE) / 2))
    share = up / seeds
    middle = (share + z * z / (2 * seeds)) / (1 + z * z / seeds)
    half = z * sqrt(share * (1 - share) / seeds + z * z / (4 * seeds * seeds)) / (1 + z * z / seeds)
    return Share(up, seeds, share, max(0.0, middle - half), min(1.0, middle + half))


def intervals(counts: Sequence[tuple[float, int]]) -> list[tuple[float, float, int]]:
    """Return (after, until, number) of the seedlings that emerged between counts.

    A later, smaller count means that some died, not that they had not emerged.

    Parameters
    ----------
    counts : Sequence[tuple[float, int]]
        Days since sowing and how many were up then, in order of time.
    """
    steps, before, most = [], 0.0, 0
    for day, up in counts:
        if up > most:
            steps.append((before, max(day, FIRST_D), up - most))
            most = up
        before = max(day, FIRST_D)
    return steps


def half_of(counts: Sequence[tuple[float, int]]) -> Half | None:
    """Estimate the days to half of the final emergence, None with too few seedlings.

    A log-normal course is fitted to the interval of each seedling; the confidence interval is that of the likelihood
    profile.

    Parameters
    ----------
    counts : Sequence[tuple[float, int]]
        Days since sowing and how many were up then, in order of time.
    """
    seen = intervals(counts)
    if sum(number for _, _, number in seen) < FEWEST:
        return None
    after, until, number = (np.array(column, dtype=np.float64) for column in zip(*seen, strict=True))
    with np.errstate(divide="ignore"):
        low, high = np.log(after), np.log(until)

    def misfits(middle: float, spreads: NDArray[np.float64]) -> NDArray[np.float64]:
        wide = spreads[:, None]
        chance = ndtr((high - middle) / wide) - ndtr((low - middle) / wide)
        return -np.asarray((number * np.log(np.maximum(chance, 1e-300))).sum(axis=1))

    def misfit(middle: float, spread: float) -> float:
        return float(misfits(middle, np.array([spread]))[0])

    grid = np.geomspace(*SPREAD, 120)

    middle = _middle(low, high, number)

    def of_both(point: NDArray[np.float64]) -> float:
        return misfit(float(point[0]), float(np.clip(exp(point[1]), *SPREAD)))

    fit = minimize(of_both, np.array([middle, log(0.2)]), method="Nelder-Mead")
    centre, spread = float(fit.x[0]), float(np.clip(exp(fit.x[1]), *SPREAD))
    allowed = float(fit.fun) + float(chi2.ppf(CONFIDENCE, 1)) / 2
    sides = [_edge(lambda m: float(misfits(m, grid).min()) - allowed, centre, way) for way in (-1, 1)]
    return Half(exp(centre), exp(sides[0]), exp(sides[1]) if sides[1] < log(FAR_D) else inf, spread)


@dataclass(frozen=True)
class Pace:
    """Days that seed takes as a multiple of those expected, with the 95 % interval, from a number of batches."""

    times: float
    low: float
    high: float
    batches: int


def pace_of(batches: Sequence[tuple[Half, float]]) -> Pace | None:
    """Return how slow seed is compared with what is expected of it, None without a batch that tells.

    The logarithms are averaged with the weight of each; batches that disagree by more than their own intervals widen the
    result (random effects [DerSimonianLaird1986]).

    Parameters
    ----------
    batches : Sequence[tuple[Half, float]]
        Days to half of each batch, and the days expected.

    References
    ----------
    DerSimonianLaird1986: see :doc:`/sources`.
    """
    known = [(half, days) for half, days in batches if half.high < inf and days > 0]
    if not known:
        return None
    z = float(norm.ppf((1 + CONFIDENCE) / 2))
    logs = np.array([log(half.days / days) for half, days in known])
    variance = np.array([max(log(half.high / half.low) / (2 * z), LEAST_LOG_SD) ** 2 for half, _ in known])
    weight = 1 / variance
    spare = float((weight * (logs - np.average(logs, weights=weight)) ** 2).sum()) - (len(known) - 1)
    shared = float(weight.sum() - (weight**2).sum() / weight.sum())
    between = max(spare / shared, 0.0) if shared > 0 else 0.0
    weight = 1 / (variance + between)
    middle, sd = float(np.average(logs, weights=weight)), sqrt(1 / float(weight.sum()))
    return Pace(exp(middle), exp(middle - z * sd), exp(middle + z * sd), len(known))


def _middle(low: NDArray[np.float64], high: NDArray[np.float64], number: NDArray[np.float64]) -> float:
    """Return a first guess from the middles of the intervals."""
    middles = (np.maximum(low, log(FIRST_D)) + high) / 2
    return float(np.average(middles, weights=number))


def _edge(beyond, centre: float, way: int) -> float:  # type: ignore[no-untyped-def]
    """Find where the profile leaves the accepted range, by growing steps outwards and bisection."""
    inner, step = centre, 0.02
    while beyond(inner + way * step) < 0:
        inner, step = inner + way * step, step * 1.6
        if abs(inner - centre) > log(FAR_D):
            return inner
    outer = inner + way * step
    for _ in range(HALVINGS):
        middle = (inner + outer) / 2
        inner, outer = (middle, outer) if beyond(middle) < 0 else (inner, middle)
    return (inner + outer) / 2
