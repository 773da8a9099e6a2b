"""What a cover does for the seed and the plants beneath it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.germination.emergence import SeedBed, develop, hours_to_emergence, share_up, sowing_hour
from cloche_engine.germination.steady import felt_by_lots, in_soil
from cloche_engine.protection.timetable import off_from
from cloche_engine.soil.simulate import Trajectory
from cloche_engine.windows.limits import BAND, FRACTIONS
from cloche_engine.windows.series import lowest_ahead, mean_ahead

OPEN_COLDER_K = 1.5
"""Air among low plants in the open is colder on clear nights than at screen height [K] (assumption, low side of 2-4)."""


def felt_c(trajectory: Trajectory, covered: bool) -> NDArray[np.float64]:
    """What leaves feel, (hours, members): they face a cover as much as the air; in the open they lie below the screen.

    Parameters
    ----------
    trajectory : Trajectory
        A place's simulated hours.
    covered : bool
        Whether it stands under a cover.

    Returns
    -------
    ndarray
        (hours, members).
    """
    air = trajectory.air_c.astype(np.float64)
    return np.minimum(air, (air + trajectory.cover_c) / 2) if covered else air - OPEN_COLDER_K


Array = NDArray[np.float64]

EVEN = 0.5
STANDS_OPEN = 0.02
"""A rule closes ever slower: below this share it is shut."""
STAYS_D = 7
"""Ground is ready on a day from which it keeps its warmth for a week."""
FULLY_UP = FRACTIONS.index(0.9)


@dataclass(frozen=True)
class Emerging:
    """Of a sowing: days to half emergence (3,), the band, inf: never; share of live seed that comes up, its middle, 0-1;
    most_d: days until nine tenths of those are up, the middle."""

    half_d: Array
    share: float
    most_d: float = float("inf")


def daily(hourly: NDArray[np.floating]) -> Array:
    """Means of (hours, members): (days, members).

    Parameters
    ----------
    hourly : ndarray
        Hourly values from a midnight, (hours, members).

    Returns
    -------
    ndarray
        (days, members).
    """
    return hourly.astype(np.float64).reshape(-1, 24, hourly.shape[1]).mean(axis=1)


def band(values: Array) -> Array:
    """(members,) or (..., members) to the band along a new first axis, by members in order: infinities cannot be averaged."""
    return np.asarray(np.quantile(values, BAND, axis=-1, method="higher"))


def ready_day(soil_c: Array, wanted_c: float) -> float:
    """First day on which, as likely as not, soil (days, members) has the mean wanted for that day and the six after; inf.

    Parameters
    ----------
    soil_c : ndarray
        Soil [°C].
    wanted_c : float
        Soil that the crop wants [°C].
    """
    warm = (mean_ahead(soil_c, STAYS_D) >= wanted_c).mean(axis=1) >= EVEN
    # Near the end a week is not seen whole.
    ready = np.flatnonzero(warm[: max(len(warm) - STAYS_D + 1, 0)])
    return float(ready[0]) if len(ready) else float("inf")


def wanted_c(crop: Crop, comfortable: bool) -> float:
    """Soil to wait for, by the two rules that go by the soil [°C].

    Parameters
    ----------
    comfortable : bool
        Whether the grower waits for the ideal range rather than the minimum.
    """
    return crop.optimum_from_c if comfortable else crop.minimum_c


def emerging(soil_c: Array, crop: Crop, field_factor: float | Array, day: int) -> Emerging:
    """Seed of a crop sown on a day into hourly soil (hours, members) at its depth.

    Parameters
    ----------
    soil_c : ndarray
        Soil [°C].
    field_factor : float | ndarray
        Garden soil's days against the laboratory's.
    day : int
        Index of the day.
    """
    bed = SeedBed.of(felt_by_lots(soil_c, np.broadcast_to(field_factor, soil_c.shape[1:])))
    developed = develop(bed, crop, in_soil(crop, field_factor))
    at = np.array([day * 24 + sowing_hour(crop)])
    hours = hours_to_emergence(developed, at, crop, (EVEN, FRACTIONS[FULLY_UP]), crop.sowing_depth_m)
    share = share_up(bed, developed, crop, at, at[:, None] + hours[1])
    return Emerging(band(hours[0, 0] / 24), float(np.median(share)), float(band(hours[1, 0] / 24)[1]))


def hottest_c(inside: Trajectory, days: int) -> Array:
    """Band of the hottest hour among the plants within some days.

    Parameters
    ----------
    inside : Trajectory
        Run of the ground under the cover.
    days : int
        Number of days.
    """
    return band(inside.air_c[: days * 24].max(axis=0).astype(np.float64))


def coldest_c(inside: Trajectory, days: int) -> Array:
    """Band of the coldest hour that plants feel within some days: leaves face the cover as much as the air.

    Parameters
    ----------
    inside : Trajectory
        Run of the ground under the cover.
    days : int
        Number of days.
    """
    return band(felt_c(inside, True)[: days * 24].min(axis=0))


def opening_h(aired: Trajectory, days: int) -> float:
    """Hours a day that a cover which opens itself stands open, the middle course's mean.

    Parameters
    ----------
    aired : Trajectory
        The ground's run with the cover opened when it is warm inside.
    days : int
        Number of days.
    """
    return float(np.median((aired.opening[: days * 24] > STANDS_OPEN).sum(axis=0)) / days)


def even_lows_c(night_c: Array) -> Array:
    """By night, the lowest of the week from then on that is as likely as not passed [°C]; as far as a week is seen whole.

    Parameters
    ----------
    night_c : ndarray
        Lows of the nights, (nights, members) [°C].

    Returns
    -------
    ndarray
        (nights - 6,).
    """
    lowest = lowest_ahead(night_c, STAYS_D)[: max(len(night_c) - STAYS_D + 1, 0)]
    return np.asarray(np.quantile(lowest, 1 - EVEN, axis=1, method="higher"))


def off_day(night_c: Array, wanted_c: float) -> float:
    """First day from which, as likely as not, no night outside (days, members) of a week is colder than is wanted; inf.

    Parameters
    ----------
    night_c : ndarray
        Lows of the nights, (nights, members) [°C].
    wanted_c : float
        Nights that the crop wants [°C].
    """
    return off_from(even_lows_c(night_c), wanted_c)
