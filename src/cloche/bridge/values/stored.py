"""A finished forecast as plain values: what is stored, and what the pages draw."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class PlaceForecast:
    """near: hourly at seed depth around today; field: by depth every two hours; far: daily means; outside, inside: hourly air
    around today, inside where something stands over the place.

    checks: how earlier readings were met: days ahead, how many, error [K], share within the band. strange, weights: by
    reading, how far it lies from all others [K], and how much it weighs against an ordinary one. parameters: what was learned,
    as low, middle, high of a factor or of kelvin; wetter: of the wetness lately added to what the records tell, more than
    before. frosts: see `bridge.services.frosts.plain`. cover_evidence: see `bridge.services.pooling`. spread: how far apart
    the courses lie by the hour, of the day before (rows are depths), as standard deviation [K]."""

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
    weights: dict[str, float]
    checks: list[list[float]]
    parameters: dict[str, list[float]]
    weather_days: int
    normals_source: str
    normals_years: int
    replayed_years: int
    frosts: dict[str, Any]
    cover_evidence: dict[str, Any]
    spread_start: str
    spread_depths_m: list[float]
    spread_k: list[list[float]]


@dataclass(frozen=True)
class CropDays:
    """One crop's outlook, sown in place or planted out (way); better: whether that is the way that suits the place. Dates as
    ISO text, shares 0-1, None for never. half_d, share, fails_now: if sown today. hopeless: nobody grows it that way there.
    members: days until half are up in each course in which it succeeds, (days, members) packed as DAYS; days holds tables
    packed as TENTHS and SHARES."""

    crop_key: str
    method: str
    better: bool
    windows: list[dict[str, Any]]
    sow_now: bool
    main_limit: str
    half_d: float | None
    share: float
    fails_now: float
    hopeless: bool
    ribbon: dict[str, list[Any]]
    days: dict[str, Any]
    members: str
    sowing_rules: list[dict[str, Any]]
