"""What a reading may be, what is odd about it, what it is worth."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta
from enum import IntEnum, StrEnum

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche_engine.quantities import SOIL_C, celsius_from_fahrenheit

LEAST_MARGIN_K = 2.0
"""A kitchen probe strays by a degree, and a bed differs by another within a step: common practice, no source."""


def asked_again(low_c: ArrayLike, high_c: ArrayLike) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Return the range outside which a reading is questioned.

    It is the expected band, widened by half its width and by at least 2 K.

    It is a question, never a refusal: the ground may well have surprised us.

    Parameters
    ----------
    low_c : array_like
        Any one shape, ends of the band that holds eight readings in ten [°C].
    high_c : array_like
        Any one shape, ends of the band that holds eight readings in ten [°C].

    Returns
    -------
    tuple[ndarray, ndarray]
        Both ends in that shape [°C].
    """
    low, high = np.asarray(low_c, dtype=np.float64), np.asarray(high_c, dtype=np.float64)
    margin = np.maximum((high - low) / 2, LEAST_MARGIN_K)
    return low - margin, high + margin


Array = NDArray[np.float64]
Marks = NDArray[np.bool_]

SPIKE_K, SPIKE_H = 4.0, 3.0
FLAT_H, FLAT_K, FLAT_EXPECTED_K, FLAT_COUNT = 24.0, 0.011, 2.0, 12
STEP_K, STEP_EXPECTED_K, STEP_H, STEP_COUNT = 4.0, 2.0, 24.0, 4
DEPTH_M = 0.021
AIR_SHARE = 0.34


class QualityFlag(StrEnum):
    """Reason to doubt a reading."""

    FAHRENHEIT = "fahrenheit"
    AIR = "air"
    SPIKE = "spike"
    FLAT = "flat"
    STEP = "step"
    DEPTH = "depth"
    FAR = "far"


@dataclass(frozen=True)
class Series:
    """Readings of one probe, or of one person, at one place in order of time, arrays of (n,).

    Attributes
    ----------
    hour : ndarray
        Hours from any instant.
    temperature_c, depth_m : ndarray
        Temperature [°C] and depth [m].
    low_c, high_c, air_c : ndarray
        Expected band and the air at the same time, nan where unknown [°C].
    usual_depths_m : tuple of float
        Depths at which the place is usually read [m].
    """

    hour: Array
    temperature_c: Array
    depth_m: Array
    low_c: Array
    high_c: Array
    air_c: Array
    usual_depths_m: tuple[float, ...]

    @property
    def middle_c(self) -> Array:
        """Middle of the expected band [°C]."""
        return (self.low_c + self.high_c) / 2


def flags(series: Series) -> list[QualityFlag | None]:
    """Return the most serious doubt about each reading, None for none, (n,).

    A likely cause (the wrong scale, the air, a probe that hangs) goes before the plain finding that it lies far off.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    flagged: list[QualityFlag | None] = [None] * len(series.hour)
    for flag, check in CHECKS.items():
        for i in np.flatnonzero(check(series)):
            flagged[i] = flagged[i] or flag
    return flagged


def far(series: Series) -> Marks:
    """Mark readings outside the accepted range; without an expectation nothing is marked.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    low, high = asked_again(series.low_c, series.high_c)
    return (series.temperature_c < low) | (series.temperature_c > high)


def fahrenheit(series: Series) -> Marks:
    """Mark readings that are implausible in °C but within the band if taken as °F.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    turned = celsius_from_fahrenheit(series.temperature_c)
    return far(series) & (turned >= series.low_c - 1.0) & (turned <= series.high_c + 1.0)


def air(series: Series) -> Marks:
    """Mark implausible readings close to the air temperature.

    If one lies within a third of its deviation from the air, the probe was probably not in the ground.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    off = np.minimum(np.abs(series.temperature_c - series.low_c), np.abs(series.temperature_c - series.high_c))
    return far(series) & (np.abs(series.temperature_c - series.air_c) < AIR_SHARE * off)


def spike(series: Series) -> Marks:
    """Mark readings that differ from both neighbours within three hours by more than 4 K in the same direction.

    Soil does not change like that.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    marks = np.zeros(len(series.hour), dtype=bool)
    if len(series.hour) < 3:
        return marks
    t, h = series.temperature_c, series.hour
    before, after = t[1:-1] - t[:-2], t[1:-1] - t[2:]
    near = (h[1:-1] - h[:-2] <= SPIKE_H) & (h[2:] - h[1:-1] <= SPIKE_H)
    marks[1:-1] = near & (np.sign(before) == np.sign(after)) & (np.minimum(np.abs(before), np.abs(after)) > SPIKE_K)
    return marks


def flat(series: Series) -> Marks:
    """Mark twelve or more values over a day or longer that are constant although the soil was expected to change.

    The probe has probably stopped.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    marks = np.zeros(len(series.hour), dtype=bool)
    starts = np.flatnonzero(np.r_[True, np.abs(np.diff(series.temperature_c)) > FLAT_K])
    for start, end in zip(starts, np.r_[starts[1:], len(series.hour)], strict=True):
        run = slice(start, end)
        long = end - start >= FLAT_COUNT and series.hour[end - 1] - series.hour[start] >= FLAT_H
        middle = series.middle_c[run]
        moved = np.nanmax(middle) - np.nanmin(middle) if np.isfinite(middle).any() else np.inf
        marks[run] = long and moved > FLAT_EXPECTED_K
    return marks


