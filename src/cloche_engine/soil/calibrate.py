"""What readings teach of a place: parameters, their doubt, the noise."""

from __future__ import annotations

from dataclasses import astuple, dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cholesky, solve_triangular
from scipy.optimize import least_squares
from scipy.stats import qmc

from cloche_engine.soil import unlogged_wetness
from cloche_engine.soil.drift import Drift, ReadingKernel, Wandering, covariance
from cloche_engine.soil.learned import COVER_FACTORS, Learned, bounds_of, names_for, parameters_of
from cloche_engine.soil.place import Place
from cloche_engine.soil.readings import NOTHING, AuxiliaryObservations, Readings, What
from cloche_engine.soil.simulate import Trajectory, simulate
from cloche_engine.weather.record import HourlyWeather

Array = NDArray[np.float64]

BASES = tuple(
    Wandering(level, days, stays, gain=gain, scatter_k=scatter)
    for level in (0.3, 0.8, 2.0)
    for days in (3.0, 8.0)
    for stays in (0.3, 1.0, 2.5)
    for gain in (0.03, 0.10)
    for scatter in (0.3, 0.6)
)
UNLOGGED_SD = (0.03, 0.1, 0.3, 0.6)
"""What evidence weighs, each with each (assumption)."""

LOGARITHMS = np.log([(*astuple(base)[:-1], sd) for base in BASES for sd in UNLOGGED_SD])


def weighed(evidence: Array) -> Wandering:
    """Average the drift settings of the grid, weighted by their evidence.

    The geometric mean changes less from one reading to the next than the best setting does.

    Parameters
    ----------
    evidence : ndarray
        Logarithm of the evidence of each, (`BASES`, `UNLOGGED_SD`).
    """
    weight = np.exp(evidence - evidence.max()).ravel()
    return Wandering(*np.exp(weight @ LOGARITHMS / weight.sum()).tolist())


def log_evidence(covariance_k2: Array, residual_k: Array) -> float:
    """Return the log density of residuals under a covariance, up to a constant.

    Parameters
    ----------
    covariance_k2 : ndarray
        Covariance of the residuals, (readings, readings) [K²].
    residual_k : ndarray
        Readings less the run, (readings,) [K].
    """
    if not len(residual_k):
        return 0.0
    root = cholesky(covariance_k2, lower=True)
    white = solve_triangular(root, residual_k, lower=True)
    return float(-0.5 * white @ white - np.log(np.diag(root)).sum())


def over_grid(alike: ReadingKernel, swing_k: Array, scatter: Array, residual_k: Array, slope: Array, unlogged: Array) -> Array:
    """Return the log evidence of every drift setting, up to a constant, with the parameters integrated out.

    The numbers add slope @ slope.T and SD² unlogged @ unlogged.T to the covariance of the drift: of low rank, so that the
    readings' own matrix is taken apart once for all SDs (matrix inversion and determinant lemmas).

    Parameters
    ----------
    alike : ReadingKernel
        The readings' hours.
    swing_k : ndarray
        Course less its daily mean at each reading, (readings,) [K].
    scatter : ndarray
        Factor of each reading's variance, (readings,).
    residual_k : ndarray
        Readings less the run with all numbers at their prior's mean, (readings,) [K].
    slope : ndarray
        Derivative of the course by each number whose prior is a standard normal, (readings, numbers) [K].
    unlogged : ndarray
        Derivative by each knot of the unlogged wetness at an SD of 1, (readings, knots) [K].

    Returns
    -------
    ndarray
        (`BASES`, `UNLOGGED_SD`).
    """
    if not len(residual_k):
        return np.zeros((len(BASES), len(UNLOGGED_SD)))
    columns = np.column_stack([slope, unlogged, residual_k])
    products, logs = [], []
    for base in BASES:
        root = cholesky(covariance(base, alike, swing_k, scatter), lower=True, overwrite_a=True, check_finite=False)
        white = solve_triangular(root, columns, lower=True, check_finite=False)
        products.append(white.T @ white)
        logs.append(np.log(np.diag(root)).sum())
    between = np.array(products)[:, None]
    sd = np.column_stack([np.ones((len(UNLOGGED_SD), slope.shape[1])), np.outer(UNLOGGED_SD, np.ones(unlogged.shape[1]))])
    cross = sd * between[..., -1, :-1]
    inner = np.eye(sd.shape[1]) + sd[:, :, None] * between[..., :-1, :-1] * sd[:, None, :]
    explained = (cross * np.linalg.solve(inner, cross[..., None])[..., 0]).sum(axis=-1)
    spread = np.linalg.slogdet(inner).logabsdet
    return np.asarray((explained - between[..., -1, -1] - spread) / 2 - np.array(logs)[:, None])


