"""A known place under weather to come: each member its own draw of the place, of what drifts, and of the weather. It can be
stopped at a midnight and taken up from there under any cover."""

from __future__ import annotations

from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from cloche.core.covers.kinds import CoverPeriod
from cloche.core.soil import drift
from cloche.core.soil.bed import Character
from cloche.core.soil.calibrate import Learned
from cloche.core.soil.lanes import Lane
from cloche.core.soil.place import Place
from cloche.core.soil.simulate import Course, simulate
from cloche.core.weather.record import HourlyWeather

Array = NDArray[np.float64]

Covers = tuple[CoverPeriod, ...]


@dataclass(frozen=True)
class Drawn:
    """A place in all its members. character and start_k (members,); elsewhere: its character under covers of other kinds than
    those in `covers`, of which it has been read; damp: wetness added (hours, members); level [K] and gain
    of its drift, (days, members)."""

    character: Character
    elsewhere: Character
    covers: tuple[str, ...]
    start_k: Array
    damp: Array
    level: Array
    gain: Array


def draw(learned: Learned, hours: int, members: int, seed: int) -> Drawn:
    """Same seed, same answer to the digit."""
    character_stream, drift_stream, other_stream = np.random.default_rng(seed).spawn(3)
    character, start_k, damp = learned.draws(members, character_stream, hours)
    other = learned.elsewhere(character, other_stream) if learned.covers else character
    return Drawn(character, other, learned.covers, start_k, damp, *learned.drift.draw(hours // 24, members, drift_stream))


def with_drift(course: Course, level: Array, gain: Array) -> Course:
    """A simulated course with each member's drift in its soil; air is left as it is."""
    depths = range(course.soil_c.shape[1])
    soil = np.stack([drift.apply(course.soil_c[:, i].astype(np.float64), level, gain) for i in depths], axis=1)
    return replace(course, soil_c=soil.astype(np.float32))


def run(place: Place, learned: Learned, weather: HourlyWeather, depths_m: Sequence[float], members: int, seed: int) -> Course:
    """Hourly course of a known place. weather: whole days, one member or `members`."""
    drawn = draw(learned, len(weather), members, seed)
    lane = place.lane(weather, drawn.character, drawn.start_k, drawn.damp)
    return with_drift(simulate([lane], depths_m)[0], drawn.level, drawn.gain)


@dataclass(frozen=True)
class Standing:
    """A known place stopped at a midnight, from which the hours of `place` count. behind: its course up to then, without drift;
    ahead: the weather from then on; drawn: damp from then on, level and gain from the day before."""

    place: Place
    behind: Course
    ahead: HourlyWeather
    drawn: Drawn

    def on(self, ways: Sequence[Covers], days: int) -> list[Course]:
        """The days ahead under each of some covers, as a full run of each would have them. Two threads share them out."""
        # A day more than is asked for: drift runs from midday to midday.
        run = min(days + 1, len(self.ahead) // 24)
        lane = self._lane(self.ahead.cut(0, run))

        def some(covers: Sequence[Covers]) -> list[Course]:
            found = simulate([self._under(lane, one) for one in covers], self.behind.depths_m)
            return [self._drifted(course, run).cut(days * 24) for course in found]

        half = (len(ways) + 1) // 2
        with ThreadPoolExecutor(2) as two:
            parts = two.map(some, [part for part in (ways[:half], ways[half:]) if part])
            return [course for part in parts for course in part]

    def _under(self, lane: Lane, covers: Covers) -> Lane:
        """What its readings told of one kind of cover is not so of another."""
        other = bool(covers) and not any(cover.kind.key in self.drawn.covers for cover in covers)
        return replace(lane, covers=covers, character=self.drawn.elsewhere if other else lane.character)

    def later(self, days: int) -> Standing:
        """The same stopped so many days on, under the covers it has till then."""
        if days == 0:
            return self
        course = simulate([self._lane(self.ahead.cut(0, days))], self.behind.depths_m)[0]
        return _standing(self.place, course, self.ahead, self.drawn, days, drift_from=days)

    def whole(self) -> Course:
        """All of it under the covers it has, from the run's first hour on, without drift."""
        ahead = simulate([self._lane(self.ahead)], self.behind.depths_m)[0]
        parts = {name: np.concatenate([before, getattr(ahead, name)]) for name, before in self.behind.hourly.items()}
        return Course(ahead.depths_m, end=ahead.end, end_beside=ahead.end_beside, **parts)

    def _lane(self, weather: HourlyWeather) -> Lane:
        lane = self.place.lane(weather, self.drawn.character, self.drawn.start_k, self.drawn.damp[: len(weather)])
        return replace(lane, begin=self.behind.end, begin_beside=self.behind.end_beside)

    def _drifted(self, course: Course, days: int) -> Course:
        # The first morning needs the day before.
        joined = replace(course, soil_c=np.concatenate([self.behind.soil_c[-24:], course.soil_c]))
        drifted = with_drift(joined, self.drawn.level[: days + 1], self.drawn.gain[: days + 1])
        return replace(drifted, soil_c=drifted.soil_c[24:])


def stop(place: Place, drawn: Drawn, weather: HourlyWeather, depths_m: Sequence[float], day: int) -> Standing:
    """Run a place up to the midnight that begins a day, at least one day in. weather: (hours, members) of all its days."""
    lane = place.lane(weather.cut(0, day), drawn.character, drawn.start_k, drawn.damp[: day * 24])
    return _standing(place, simulate([lane], depths_m)[0], weather, drawn, day, drift_from=day - 1)


def _standing(place: Place, behind: Course, weather: HourlyWeather, drawn: Drawn, day: int, drift_from: int) -> Standing:
    ahead = weather.cut(day, len(weather) // 24)
    left = replace(drawn, damp=drawn.damp[day * 24 :], level=drawn.level[drift_from:], gain=drawn.gain[drift_from:])
    return Standing(place.shifted(day * 24), behind, ahead, left)
