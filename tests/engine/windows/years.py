"""Plain years for checks on windows: a wave through the seasons, soil that follows air, members a little apart."""

from __future__ import annotations

from datetime import date

import numpy as np

from cloche_engine.weather.record import DailyRecord
from cloche_engine.windows.season import Bed, Season

DAYS, MEMBERS = 430, 12
CANDIDATES = np.arange(0, 240)
FIRST = date(2026, 3, 1)
HOUR = np.arange(24)


def bed(
    mean_c: float = 9.0,
    half_swing_k: float = 10.0,
    *,
    latitude_deg: float = 48.0,
    first: date = FIRST,
    shelter_k: float = 0.0,
    soil_swing_k: float = 3.0,
    spread_k: float = 0.7,
    soil_shift_k: float = 1.0,
    members: int = MEMBERS,
) -> Bed:
    """A year from `first`; south of the equator the wave is half a year apart. spread_k: between members."""
    warmest = 203 if latitude_deg >= 0 else 203 - 182.5
    doy = first.timetuple().tm_yday + np.arange(DAYS)
    season = mean_c + half_swing_k * np.cos(2 * np.pi * (doy - warmest) / 365.0)
    mean = season[:, None] + np.linspace(-spread_k, spread_k, members)[None, :]
    soil = np.repeat(mean + soil_shift_k, 24, axis=0)
    soil = soil + np.tile(soil_swing_k * np.cos(2 * np.pi * (HOUR - 16) / 24), DAYS)[:, None]
    air = DailyRecord.of(first, mean - 6.5 + shelter_k, mean + 5)
    return Bed.of(np.clip(soil, -8, 45)[: 310 * 24], Season.of(air, latitude_deg))
