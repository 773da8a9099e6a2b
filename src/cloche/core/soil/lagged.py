"""The lagged-response model: soil follows air and sun with delay, an offset and gains fitted to the place's own readings.

    T(t, z) = offset + gain * slow(air) + quick * (fast(air) - slow(air)) + sun * fast(sun) + swing * shape(hour, z) * sun
              + drift(t)

`slow` and `fast` are exponential means of the daily air over days and over hours to days. The sun comes from the daily
range [HargreavesSamani1982] and its shape at depth from conduction (`diurnal`). The drift is what the model does not
know, watering, mulch, a canopy: an Ornstein-Uhlenbeck process that follows the readings and is forgotten in days, so that
the band widens with lead time. Everything but the two time constants is linear and Gaussian and is solved exactly;
the time constant of `fast` and the damping depth are averaged over a small grid by their evidence.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cho_factor, cho_solve
from scipy.signal import lfilter

from cloche.core.errors import NotEnoughData
from cloche.core.soil.diurnal import day_shapes
from cloche.core.soil.ground import Readings, Site
from cloche.core.weather.scenarios import DailyAir
from cloche.core.weather.sun import day_length_h, shortwave_from_range_w_m2

SLOW_D = 5.0
FAST_D = (0.25, 0.5, 1.0, 2.0)
FAST_MEDIAN_D, FAST_LOG_SD = 0.6, 0.7
DAMPING_DEPTH_M = (0.07, 0.10, 0.13)
SYNOPTIC_D = 5.0
"""Period of passing weather [d]; sets how much later it arrives deeper down."""
DRIFT_SD_K, DRIFT_D = 1.5, 6.0
READING_SD_K = 0.7
"""Scatter of a settled reading about the bed's own course: probe, spot, depth and the day's cloud (assumption)."""
STUDENT_DF = 4.0
LONGEST_MEMORY_D = 45
MOST_READINGS = 240


@dataclass(frozen=True)
class Prior:
    """Expected coefficients and their standard deviations (assumptions): offset [K], gain, quick, sun [K per 100 W/m²],
    swing [K per 20 W/m² of sun]."""

    mean: tuple[float, float, float, float, float]
    sd: tuple[float, float, float, float, float]


PRIORS = {
    "open": Prior((-3.0, 1.0, 0.55, 2.0, 0.6), (3.0, 0.1, 0.12, 1.0, 0.4)),
    "mulched": Prior((-2.0, 1.0, 0.35, 1.2, 0.25), (3.0, 0.1, 0.15, 1.0, 0.25)),
    "fleece": Prior((-2.0, 1.0, 0.55, 2.3, 0.7), (3.0, 0.1, 0.15, 1.0, 0.4)),
    "covered": Prior((-2.0, 0.95, 0.5, 3.5, 0.9), (4.0, 0.15, 0.2, 1.5, 0.5)),
    "heated": Prior((12.0, 0.4, 0.2, 1.0, 0.2), (8.0, 0.3, 0.2, 1.0, 0.3)),
}


@dataclass(frozen=True)
class _Branch:
    """The exact posterior for one pair of time constants."""

    fast_d: float
    damping_depth_m: float
    weight: float
    mean: NDArray[np.float64]
    covariance: NDArray[np.float64]
    residual_k: NDArray[np.float64]
    scatter_k2: NDArray[np.float64]


class LaggedResponse:
    """The SoilModel of this module."""

    def learn(self, kind: str, site: Site, air: DailyAir, readings: Readings) -> LaggedGround:
        """Fit to at most the latest 45 days of readings; without any the prior of the kind speaks, with wide bands."""
        if air.low_c.ndim != 2 or not len(air.low_c):
            raise NotEnoughData("The soil model needs daily air for the days of the readings.")
        prior = PRIORS[kind]
        kept = _recent(readings)
        used = Readings(readings.hour[kept], readings.depth_m[kept], readings.temperature_c[kept])
        branches = [_branch(prior, site, air, used, fast_d, damping) for fast_d in FAST_D for damping in DAMPING_DEPTH_M]
        return LaggedGround(site, used, _normalised(branches), _surprise(branches, site, air, readings))


@dataclass(frozen=True)
class LaggedGround:
    """A place learned by LaggedResponse."""

    site: Site
    readings: Readings
    branches: list[_Branch]
    surprises: NDArray[np.float64]

    def surprise_k(self) -> NDArray[np.float64]:
        """Reading less the fitted course, without the drift that follows the readings [K], for every reading given."""
        return self.surprises

    def run(self, air: DailyAir, depth_m: float, rng: np.random.Generator) -> NDArray[np.float64]:
        """Hourly soil at depth [°C], (days * 24, members): one draw of coefficients and of drift per member."""
        members = air.low_c.shape[1]
        weights = np.array([b.weight for b in self.branches])
        chosen = rng.choice(len(self.branches), size=members, p=weights)
        result = np.empty((len(air.low_c) * 24, members))
        for index in np.unique(chosen):
            mine = np.flatnonzero(chosen == index)
            branch = self.branches[index]
            part = replace(air, low_c=air.low_c[:, mine], high_c=air.high_c[:, mine])
            features = _features(self.site, part, depth_m, branch.fast_d, branch.damping_depth_m)
            drawn = rng.multivariate_normal(branch.mean, branch.covariance, size=len(mine), method="cholesky")
            result[:, mine] = np.einsum("thm,mh->tm", features, drawn)
            result[:, mine] += _drift(self.readings.hour, branch, len(air.low_c), len(mine), rng)
        return result


def _recent(readings: Readings) -> NDArray[np.intp]:
    """Indices of the latest readings, at most 45 days and 240 of them, in order of time."""
    order = np.argsort(readings.hour, kind="stable")
    if len(order):
        newest = readings.hour[order[-1]]
        order = order[readings.hour[order] > newest - LONGEST_MEMORY_D * 24]
    if len(order) > MOST_READINGS:
        order = order[np.linspace(0, len(order) - 1, MOST_READINGS).astype(np.intp)]
    return order


def _exponential_mean(hourly: NDArray[np.float64], constant_d: float) -> NDArray[np.float64]:
    weight = 1 - np.exp(-1 / (24 * constant_d))
    start = hourly[: max(24, int(24 * min(2 * constant_d, 5)))].mean(axis=0)
    smooth, _ = lfilter([weight], [1, weight - 1], hourly, axis=0, zi=(1 - weight) * start[None, :])
    return np.asarray(smooth)


def _hourly(daily: NDArray[np.float64]) -> NDArray[np.float64]:
    """(days, members) at midday to (days * 24, members), straight between middays."""
    days = len(daily)
    position = np.clip((np.arange(days * 24) + 0.5) / 24 - 0.5, 0, days - 1)
    below = np.minimum(position.astype(np.intp), max(days - 2, 0))
    part = (position - below)[:, None]
    return daily[below] * (1 - part) + daily[np.minimum(below + 1, days - 1)] * part


def _features(site: Site, air: DailyAir, depth_m: float, fast_d: float, damping_m: float) -> NDArray[np.float64]:
    """(hours, 5, members): one, slow air, quick air, sun / 100 W/m², swing."""
    doy = air.day_of_year
    mean = _hourly(air.mean_c)
    sun = shortwave_from_range_w_m2(air.range_k, doy[:, None], site.latitude_deg)
    fast_d = fast_d + depth_m * np.sqrt(SYNOPTIC_D) / (2 * np.pi * damping_m)
    slow = _exponential_mean(mean, SLOW_D)
    fast = _exponential_mean(mean, fast_d)
    hourly_sun = _hourly(sun)
    shape = day_shapes(day_length_h(doy, site.latitude_deg), depth_m, damping_m).reshape(-1)
    shift = np.arange(len(shape)) - (site.solar_noon_h - 12.0)
    shape = np.interp(shift, np.arange(len(shape)), shape)
    swing = shape[:, None] * hourly_sun / 20.0
    return np.stack([np.ones_like(mean), slow, fast - slow, _exponential_mean(hourly_sun, fast_d) / 100, swing], axis=1)


def _at_readings(site: Site, air: DailyAir, readings: Readings, fast_d: float, damping_m: float) -> NDArray[np.float64]:
    """Features of the members' mean air at each reading: (readings, 5)."""
    mean_air = replace(air, low_c=air.low_c.mean(axis=1, keepdims=True), high_c=air.high_c.mean(axis=1, keepdims=True))
    result = np.empty((len(readings), 5))
    for depth_m in np.unique(np.round(readings.depth_m, 3)):
        features = _features(site, mean_air, float(depth_m), fast_d, damping_m)[:, :, 0]
        here = np.isclose(readings.depth_m, depth_m, atol=6e-4)
        centre = np.arange(len(features)) + 0.5
        result[here] = np.stack([np.interp(readings.hour[here], centre, column) for column in features.T], axis=1)
    return result


