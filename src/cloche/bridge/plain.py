"""A finished forecast as plain values: what is stored, and what the pages draw."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray


@dataclass(frozen=True)
class PlaceForecast:
    """near: hourly at seed depth around today; field: by depth every two hours; far: daily means; outside, inside: hourly air
    around today, inside where something stands over the place.

    checks: how earlier readings were met: days ahead, how many, error [K], share within the band. character: what was learned,
    as low, middle, high of a factor or of kelvin; wetter: of the wetness lately added to
    what the records tell, more than before.
    """

    day: str
    start: str
    depth_m: float
    near_low_c: list[float]
    near_mid_c: list[float]
    near_high_c: list[float]
    field_depths_m: list[float]
    field_c: list[list[float]]
    outside_c: list[float]
    inside_low_c: list[float]
    inside_mid_c: list[float]
    inside_high_c: list[float]
    far_low_c: list[float]
    far_mid_c: list[float]
    far_high_c: list[float]
    band_k: dict[str, float]
    readings_used: int
    strange: dict[str, float]
    checks: list[list[float]]
    character: dict[str, list[float]]
    weather_days: int
    normals_source: str
    normals_years: int
    replayed_years: int


@dataclass(frozen=True)
class CropDays:
    """One crop's outlook: dates as ISO text, shares 0-1, None for never. half_d, share: if sown today."""

    crop_key: str
    windows: list[dict[str, Any]]
    sow_now: bool
    main_limit: str
    half_d: float | None
    share: float
    ribbon: dict[str, list[Any]]
    days: dict[str, Any]


def short(values: NDArray[np.floating], digits: int = 2) -> list[Any]:
    """For storage only: hundredths are finer than any probe. inf becomes None."""
    return [round(float(v), digits) if math.isfinite(v) else None for v in values]
