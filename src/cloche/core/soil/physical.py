"""A known place under weather to come: each member its own draw of the place, of what drifts, and of the weather."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil import drift
from cloche.core.soil.calibrate import Learned
from cloche.core.soil.lanes import Lane
from cloche.core.soil.place import Place
from cloche.core.soil.simulate import Course, simulate
from cloche.core.weather.record import HourlyWeather

Array = NDArray[np.float64]


def lane_of(place: Place, learned: Learned, weather: HourlyWeather, members: int, rng: np.random.Generator) -> Lane:
    """The place in all its members, ready to simulate."""
    character, start_k, damp = learned.draws(members, rng, len(weather))
    return place.lane(weather, character, start_k, damp)


def with_drift(course: Course, learned: Learned, rng: np.random.Generator) -> Course:
    """A simulated course with each member's drift in its soil; air is left as it is."""
    hours, depths, members = course.soil_c.shape
    drawn = learned.drift.draw(hours // 24, members, rng)
    soil = np.stack([drift.apply(course.soil_c[:, i].astype(np.float64), *drawn) for i in range(depths)], axis=1)
    return replace(course, soil_c=soil.astype(np.float32))


def run(
    place: Place,
    learned: Learned,
    weather: HourlyWeather,
    depths_m: Sequence[float],
    members: int,
    seed: int,
) -> Course:
    """Hourly course of a known place. weather: whole days, one member or `members`; same seed, same answer to the digit."""
    character_stream, drift_stream = np.random.default_rng(seed).spawn(2)
    lane = lane_of(place, learned, weather, members, character_stream)
    return with_drift(simulate([lane], depths_m)[0], learned, drift_stream)
