"""The soil engine as one function that any weather station can be scored with.

`predict` sees the weather of the whole period and the readings up to the forecast's start, nothing else.
"""

from __future__ import annotations

from datetime import date

import numpy as np
import pandas as pd

from cloche_engine.soil.bed import Bed
from cloche_engine.soil.calibrate import learn
from cloche_engine.soil.physical import run
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.readings import Readings
from cloche_engine.weather.hourly import assemble, hours_of, sun_share
from cloche_engine.weather.normals import guess_from_latitude
from cloche_engine.weather.record import DailyRecord, HourlyWeather, Site
from cloche_engine.weather.sky import saturation_kpa

MEMBERS = 80


def predict(
    weather: pd.DataFrame,
    readings: pd.DataFrame,
    target_times: pd.DatetimeIndex,
    depth_m: float,
    lat: float,
    lon: float,
) -> np.ndarray:
    """Soil temperature at target_times [°C], (len(target_times),).

    weather: hourly TA [°C] and, where known, SW_IN, LW_IN [W/m²], WS [m/s], RH [%], P [mm]; or daily TMIN, TMAX and, where
    known, P. Naive local standard time, hours by their centre; covers history, calibration and target. weather.attrs:
    elev [m], utc [h]. readings: column T [°C], same clock, taken at depth_m; all of them before the first target time.
    lat, lon: degrees, north and east positive.
    """
    return members(weather, readings, target_times, depth_m, lat, lon).mean(axis=1)


def members(
    weather: pd.DataFrame,
    readings: pd.DataFrame,
    target_times: pd.DatetimeIndex,
    depth_m: float,
    lat: float,
    lon: float,
) -> np.ndarray:
    """The same as (len(target_times), MEMBERS): equally likely courses, for the band."""
    utc_h = float(weather.attrs.get("utc", round(lon / 15)))
    site = Site(lat, lon, float(weather.attrs.get("elev", 100.0)), utc_h)
    hourly = _hourly(weather, site)
    day_0 = pd.Timestamp(hourly.first)
    hour = _hours(pd.DatetimeIndex(readings.index), day_0)
    known = Readings(hour, np.full(len(hour), depth_m), readings["T"].to_numpy(float))
    place = Place(Bed(), _wave(hourly, site))
    trajectory = run(place, learn(place, hourly, known), hourly, [depth_m], MEMBERS, seed=1).at(depth_m)
    centre = np.arange(len(trajectory)) + 0.5
    wanted = _hours(target_times, day_0)
    return np.stack([np.interp(wanted, centre, member) for member in trajectory.T], axis=1)


def _wave(hourly: HourlyWeather, site: Site) -> AnnualWave:
    """The year by latitude, moved to where the weather of these weeks lies."""
    guess = guess_from_latitude(site.latitude_deg, site.elevation_m)
    first = hourly.first.timetuple().tm_yday
    season = guess.mean_on(first + np.arange(len(hourly)) / 24)
    return AnnualWave.of_months(guess.mean_c + float(np.mean(hourly.air_c[:, 0] - season)))


def _hours(times: pd.DatetimeIndex, day_0: pd.Timestamp) -> np.ndarray:
    return ((times - day_0) / pd.Timedelta(hours=1)).to_numpy(float)


def _hourly(weather: pd.DataFrame, site: Site) -> HourlyWeather:
    """Missing hours and days are bridged between their neighbours."""
    if "TMIN" in weather:
        daily = weather.asfreq("D")
        daily[["TMIN", "TMAX"]] = daily[["TMIN", "TMAX"]].interpolate(limit_direction="both")
        return hours_of(_record(daily, daily.index[0].date()), site)
    last = weather.index[-1] + pd.Timedelta(minutes=29)
    full = pd.date_range(weather.index[0].floor("D"), last.ceil("D"), freq="h", inclusive="left") + pd.Timedelta(minutes=30)
    hours = _at_centres(weather, full)
    air = hours["TA"].interpolate(limit_direction="both").to_numpy(float)[:, None]
    first = full[0].date()
    grouped = pd.Series(air[:, 0], full).resample("D")
    daily = pd.DataFrame({"TMIN": grouped.min(), "TMAX": grouped.max()})
    record = _record(daily, first)
    sun = site.sun(first, len(record))
    by_range = np.repeat(sun_share(record, site), 24, axis=0) * sun.clear_w_m2[:, None]
    return assemble(
        site,
        sun,
        air,
        record=record,
        sun_w_m2=_or(hours, "SW_IN", by_range),
        vapour_kpa=None if "RH" not in hours else saturation_kpa(air) * _or(hours, "RH", np.full_like(air, 60.0)) / 100,
        wind_m_s=None if "WS" not in hours else _or(hours, "WS", np.full_like(air, 2.0)),
        rain_mm=None if "P" not in hours else _or(hours, "P", np.zeros_like(air)),
        sky_measured=None if "LW_IN" not in hours else hours["LW_IN"].to_numpy(float)[:, None],
    )


def _at_centres(weather: pd.DataFrame, centres: pd.DatetimeIndex) -> pd.DataFrame:
    """Columns at the centres of whole hours, between stamps less than two hours apart; nan elsewhere."""
    both = weather.index.union(centres)
    wide = weather.reindex(both)
    near = wide.interpolate("time", limit_area="inside")
    known = weather.notna().reindex(both).fillna(False).astype(float)
    close = (known.rolling("121min", center=True).sum() >= 1) | known.astype(bool)
    return near.where(close).reindex(centres)


def _or(hours: pd.DataFrame, name: str, otherwise: np.ndarray) -> np.ndarray:
    """A column where it was measured, else something else; never below zero."""
    if name not in hours:
        return otherwise
    values = hours[name].to_numpy(float)[:, None]
    return np.maximum(np.where(np.isnan(values), otherwise, values), 0.0)


def _record(daily: pd.DataFrame, first: date) -> DailyRecord:
    rain = daily["P"].to_numpy(float)[:, None] if "P" in daily else None
    return DailyRecord.of(first, daily[["TMIN"]].to_numpy(float), daily[["TMAX"]].to_numpy(float), None, rain)
