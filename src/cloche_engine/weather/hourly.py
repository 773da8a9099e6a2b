"""From a day's few numbers to its hours.

Temperature runs as a sine from sunrise to past noon and decays through the night to the next low [PartonLogan1981]; the sun is
the cloudless sun times the day's share, noted, measured or told by the daily range [HargreavesSamani1982].
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche_engine.errors import NotEnoughData
from cloche_engine.weather.record import DailyRecord, HourlyWeather, Site
from cloche_engine.weather.sky import SunPath, diffuse_share, saturation_kpa, sky_w_m2
from cloche_engine.weather.sun import HARGREAVES, day_length_h

Array = NDArray[np.float64]

PEAK_DELAY_H, NIGHT_DECAY = 1.8, 2.2
"""The day's high after solar noon [h], and how fast the evening cools [PartonLogan1981]."""
CLEAR_TRANSMISSION = 0.75
"""Share of the sun above the air that a cloudless day lets through [FAO56 eq. 37], less the height of the site."""
DRYNESS_FROM_K, DRYNESS_SLOPE, MOST_DRY_K = 9.0, 0.55, 9.0
"""Dew point below the day's low, growing with the daily range: dry air swings more (assumption)."""
LEAST_SUN, MOST_SUN = 0.12, 1.05
DULL, RAIN_MM_D = 0.5, 12.0
"""Cloud from which a day is taken to bring rain, and how much at full cloud (assumption)."""
SNOW_NOTED_H = 8
CALM_NIGHT = 0.45
"""Wind's share of its mean in the dark; the day has the rest (assumption)."""


def hours_of(record: DailyRecord, site: Site) -> HourlyWeather:
    """Return hourly weather for a daily record in which every day has a low and a high.

    Parameters
    ----------
    record : DailyRecord
        Daily weather.
    site : Site
        Where the garden lies.

    Raises
    ------
    NotEnoughData
        Otherwise.
    """
    if not len(record) or not np.isfinite(record.low_c).all() or not np.isfinite(record.high_c).all():
        raise NotEnoughData("Hourly weather needs the air's low and high of every day.")
    low, high = _column(record.low_c), _column(record.high_c)
    sun = site.sun(record.first, len(record))
    length = day_length_h(record.day_of_year, site.latitude_deg)
    noon_h = 12.0 + site.utc_h - site.longitude_deg / 15
    air = air_c(low, high, length, noon_h)
    share = sun_share(record, site)
    return assemble(site, sun, air, sun_w_m2=_hold(share) * sun.clear_w_m2[:, None], record=record)


def assemble(
    site: Site,
    sun: SunPath,
    air: Array,
    *,
    sun_w_m2: Array,
    record: DailyRecord,
    vapour_kpa: Array | None = None,
    wind_m_s: Array | None = None,
    sky_measured: Array | None = None,
    rain_mm: Array | None = None,
) -> HourlyWeather:
    """Add estimates of what was not measured: vapour, wind by day and night, and infrared from vapour and cloud.

    Parameters
    ----------
    site : Site
        Where the garden lies.
    sun : SunPath
        The sun's path at the site.
    air : ndarray
        Hourly air, (hours, members) [°C].
    sun_w_m2 : ndarray
        Sun on a level plane [W/m²].
    record : DailyRecord
        Daily weather.
    vapour_kpa : ndarray | None
        Vapour pressure of the air [kPa].
    wind_m_s : ndarray | None
        Wind [m/s].
    sky_measured : ndarray | None
        Measured infrared of the sky [W/m²]; None: not measured.
    rain_mm : ndarray | None
        Rain [mm]; nan: not measured.
    """
    vapour = vapour_of(record) if vapour_kpa is None else vapour_kpa
    vapour = np.minimum(vapour, saturation_kpa(air))
    wind = wind_of(record, site, sun) if wind_m_s is None else wind_m_s
    sky_in = sky_w_m2(air, vapour, cloud_of(sun_w_m2, sun))
    if sky_measured is not None:
        sky_in = np.where(np.isnan(sky_measured), sky_in, sky_measured)
    rain = rain_of(record, sun_w_m2, sun) if rain_mm is None else rain_mm
    diffuse = sun_w_m2 * diffuse_share(sun_w_m2, sun.extraterrestrial_w_m2[:, None])
    return HourlyWeather(record.first, sun, air, sun_w_m2, diffuse, sky_in, wind, vapour, rain, snow_of(record))


def air_c(low_c: Array, high_c: Array, day_length: Array, noon_h: float) -> Array:
    """Interpolate hourly air temperature, (days * 24, members), from lows and highs, (days, members) [°C].

    Parameters
    ----------
    low_c : ndarray
        Lows of the days [°C].
    high_c : ndarray
        Highs of the days [°C].
    day_length : ndarray
        Hours of light, (days,) [h].
    noon_h : float
        Hour of the highest sun in standard time.
    """
    days = len(low_c)
    light = np.clip(day_length, 6.0, 18.0)[:, None, None]
    rise, fall = noon_h - light / 2, noon_h + light / 2
    hour = (np.arange(24) + 0.5)[None, :, None]
    span = high_c - low_c
    quarter = light / 2 + PEAK_DELAY_H
    today = low_c[:, None, :] + span[:, None, :] * np.sin(np.pi / 2 * np.clip((hour - rise) / quarter, 0.0, 2.0))
    at_dusk = low_c + span * np.sin(np.pi / 2 * (light[:, 0] / quarter[:, 0]))
    before, after = np.maximum(np.arange(days) - 1, 0), np.minimum(np.arange(days) + 1, days - 1)
    night = 24.0 - light
    evening = _decay((hour - fall) / night, at_dusk[:, None, :], low_c[after][:, None, :])
    morning = _decay((hour + 24.0 - fall) / night, at_dusk[before][:, None, :], low_c[:, None, :])
    trajectory = np.where(hour < rise, morning, np.where(hour > fall, evening, today))
    return np.asarray(trajectory.reshape(days * 24, -1))


