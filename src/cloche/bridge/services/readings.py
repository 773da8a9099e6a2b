"""Checks on readings: valid ranges, the forecast's expectation and quality flags."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, fields
from datetime import datetime, timedelta
from typing import Any

import numpy as np

from cloche.bridge.values.texts import say
from cloche_engine import quantities
from cloche_engine.layout import FIELD_STEP_H
from cloche_engine.records.quality import (
    Fault,
    QualityFlag,
    Series,
    asked_again,
    day_mean_from_one,
    days_narrowed,
    faults,
    flags,
    narrowing_k,
    silent_after,
)
from cloche_engine.results import PlaceForecast

TRANSPLANT_DEPTH_M = 0.10
DAYLIGHT_H = range(6, 21)
PACE_D = 45
LEAST_NARROWING_K = 0.15
"""A reading that tells less is not worth the walk."""


@dataclass(frozen=True)
class Hours:
    """Hourly forecast values for checking a reading while it is typed [°C].

    The band, the limits beyond which the grower is asked again, and the surface and air temperatures for recognising a
    likely slip.
    """

    start: datetime
    low_c: list[float]
    high_c: list[float]
    ask_low_c: list[float]
    ask_high_c: list[float]
    surface_c: list[float]
    air_c: list[float]

    def values_c(self) -> dict[str, list[float]]:
        """Return all series by name, without the start time."""
        return {each.name: getattr(self, each.name) for each in fields(self) if each.name != "start"}


def hours_from(ground: PlaceForecast, now: datetime, hours: int, deeper_m: float | None = None) -> Hours | None:
    """Return the given number of hours of a stored forecast from this hour on, or None beyond its end.

    `deeper_m` selects a depth other than seed depth.
    """
    start = ground.start
    first = int((now - start) / timedelta(hours=1))
    rows = slice(max(first, 0), first + hours)
    low, high = np.array(ground.near_low_c[rows]), np.array(ground.near_high_c[rows])
    if not len(low):
        return None
    field = np.repeat(np.array(ground.field_c), FIELD_STEP_H, axis=1)[:, rows][:, : len(low)]
    if deeper_m is not None:
        shift = _at_depth(ground, field, deeper_m) - _at_depth(ground, field, ground.depth_m)
        low, high = low + shift, high + shift
    ask_low, ask_high = asked_again(low, high)
    air = ground.inside_mid_c[rows] or ground.outside_c[rows]
    begun = start + timedelta(hours=max(first, 0))
    return Hours(begun, *(np.asarray(v, dtype=np.float64).tolist() for v in (low, high, ask_low, ask_high, field[0], air)))


def _at_depth(ground: PlaceForecast, field: Any, depth_m: float) -> Any:
    """Interpolate a field of shape (depths, hours) to one depth."""
    rows = np.arange(len(field))
    row = float(np.interp(depth_m, ground.field_depths_m, rows))
    above = min(int(row), len(field) - 2)
    share = row - above
    return field[above] * (1 - share) + field[above + 1] * share


@dataclass(frozen=True)
class Worth:
    """Most informative reading of a place in the coming day.

    Its time and depth, by how much it would narrow the forecast, and the effect on the edge of a window in days; `worth_it`
    tells whether the walk pays.
    """

    at: datetime
    depth_m: float
    narrowed_k: float
    days: float
    worth_it: bool


def most_telling(ground: PlaceForecast, now: datetime) -> Worth:
    """Return the most informative reading in the coming day's daylight hours at the depths stored.

    `now` is local time.

    What is not known of an hour is taken from yesterday's, whose weather is known: so it is the place that is in doubt.
    """
    begun = ground.spread_start
    hours = [_next(begun + timedelta(hours=h), now) for h in range(24)]
    light = [h for h, at in enumerate(hours) if at.astimezone(now.tzinfo).hour in DAYLIGHT_H]
    narrowed = narrowing_k(np.array(ground.spread_k)[:, light])
    row, column = np.unravel_index(int(narrowed.argmax()), narrowed.shape)
    best = float(narrowed[row, column])
    days = days_narrowed(best, _pace(ground.far_mid_c))
    return Worth(hours[light[int(column)]], ground.spread_depths_m[int(row)], best, days, best >= LEAST_NARROWING_K)


def _next(at: datetime, now: datetime) -> datetime:
    """Return the next occurrence of an hour of the day; the current hour counts as now."""
    return at + timedelta(days=max(0, math.ceil((now - timedelta(hours=1) - at) / timedelta(days=1))))


def _pace(mean_c: list[float]) -> float:
    """Return how fast the ground warms or cools over the coming weeks [K/d]."""
    days = min(PACE_D, len(mean_c) - 1)
    return (mean_c[days] - mean_c[0]) / days


Row = tuple[int, datetime, float, float]


def flags_of(rows: Sequence[Row], ground: PlaceForecast | None, usual_depths_m: tuple[float, ...]) -> dict[int, QualityFlag]:
    """Return quality flags by reading number.

    `rows` holds number, time, depth and temperature, oldest first; `ground` is the stored forecast.
    """
    if not rows:
        return {}
    hour = np.array([(row[1] - rows[0][1]) / timedelta(hours=1) for row in rows])
    band = np.full((3, len(rows)), np.nan)
    if ground is not None:
        for depth_m in {row[2] for row in rows}:
            _expect(rows, ground, depth_m, band)
    depth, value = np.array([row[2] for row in rows]), np.array([row[3] for row in rows])
    flagged = flags(Series(hour, value, depth, band[0], band[1], band[2], usual_depths_m))
    return {row[0]: flag for row, flag in zip(rows, flagged, strict=True) if flag is not None}


def expected_at(ground: PlaceForecast | None, depth_m: float) -> list[tuple[datetime, float, float]]:
    """Return time, low and high [°C] of every hour that the stored forecast covers at a depth."""
    start = ground.start if ground else None
    known = hours_from(ground, start, len(ground.near_mid_c), depth_m) if ground and start else None
    if known is None or start is None:
        return []
    middles = (start + timedelta(hours=i + 0.5) for i in range(len(known.low_c)))
    return list(zip(middles, known.low_c, known.high_c, strict=False))


def _expect(rows: Sequence[Row], ground: PlaceForecast, depth_m: float, band: Any) -> None:
    start = ground.start
    known = hours_from(ground, start, len(ground.near_mid_c), depth_m)
    if known is None:
        return
    for i, (_, at, depth, _) in enumerate(rows):
        index = int((at - start) / timedelta(hours=1))
        if depth == depth_m and 0 <= index < len(known.low_c) and at >= start:
            band[:, i] = known.low_c[index], known.high_c[index], known.air_c[index]


__all__ = ["QualityFlag", "day_mean_from_one", "expected_at", "flags_of"]


GRAIN = 4
"""Decimals kept: finer than any probe, and what single precision can hold."""


def fault_words(fault: int) -> str:
    """Return the reason a value is ignored."""
    return {
        Fault.DISCONNECTED: say("−127 °C: the probe is not responding"),
        Fault.POWER_ON: say("85 °C: the probe had only just been switched on"),
        Fault.OUTSIDE: say("outside the range of soil temperatures"),
    }[Fault(fault)]


def celsius(values: Sequence[float], unit: str) -> list[float]:
    """Convert values to °C.

    A sensor's fault codes (-127, 85) stay as they are, since they are in °C whatever the unit.
    """
    sent = np.asarray(values, dtype=np.float64)
    turned = {"C": sent, "F": quantities.celsius_from_fahrenheit(sent), "K": sent - 273.15}[unit]
    coded = np.isin(faults(sent), (Fault.DISCONNECTED, Fault.POWER_ON)) & ((unit != "F") | (sent < 0))
    return np.round(np.where(coded, sent, turned), GRAIN).tolist()  # type: ignore[no-any-return]


def faults_of(values_c: Sequence[float]) -> list[int]:
    """Return a fault code for each value, 0 for a valid one."""
    return faults(values_c).tolist()  # type: ignore[no-any-return]


def silence(every_s: int | None) -> timedelta:
    """Return how long a logger with this interval may stay silent before it counts as missing."""
    return silent_after(None if every_s is None else timedelta(seconds=every_s))
