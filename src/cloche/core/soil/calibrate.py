"""Getting to know a place: the few numbers that its description leaves open, found from readings taken in its soil.

Maximum a posteriori by bounded least squares over whitened residuals; what the course cannot follow is drift (`drift`), single
wild readings lose weight (Student t). The posterior comes from the Jacobian; each member draws its own place from it.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cholesky, solve_triangular
from scipy.optimize import least_squares
from scipy.stats import qmc

from cloche.core.covers.pooling import USUAL_SD
from cloche.core.soil import unlogged_wetness
from cloche.core.soil.bed import BELIEVABLE, FACTORS, Parameters
from cloche.core.soil.draws import balanced
from cloche.core.soil.drift import GRID, Drift, Wandering, covariance, log_evidence, weighed
from cloche.core.soil.place import Place
from cloche.core.soil.readings import NOTHING, Beside, Readings, What
from cloche.core.soil.simulate import simulate
from cloche.core.soil.under import shown
from cloche.core.weather.record import HourlyWeather

Array = NDArray[np.float64]

PRIOR_SD = {
    "sun": 0.20,
    "convection": 0.40,
    "evaporation": 1.00,
    "supply": 1.30,
    "conduction": 0.50,
    "capacity": 0.20,
    "deep_k": 2.5,
    "room_k": 3.0,
    "surface_resistance": 0.70,
    "exchange": USUAL_SD["exchange"],
    "heat": 0.30,
    "rise": 0.40,
    "fade": 0.35,
    "start_k": 2.5,
    "light": USUAL_SD["light"],
    "loss": USUAL_SD["loss"],
}
"""How far a place may differ from its description: SD of the logarithm, of those in _k in kelvin (assumptions)."""
ADDED = ("light", "loss")
"""Last in PRIOR_SD, and drawn after all else: a number that is added to what is learned leaves the other draws as they were."""
COVER_FACTORS = tuple(USUAL_SD)
BOUND = 3.0
NO_DEPTH_M = 0.05
STEP = 0.15
SCAN = 5
STUDENT_DF = 4.0
MOST_CALLS = (3, 2, 4)
LONGEST_MEMORY_D, MOST_READINGS, RUN_UP_D = 30, 120, 12
LATELY_KNOTS = 3


@dataclass(frozen=True)
class Learned:
    """A place as its readings tell it, in units of the prior's SD: its numbers by name, then the knots of the wetness nobody
    logged, the first at first_h. mean (numbers,), spread (numbers, numbers) a root of the covariance; what drifts; slope
    (readings, numbers): how the course at the readings used answers; used: their places among the readings given; covers:
    kinds that stood over them."""

    names: tuple[str, ...]
    mean: Array
    spread: Array
    drift: Drift
    slope: Array
    used: NDArray[np.intp]
    first_h: float = 0.0
    covers: tuple[str, ...] = ()

    def draws(self, members: int, rng: np.random.Generator, hours: int) -> tuple[Parameters, Array, Array]:
        """One place a member, its start_k (members,) and the wetness added (hours, members)."""
        # A stream to each number: what a cover adds to be known must not change the draws of everything else.
        *streams, wetness = rng.spawn(len(PRIOR_SD) - len(ADDED) + 1)
        streams += rng.spawn(len(ADDED))
        free = {name: balanced(stream, members) for name, stream in zip(PRIOR_SD, streams, strict=True)}
        own = len(self.names)
        drawn = [free[name] for name in self.names] + list(balanced(wetness, len(self.mean) - own, members))
        most = bounds_of(self.names, len(self.mean))[:, None]
        z = np.clip(self.mean[:, None] + self.spread @ np.array(drawn), -most, most)
        more = max(unlogged_wetness.knots_over(hours - self.first_h) - (len(z) - own), 2)
        knots = unlogged_wetness.path(np.vstack([z[own:], balanced(wetness, more, members)]), self.drift.wandering.unlogged_sd)
        # What its readings cannot have told, such as how tight a cover is that never stood there, is as far as anybody knows.
        rest = tuple(name for name in PRIOR_SD if name not in self.names)
        z = np.vstack([z[:own], *(np.clip(free[name], -BOUND, BOUND) for name in rest)])
        return *parameters_of(self.names + rest, z), unlogged_wetness.hourly(knots, self.first_h, hours)

    def elsewhere(self, parameters: Parameters, rng: np.random.Generator) -> Parameters:
        """The same place under a cover of a kind that never stood there: as far as its kind is known anywhere."""
        free = {
            name: np.exp(PRIOR_SD[name] * np.clip(balanced(rng, len(parameters.sun)), -BOUND, BOUND)) for name in COVER_FACTORS
        }
        return replace(parameters, **free)

    def since(self, hour: float) -> Learned:
        """The same on a clock that starts at an hour of this one."""
        return replace(self, drift=replace(self.drift, hour=self.drift.hour - hour), first_h=self.first_h - hour)

    def factor(self, name: str) -> tuple[float, float, float]:
        """Median, and the ends of the middle 80 %, of one of the numbers; kelvin for those in _k, else a factor."""
        index = self.names.index(name)
        sd = float(np.sqrt((self.spread[index] ** 2).sum()))
        low, mid, high = (PRIOR_SD[name] * (float(self.mean[index]) + k * sd) for k in (-1.2816, 0.0, 1.2816))
        return (low, mid, high) if name.endswith("_k") else (float(np.exp(low)), float(np.exp(mid)), float(np.exp(high)))

    def lately_wetter(self) -> tuple[float, float, float]:
        """How much wetness was added in the days before the newest reading, against those before them: middle, and the ends
        of the middle 80 %. Zeros where the readings span too little to tell."""
        own, hours = len(self.names), self.drift.hour - self.first_h
        if len(self.mean) == own or np.ptp(hours) < 2 * LATELY_KNOTS * 24 * unlogged_wetness.KNOT_D:
            return 0.0, 0.0, 0.0
        first, last = (int(end / (24 * unlogged_wetness.KNOT_D)) for end in (hours.min(), hours.max()))
        knots = unlogged_wetness.path(np.column_stack([self.mean, self.spread])[own:], self.drift.wandering.unlogged_sd)
        split = last + 1 - LATELY_KNOTS
        middle, *roots = knots[split : last + 1].mean(axis=0) - knots[first:split].mean(axis=0)
        half = 1.2816 * float(np.sqrt(np.square(roots).sum()))
        return float(middle) - half, float(middle), float(middle) + half


def names_for(place: Place) -> tuple[str, ...]:
    """What can be learned of a place."""
    names = ["sun", "convection", "evaporation", "supply", "conduction", "capacity", "deep_k", "surface_resistance", "start_k"]
    if place.bed.indoors:
        names.append("room_k")
    # Also of a bed that lies open: readings tell nothing of it, and what they tell of the rest is the same with a cover ahead.
    if not place.bed.indoors:
        names += COVER_FACTORS
    if place.bed.heating:
        names += ["heat", "rise", "fade"] if place.bed.heating.fading_d else ["heat"]
    return tuple(names)


def bounds_of(names: tuple[str, ...], count: int) -> Array:
    """How far each number may lie from its description, in units of the prior's SD, (count,): numbers by name, then knots."""
    most = np.full(count, BOUND)
    for i, name in enumerate(names):
        if name in BELIEVABLE:
            most[i] = min(BOUND, float(np.log(BELIEVABLE[name])) / PRIOR_SD[name])
    return most


