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
    """The range outside which a reading is asked about: the expected band, widened by half of itself and at least 2 K.

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
    """Why a reading is doubtful."""

    FAHRENHEIT = "fahrenheit"
    AIR = "air"
    SPIKE = "spike"
    FLAT = "flat"
    STEP = "step"
    DEPTH = "depth"
    FAR = "far"


@dataclass(frozen=True)
class Series:
    """Readings of one probe or one hand at one place, oldest first, all of one length n.

    hour: hours from any instant [h]; temperature_c; depth_m; low_c, high_c: the band expected then and there, nan where
    nothing is; air_c: the air over it then, nan likewise. usual_depths_m: where this place is read.
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
        """Middle of the expected band."""
        return (self.low_c + self.high_c) / 2


def flags(series: Series) -> list[QualityFlag | None]:
    """The gravest doubt about each reading, None for none; length n.

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
    """Outside the range in which nothing is asked. Nothing expected: not far.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    low, high = asked_again(series.low_c, series.high_c)
    return (series.temperature_c < low) | (series.temperature_c > high)


def fahrenheit(series: Series) -> Marks:
    """Far off as °C, and within the band if it was typed in °F.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    turned = celsius_from_fahrenheit(series.temperature_c)
    return far(series) & (turned >= series.low_c - 1.0) & (turned <= series.high_c + 1.0)


def air(series: Series) -> Marks:
    """Far off, and within a third of that distance of the air's temperature: the probe was not in the ground.

    Parameters
    ----------
    series : Series
        The place's readings in order of time.
    """
    off = np.minimum(np.abs(series.temperature_c - series.low_c), np.abs(series.temperature_c - series.high_c))
    return far(series) & (np.abs(series.temperature_c - series.air_c) < AIR_SHARE * off)


def spike(series: Series) -> Marks:
    """Away from both neighbours within three hours by more than 4 K to the same side: soil has no such moments.

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
    """Twelve values or more over a day or longer that do not move while the ground was expected to: a probe that hangs.

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
    """Where a day's median leaps by more than 4 K against the day before, and the ground was not expected to: a moved probe.

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
    """By more than 2 cm at another depth than those at which this place is read: the two cannot be compared by eye.

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
    """A day's mean from one reading of it: the reading, moved by what the place's own day is expected to differ from that hour.

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
    """Why a value is kept but counts for nothing."""

    NONE = 0
    DISCONNECTED = 1
    POWER_ON = 2
    OUTSIDE = 3


def faults(temperature_c: ArrayLike) -> NDArray[np.int16]:
    """The fault of each value; any shape, [°C]. Not a number counts as outside. 85 °C itself is outside any garden's soil.

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
    """How long a logger may say nothing before it is missed: three of its intervals, two hours at least.

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
    """By how much a reading would narrow the standard deviation of what is known of that hour and depth [K].

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
    """What that is worth in days of a window's edge: degrees over the season's pace, which is taken as 0.1 K/d at least.

    Parameters
    ----------
    narrowed_k : float
        Standard deviation taken away [K].
    warming_k_d : float
        The season's pace [K/d].
    """
    return narrowed_k / max(abs(warming_k_d), SLOWEST_K_D)
