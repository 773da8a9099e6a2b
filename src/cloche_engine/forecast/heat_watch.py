"""Comparison of the latest readings of a heated place with the simulation, with and without its heater."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta

import numpy as np
from numpy.typing import NDArray

from cloche_engine.forecast.places import local_weather
from cloche_engine.forecast.steps import Described, Observed
from cloche_engine.heat.faults import fault_of
from cloche_engine.inputs import ForecastInputs
from cloche_engine.layout import PAST_D
from cloche_engine.results import HeatAlarm
from cloche_engine.soil.bed import Parameters
from cloche_engine.soil.readings import Readings, What
from cloche_engine.soil.simulate import simulate
from cloche_engine.weather.record import HourlyWeather

Array = NDArray[np.float64]
TELLS_K, WORKS, FAILED, FEWEST = 3.0, 0.6, 0.2, 4
"""Lift from which a reading tells whether a heater works, shares of it above and below which it does and does not, and readings
that are needed to say so (assumptions)."""
LOOKED_D, BEFORE_D, FRESH_H = 2, 10, 30.0
"""Days whose readings are looked at, days before them that are run, and how old the newest may be [h]."""


def alarm_of(inputs: ForecastInputs, described: Described, observed: Observed, outside: HourlyWeather) -> HeatAlarm | None:
    """Return an alarm if the heater does not do what it should, else None.

    outside: one member, from the first midnight of the fit.
    """
    heating = [source for source in described.situation.place.bed.heating if not source.fading_d]
    readings = observed.readings
    if not heating or not len(readings):
        return None
    now_h = PAST_D * 24.0
    newest = float(readings.hour.max())
    order = np.argsort(readings.hour, kind="stable")
    order = order[readings.hour[order] >= newest - LOOKED_D * 24]
    if newest < now_h - FRESH_H or len(order) < 2:
        return None
    first = max(int(newest // 24) - LOOKED_D - BEFORE_D, 0)
    situation = described.situation.shifted(first * 24)
    weather = local_weather(situation, outside.cut(first, min(int(newest // 24) + 1, len(outside) // 24)))
    parameters = Parameters.typical(1)
    parameters.room_k[:] = _room_k(observed, weather, first)
    bed = situation.place.bed
    depth = sorted({round(float(d), 3) for d in readings.depth_m[order]})
    case = situation.place.case(weather, parameters)
    both = simulate([case, replace(case, bed=bed.with_heat())], depth)
    hour = readings.hour[order] - first * 24
    which = [depth.index(round(float(d), 3)) for d in readings.depth_m[order]]
    expected, without = (_at(run.soil_c[:, :, 0].astype(np.float64), hour, which) for run in both)
    now = max(heating, key=lambda source: source.during[0] if source.during[0] <= newest else -np.inf)
    ruled = (now.start_c, now.stop_c) if now.start_c is not None and now.stop_c is not None else None
    fault = fault_of(hour, readings.temperature_c[order], expected, without, ruled)
    if fault is None:
        return None
    at = described.midnight + timedelta(hours=newest)
    seen = float(readings.temperature_c[order][-1])
    return HeatAlarm(fault, at, round(seen, 1), round(float(expected[-1]), 1), round(float(without[-1]), 1))


def without_failed_heat(inputs: ForecastInputs, described: Described, observed: Observed, outside: HourlyWeather) -> Observed:
    """Return the observations without those taken while a heater had failed.

    Cold readings beside a dead mat say nothing about its strength. If no reading shows it working, all are kept, because it
    may be weak.
    """
    heating = [source for source in described.situation.place.bed.heating if not source.fading_d]
    readings = observed.readings
    if not heating or len(readings) < FEWEST:
        return observed
    last_d = min(int(readings.hour.max() // 24) + 1, len(outside) // 24)
    weather = local_weather(described.situation, outside.cut(0, last_d))
    parameters = Parameters.typical(1)
    parameters.room_k[:] = _room_k(observed, weather, 0)
    bed = described.situation.place.bed
    depths = sorted({float(d) for d in readings.depth_m})
    case = described.situation.place.case(weather, parameters)
    both = simulate([case, replace(case, bed=bed.with_heat())], depths)
    which = [depths.index(float(d)) for d in readings.depth_m]
    warm, cold = (_at(run.soil_c[:, :, 0].astype(np.float64), readings.hour, which) for run in both)
    lift = warm - cold
    share = np.where(lift >= TELLS_K, (readings.temperature_c - cold) / np.maximum(lift, TELLS_K), 1.0)
    works, failed = (share > WORKS) & (lift >= TELLS_K), share < FAILED
    if works.sum() < FEWEST // 2 or not failed.any():
        return observed
    kept = np.flatnonzero(~failed)
    left = Readings(readings.hour[kept], readings.depth_m[kept], readings.temperature_c[kept])
    return replace(observed, readings=left, numbers=[observed.numbers[i] for i in kept])


def _room_k(observed: Observed, weather: HourlyWeather, first: int) -> float:
    """Return how much warmer the room was than described [K]; 0 without observations."""
    differences = []
    for what, hour, value in zip(observed.seen.what, observed.seen.hour, observed.seen.value, strict=True):
        at = int(hour) - first * 24
        if what == What.ROOM and 0 <= at < len(weather):
            differences.append(float(value - weather.air_c[at].mean()))
    # The description itself counts as two readings.
    return sum(differences) / (len(differences) + 2)


def _at(soil: Array, hour: Array, which: list[int]) -> Array:
    spot = np.clip(hour.astype(np.intp), 0, len(soil) - 1)
    return np.asarray(soil[spot, which])
