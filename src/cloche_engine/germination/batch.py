"""A sowing that was made: how it will come up, when silence means failure, and what its counts teach.

Particles are the scenarios, each at several paces of the soil; counts weigh them, and weigh how much of the lot is alive and
how much of that comes through crust and slugs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from cloche_engine.crops.catalogue import Crop
from cloche_engine.germination.emergence import SeedBed, develop, share_up
from cloche_engine.germination.steady import FIELD_FACTOR, FIELD_LOG_SD, depth_need, depth_share, felt_by_lots, in_soil
from cloche_engine.layout import BAND

Array = NDArray[np.float64]

PACES = (-1.6, -1.0, -0.5, 0.0, 0.5, 1.0, 1.6)
"""Standard deviations of the soil's pace that are tried."""
RATES = (np.arange(40) + 0.5) / 40
STANDS = (-1.6, -0.8, 0.0, 0.8, 1.6)
"""Standard deviations of the stand that are tried."""
TRUST = 0.5
"""Counts in a bed vary more than chance alone: slugs, crust, clumps. Each seedling counts as half of one (assumption)."""
SILENCE = 0.05
"""Still nothing when fewer than one good sowing in twenty would be so late means failure."""
UNCOUNTED = 20
DRAWS = 400


@dataclass(frozen=True)
class Batch:
    """One sowing and its counts.

    Attributes
    ----------
    sown_hour : int
        Hour of sowing in the soil's series.
    seeds : int or None
        Number of seeds sown, None if not counted.
    rate, strength : float
        Expected germination rate of the lot, and the number of tested seeds that this counts as.
    pace : tuple of float
        Mean and standard deviation of the logarithm of how much slower the soil is than the laboratory.
    stand : tuple of float
        The same of the fraction of live seed that survives to a seedling.
    counts : sequence of tuple
        (hour, emerged so far) in order of time.
    """

    sown_hour: int
    depth_m: float
    usual_depth_m: float
    seeds: int | None = None
    rate: float = 0.9
    strength: float = 12.0
    pace: tuple[float, float] = (FIELD_FACTOR, FIELD_LOG_SD)
    stand: tuple[float, float] = (1.0, 0.0)
    counts: Sequence[tuple[int, int]] = field(default=())


@dataclass(frozen=True)
class BatchOutlook:
    """Predicted emergence of one sowing.

    Attributes
    ----------
    day : ndarray
        Days since sowing, (days,).
    up : ndarray
        Emerged of 100 sown, (band, days).
    first_d, half_d, most_d : ndarray
        Band of days until the first, half and nine tenths of those that emerge; inf for never.
    overdue_d : float
        Day from which silence is suspicious, see `SILENCE`; inf if none in the series.
    share : float
        Expected fraction of live seed that emerges, 0-1, with the counts taken into account.
    rate, pace, stand : tuple of float
        Mean and standard deviation after the counts; of pace and stand, of the logarithm.
    """

    day: NDArray[np.intp]
    up: Array
    first_d: Array
    half_d: Array
    most_d: Array
    overdue_d: float
    share: float
    rate: tuple[float, float]
    pace: tuple[float, float]
    stand: tuple[float, float]