def step(series: Series) -> Marks:
    """Mark jumps of the daily median by more than 4 K that were not expected.

    The probe has probably been moved.

    Only the reading at which it happens is marked.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    marks = np.zeros(len(series.hour), dtype=bool)
    away = series.temperature_c - series.middle_c
    jump = np.abs(np.diff(away, prepend=away[:1]))
    # A moved probe leaps from one value to the next; medians, which are slow, are asked only there.
    for i in np.flatnonzero(jump > STEP_K / 2):
        first, last = np.searchsorted(series.hour, [series.hour[i] - STEP_H, series.hour[i] + STEP_H])
        if i - first >= STEP_COUNT and last - i >= STEP_COUNT:
            leaps = [np.median(part[i:last]) - np.median(part[first:i]) for part in (series.temperature_c, away)]
            marks[i] = min(abs(leap) for leap in leaps) > STEP_K
    return marks


def depth(series: Series) -> Marks:
    """Mark readings more than 2 cm away from the usual depths of the place.

    They cannot be compared directly.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    away = np.abs(series.depth_m[:, None] - np.array(series.usual_depths_m)[None, :])
    return np.asarray(away.min(axis=1) > DEPTH_M)


CHECKS = {
    QualityFlag.FAHRENHEIT: fahrenheit,
    QualityFlag.AIR: air,
    QualityFlag.SPIKE: spike,
    QualityFlag.FLAT: flat,
    QualityFlag.STEP: step,
    QualityFlag.FAR: far,
    QualityFlag.DEPTH: depth,
}


def day_mean_from_one(temperature_c: float, expected_now_c: float, expected_mean_c: float) -> float:
    """Estimate a daily mean from a single reading.

    The reading is shifted by the expected difference between that hour and the mean.

    One morning reading alone lies several kelvin below the mean of a bed in spring (common practice, no source).

    Parameters
    ----------
    temperature_c : float
        Temperature [°C].
    expected_now_c : float
        The place's expected temperature at the reading's hour [°C].
    expected_mean_c : float
        The place's expected mean of that day [°C].
    """
    return temperature_c + expected_mean_c - expected_now_c


DISCONNECTED_C, POWER_ON_C = -127.0, 85.0
"""One-wire digital thermometers give -127 when they do not answer and 85 before their first conversion [DS18B20]."""
AGREE_C = 0.06
LEAST_SILENCE = timedelta(hours=2)
MISSED = 3


class Fault(IntEnum):
    """Reason why a value is kept but not used."""

    NONE = 0
    DISCONNECTED = 1
    POWER_ON = 2
    OUTSIDE = 3


def faults(temperature_c: ArrayLike) -> NDArray[np.int16]:
    """Return the fault of each value [°C], of the same shape.

    Values that are not numbers count as out of range. 85 °C itself is outside the range of any garden soil.

    Parameters
    ----------
    temperature_c : array_like
        Temperature [°C].
    """
    value = np.asarray(temperature_c, dtype=np.float64)
    fault = np.where((value >= SOIL_C[0]) & (value <= SOIL_C[1]), Fault.NONE, Fault.OUTSIDE)
    fault = np.where(np.abs(value - DISCONNECTED_C) <= AGREE_C, Fault.DISCONNECTED, fault)
    return np.where(np.abs(value - POWER_ON_C) <= AGREE_C, Fault.POWER_ON, fault).astype(np.int16)


def silent_after(every: timedelta | None) -> timedelta:
    """Return how long a logger may be silent before it is missed: three intervals, at least two hours.

    Parameters
    ----------
    every : timedelta | None
        The logger's interval; None: not known.
    """
    return LEAST_SILENCE if every is None else max(MISSED * every, LEAST_SILENCE)


READING_SD_K = 0.6
"""How far one settled reading with a kitchen probe strays from its bed's mean: half a degree of the probe, a third of the
spot (common practice, no source)."""
SLOWEST_K_D = 0.1
"""Midsummer and midwinter stand still; no window is told to move by more than ten days a degree."""


def narrowing_k(spread_k: ArrayLike, reading_sd_k: float = READING_SD_K) -> NDArray[np.float64]:
    """Return by how much a reading would reduce the standard deviation at its hour and depth [K].

    Both errors are taken as normal and independent, so that the variance left is s²r²/(s² + r²).

    Parameters
    ----------
    spread_k : array_like
        Standard deviation before it, any shape [K].
    reading_sd_k : float
        Standard deviation of a reading [K].

    Returns
    -------
    ndarray
        Its shape; 0 where nothing is in doubt.
    """
    before = np.asarray(spread_k, dtype=np.float64)
    total = np.hypot(before, reading_sd_k)
    return before * (1.0 - reading_sd_k / total)


def days_narrowed(narrowed_k: float, warming_k_d: float) -> float:
    """Return what that is worth in days of a window's edge.

    The season warms or cools by at least 0.1 K/d in this conversion.

    Parameters
    ----------
    narrowed_k : float
        Standard deviation taken away [K].
    warming_k_d : float
        The season's pace [K/d].
    """
    return narrowed_k / max(abs(warming_k_d), SLOWEST_K_D)
