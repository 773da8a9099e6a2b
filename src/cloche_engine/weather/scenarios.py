"""Weather scenarios: members that share the days already known and differ in those that are not.

A forecast day keeps to what was told with an error that grows from the hour it was issued, so that a stale forecast is a wide
one. Where a service gives an ensemble, each member follows one of its runs, and what these spread by themselves is not added
again: the error that is left is the site's own, as on the first day. Beyond, past years are replayed from the same date where
a site has ten or more; otherwise a generator after [Richardson1981]: wet and dry days by a Markov chain, highs, lows and sun
as correlated departures from the monthly normals.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

from cloche_engine.weather.normals import Normals
from cloche_engine.weather.record import DailyRecord

Array = NDArray[np.float64]

FEWEST_YEARS = 10
SEASON_SD_K, SEASON_PERSISTENCE = 1.0, 0.985
"""How far a whole season strays from normal [K], and how slowly (assumption)."""
FORECAST_SD_K, FORECAST_GROWTH_K_PER_D, FORECAST_LAST_D = 0.9, 0.35, 14
ERROR_PERSISTENCE = 0.6
RANGE_SD = 0.20
"""Error of a forecast day's range, as a share of it (assumption)."""
SKY_SD, LEAST_SUN, MOST_SUN = 0.15, 0.12, 1.05
"""A forecast's word for the sky stands for a spread of the share of a cloudless day's sun, within limits (assumption)."""
SEAM_PERSISTENCE = 0.72
"""What of the last known day's departure from normal is left a day later (assumption; stations lie at 0.65-0.8)."""

# Lag-one model of high, low and sun departures [Richardson1981, from memory]: z(t) = A z(t-1) + B e(t).
_A = np.array([[0.567, 0.086, -0.002], [0.253, 0.504, -0.050], [-0.006, -0.039, 0.244]])
_B = np.array([[0.781, 0.0, 0.0], [0.328, 0.637, 0.0], [0.238, -0.341, 0.873]])
_WET_AFTER_DRY, _WET_AFTER_WET = 0.28, 0.58
_WET_COOLER_SD, _RAIN_MM = 0.5, 5.0
_SUN_DRY, _SUN_WET, _SUN_SD = 0.75, 0.40, 0.17
"""A temperate site's rain and sun (assumption)."""


