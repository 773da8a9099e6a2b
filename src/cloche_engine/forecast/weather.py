"""Normals, past years and known days of a site, from the entered weather."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace
from datetime import date, timedelta

import numpy as np
import pandas as pd
from numpy.typing import NDArray

from cloche_engine.inputs import Day, ForecastInputs
from cloche_engine.site.estimate import normals_at, typed_normals
from cloche_engine.weather.normals import Normals, from_record
from cloche_engine.weather.record import SUN_SHARE, DailyRecord, Sky
from cloche_engine.weather.scenarios import FEWEST_YEARS, Ensemble, Known, Past

MOST_BRIDGED_D = 5
MOST_GAPS = 0.02
"""Past years with more days missing than this are not replayed; fewer are bridged."""


def climate(inputs: ForecastInputs) -> tuple[Normals, Past | None]:
    """Return normals (as entered, else from own days, else of the region), and past years to replay if there are enough."""
    usual = usual_climate(inputs)
    behind = [row for row in inputs.weather if row.day <= inputs.today and not row.lead_d]
    past = _past(behind)
    if inputs.typed_normals:
        return usual, past
    if not behind:
        return usual, None
    month = np.array([row.day.month for row in behind])
    normals = from_record(month, np.array([r.low_c for r in behind]), np.array([r.high_c for r in behind]), usual)
    return normals, past


def usual_climate(inputs: ForecastInputs) -> Normals:
    """Return the normals of a site without its own days: as entered, else of the region."""
    site = (inputs.latitude_deg, inputs.longitude_deg, inputs.elevation_m)
    if inputs.typed_normals:
        low, high = (np.array(values) for values in inputs.typed_normals)
        return typed_normals(low, high, *site)
    return normals_at(*site)


def own_days(inputs: ForecastInputs) -> DailyRecord | None:
    """Return what was measured at the site, with short gaps bridged and NaN in longer ones; None without any."""
    rows = [row for row in inputs.weather if row.day <= inputs.today and not row.lead_d]
    if not rows:
        return None
    first = min(row.day for row in rows)
    record = _lines(rows, first, (max(row.day for row in rows) - first).days + 1)
    return replace(record, low_c=_bridged(record.low_c), high_c=_bridged(record.high_c))


def _bridged(values: NDArray[np.float64]) -> NDArray[np.float64]:
    filled = pd.Series(values).interpolate(limit=MOST_BRIDGED_D, limit_area="inside")
    return np.asarray(filled, dtype=np.float64)


def known_days(inputs: ForecastInputs, first: date, count: int, past: Past | None) -> Known:
    """Return what is known of the days from `first` on; NaN elsewhere."""
    lead = np.zeros(count)
    rows = _within(inputs.weather, first, count)
    for row in rows:
        ahead = (row.day - inputs.today).days
        # A day that is not over is foretold, whoever wrote its line.
        lead[(row.day - first).days] = row.lead_d or (0 if ahead < 0 else max(ahead, 1))
    return Known(_lines(rows, first, count), lead, past, _ensemble(rows, first, count))


def _within(rows: list[Day], first: date, count: int) -> list[Day]:
    end = first + timedelta(days=count)
    return [row for row in rows if first <= row.day < end]


def _ensemble(rows: list[Day], first: date, count: int) -> Ensemble | None:
    """Return an ensemble of as many members as most days have; other days keep their single value."""
    of_runs = [row for row in rows if row.runs]
    if not of_runs:
        return None
    many = Counter(len(row.runs) for row in of_runs).most_common(1)[0][0]
    columns = np.full((3, count, many), np.nan)
    for row in of_runs:
        if len(row.runs) == many:
            columns[:, (row.day - first).days] = np.array(row.runs, dtype=float).T  # None is nan
    return Ensemble(*columns)


def _lines(rows: list[Day], first: date, count: int) -> DailyRecord:
    columns = np.full((6, count), np.nan)
    if rows:
        lines = [(row.low_c, row.high_c, _sun(row), row.rain_mm, row.wind_m_s, row.snow_m) for row in rows]
        # None is nan.
        columns[:, [(row.day - first).days for row in rows]] = np.array(lines, dtype=float).T
    return DailyRecord(first, *columns)


def _sun(row: Day) -> float | None:
    return None if row.sky is None else SUN_SHARE[Sky(row.sky)]


def _past(rows: list[Day]) -> Past | None:
    if len(rows) < FEWEST_YEARS * 360:
        return None
    first = min(row.day for row in rows)
    count = (max(row.day for row in rows) - first + timedelta(days=1)).days
    record = _lines(rows, first, count)
    known = np.isfinite(record.low_c)
    if known.mean() < 1 - MOST_GAPS:
        return None
    at, index = np.flatnonzero(known), np.arange(count)
    low, high = (np.interp(index, at, values[at]) for values in (record.low_c, record.high_c))
    return Past(replace(record, low_c=low, high_c=high))
