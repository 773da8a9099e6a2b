"""A known place under weather to come: each member its own draw of the place, of what drifts, and of the weather. It can be
stopped at a midnight and taken up from there under any cover."""

from __future__ import annotations

from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.soil import drift
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.cases import Case
from cloche_engine.soil.learned import Learned
from cloche_engine.soil.place import Place
from cloche_engine.soil.simulate import Trajectory, simulate
from cloche_engine.weather.record import HourlyWeather

Array = NDArray[np.float64]

Covers = tuple[CoverPeriod, ...]


@dataclass(frozen=True)
class Drawn:
    """Parameters and drift of a place for every member.

    Attributes
    ----------
    parameters, start_k : Parameters, ndarray
        One value per member, (members,).
    elsewhere : Parameters
        The parameters under kinds of cover for which the place has no readings; `covers` lists those for which it has.
    unlogged_wetness : ndarray
        Wetness added, (hours, members).
    level, gain : ndarray
        Offset [K] and relative change of the daily swing, (days, members).
    """

    parameters: Parameters
    elsewhere: Parameters
    covers: tuple[str, ...]
    start_k: Array
    unlogged_wetness: Array
    level: Array
    gain: Array


def draw(learned: Learned, hours: int, members: int, seed: int) -> Drawn:
    """Draw the members of a place. The same seed gives identical values.

    Parameters
    ----------
    learned : Learned
        What readings have taught of the place.
    hours : int
        Number of hours.
    members : int
        Number of members.
    seed : int
        Seed of the random numbers.
    """
    parameter_stream, drift_stream, other_stream = np.random.default_rng(seed).spawn(3)
    parameters, start_k, unlogged_wetness = learned.draws(members, parameter_stream, hours)
    other = learned.elsewhere(parameters, other_stream) if learned.covers else parameters
    return Drawn(
        parameters, other, learned.covers, start_k, unlogged_wetness, *learned.drift.draw(hours // 24, members, drift_stream)
    )


def with_drift(trajectory: Trajectory, level: Array, gain: Array) -> Trajectory:
    """Add each member's drift to the soil of a simulated course; the air is unchanged.

    Parameters
    ----------
    trajectory : Trajectory
        A place's simulated hours.
    level : ndarray
        Shift of the mean by day, (days, members) [K].
    gain : ndarray
        Change of the daily swing by day, (days, members).
    """
    shift_k, factor = drift.hourly(level), 1 + drift.hourly(gain)
    soil = np.empty_like(trajectory.soil_c)
    for i in range(soil.shape[1]):
        soil[:, i] = drift.apply(trajectory.soil_c[:, i].astype(np.float64), shift_k, factor)
    return replace(trajectory, soil_c=soil)


def run(
    place: Place, learned: Learned, weather: HourlyWeather, depths_m: Sequence[float], members: int, seed: int
) -> Trajectory:
    """Simulate the hourly course of a place with its drift.

    Parameters
    ----------
    place : Place
        The place as it is described.
    learned : Learned
        What readings have taught of the place.
    weather : HourlyWeather
        Whole days, one member or `members`.
    depths_m : Sequence[float]
        Depths at which the soil is wanted, 0 being its face [m].
    members : int
        Number of members.
    seed : int
        Seed of the random numbers.
    """
    drawn = draw(learned, len(weather), members, seed)
    case = place.case(weather, drawn.parameters, drawn.start_k, drawn.unlogged_wetness)
    return with_drift(simulate([case], depths_m)[0], drawn.level, drawn.gain)


@dataclass(frozen=True)
class Variant:
    """An alternative for the days ahead: the bed or its heat, the covers, the weather. The cells stay the same."""

    bed: Bed
    covers: Covers
    weather: HourlyWeather


@dataclass(frozen=True)
class Checkpoint:
    """A place stopped at midnight, from which its days ahead can be simulated in several variants.

    Hours of `place` count from that midnight.

    Attributes
    ----------
    behind : Trajectory
        Course up to then, without drift.
    ahead : HourlyWeather
        Weather from then on.
    drawn : Drawn
        Unlogged wetness from then on, offset and gain from the day before.
    """

    place: Place
    behind: Trajectory
    ahead: HourlyWeather
    drawn: Drawn

    def simulate_covers(self, ways: Sequence[Covers], days: int) -> list[Trajectory]:
        """Return the days ahead under each of several sets of covers, identical to a full run of each.

        Two threads share the work.

        Parameters
        ----------
        ways : Sequence[Covers]
            The covers of each way to go on.
        days : int
            Number of days.
        """
        # A day more than is asked for: drift runs from midday to midday.
        run = min(days + 1, len(self.ahead) // 24)
        case = self._case(self.ahead.cut(0, run))

        def some(covers: Sequence[Covers]) -> list[Trajectory]:
            trajectories = simulate([self._under(case, cover) for cover in covers], self.behind.depths_m)
            return [self._drifted(trajectory, run).cut(days * 24) for trajectory in trajectories]

        half = (len(ways) + 1) // 2
        with ThreadPoolExecutor(2) as two:
            parts = two.map(some, [part for part in (ways[:half], ways[half:]) if part])
            return [trajectory for part in parts for trajectory in part]

    def varied(self, variants: Sequence[Variant], days: int) -> list[Trajectory]:
        """Return the days ahead in each variant.

        Parameters
        ----------
        variants : Sequence[Variant]
            Ways to go on, on this checkpoint's clock.
        days : int
            Number of days.
        """
        run = min(days + 1, len(self.ahead) // 24)
        case = self._case(self.ahead.cut(0, run))
        cases = [replace(self._under(case, v.covers), bed=v.bed, weather=v.weather.cut(0, run)) for v in variants]
        return [self._drifted(trajectory, run).cut(days * 24) for trajectory in simulate(cases, self.behind.depths_m)]

    def _under(self, case: Case, covers: Covers) -> Case:
        """Return the case under these covers. Cover parameters apply only to the kind they were estimated for."""
        other = bool(covers) and not any(cover.kind.key in self.drawn.covers for cover in covers)
        return replace(case, covers=covers, parameters=self.drawn.elsewhere if other else case.parameters)

    def later(self, days: int) -> Checkpoint:
        """Return the checkpoint some days later, under the same covers until then.

        Parameters
        ----------
        days : int
            Number of days.
        """
        if days == 0:
            return self
        trajectory = simulate([self._case(self.ahead.cut(0, days))], self.behind.depths_m)[0]
        return _checkpoint(self.place, trajectory, self.ahead, self.drawn, days, drift_from=days)

    def whole(self) -> Trajectory:
        """Return the whole course under the present covers, from the first hour of the run, without drift."""
        ahead = simulate([self._case(self.ahead)], self.behind.depths_m)[0]
        parts = {name: np.concatenate([before, getattr(ahead, name)]) for name, before in self.behind.hourly.items()}
        return Trajectory(ahead.depths_m, end=ahead.end, end_beside=ahead.end_beside, **parts)

    def _case(self, weather: HourlyWeather) -> Case:
        case = self.place.case(weather, self.drawn.parameters, self.drawn.start_k, self.drawn.unlogged_wetness[: len(weather)])
        return replace(case, begin=self.behind.end, begin_beside=self.behind.end_beside)

    def _drifted(self, trajectory: Trajectory, days: int) -> Trajectory:
        # The first morning needs the day before.
        joined = replace(trajectory, soil_c=np.concatenate([self.behind.soil_c[-24:], trajectory.soil_c]))
        drifted = with_drift(joined, self.drawn.level[: days + 1], self.drawn.gain[: days + 1])
        return replace(drifted, soil_c=drifted.soil_c[24:])


def stop(place: Place, drawn: Drawn, weather: HourlyWeather, depths_m: Sequence[float], day: int) -> Checkpoint:
    """Simulate a place up to the midnight that begins a day, which has to be day 1 or later.

    Parameters
    ----------
    place : Place
        The place as it is described.
    drawn : Drawn
        Members drawn of a learned place.
    weather : HourlyWeather
        (hours, members) of all its days.
    depths_m : Sequence[float]
        Depths at which the soil is wanted, 0 being its face [m].
    day : int
        Index of the day.
    """
    case = place.case(weather.cut(0, day), drawn.parameters, drawn.start_k, drawn.unlogged_wetness[: day * 24])
    return _checkpoint(place, simulate([case], depths_m)[0], weather, drawn, day, drift_from=day - 1)


def _checkpoint(
    place: Place, behind: Trajectory, weather: HourlyWeather, drawn: Drawn, day: int, drift_from: int
) -> Checkpoint:
    ahead = weather.cut(day, len(weather) // 24)
    left = replace(
        drawn, unlogged_wetness=drawn.unlogged_wetness[day * 24 :], level=drawn.level[drift_from:], gain=drawn.gain[drift_from:]
    )
    return Checkpoint(place.shifted(day * 24), behind, ahead, left)