def _drift_covariance(a_hour: NDArray[np.float64], b_hour: NDArray[np.float64]) -> NDArray[np.float64]:
    return DRIFT_SD_K**2 * np.exp(-np.abs(a_hour[:, None] - b_hour[None, :]) / (24 * DRIFT_D))


def _branch(prior: Prior, site: Site, air: DailyAir, readings: Readings, fast_d: float, damping_m: float) -> _Branch:
    """Generalised least squares with the prior, reweighted against single wild readings (Student t)."""
    mean, precision = np.array(prior.mean), np.diag(1 / np.square(prior.sd))
    log_prior = -0.5 * (np.log(fast_d / FAST_MEDIAN_D) / FAST_LOG_SD) ** 2
    if not len(readings):
        covariance = np.diag(np.square(prior.sd))
        return _Branch(fast_d, damping_m, log_prior, mean, covariance, np.empty(0), np.empty(0))
    x = _at_readings(site, air, readings, fast_d, damping_m)
    drift = _drift_covariance(readings.hour, readings.hour)
    scatter: NDArray[np.float64] = np.full(len(readings), READING_SD_K**2)
    for _ in range(4):
        factor = cho_factor(drift + np.diag(scatter))
        normal = x.T @ cho_solve(factor, x) + precision
        beta = np.linalg.solve(normal, x.T @ cho_solve(factor, readings.temperature_c) + precision @ mean)
        residual = readings.temperature_c - x @ beta
        own = residual - drift @ cho_solve(factor, residual)
        scatter = READING_SD_K**2 * (STUDENT_DF + own**2 / READING_SD_K**2) / (STUDENT_DF + 1)
        scatter = np.maximum(scatter, READING_SD_K**2 * 0.8)
    evidence = -0.5 * (residual @ cho_solve(factor, residual) + (beta - mean) @ precision @ (beta - mean))
    evidence -= np.log(np.diag(factor[0])).sum() + 0.5 * np.linalg.slogdet(normal)[1]
    return _Branch(fast_d, damping_m, log_prior + evidence, beta, _inverse(normal), residual, scatter)