@dataclass(frozen=True)
class Past:
    """Complete years of a site, replayed as scenarios. `record` has (days,) without gaps in lows and highs."""

    record: DailyRecord

    @property
    def years(self) -> list[int]:
        """Years whose daily course can be followed for a full year."""
        last = self.record.first + timedelta(days=len(self.record))
        first = self.record.first.year + (self.record.first > date(self.record.first.year, 1, 1))
        return [year for year in range(first, last.year) if date(year, 12, 31) < last]

    def rows_from(self, year: int, day: date, count: int) -> NDArray[np.intp]:
        """Return the rows of `count` days from the same date in a year.

        After the end of the record they continue at its start.

        Parameters
        ----------
        day : date
            Date of the first.
        count : int
            Number of days.
        """
        start = date(year, day.month, min(day.day, 28) if day.month == 2 else day.day)
        rows = (start - self.record.first).days + np.arange(count)
        return np.asarray(np.where(rows < len(self.record), rows, rows - 365 * (1 + (rows - len(self.record)) // 365)))


@dataclass(frozen=True)
class Ensemble:
    """Runs of one forecast: low_c, high_c [°C] and rain_mm, (days, runs), nan where a run has no value."""

    low_c: Array
    high_c: Array
    rain_mm: Array

    def dealt(self, members: int, rng: np.random.Generator) -> Ensemble:
        """Assign one run to each member for all days, all equally often.

        Parameters
        ----------
        members : int
            Number of members.
        rng : Generator
            Stream of random numbers.

        Returns
        -------
        Ensemble
            (days, members).
        """
        runs = np.resize(rng.permutation(self.low_c.shape[1]), members)
        return Ensemble(self.low_c[:, runs], self.high_c[:, runs], self.rain_mm[:, runs])

    def on(self, day: int) -> tuple[Array, Array] | None:
        """Return mean and half range of a day in each run.

        Parameters
        ----------
        day : int
            Row of the day.

        Returns
        -------
        tuple of ndarray or None
            [°C] and [K], (runs,); None where not every run tells of it.
        """
        low, high = self.low_c[day], self.high_c[day]
        return ((low + high) / 2, (high - low) / 2) if np.isfinite(low).all() else None


@dataclass(frozen=True)
class Known:
    """Known weather of the days.

    Attributes
    ----------
    record : DailyRecord
        Values, (days,), nan where unknown.
    lead_d : ndarray
        Lead time of each day's forecast, 0 for measured days, (days,).
    past : Past or None
        The site's own years, if any.
    ensemble : Ensemble or None
        Forecast runs, if a service provides them.
    """

    record: DailyRecord
    lead_d: Array
    past: Past | None = None
    ensemble: Ensemble | None = None


def scenarios(known: Known, normals: Normals, members: int, rng: np.random.Generator) -> DailyRecord:
    """Complete the unknown days, from (days,) to (days, members).

    sun_share may stay nan where the daily range determines it.

    Parameters
    ----------
    known : Known
        What is known of the days, their normals and past years.
    normals : Normals
        The site's monthly normals.
    members : int
        Number of members.
    rng : Generator
        Stream of random numbers.
    """
    replay, generator, errors, dealing = rng.spawn(4)
    past = known.past if known.past and len(known.past.years) >= FEWEST_YEARS else None
    if past is None:
        filler = _generated(known.record, normals, members, generator)
    else:
        filler = _replayed(known.record, past, members, replay)
    dealt = known.ensemble.dealt(members, dealing) if known.ensemble else None
    return _joined(replace(known, ensemble=dealt), filler, normals, errors)


def _replayed(record: DailyRecord, past: Past, members: int, rng: np.random.Generator) -> DailyRecord:
    """Assign a past year to each member, all equally often."""
    years = np.array(past.years)
    chosen = np.resize(rng.permutation(years), members)
    rows = np.stack([past.rows_from(int(year), record.first, len(record)) for year in chosen], axis=1)
    own = past.record
    return DailyRecord(record.first, **{name: values[rows] for name, values in own.values.items()})


def _generated(record: DailyRecord, normals: Normals, members: int, rng: np.random.Generator) -> DailyRecord:
    days = len(record)
    doy = record.day_of_year
    z, wet = np.zeros((3, members)), rng.random(members) < _WET_AFTER_DRY
    shape = (days, members)
    departures, wet_days = np.empty((days, 3, members)), np.empty(shape, dtype=bool)
    for day in range(days):
        wet = rng.random(members) < np.where(wet, _WET_AFTER_WET, _WET_AFTER_DRY)
        z = _A @ z + _B @ rng.standard_normal((3, members))
        departures[day], wet_days[day] = z, wet
    season = _season(days, members, rng) * SEASON_SD_K
    if normals.off_k > 0:
        season = season + rng.normal(0, normals.off_k, members)
    low_sd, high_sd = (sd[:, None] for sd in normals.extremes_sd_on(doy))  # the correlated departures have unit variance
    share_wet = _WET_AFTER_DRY / (1 + _WET_AFTER_DRY - _WET_AFTER_WET)
    cooler = _WET_COOLER_SD * (share_wet - wet_days)
    mean, half = normals.mean_on(doy)[:, None], normals.range_on(doy)[:, None] / 2
    high = mean + half + season + high_sd * (departures[:, 0] + cooler)
    low = np.minimum(mean - half + season + low_sd * departures[:, 1], high - 1.0)
    sun = np.clip(np.where(wet_days, _SUN_WET, _SUN_DRY) + _SUN_SD * departures[:, 2], 0.12, 1.0)
    rain = np.where(wet_days, rng.exponential(_RAIN_MM, shape), 0.0)
    unknown = np.full(shape, np.nan)
    return DailyRecord(record.first, low, high, sun, rain, unknown, unknown)


def _season(days: int, members: int, rng: np.random.Generator) -> Array:
    steps = rng.standard_normal((days, members))
    level = np.empty_like(steps)
    level[0] = steps[0]
    for day in range(1, days):
        level[day] = SEASON_PERSISTENCE * level[day - 1] + np.sqrt(1 - SEASON_PERSISTENCE**2) * steps[day]
    return level


def _joined(known: Known, filler: DailyRecord, normals: Normals, rng: np.random.Generator) -> DailyRecord:
    """Put known days first, forecast days with their error next, and let the last departure fade.

    The runs of an ensemble are distributed over the members.
    """
    record, runs = known.record, known.ensemble
    shape = days, members = len(record), int(filler.low_c.shape[1])
    mean, half, normal = np.empty(shape), np.empty(shape), normals.mean_on(record.day_of_year)
    error, left = np.zeros(members), np.zeros(members)
    for day in range(days):
        lead = int(known.lead_d[day])
        noise, wide = rng.standard_normal(members), rng.standard_normal(members)
        if np.isnan(record.mean_c[day]):
            mean[day] = filler.mean_c[day] + left
            left = left * SEAM_PERSISTENCE
            half[day], error = filler.range_k[day] / 2, error * ERROR_PERSISTENCE
            continue
        by_run = runs.on(day) if runs is not None and lead > 0 else None
        sd = _forecast_sd_k(lead if by_run is None else 1)
        error = sd * noise if lead <= 1 else ERROR_PERSISTENCE * error + sd * np.sqrt(1 - ERROR_PERSISTENCE**2) * noise
        if by_run is not None:
            mean[day], half[day] = by_run[0] + error, by_run[1]
        else:
            mean[day] = record.mean_c[day] + (error if lead > 0 else 0.0)
            half[day] = record.range_k[day] / 2 * (np.clip(1 + RANGE_SD * wide, 0.4, 1.6) if lead > 0 else 1.0)
        left = (mean[day] - normal[day]) * SEAM_PERSISTENCE
    half = np.maximum(half, 0.5)
    unsure = SKY_SD * rng.standard_normal(shape) * (known.lead_d > 0)[:, None]
    record = replace(
        record,
        sun_share=np.clip(record.sun_share[:, None] + unsure, LEAST_SUN, MOST_SUN),
        rain_mm=record.rain_mm if runs is None else np.where(np.isnan(runs.rain_mm), record.rain_mm[:, None], runs.rain_mm),
    )
    rest = {
        name: np.where(np.isnan(wide := _wide(getattr(record, name))), _rest(known, filler, name), wide)
        for name in ("sun_share", "rain_mm", "wind_m_s", "snow_m")
    }
    return DailyRecord(record.first, mean - half, mean + half, **rest)


def _wide(values: Array) -> Array:
    return values if values.ndim == 2 else values[:, None]


def _rest(known: Known, filler: DailyRecord, name: str) -> Array:
    """Return sun, rain or wind of the scenario.

    They belong to its own temperatures, so days with known air stay nan.
    """
    air_known = np.isfinite(known.record.mean_c)
    values = np.broadcast_to(getattr(filler, name), filler.low_c.shape)
    return np.where(air_known[:, None], np.nan, values)


def _forecast_sd_k(lead_d: int) -> float:
    if lead_d <= 0:
        return 0.0
    return FORECAST_SD_K + FORECAST_GROWTH_K_PER_D * (min(lead_d, FORECAST_LAST_D) - 1)
