"""The made-up sky over the demo's world: every site has one history, the same whoever asks and whenever."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from cloche.demo.nature import Array, Climate, filtered
from cloche.demo.plan import HILL, SOUTH
from cloche_engine.site.estimate import normals_at

BEGINS = date(1995, 1, 1)
WET_DAYS, RAIN_MM = 0.35, 6.0


@dataclass(frozen=True)
class History:
    """Weather from BEGINS on, (days,): lows and highs [°C], rain [mm] and wind at 2 m [m/s]."""

    low_c: Array
    high_c: Array
    rain_mm: Array
    wind_m_s: Array

    def rows(self, first: date, last: date) -> slice:
        """Return the slice of days from first to last."""
        return slice((first - BEGINS).days, (last - BEGINS).days + 1)


def climate_at(latitude_deg: float, longitude_deg: float, elevation_m: float) -> Climate:
    """Return the climate of a demo garden, or a sine wave through that of the shipped grid elsewhere."""
    for plan in (HILL, SOUTH):
        if abs(plan.latitude_deg - latitude_deg) < 0.2 and abs(plan.longitude_deg - longitude_deg) < 0.2:
            return plan.climate
    usual = normals_at(latitude_deg, longitude_deg, elevation_m)
    months = (np.arange(12) + 0.5) / 12
    wave = 2 * complex(np.mean(usual.mean_c * np.exp(-2j * np.pi * months)))
    warmest_day = round(-np.angle(wave) / (2 * np.pi) * 365.25) % 365
    range_k = float(np.mean(usual.high_c - usual.low_c))
    return Climate(float(np.mean(usual.mean_c)), abs(wave), warmest_day, range_k, latitude_deg)


def history(latitude_deg: float, longitude_deg: float, climate: Climate, last: date, seed: int = 7) -> History:
    """Generate every day from BEGINS to `last`. A later end adds days without changing any."""
    days = (last - BEGINS).days + 1
    key = [seed, round(abs(latitude_deg) * 10), round(abs(longitude_deg) * 10), int(latitude_deg < 0), int(longitude_deg < 0)]
    spell_stream, clear_stream, rain_stream, wind_stream = (np.random.default_rng([*key, part]) for part in range(4))
    day_of_year = np.array([(BEGINS + timedelta(days=i)).timetuple().tm_yday for i in range(days)], dtype=np.float64)
    usual = climate.mean_c + climate.half_swing_k * np.cos(2 * np.pi * (day_of_year - climate.warmest_day) / 365.25)
    spells = filtered([1.0], [1.0, -0.74], spell_stream.normal(0, 2.2, days))
    # Clear days swing more, wet ones less.
    clear = np.clip(filtered([0.6], [1.0, -0.4], clear_stream.normal(1.0, 0.45, days)), 0.35, 1.8)
    half = climate.range_k / 2 * clear
    chance, amount = rain_stream.random((days, 2)).T
    wet = chance < WET_DAYS * np.clip(2.0 - clear, 0.2, 2.0)
    # The wet days of a mild, changeable spell are the windy ones.
    blows = np.where(wet, 2.6, 1.7) * np.exp(0.45 * filtered([0.8], [1.0, -0.6], wind_stream.normal(0, 1, days)))
    rain = np.where(wet, -RAIN_MM * np.log1p(-amount), 0.0)
    return History(usual + spells - half, usual + spells + half, rain, np.minimum(blows, 16.0))