def _decay(part: Array, start_c: Array, end_c: Array) -> Array:
    """Interpolate from dusk (part 0) to the next low (part 1), falling fastest at first."""
    inside = np.clip(part, 0.0, 1.0)
    fading = (np.exp(-NIGHT_DECAY * inside) - np.exp(-NIGHT_DECAY)) / (1 - np.exp(-NIGHT_DECAY))
    return end_c + (start_c - end_c) * fading


def sun_share(record: DailyRecord, site: Site) -> Array:
    """Return the daily fraction of clear-sky sun, (days, members).

    It is as recorded, or else estimated from the daily range.

    Parameters
    ----------
    record : DailyRecord
        Daily weather.
    site : Site
        Where the garden lies.
    """
    clear = CLEAR_TRANSMISSION + 2e-5 * site.elevation_m
    by_range = HARGREAVES * np.sqrt(np.clip(_column(record.range_k), 0.0, None)) / clear
    known = _column(record.sun_share)
    return np.clip(np.where(np.isnan(known), by_range, known), LEAST_SUN, MOST_SUN)


def rain_of(record: DailyRecord, sun_w_m2: Array, sun: SunPath) -> Array:
    """Return hourly rain [mm].

    Days without a measurement receive what a sky as cloudy as theirs usually brings.

    Parameters
    ----------
    record : DailyRecord
        Daily weather.
    sun_w_m2 : ndarray
        Sun on a level plane [W/m²].
    sun : SunPath
        The sun's path at the site.
    """
    measured = _hold(_column(record.rain_mm)) / 24
    guess = np.maximum(cloud_of(sun_w_m2, sun) - DULL, 0.0) * (RAIN_MM_D / 24)
    return np.where(np.isnan(measured), guess, measured)


def snow_of(record: DailyRecord) -> Array:
    """Return the snow depth recorded in the morning at that hour [m], nan at all others.

    Parameters
    ----------
    record : DailyRecord
        Daily weather.
    """
    noted = _column(record.snow_m)
    hours = np.full((len(noted) * 24, noted.shape[1]), np.nan)
    hours[SNOW_NOTED_H::24] = noted
    return hours


def vapour_of(record: DailyRecord) -> Array:
    """Return the hourly vapour pressure from the day's low [kPa].

    The air is close to saturation at the low, and drier where the daily range is large.

    Parameters
    ----------
    record : DailyRecord
        Daily weather.
    """
    dryness = np.clip((_column(record.range_k) - DRYNESS_FROM_K) * DRYNESS_SLOPE, 0.0, MOST_DRY_K)
    return np.repeat(saturation_kpa(_column(record.low_c) - dryness), 24, axis=0)


def wind_of(record: DailyRecord, site: Site, sun: SunPath) -> Array:
    """Return the hourly wind [m/s], with the recorded or usual daily mean and calmer nights.

    Parameters
    ----------
    record : DailyRecord
        Daily weather.
    site : Site
        Where the garden lies.
    sun : SunPath
        The sun's path at the site.
    """
    known = _column(record.wind_m_s)
    mean = np.repeat(np.where(np.isnan(known), site.wind_m_s, known), 24, axis=0)
    light = np.clip(np.sin(sun.elevation_rad), 0.0, None).reshape(-1, 24)
    shape = light / np.maximum(light.mean(axis=1, keepdims=True), 1e-6)
    lit = (CALM_NIGHT + (1 - CALM_NIGHT) * np.minimum(shape, 3.0)).reshape(-1, 1)
    return np.asarray(mean * lit)


def cloud_of(sun_w_m2: Array, sun: SunPath) -> Array:
    """Return hourly cloud cover from the fraction of clear-sky sun, 0-1.

    Nights take that of the adjacent days.

    Parameters
    ----------
    sun_w_m2 : ndarray
        Sun on a level plane [W/m²].
    sun : SunPath
        The sun's path at the site.
    """
    days = sun.days
    clear = sun.clear_w_m2.reshape(days, 24).sum(axis=1)
    got = sun_w_m2.reshape(days, 24, -1).sum(axis=1)
    enough = clear > 300.0
    share = np.where(enough[:, None], got / np.maximum(clear, 1.0)[:, None], np.nan)
    if not enough.any():
        return np.full((days * 24, 1), 0.5)  # polar night tells nothing of cloud
    index = np.arange(days)
    filled = np.stack([np.interp(index, index[enough], column[enough]) for column in share.T], axis=1)
    cloud = np.clip(1.0 - filled, 0.0, 1.0)
    position = np.clip((np.arange(days * 24) + 0.5) / 24 - 0.5, 0, days - 1)
    below = np.minimum(position.astype(np.intp), max(days - 2, 0))
    part = (position - below)[:, None]
    return np.asarray(cloud[below] * (1 - part) + cloud[np.minimum(below + 1, days - 1)] * part)


def _hold(daily: Array) -> Array:
    return np.repeat(daily, 24, axis=0)


def _column(values: Array) -> Array:
    return values if values.ndim == 2 else values[:, None]