def shown(beside: AuxiliaryObservations, covered: Trajectory, bare: Trajectory | None, around_c: Array) -> Array:
    """Return the simulated value of each observation under a cover, (rows, members).

    Parameters
    ----------
    beside : AuxiliaryObservations
        What was seen under the covers besides the soil: rows of kind, hour and value.
    covered : Trajectory
        Run of the covered ground.
    bare : Trajectory | None
        Run of the same ground without its covers, where gains are among the rows.
    around_c : ndarray
        Air of the room or garden about it, (hours, members) [°C].

    Returns
    -------
    ndarray
        (rows, members).
    """
    inside = covered.air_c.astype(np.float64)
    around = np.broadcast_to(around_c, inside.shape)
    seen = np.empty((len(beside), inside.shape[1]))
    for row in range(len(beside)):
        what, hour = What(beside.what[row]), float(beside.hour[row])
        since, until = int(beside.since_h[row]), max(int(np.ceil(hour)), int(beside.since_h[row]) + 1)
        air = around if what in (What.ROOM, What.ROOM_LOW, What.ROOM_HIGH) else inside
        if what in (What.AIR, What.ROOM):
            seen[row] = _at(air, hour)
        elif what in (What.LOWEST, What.ROOM_LOW):
            seen[row] = air[since:until].min(axis=0)
        elif what in (What.HIGHEST, What.ROOM_HIGH):
            seen[row] = air[since:until].max(axis=0)
        elif bare is not None:
            depth = float(beside.depth_m[row])
            seen[row] = _at(covered.at(depth).astype(np.float64), hour) - _at(bare.at(depth).astype(np.float64), hour)
    return seen


def _at(values: Array, hour: float) -> Array:
    """Interpolate hourly means (hours, members) to a moment."""
    spot = min(max(hour - 0.5, 0.0), len(values) - 1.0)
    below = min(int(spot), max(len(values) - 2, 0))
    part = spot - below
    return np.asarray(values[below] * (1 - part) + values[min(below + 1, len(values) - 1)] * part)


NO_DEPTH_M = 0.05
STEP = 0.15
SCAN = 5
STUDENT_DF = 4.0
MOST_CALLS = (3, 2, 4)
LONGEST_MEMORY_D, MOST_READINGS, RUN_UP_D = 30, 120, 12


def learn(place: Place, weather: HourlyWeather, readings: Readings, beside: AuxiliaryObservations = NOTHING) -> Learned:
    """Estimate the parameters and the drift of a place from its readings.

    Parameters
    ----------
    place : Place
        The place as it is described.
    weather : HourlyWeather
        One member, its first midnight is hour 0, covering every reading that is to count.
    readings : Readings
        The place's readings: hour, depth, temperature.
    beside : AuxiliaryObservations
        What was seen under its covers besides.
    """
    names = names_for(place)
    recent = _recent(readings, len(weather))
    used = Readings(readings.hour[recent], readings.depth_m[recent], readings.temperature_c[recent])
    last_h = float(readings.hour.max()) if len(readings) else float(len(weather))
    seen = beside.within(max(last_h - LONGEST_MEMORY_D * 24, 0.0), len(weather)) if len(beside) else beside
    if not len(used) and not len(seen):
        nothing = np.empty(0)
        count = len(names)
        return Learned(names, np.zeros(count), np.eye(count), Drift(Wandering(), *[nothing] * 4), np.empty((0, count)), recent)
    problem = _Problem(place, weather, used, seen, names)
    z = problem.start()
    scatter, wandering = np.ones(len(used)), Wandering()
    for calls in MOST_CALLS[:-1]:
        z = problem.fit(z, wandering, scatter, calls)
        z, wandering = problem.choose(z, wandering, scatter)
        scatter = problem.reweigh(z, wandering, scatter)
    z = problem.fit(z, wandering, scatter, MOST_CALLS[-1])
    return problem.learned(z, wandering, scatter, recent)


def _recent(readings: Readings, hours: int) -> NDArray[np.intp]:
    """Return the indices of the latest readings within the weather, in order of time.

    At most 120 readings from at most 30 days are used.
    """
    order = np.argsort(readings.hour, kind="stable")
    order = order[(readings.hour[order] >= 0) & (readings.hour[order] <= hours)]
    if len(order):
        order = order[readings.hour[order] > readings.hour[order[-1]] - LONGEST_MEMORY_D * 24]
    if len(order) > MOST_READINGS:
        order = order[np.linspace(0, len(order) - 1, MOST_READINGS).astype(np.intp)]
    return order


@dataclass(frozen=True)
class _Seen:
    """Simulated values at the readings and their derivatives.

    The course, its derivative and its daily mean have the shapes (readings,), (readings, names) and (readings,); the
    observations under the cover and their derivative (rows,) and (rows, names).
    """

    trajectory_c: Array
    slope: Array
    mean_c: Array
    under: Array
    under_slope: Array

    @property
    def swing_k(self) -> Array:
        """Return the course minus its daily mean."""
        return self.trajectory_c - self.mean_c