def parameters_of(names: tuple[str, ...], z: Array) -> tuple[Parameters, Array]:
    """Characters and start_k from (names, members) in units of the prior."""
    members = z.shape[1]
    values = {name: np.ones(members) for name in FACTORS} | {
        name: np.zeros(members) for name in PRIOR_SD if name.endswith("_k")
    }
    for name, row in zip(names, z, strict=True):
        scaled = PRIOR_SD[name] * row
        values[name] = scaled if name.endswith("_k") else np.exp(scaled)
    start = values.pop("start_k")
    return Parameters(**values), start


def learn(place: Place, weather: HourlyWeather, readings: Readings, beside: Beside = NOTHING) -> Learned:
    """Fit a place. weather: one member, its first midnight is hour 0, covering every reading that is to count; beside: what
    was seen under its covers besides."""
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
    """Indices of the latest readings within the weather, at most 30 days and 120 of them, in order of time."""
    order = np.argsort(readings.hour, kind="stable")
    order = order[(readings.hour[order] >= 0) & (readings.hour[order] <= hours)]
    if len(order):
        order = order[readings.hour[order] > readings.hour[order[-1]] - LONGEST_MEMORY_D * 24]
    if len(order) > MOST_READINGS:
        order = order[np.linspace(0, len(order) - 1, MOST_READINGS).astype(np.intp)]
    return order


@dataclass(frozen=True)
class _Seen:
    """The course at the readings, its derivative and its daily mean: (readings,), (readings, names), (readings,); what it shows
    under its cover besides, and the derivative of that: (rows,), (rows, names)."""

    trajectory_c: Array
    slope: Array
    mean_c: Array
    under: Array
    under_slope: Array

    def covariance(self, wandering: Wandering, hour: Array, scatter: Array) -> Array:
        """Of readings about this course."""
        return covariance(wandering, hour, self.trajectory_c - self.mean_c, scatter)


