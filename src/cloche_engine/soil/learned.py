"""What readings have taught of a place: its factors with their doubt, as drawn by each member of a forecast."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.pooling import USUAL_SD
from cloche_engine.soil import unlogged_wetness
from cloche_engine.soil.bed import BELIEVABLE, FACTORS, Parameters
from cloche_engine.soil.drift import Drift, balanced
from cloche_engine.soil.place import Place

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
LATELY_KNOTS = 3


@dataclass(frozen=True)
class Learned:
    """Posterior of a place given its readings, in units of the prior's standard deviation.

    Attributes
    ----------
    mean : ndarray
        Parameters by name, then the knots of the unlogged wetness, (numbers,).
    spread : ndarray
        A root of the posterior covariance, (numbers, numbers).
    first_h : float
        Hour of the first knot.
    drift : Drift
        Drift from the fitted course.
    slope : ndarray
        Derivative of the course at the readings, (readings, numbers).
    used : ndarray
        Indices of the readings that were used.
    covers : tuple of str
        Kinds of cover that stood over the readings.
    """

    names: tuple[str, ...]
    mean: Array
    spread: Array
    drift: Drift
    slope: Array
    used: NDArray[np.intp]
    first_h: float = 0.0
    covers: tuple[str, ...] = ()

    def draws(self, members: int, rng: np.random.Generator, hours: int) -> tuple[Parameters, Array, Array]:
        """Draw parameters, `start_k` and unlogged wetness for every member.

        `start_k` has the shape (members,), the wetness (hours, members).

        Parameters
        ----------
        members : int
            Number of members.
        rng : Generator
            Stream of random numbers.
        hours : int
            Number of hours.
        """
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
        """Return the parameters of the place under a kind of cover that never stood there.

        The cover's own parameters come from what is known of that kind elsewhere.

        Parameters
        ----------
        parameters : Parameters
            The place's learned factors, by member.
        rng : Generator
            Stream of random numbers.
        """
        free = {
            name: np.exp(PRIOR_SD[name] * np.clip(balanced(rng, len(parameters.sun)), -BOUND, BOUND)) for name in COVER_FACTORS
        }
        return replace(parameters, **free)

    def since(self, hour: float) -> Learned:
        """Return the posterior on a clock that starts at an hour of this one.

        Parameters
        ----------
        hour : float
            Hour of the run.
        """
        return replace(self, drift=replace(self.drift, hour=self.drift.hour - hour), first_h=self.first_h - hour)

    def factor(self, name: str) -> tuple[float, float, float]:
        """Return the median and the 10th and 90th percentile of one parameter.

        The unit is kelvin for names that end in _k; all others are factors.

        Parameters
        ----------
        name : str
            Name of the factor.
        """
        index = self.names.index(name)
        sd = float(np.sqrt((self.spread[index] ** 2).sum()))
        low, mid, high = (PRIOR_SD[name] * (float(self.mean[index]) + k * sd) for k in (-1.2816, 0.0, 1.2816))
        return (low, mid, high) if name.endswith("_k") else (float(np.exp(low)), float(np.exp(mid)), float(np.exp(high)))

    def lately_wetter(self) -> tuple[float, float, float]:
        """Return how much wetter the days before the newest reading were than those before them.

        Gives the median and the 10th and 90th percentile, or zeros where the readings cover too short a time.
        """
        own, hours = len(self.names), self.drift.hour - self.first_h
        if not len(hours) or len(self.mean) == own or np.ptp(hours) < 2 * LATELY_KNOTS * 24 * unlogged_wetness.KNOT_D:
            return 0.0, 0.0, 0.0
        first, last = (int(end / (24 * unlogged_wetness.KNOT_D)) for end in (hours.min(), hours.max()))
        knots = unlogged_wetness.path(np.column_stack([self.mean, self.spread])[own:], self.drift.wandering.unlogged_sd)
        split = last + 1 - LATELY_KNOTS
        middle, *roots = knots[split : last + 1].mean(axis=0) - knots[first:split].mean(axis=0)
        half = 1.2816 * float(np.sqrt(np.square(roots).sum()))
        return float(middle) - half, float(middle), float(middle) + half


def names_for(place: Place) -> tuple[str, ...]:
    """Return the names of the parameters that can be estimated for a place.

    Parameters
    ----------
    place : Place
        The place as it is described.
    """
    names = ["sun", "convection", "evaporation", "supply", "conduction", "capacity", "deep_k", "surface_resistance", "start_k"]
    if place.bed.indoors:
        names.append("room_k")
    # Also of a bed that lies open: readings tell nothing of it, and what they tell of the rest is the same with a cover ahead.
    if not place.bed.indoors:
        names += COVER_FACTORS
    if place.bed.heating:
        names += ["heat", "rise", "fade"] if any(source.fading_d for source in place.bed.heating) else ["heat"]
    return tuple(names)


def bounds_of(names: tuple[str, ...], count: int) -> Array:
    """Return the bounds of the parameters by name, then of the knots, (count,).

    They are distances from the description in units of the prior's standard deviation.

    Parameters
    ----------
    names : tuple[str, ...]
        Names of the factors that are fitted.
    count : int
        Number of knots of unlogged wetness.

    Returns
    -------
    ndarray
        (count,).
    """
    most = np.full(count, BOUND)
    for i, name in enumerate(names):
        if name in BELIEVABLE:
            most[i] = min(BOUND, float(np.log(BELIEVABLE[name])) / PRIOR_SD[name])
    return most


def parameters_of(names: tuple[str, ...], z: Array) -> tuple[Parameters, Array]:
    """Convert (names, members) in units of the prior to parameters and `start_k`.

    Parameters
    ----------
    names : tuple[str, ...]
        Names of the factors that are fitted.
    z : ndarray
        Values before scaling, in standard deviations.
    """
    members = z.shape[1]
    values = {name: np.ones(members) for name in FACTORS} | {
        name: np.zeros(members) for name in PRIOR_SD if name.endswith("_k")
    }
    for name, row in zip(names, z, strict=True):
        scaled = PRIOR_SD[name] * row
        values[name] = scaled if name.endswith("_k") else np.exp(scaled)
    start = values.pop("start_k")
    return Parameters(**values), start
