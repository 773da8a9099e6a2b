"""The soil model as one function that any weather station can be scored with.

`predict` sees the weather of the whole period and the readings up to the forecast's start, nothing else.
"""

from __future__ import annotations

import numpy as np
import pandas as pd

from cloche.core.soil.ground import Readings, Site
from cloche.core.soil.lagged import LaggedResponse
from cloche.core.weather.scenarios import DailyAir

MEMBERS = 200


def predict(
    weather: pd.DataFrame,
    readings: pd.DataFrame,
    target_times: pd.DatetimeIndex,
    depth_m: float,
    lat: float,
    lon: float,
) -> np.ndarray:
    """Soil temperature at target_times [°C], (len(target_times),).

    weather: hourly TA [°C] (other columns are not used by this model) or daily TMIN, TMAX; naive local standard time, hours
    by their centre; covers history, calibration and target. weather.attrs: elev [m], utc [h].
    readings: column T [°C], same clock, taken at depth_m; all of them before the first target time.
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
    daily = _daily(weather)
    day_0 = daily.index[0]
    air = DailyAir(day_0.day_of_year, daily[["TMIN"]].to_numpy(float), daily[["TMAX"]].to_numpy(float))
    site = Site(lat, 12.0 + float(weather.attrs.get("utc", round(lon / 15))) - lon / 15)
    hour = _hours(pd.DatetimeIndex(readings.index), day_0)
    known = Readings(hour, np.full(len(hour), depth_m), readings["T"].to_numpy(float))
    ground = LaggedResponse().learn("open", site, air, known)
    shared = DailyAir(air.first_day_of_year, np.repeat(air.low_c, MEMBERS, 1), np.repeat(air.high_c, MEMBERS, 1))
    run = ground.run(shared, depth_m, np.random.default_rng(1))
    centre = np.arange(len(run)) + 0.5
    wanted = _hours(target_times, day_0)
    return np.stack([np.interp(wanted, centre, member) for member in run.T], axis=1)


def _hours(times: pd.DatetimeIndex, day_0: pd.Timestamp) -> np.ndarray:
    return ((times - day_0) / pd.Timedelta(hours=1)).to_numpy(float)


def _daily(weather: pd.DataFrame) -> pd.DataFrame:
    """Daily lows and highs without gaps: missing days are bridged between their neighbours."""
    if "TMIN" in weather:
        daily = weather[["TMIN", "TMAX"]]
    else:
        grouped = weather["TA"].resample("D")
        daily = pd.DataFrame({"TMIN": grouped.min(), "TMAX": grouped.max()})
    return daily.asfreq("D").interpolate(limit_direction="both")