def _normalised(branches: list[_Branch]) -> list[_Branch]:
    log_weight = np.array([b.weight for b in branches])
    weight = np.exp(log_weight - log_weight.max())
    return [replace(b, weight=float(w)) for b, w in zip(branches, weight / weight.sum(), strict=True)]


def _surprise(branches: list[_Branch], site: Site, air: DailyAir, readings: Readings) -> NDArray[np.float64]:
    best = max(branches, key=lambda b: b.weight)
    if not len(readings):
        return np.empty(0)
    x = _at_readings(site, air, readings, best.fast_d, best.damping_depth_m)
    return readings.temperature_c - x @ best.mean


def _drift(
    reading_hour: NDArray[np.float64],
    branch: _Branch,
    days: int,
    members: int,
    rng: np.random.Generator,
) -> NDArray[np.float64]:
    """Draws of the drift given the readings: (days * 24, members). Solved at middays near the readings, run on beyond."""
    midday = np.arange(days, dtype=np.float64) * 24 + 12.0
    path = _free_drift(days, members, rng)
    if len(reading_hour):
        cross = _drift_covariance(midday, reading_hour)
        noise = rng.standard_normal((len(reading_hour), members)) * np.sqrt(branch.scatter_k2)[:, None]
        at_readings = np.stack([np.interp(reading_hour, midday, column) for column in path.T], axis=1)
        factor = cho_factor(_drift_covariance(reading_hour, reading_hour) + np.diag(branch.scatter_k2))
        # Matheron's rule: a free draw, corrected by what it misses of the readings.
        path = path + cross @ cho_solve(factor, branch.residual_k[:, None] - at_readings - noise)
    return _hourly(path)


def _free_drift(days: int, members: int, rng: np.random.Generator) -> NDArray[np.float64]:
    keep = np.exp(-1 / DRIFT_D)
    steps = rng.standard_normal((days, members)) * DRIFT_SD_K
    steps[1:] *= np.sqrt(1 - keep**2)
    return np.asarray(lfilter([1.0], [1.0, -keep], steps, axis=0))


def _inverse(precision: NDArray[np.float64]) -> NDArray[np.float64]:
    return np.asarray(np.linalg.inv(precision), dtype=np.float64)