class _Problem:
    def __init__(
        self, place: Place, weather: HourlyWeather, readings: Readings, beside: AuxiliaryObservations, names: tuple[str, ...]
    ) -> None:
        begins, ends = np.concatenate([readings.hour, beside.since_h]).min(), np.concatenate([readings.hour, beside.hour]).max()
        first = max(int(begins // 24) - RUN_UP_D, 0)
        last = min(int(ends // 24) + 2, len(weather) // 24)
        # What is put on after the last reading has told it nothing.
        stood = tuple(cover for cover in place.covers if cover.start_h <= ends)
        self.place, self.names, self.first_h = replace(place, covers=stood).shifted(first * 24), names, first * 24
        self.readings, self.beside = replace(readings, hour=readings.hour - self.first_h), beside.shifted(self.first_h)
        self.trusts = cholesky(beside.covariance(), lower=True) if len(beside) else np.empty((0, 0))
        self.weather, self.alike = weather.cut(first, last), ReadingKernel(self.readings.hour)
        gains = beside.depth_m[beside.what == What.GAIN]
        # To the last digit: what is asked for later is looked up by the depth as it was given, inches among them.
        self.depths = tuple(sorted({float(d) for d in (*readings.depth_m, *gains)})) or (NO_DEPTH_M,)
        self.which = np.array([self.depths.index(float(d)) for d in readings.depth_m], dtype=np.intp)
        self.memory: dict[tuple[bytes, float], _Seen] = {}

    def _run(self, z: Array, unlogged_sd: float) -> tuple[Array, Array, Array]:
        """Simulate the place for several sets of parameters, (numbers, members).

        Returns the courses at the readings and their daily means, (readings, members), and the observations under the cover,
        (rows, members).
        """
        own = len(self.names)
        parameters, start = parameters_of(self.names, z[:own])
        added = unlogged_wetness.hourly(unlogged_wetness.path(z[own:], unlogged_sd), 0.0, len(self.weather))
        case = self.place.case(self.weather, parameters, start, added)
        paired = [case, case.bare()] if (self.beside.what == What.GAIN).any() else [case]
        run, *bare = simulate(paired, self.depths)
        trajectory = run.soil_c.astype(np.float64)
        around = self.weather.air_c + (parameters.room_k if self.place.bed.indoors else 0.0)
        under = shown(self.beside, run, bare[0] if bare else None, around)
        daily = trajectory.reshape(len(trajectory) // 24, 24, *trajectory.shape[1:]).mean(axis=1)
        hour = self.readings.hour
        return _between(trajectory, hour, self.which, 0.5), _between(daily, hour / 24, self.which, 0.5), under

    def seen(self, z: Array, unlogged_sd: float) -> _Seen:
        """Simulate the course and its derivatives for the parameters z in one run."""
        key = z.tobytes(), unlogged_sd
        if key not in self.memory:
            inward = np.where(z > 0, -STEP, STEP)
            trajectories, means, under = self._run(np.column_stack([z, z[:, None] + np.diag(inward)]), unlogged_sd)
            slope, under_slope = ((part[:, 1:] - part[:, :1]) / inward for part in (trajectories, under))
            self.memory[key] = _Seen(trajectories[:, 0], slope, means[:, 0], under[:, 0], under_slope)
        return self.memory[key]

    def start(self) -> Array:
        """Return the best of the description and a sample of the prior, simulated in one run."""
        spread = qmc.Sobol(len(self.names), scramble=False).random(2**SCAN)[1:] * 3.0 - 1.5
        z = np.zeros((len(self.names) + unlogged_wetness.knots_over(len(self.weather)), len(spread) + 1))
        z[: len(self.names), 1:] = spread.T
        if not self.place.covers:
            # Nothing tells them here: they must not weigh on the choice.
            z[[self.names.index(name) for name in COVER_FACTORS if name in self.names]] = 0.0
        trajectories, means, under = self._run(z, Wandering().unlogged_sd)
        costs = []
        for trajectory, mean, air, draw in zip(trajectories.T, means.T, under.T, z.T, strict=True):
            total = covariance(Wandering(), self.alike, trajectory - mean, np.ones(len(trajectory)))
            missed = self._missed_under(air)
            costs.append((draw @ draw + missed @ missed) / 2 - log_evidence(total, self.readings.temperature_c - trajectory))
        return np.asarray(z[:, int(np.argmin(costs))])

    def _root(self, seen: _Seen, wandering: Wandering, scatter: Array) -> Array:
        """Return a root of the covariance of the readings about the course."""
        total = covariance(wandering, self.alike, seen.swing_k, scatter)
        return np.asarray(cholesky(total, lower=True)) if len(total) else total

    def fit(self, z: Array, wandering: Wandering, scatter: Array, calls: int) -> Array:
        """Fit the parameters by bounded least squares, starting from z."""
        root = self._root(self.seen(z, wandering.unlogged_sd), wandering, scatter)

        def residuals(x: Array) -> Array:
            seen = self.seen(x, wandering.unlogged_sd)
            away = self.readings.temperature_c - seen.trajectory_c
            return np.concatenate([_whitened(root, away), self._missed_under(seen.under), x])

        def jacobian(x: Array) -> Array:
            seen = self.seen(x, wandering.unlogged_sd)
            return np.vstack([-_whitened(root, seen.slope), -_whitened(self.trusts, seen.under_slope), np.eye(len(x))])

        most = bounds_of(self.names, len(z))
        inside = np.clip(z, -most + 0.01, most - 0.01)
        solution = least_squares(residuals, inside, jac=jacobian, bounds=(-most, most), max_nfev=calls, xtol=0.01, ftol=1e-3)
        return np.asarray(solution.x)

    def _missed_under(self, under: Array) -> Array:
        """Return the whitened residuals of the observations under the cover."""
        return _whitened(self.trusts, self.beside.value - under)

    def choose(self, z: Array, wandering: Wandering, scatter: Array) -> tuple[Array, Wandering]:
        """Choose the drift by its evidence around z, with the parameters integrated out.

        Also returns z with the knots of the unlogged wetness appended.
        """
        seen, own = self.seen(z, wandering.unlogged_sd), len(self.names)
        # As if the residuals were linear in the numbers: their value at the prior's mean.
        away = self.readings.temperature_c - seen.trajectory_c + seen.slope @ z
        numbers, knots = seen.slope[:, :own], seen.slope[:, own:] / wandering.unlogged_sd
        chosen = weighed(over_grid(self.alike, seen.swing_k, scatter, away, numbers, knots))
        return np.concatenate([z[:own], z[own:] * (wandering.unlogged_sd / chosen.unlogged_sd)]), chosen

    def reweigh(self, z: Array, wandering: Wandering, scatter: Array) -> Array:
        """Return the factor of each reading's variance, larger where it lies far from its neighbours and from the course.

        The observations under the cover are reweighted at the same time.
        """
        drift = self._drift(z, wandering, scatter)
        own = (drift.residual_k - drift.expected_k()) / wandering.scatter_k
        if len(self.beside):
            away = (self.beside.value - self.seen(z, wandering.unlogged_sd).under) / self.beside.scatter_k
            self.trusts = cholesky(self.beside.covariance(_wilder(away)), lower=True)
        return _wilder(own)

    def _drift(self, z: Array, wandering: Wandering, scatter: Array) -> Drift:
        seen = self.seen(z, wandering.unlogged_sd)
        residual = self.readings.temperature_c - seen.trajectory_c
        return Drift(wandering, self.readings.hour + self.first_h, residual, seen.swing_k, scatter)

    def learned(self, z: Array, wandering: Wandering, scatter: Array, used: NDArray[np.intp]) -> Learned:
        """Return the posterior around z."""
        seen = self.seen(z, wandering.unlogged_sd)
        root = self._root(seen, wandering, scatter)
        soil, under = _whitened(root, seen.slope), _whitened(self.trusts, seen.under_slope)
        precision = soil.T @ soil + under.T @ under + np.eye(len(z))
        spread: Array = np.asarray(np.linalg.inv(cholesky(precision, lower=True)).T, dtype=np.float64)
        covers = tuple(cover.kind.key for cover in self.place.covers)
        return Learned(self.names, z, spread, self._drift(z, wandering, scatter), seen.slope, used, self.first_h, covers)


def _wilder(away: Array) -> Array:
    """Return the factor of the variance at a distance in standard deviations (Student t)."""
    return np.maximum((STUDENT_DF + away**2) / (STUDENT_DF + 1), 0.8)


def _whitened(root: Array, values: Array) -> Array:
    """Transform values with the covariance root @ root.T to independent values."""
    return np.asarray(solve_triangular(root, values, lower=True)) if len(values) else values


def _between(values: Array, position: Array, which: NDArray[np.intp], centre: float) -> Array:
    """Interpolate (times, depths, members) to fractional times, (positions, members).

    Cell centres lie at `centre`.
    """
    spot = np.clip(position - centre, 0, len(values) - 1)
    below = np.minimum(spot.astype(np.intp), max(len(values) - 2, 0))
    part = (spot - below)[:, None]
    return np.asarray(values[below, which] * (1 - part) + values[np.minimum(below + 1, len(values) - 1), which] * part)
