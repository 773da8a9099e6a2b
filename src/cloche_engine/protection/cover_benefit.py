"""What a cover does for the seed and the plants beneath it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.germination.emergence import SeedBed, develop, hours_to_emergence, share_up, sowing_hour
from cloche_engine.germination.steady import felt_by_lots, in_soil
from cloche_engine.layout import BAND
from cloche_engine.protection.timetable import off_from
from cloche_engine.soil.simulate import Trajectory
from cloche_engine.windows.limits import FRACTIONS
from cloche_engine.windows.series import lowest_ahead, mean_ahead

OPEN_COLDER_K = 1.5
"""Air among low plants in the open is colder on clear nights than at screen height [K] (assumption, low side of 2-4)."""


def felt_c(trajectory: Trajectory, covered: bool) -> NDArray[np.float64]:
    """Return the temperature of the leaves, (hours, members) [°C].

    Under a cover they exchange heat with it as much as with the air; in the open they are below the height of the weather
    screen.

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
    """Predicted emergence of a sowing.

    Attributes
    ----------
    half_d : ndarray
        Band of days to half emergence, (3,); inf for never.
    share : float
        Median of the fraction of live seed that emerges, 0-1.
    most_d : float
        Median of the days to nine tenths of those.
    """

    half_d: Array
    share: float
    most_d: float = float("inf")


def daily(hourly: NDArray[np.floating]) -> Array:
    """Average (hours, members) to days, (days, members).

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
    """Return the band along a new first axis from (members,) or (..., members).

    It takes members in order, because infinities cannot be averaged.
    """
    return np.asarray(np.quantile(values, BAND, axis=-1, method="higher"))


def ready_day(soil_c: Array, wanted_c: float) -> float:
    """Return the first day of a week in which soil (days, members) probably has the required mean every day.

    inf means that there is none.

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
    """Return the soil temperature to wait for by the two rules that go by the soil [°C].

    Parameters
    ----------
    comfortable : bool
        Whether the grower waits for the ideal range rather than the minimum.
    """
    return crop.optimum_from_c if comfortable else crop.minimum_c


def emerging(soil_c: Array, crop: Crop, field_factor: float | Array, day: int) -> Emerging:
    """Predict the emergence of a crop sown on a day into hourly soil (hours, members) at its depth.

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
    """Return the band of the maximum air temperature among the plants over some days [°C].

    Parameters
    ----------
    inside : Trajectory
        Run of the ground under the cover.
    days : int
        Number of days.
    """
    return band(inside.air_c[: days * 24].max(axis=0).astype(np.float64))


def coldest_c(inside: Trajectory, days: int) -> Array:
    """Return the band of the minimum temperature of the leaves over some days [°C].

    Leaves exchange heat with the cover as much as with the air.

    Parameters
    ----------
    inside : Trajectory
        Run of the ground under the cover.
    days : int
        Number of days.
    """
    return band(felt_c(inside, True)[: days * 24].min(axis=0))


def opening_h(aired: Trajectory, days: int) -> float:
    """Return the mean hours per day for which a self-opening cover is open.

    Parameters
    ----------
    aired : Trajectory
        The ground's run with the cover opened when it is warm inside.
    days : int
        Number of days.
    """
    return float(np.median((aired.opening[: days * 24] > STANDS_OPEN).sum(axis=0)) / days)


def even_lows_c(night_c: Array) -> Array:
    """Return for each night the median of the lowest temperature in the week that begins with it [°C].

    The result ends with the last complete week.

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
    """Return the first day of a week in which probably no night outside is colder than required.

    The nights have the shape (days, members); inf means that there is none.

    Parameters
    ----------
    night_c : ndarray
        Lows of the nights, (nights, members) [°C].
    wanted_c : float
        Nights that the crop wants [°C].
    """
    return off_from(even_lows_c(night_c), wanted_c)
