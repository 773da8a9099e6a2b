"""Seed: how it ages, what a lot showed so far, how much of it to sow."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import ceil, log

import numpy as np

from cloche_engine.crops.catalogue import Crop

FILLED = 0.65
"""Stations that should come up before one stops putting more seed into each (assumption)."""
LOSSES = 0.10
"""Of the plants that are up, those that slugs, mice and weather take (assumption)."""
MOST_PER_STATION = 6


@dataclass(frozen=True)
class Need:
    """Stations to sow, seeds in each and in total, and plants expected to remain, one per station."""

    stations: int
    per_station: int
    seeds: int
    plants: int


def stations_along(crop: Crop, row_m: float) -> int:
    """Return the number of stations in a row, the first at its start.

    Parameters
    ----------
    row_m : float
        Distance of rows [m].
    """
    return max(int(row_m / crop.plant_m + 1e-9), 0) + 1


def stations_on(crop: Crop, area_m2: float) -> int:
    """Return the number of stations on a bed, at least one.

    Parameters
    ----------
    area_m2 : float
        Ground to be planted [m²].
    """
    return max(round(area_m2 / (crop.row_m * crop.plant_m)), 1)


def stations_for(crop: Crop, plants: int, share: float) -> int:
    """Return the stations that leave a number of plants, given the fraction of seeds that emerge, 0-1.

    Parameters
    ----------
    plants : int
        Plants that are wanted.
    share : float
        Share of live seed that comes up, 0-1.
    """
    filled = _filled(per_station(crop, share), share) * (1 - LOSSES)
    return ceil(plants / filled - 1e-9) if filled > 0 else 0


def need(crop: Crop, stations: int, share: float) -> Need:
    """Return the seed for some stations, given the fraction of seeds that emerge, 0-1.

    All but one seedling per station are thinned out.

    Parameters
    ----------
    stations : int
        Number of stations.
    share : float
        Share of live seed that comes up, 0-1.
    """
    each = per_station(crop, share)
    return Need(stations, each, stations * each, int(stations * _filled(each, share) * (1 - LOSSES)))


def per_station(crop: Crop, share: float) -> int:
    """Return the seeds per station.

    There are more where fewer emerge, as far as that helps; sets, cloves and tubers are planted singly.

    Parameters
    ----------
    share : float
        Share of live seed that comes up, 0-1.
    """
    if crop.start != "seed":
        return 1
    if share >= 1:
        return crop.per_station
    wanted = ceil(log(1 - FILLED) / log(1 - share)) if share > 0 else MOST_PER_STATION
    return max(crop.per_station, min(wanted, MOST_PER_STATION))


def _filled(each: int, share: float) -> float:
    return float(1 - (1 - min(max(share, 0.0), 1.0)) ** each)


FRESH_RATE = 0.9
PRIOR_SEEDS = 12.0
"""What age tells of a lot counts as much as this many tested seeds (assumption)."""
LEAST_RATE = 0.02
_GRID = (np.arange(200) + 0.5) / 200


@dataclass(frozen=True)
class Viability:
    """Fraction of the lot that is alive: expected value and 10th and 90th percentile."""

    rate: float
    low: float
    high: float


def by_age(crop: Crop, age_y: float) -> float:
    """Return the expected germination rate of seed packed some years ago.

    It stays full for the keeping time, then halves with each further half of it (keeping times from handbooks, from memory;
    the halving is an assumption).

    Parameters
    ----------
    age_y : float
        Years since it was packed.
    """
    over = max(0.0, age_y - crop.keeps_y)
    return max(LEAST_RATE, FRESH_RATE * 0.5 ** (over / (crop.keeps_y / 2)))


def viability(expected: float, trials: Iterable[tuple[int, int, float]]) -> Viability:
    """Update the expected rate with trials by Bayes' rule.

    Clumps and birds make counts in a bed vary more than chance alone, so each seed there counts as half a seed.

    Parameters
    ----------
    expected : float
        Share of live seed to expect before anything was seen, 0-1.
    trials : Iterable[tuple[int, int, float]]
        (seeds, of which up, share that would come up were all alive); a germination test has share 1.
    """
    weight = (expected * PRIOR_SEEDS - 1) * np.log(_GRID) + ((1 - expected) * PRIOR_SEEDS - 1) * np.log(1 - _GRID)
    for seeds, up, share in trials:
        chance = np.clip(_GRID * share, 1e-6, 1 - 1e-6)
        trust = 1.0 if share >= 1 else 0.5
        weight = weight + trust * (up * np.log(chance) + (seeds - up) * np.log(1 - chance))
    mass = np.exp(weight - weight.max())
    mass /= mass.sum()
    low, high = np.interp((0.1, 0.9), np.cumsum(mass), _GRID)
    return Viability(float((mass * _GRID).sum()), float(low), float(high))
