"""Drift of the forecast from the readings, and reproducible random draws."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cho_factor, cho_solve
from scipy.signal import lfilter

Array = NDArray[np.float64]


def balanced(rng: np.random.Generator, *shape: int) -> Array:
    """Draw standard normals with members along the last axis.

    With more than one member their mean is exactly zero.

    Parameters
    ----------
    rng : Generator
        Stream of random numbers.
    """
    drawn = rng.standard_normal(shape)
    members = shape[-1]
    if members < 2:
        return drawn
    return (drawn - drawn.mean(axis=-1, keepdims=True)) * np.sqrt(members / (members - 1))


@dataclass(frozen=True)
class Wandering:
    """Size and duration of the drift of a place from its simulated course.

    Attributes
    ----------
    level_k, level_d : float
        Standard deviation of the short-lived offset [K] and its e-folding time [days].
    stays_k, stays_d : float
        The same of the lasting offset.
    gain, gain_d : float
        Standard deviation of the relative change of the daily swing and its e-folding time [days].
    scatter_k : float
        Standard deviation of a single reading [K]: probe, position, depth, passing clouds.
    unlogged_sd : float
        Standard deviation of the wetness from water that nobody logged.
    """

    level_k: float = 1.0
    level_d: float = 6.0
    stays_k: float = 1.5
    stays_d: float = 60.0
    gain: float = 0.10
    gain_d: float = 10.0
    scatter_k: float = 0.6
    unlogged_sd: float = 0.1


def kernel(hour_a: Array, hour_b: Array, days: float) -> Array:
    """Return the correlation of an Ornstein-Uhlenbeck process between two sets of hours, (a, b).

    Parameters
    ----------
    hour_a : ndarray
        Hours, (a,).
    hour_b : ndarray
        Hours, (b,).
    days : float
        Days over which the process is forgotten.

    Returns
    -------
    ndarray
        (a, b).
    """
    return np.asarray(np.exp(-np.abs(hour_a[:, None] - hour_b[None, :]) / (24 * days)))


class ReadingKernel:
    """Correlations between the hours of the readings, computed once for each e-folding time."""

    def __init__(self, hour: Array) -> None:
        self.hour = hour
        self._known: dict[float, Array] = {}

    def over(self, days: float) -> Array:
        """Return the correlation between all readings for an e-folding time, (readings, readings).

        Parameters
        ----------
        days : float
            Days over which the process is forgotten.
        """
        if days not in self._known:
            self._known[days] = kernel(self.hour, self.hour, days)
        return self._known[days]


def covariance(wandering: Wandering, alike: ReadingKernel, swing_k: Array, scatter: Array) -> Array:
    """Return the covariance of the readings about the course, (readings, readings) [K²].

    Parameters
    ----------
    wandering : Wandering
        Sizes and lengths of the drift.
    alike : ReadingKernel
        The readings' hours.
    swing_k : ndarray
        Course less its daily mean at each reading.
    scatter : ndarray
        Factor of each reading's variance.

    Returns
    -------
    ndarray
        (readings, readings) [K²].
    """
    w, swing = wandering, wandering.gain * swing_k
    total = np.asarray(w.level_k**2 * alike.over(w.level_d) + w.stays_k**2 * alike.over(w.stays_d))
    total += alike.over(w.gain_d) * np.outer(swing, swing)
    np.einsum("ii->i", total)[:] += w.scatter_k**2 * scatter
    return total


def _level(wandering: Wandering, hour_a: Array, hour_b: Array) -> Array:
    passing = wandering.level_k**2 * kernel(hour_a, hour_b, wandering.level_d)
    return np.asarray(passing + wandering.stays_k**2 * kernel(hour_a, hour_b, wandering.stays_d))


@dataclass(frozen=True)
class Drift:
    """Drift of a place as estimated from its readings.

    Attributes
    ----------
    wandering : Wandering
        Size and duration of the drift.
    hour, residual_k, swing_k, scatter : ndarray
        Hours of the readings, readings minus the fitted course [K], the course minus its daily mean [K], and the factor of
        each reading's variance, (readings,).
    """

    wandering: Wandering
    hour: Array
    residual_k: Array
    swing_k: Array
    scatter: Array

    def expected_k(self, keep: Array | None = None) -> Array:
        """Return the expected offset at each reading, given all readings or those in `keep`, (readings,) [K].

        Parameters
        ----------
        keep : ndarray | None
            (readings,), which of the readings count; None: all.
        """
        mine = np.ones(len(self.hour), dtype=bool) if keep is None else keep
        if not mine.any():
            return np.zeros(len(self.hour))
        total = covariance(self.wandering, ReadingKernel(self.hour), self.swing_k, self.scatter)
        signal = total - np.diag(self.wandering.scatter_k**2 * self.scatter)
        return np.asarray(signal[:, mine] @ np.linalg.solve(total[np.ix_(mine, mine)], self.residual_k[mine]))

    def draw(self, days: int, members: int, rng: np.random.Generator) -> tuple[Array, Array]:
        """Draw the offset [K] and the change of swing at the midday of each day, given the readings, (days, members).

        Parameters
        ----------
        days : int
            Number of days.
        members : int
            Number of members.
        rng : Generator
            Stream of random numbers.
        """
        # A stream each, so that a longer course begins as a shorter one does.
        w, (passing, staying, swing, scatter) = self.wandering, rng.spawn(4)
        level = _free(days, members, w.level_d, passing) * w.level_k + _free(days, members, w.stays_d, staying) * w.stays_k
        gain = _free(days, members, w.gain_d, swing) * w.gain
        if not len(self.hour):
            return level, gain
        midday = np.arange(days, dtype=np.float64) * 24 + 12.0
        noise = balanced(scatter, len(self.hour), members) * (w.scatter_k * np.sqrt(self.scatter))[:, None]
        seen = _at(self.hour, midday, level) + _at(self.hour, midday, gain) * self.swing_k[:, None] + noise
        total = covariance(w, ReadingKernel(self.hour), self.swing_k, self.scatter)
        # Matheron's rule: a free draw, corrected by what it misses of the readings.
        missed = cho_solve(cho_factor(total), self.residual_k[:, None] - seen)
        level = level + _level(w, midday, self.hour) @ missed
        gain = gain + w.gain**2 * kernel(midday, self.hour, w.gain_d) @ (self.swing_k[:, None] * missed)
        return level, np.maximum(gain, -0.9)


def apply(trajectory_c: Array, shift_k: Array, factor: Array) -> Array:
    """Add a shift to a course and scale its daily swing.

    Parameters
    ----------
    trajectory_c : ndarray
        Simulated temperatures, (hours, members) [°C].
    shift_k : ndarray
        Shift of the mean, (hours, members) [K].
    factor : ndarray
        Factor of the daily swing, (hours, members).

    Returns
    -------
    ndarray
        (hours, members) [°C].
    """
    mean = hourly(trajectory_c.reshape(len(trajectory_c) // 24, 24, -1).mean(axis=1))
    return np.asarray(mean + factor * (trajectory_c - mean) + shift_k)


def hourly(daily: Array) -> Array:
    """Interpolate daily values at midday, (days, members), to hours, (days * 24, members).

    Parameters
    ----------
    daily : ndarray
        Daily values, (days, members).
    """
    days = len(daily)
    position = np.clip((np.arange(days * 24) + 0.5) / 24 - 0.5, 0, days - 1)
    below = np.minimum(position.astype(np.intp), max(days - 2, 0))
    part = (position - below)[:, None]
    return np.asarray(daily[below] * (1 - part) + daily[np.minimum(below + 1, days - 1)] * part)


def _free(days: int, members: int, length_d: float, rng: np.random.Generator) -> Array:
    keep = np.exp(-1 / length_d)
    steps = balanced(rng, days, members)
    steps[1:] *= np.sqrt(1 - keep**2)
    return np.asarray(lfilter([1.0], [1.0, -keep], steps, axis=0))


def _at(hour: Array, midday: Array, values: Array) -> Array:
    return np.stack([np.interp(hour, midday, column) for column in values.T], axis=1)
