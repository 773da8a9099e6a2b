"""Soil of days gone by: the place run through the weather that was, and drawn to what was read there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, datetime, timedelta
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from cloche.bridge.services.places import felt, situation_of
from cloche.bridge.services.weather import climate, known_days
from cloche.bridge.values.clocks import midnight_of, standard_offset_h
from cloche.bridge.values.inputs import ForecastInputs
from cloche.core.soil.bed import Parameters
from cloche.core.soil.simulate import simulate
from cloche.core.weather.hourly import hours_of
from cloche.core.weather.record import DailyRecord, Site
from cloche.core.weather.scenarios import scenarios

Array = NDArray[np.float64]
RUN_UP_D = 40
MEMORY_D = 9.0
"""Days over which a reading still tells of the days about it: how long a bed stays warmer or colder than as described."""
DOUBT = 0.4
"""A day's readings count as so many more of the same kind in doubt: one alone draws the course by seven tenths."""
GAP_D = 3
"""So many days without weather are bridged by what is usual; more are not known."""


def soil_of(inputs: ForecastInputs, first: date, last: date) -> dict[date, float | None]:
    """Daily mean at seed depth; None where neither weather nor readings tell."""
    start = first - timedelta(days=RUN_UP_D)
    days = (last - start).days + 1
    past = replace(inputs, today=last + timedelta(days=1))
    normals, _ = climate(past)
    known = known_days(past, start, days, None)
    record = DailyRecord(
        start,
        **{k: v.mean(axis=1, keepdims=True) for k, v in scenarios(known, normals, 8, np.random.default_rng(1)).values.items()},
    )
    midnight = midnight_of(start, standard_offset_h(inputs.timezone, start))
    situation = situation_of(past, normals, midnight)
    site = Site(inputs.latitude_deg, inputs.longitude_deg, inputs.elevation_m, standard_offset_h(inputs.timezone, start))
    weather = felt(situation, hours_of(record, site))
    (course,) = simulate([situation.place.case(weather, Parameters.typical(1))], [inputs.seed_depth_m])
    hourly = course.soil_c[:, 0, 0].astype(np.float64)
    daily = hourly.reshape(-1, 24).mean(axis=1)
    noted = np.isfinite(known.record.low_c[:days]) & np.isfinite(known.record.high_c[:days])
    drawn, near = _drawn(inputs.readings, midnight, hourly, days, inputs.seed_depth_m)
    sure = _bridged(noted) | near
    return {start + timedelta(days=i): float(daily[i] + drawn[i]) if sure[i] else None for i in range(RUN_UP_D, days)}


def _drawn(
    readings: Sequence[tuple[int, datetime, float, float]], midnight: datetime, hourly: Array, days: int, depth_m: float
) -> tuple[Array, NDArray[np.bool_]]:
    """By how much each day is drawn to what was read about it [K], and whether anything was read near it."""
    misses: dict[int, list[float]] = {}
    for _, at, depth, value in readings:
        hour = int((at - midnight) / timedelta(hours=1))
        if 0 <= hour < days * 24 and abs(depth - depth_m) <= max(0.03, 0.5 * depth_m):
            misses.setdefault(hour // 24, []).append(value - float(hourly[hour]))
    if not misses:
        return np.zeros(days), np.zeros(days, dtype=bool)
    when, miss = np.array(list(misses)), np.array([float(np.median(values)) for values in misses.values()])
    weight = np.exp(-np.abs(np.arange(days)[:, None] - when[None, :]) / MEMORY_D)
    return (weight * miss).sum(axis=1) / (weight.sum(axis=1) + DOUBT), weight.max(axis=1) > np.exp(-GAP_D / MEMORY_D)


def _bridged(noted: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Known days, and short gaps between them."""
    sure = noted.copy()
    at = np.flatnonzero(noted)
    for before, after in pairwise(at):
        if after - before <= GAP_D + 1:
            sure[before:after] = True
    return sure