class _Problem:
    def __init__(
        self, place: Place, weather: HourlyWeather, readings: Readings, beside: Beside, names: tuple[str, ...]
    ) -> None:
        begins, ends = np.concatenate([readings.hour, beside.since_h]).min(), np.concatenate([readings.hour, beside.hour]).max()
        first = max(int(begins // 24) - RUN_UP_D, 0)
        last = min(int(ends // 24) + 2, len(weather) // 24)
        # What is put on after the last reading has told it nothing.
        stood = tuple(cover for cover in place.covers if cover.start_h <= ends)
        self.place, self.names, self.first_h = replace(place, covers=stood).shifted(first * 24), names, first * 24
        self.readings, self.beside = replace(readings, hour=readings.hour - self.first_h), beside.shifted(self.first_h)
        self.trusts = cholesky(beside.covariance(), lower=True) if len(beside) else np.empty((0, 0))
        self.weather = weather.cut(first, last)
        gains = beside.depth_m[beside.what == What.GAIN]
        self.depths = tuple(sorted({round(float(d), 3) for d in (*readings.depth_m, *gains)})) or (NO_DEPTH_M,)
        self.which = np.array([self.depths.index(round(float(d), 3)) for d in readings.depth_m], dtype=np.intp)
        self.memory: dict[tuple[bytes, float], _Seen] = {}

    def _run(self, z: Array, unlogged_sd: float) -> tuple[Array, Array, Array]:
        """Courses at the readings and their daily means, (readings, members), and what they show under the cover besides,
        (rows, members), for (numbers, members)."""
        own = len(self.names)
        parameters, start = parameters_of(self.names, z[:own])
        added = unlogged_wetness.hourly(unlogged_wetness.path(z[own:], unlogged_sd), 0.0, len(self.weather))
        case = self.place.case(self.weather, parameters, start, added)
        paired = [case, case.bare()] if (self.beside.what == What.GAIN).any() else [case]
        run, *bare = simulate(paired, self.depths)
        trajectory = run.soil_c.astype(np.float64)
        under = shown(self.beside, run, bare[0] if bare else None)
        daily = trajectory.reshape(len(trajectory) // 24, 24, *trajectory.shape[1:]).mean(axis=1)
        hour = self.readings.hour
        return _between(trajectory, hour, self.which, 0.5), _between(daily, hour / 24, self.which, 0.5), under

    def seen(self, z: Array, unlogged_sd: float) -> _Seen:
        """Course and derivative at z, in one run."""
        key = z.tobytes(), unlogged_sd
        if key not in self.memory:
            inward = np.where(z > 0, -STEP, STEP)
            trajectories, means, under = self._run(np.column_stack([z, z[:, None] + np.diag(inward)]), unlogged_sd)
            slope, under_slope = ((part[:, 1:] - part[:, :1]) / inward for part in (trajectories, under))
            self.memory = {key: _Seen(trajectories[:, 0], slope, means[:, 0], under[:, 0], under_slope)}
        return self.memory[key]

    def start(self) -> Array:
        """The best of the description and a spread of the prior, seen in one run."""
        spread = qmc.Sobol(len(self.names), scramble=False).random(2**SCAN)[1:] * 3.0 - 1.5
        z = np.zeros((len(self.names) + unlogged_wetness.knots_over(len(self.weather)), len(spread) + 1))
        z[: len(self.names), 1:] = spread.T
        if not self.place.covers:
            # Nothing tells them here: they must not weigh on the choice.
            z[[self.names.index(name) for name in COVER_FACTORS if name in self.names]] = 0.0
        trajectories, means, under = self._run(z, Wandering().unlogged_sd)
        costs = []
        for trajectory, mean, air, one in zip(trajectories.T, means.T, under.T, z.T, strict=True):
            total = covariance(Wandering(), self.readings.hour, trajectory - mean, np.ones(len(trajectory)))
            missed = self._missed_under(air)
            costs.append((one @ one + missed @ missed) / 2 - log_evidence(total, self.readings.temperature_c - trajectory))
        return np.asarray(z[:, int(np.argmin(costs))])

    def fit(self, z: Array, wandering: Wandering, scatter: Array, calls: int) -> Array:
        """Bounded least squares from z."""
        total = self.seen(z, wandering.unlogged_sd).covariance(wandering, self.readings.hour, scatter)
        root = cholesky(total, lower=True) if len(total) else total

        def residuals(x: Array) -> Array:
            seen = self.seen(x, wandering.unlogged_sd)
            away = self.readings.temperature_c - seen.trajectory_c
            return np.concatenate([_whitened(root, away), self._missed_under(seen.under), x])

        def jacobian(x: Array) -> Array:
            seen = self.seen(x, wandering.unlogged_sd)
            return np.vstack([-_whitened(root, seen.slope), -_whitened(self.trusts, seen.under_slope), np.eye(len(x))])

        most = bounds_of(self.names, len(z))
        inside = np.clip(z, -most + 0.01, most - 0.01)
        found = least_squares(residuals, inside, jac=jacobian, bounds=(-most, most), max_nfev=calls, xtol=0.01, ftol=1e-3)
        return np.asarray(found.x)

    def _missed_under(self, under: Array) -> Array:
        """What was seen under the cover less what the course shows there, whitened."""
        return _whitened(self.trusts, self.beside.value - under)

    def choose(self, z: Array, wandering: Wandering, scatter: Array) -> tuple[Array, Wandering]:
        """The wandering by its evidence about z, the place's numbers integrated out; and z again with as much wetness added."""
        seen, own = self.seen(z, wandering.unlogged_sd), len(self.names)
        # As if the residuals were linear in the numbers: their value at the prior's mean.
        away = self.readings.temperature_c - seen.trajectory_c + seen.slope @ z
        plain, added = (part @ part.T for part in (seen.slope[:, :own], seen.slope[:, own:] / wandering.unlogged_sd))
        found = [
            log_evidence(seen.covariance(w, self.readings.hour, scatter) + plain + w.unlogged_sd**2 * added, away) for w in GRID
        ]
        chosen = weighed(np.array(found))
        return np.concatenate([z[:own], z[own:] * (wandering.unlogged_sd / chosen.unlogged_sd)]), chosen

    def reweigh(self, z: Array, wandering: Wandering, scatter: Array) -> Array:
        """Factors of each reading's variance, larger where it lies far from its neighbours and the course; what was seen under
        the cover is weighed anew with it."""
        drift = self._drift(z, wandering, scatter)
        own = (drift.residual_k - drift.expected_k()) / wandering.scatter_k
        if len(self.beside):
            away = (self.beside.value - self.seen(z, wandering.unlogged_sd).under) / self.beside.scatter_k
            self.trusts = cholesky(self.beside.covariance(_wilder(away)), lower=True)
        return _wilder(own)

    def _drift(self, z: Array, wandering: Wandering, scatter: Array) -> Drift:
        seen = self.seen(z, wandering.unlogged_sd)
        residual = self.readings.temperature_c - seen.trajectory_c
        return Drift(wandering, self.readings.hour + self.first_h, residual, seen.trajectory_c - seen.mean_c, scatter)

    def learned(self, z: Array, wandering: Wandering, scatter: Array, used: NDArray[np.intp]) -> Learned:
        """The posterior about z."""
        seen = self.seen(z, wandering.unlogged_sd)
        total = seen.covariance(wandering, self.readings.hour, scatter)
        root = cholesky(total, lower=True) if len(total) else total
        soil, under = _whitened(root, seen.slope), _whitened(self.trusts, seen.under_slope)
        precision = soil.T @ soil + under.T @ under + np.eye(len(z))
        spread: Array = np.asarray(np.linalg.inv(cholesky(precision, lower=True)).T, dtype=np.float64)
        covers = tuple(cover.kind.key for cover in self.place.covers)
        return Learned(self.names, z, spread, self._drift(z, wandering, scatter), seen.slope, used, self.first_h, covers)


def _wilder(away: Array) -> Array:
    """Factor of a variance where something lies so many standard deviations away (Student t)."""
    return np.maximum((STUDENT_DF + away**2) / (STUDENT_DF + 1), 0.8)


def _whitened(root: Array, values: Array) -> Array:
    """Values with the covariance root @ root.T, made independent of each other."""
    return np.asarray(solve_triangular(root, values, lower=True)) if len(values) else values


def _between(values: Array, position: Array, which: NDArray[np.intp], centre: float) -> Array:
    """Values (times, depths, members) at fractional positions, centres at `centre`: (positions, members)."""
    spot = np.clip(position - centre, 0, len(values) - 1)
    below = np.minimum(spot.astype(np.intp), max(len(values) - 2, 0))
    part = (spot - below)[:, None]
    return np.asarray(values[below, which] * (1 - part) + values[np.minimum(below + 1, len(values) - 1), which] * part)