def foretell(batch: Batch, soil_c: Array, crop: Crop, moist: Array | None = None) -> BatchOutlook:
    """Predict when a sowing emerges and how much of it, given its counts.

    Parameters
    ----------
    batch : Batch
        Seed put into a place on a day, with its counts.
    soil_c : ndarray
        Hourly at its depth, (hours, members), from at or before the sowing on.
    moist : ndarray | None
        Hourly at its depth, (hours, members), from at or before the sowing on.
    """
    members, paces = soil_c.shape[1], np.array(PACES)
    middle, sd = batch.pace
    factor = np.repeat(middle * np.exp(sd * paces), members)
    felt_c = felt_by_lots(np.tile(soil_c, len(paces)), factor)
    bed = SeedBed.of(felt_c, None if moist is None else np.tile(moist, len(paces)))
    development = develop(bed, crop, in_soil(crop, factor))
    made = development.progress - development.progress[:, [batch.sown_hour]]
    done = _shown(made, crop, batch.depth_m)
    end = np.full((1, len(factor)), float(made.shape[1] - 1))
    share = share_up(bed, development, crop, [batch.sown_hour], end)[0] * depth_share(batch.usual_depth_m, batch.depth_m)
    prior = np.repeat(np.exp(-(paces**2) / 2), members)
    weight = _weighed(batch, prior, done, share)
    alive, through = _lots(batch)
    column_weight, particle = weight.sum(axis=0), weight.sum(axis=1)
    rate_weight = column_weight.reshape(len(STANDS), -1).sum(axis=0)
    rate = float((rate_weight * RATES).sum())
    days = np.arange(0, (made.shape[1] - 1 - batch.sown_hour) // 24 + 1)
    shown = done[:, batch.sown_hour + 24 * days]
    row, column, luck = _drawn(weight)
    coming = (share[row] * (alive * through)[column])[:, None] * shown[row]
    up = np.quantile(100 * _as_counted(batch, coming, luck[:, None], days), BAND, axis=0)
    log_pace, log_stand = np.log(factor), np.log(through)
    mean_stand = float((column_weight * log_stand).sum())
    mean_pace = float((particle * log_pace).sum())
    return BatchOutlook(
        day=days,
        up=up,
        first_d=_days_until(shown, 0.02, particle),
        half_d=_days_until(shown, 0.5, particle),
        most_d=_days_until(shown, 0.9, particle),
        overdue_d=_overdue(batch, shown, share, weight),
        share=float((particle * share).sum() * (column_weight * through).sum()),
        rate=(rate, float(np.sqrt((rate_weight * (RATES - rate) ** 2).sum()))),
        pace=(mean_pace, float(np.sqrt((particle * (log_pace - mean_pace) ** 2).sum()))),
        stand=(mean_stand, float(np.sqrt((column_weight * (log_stand - mean_stand) ** 2).sum()))),
    )


def _shown(made: Array, crop: Crop, depth_m: float) -> Array:
    """Return the fraction of the emerging seedlings that are visible at a state of development."""
    beyond = np.maximum(made - depth_need(crop, depth_m), 1e-12)
    return np.asarray(ndtr(np.log(beyond) / crop.spread_log_sd))


def _lots(batch: Batch) -> tuple[Array, Array]:
    """Return the alive and the emerging fraction for every rate at every stand, (stands * rates,) each."""
    middle, sd = batch.stand
    through = np.minimum(middle * np.exp(sd * np.array(STANDS)), 1.0)
    return np.tile(RATES, len(STANDS)), np.repeat(through, len(RATES))


def _weighed(batch: Batch, prior: Array, done: Array, share: Array) -> Array:
    """Return the posterior weights, (particles, stands * rates), which sum to one.

    The likelihood is that of the numbers that emerged between counts.
    """
    a, b = batch.rate * batch.strength - 1, (1 - batch.rate) * batch.strength - 1
    alive, through = _lots(batch)
    lots = a * np.log(alive) + b * np.log(1 - alive) - np.repeat(np.array(STANDS) ** 2, len(RATES)) / 2
    log, chance = np.log(prior)[:, None] + lots[None, :], alive * through
    seeds, before, up_before = batch.seeds, np.zeros(len(prior)), 0
    if seeds and batch.counts:
        for hour, up in batch.counts:
            now = done[:, min(hour, done.shape[1] - 1)]
            fresh = np.clip((share * (now - before))[:, None] * chance, 1e-6, 1.0)
            log = log + TRUST * max(up - up_before, 0) * np.log(fresh)
            before, up_before = now, max(up, up_before)
        never = np.clip(1 - (share * before)[:, None] * chance, 1e-6, 1.0)
        log = log + TRUST * max(seeds - up_before, 0) * np.log(never)
    weight = np.exp(log - log.max())
    return np.asarray(weight / weight.sum())


def _drawn(weight: Array) -> tuple[NDArray[np.intp], NDArray[np.intp], Array]:
    """Draw particle, rate and chance (in standard deviations) with equal weights.

    The same weights give the same draws.
    """
    total = np.cumsum(weight.ravel())
    at = np.searchsorted(total, (np.arange(DRAWS) + 0.5) / DRAWS * total[-1])
    row, column = np.divmod(np.minimum(at, weight.size - 1), weight.shape[1])
    return row, column, np.random.default_rng(DRAWS).standard_normal(DRAWS)


def _as_counted(batch: Batch, up: Array, luck: Array, days: NDArray[np.intp]) -> Array:
    """Return the fraction of all seeds that would be counted on each day, with the scatter of a small number.

    Until the last count it is scaled to that count; after it, the count plus what is still to come. up: (draws, days), the
    chance that a seed is up.
    """
    seeds = batch.seeds or UNCOUNTED

    def of(chance: Array, left: float) -> Array:
        return np.asarray(np.clip(chance + luck * np.sqrt(chance * (1 - chance) / (TRUST * max(left, 1.0))), 0.0, 1.0))

    if not batch.seeds or not batch.counts:
        return of(up, seeds)
    # Seedlings that were lost since had come up: the largest count is what has shown.
    hour, counted = batch.counts[-1][0], max(up_then for _, up_then in batch.counts)
    last = min(max((hour - batch.sown_hour) // 24, 0), len(days) - 1)
    before = up[:, [last]]
    later = np.clip((up - before) / np.maximum(1 - before, 1e-6), 0.0, 1.0)
    known = min(counted / seeds, 1.0)
    so_far = known * np.clip(up / np.maximum(before, 1e-6), 0.0, 1.0)
    return np.where(days[None, :] >= last, known + (1 - known) * of(later, seeds - counted), so_far)


def _overdue(batch: Batch, shown: Array, share: Array, weight: Array) -> float:
    seeds = batch.seeds or UNCOUNTED
    alive, through = _lots(batch)
    for day in range(shown.shape[1]):
        none = (1 - (share * shown[:, day])[:, None] * (alive * through)) ** (seeds * TRUST)
        if float((weight * none).sum()) < SILENCE:
            return float(day)
    return float("inf")


def _days_until(shown: Array, part: float, weight: Array) -> Array:
    reached = shown >= part
    days = np.where(reached.any(axis=1), np.argmax(reached, axis=1), np.inf)
    order = np.argsort(days)
    return np.asarray([days[order][_rank(weight[order], q)] for q in BAND])


def _rank(weight: Array, part: float) -> int:
    total = np.cumsum(weight)
    return int(min(np.searchsorted(total, part * total[-1]), len(weight) - 1))
