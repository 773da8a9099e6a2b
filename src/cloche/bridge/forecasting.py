"""From a place's evidence to everything the pages draw of its future. Pure: same evidence, same answer to the digit."""

from __future__ import annotations

import math
from dataclasses import asdict, dataclass
from datetime import UTC, date, datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from cloche.bridge import crops as crop_rows
from cloche.bridge.clocks import standard_offset_h
from cloche.bridge.layout import FIELD_STEP_H, MEMBERS
from cloche.core.soil.ground import KnownGround, Readings, Site
from cloche.core.soil.lagged import LaggedResponse
from cloche.core.weather.normals import Normals, from_record, guess_from_latitude
from cloche.core.weather.scenarios import DailyAir, scenarios
from cloche.core.windows.outlook import HALF, Bed, Outlook, Window, main_limit, outlook

PAST_D = 60
HORIZON_D = 430
"""The last day to sow that is looked at, a slow crop's emergence and the longest growing time behind it."""
NEAR_PAST_D, NEAR_D = 21, 14
FIELD_DEPTHS_M = (0.0, 0.03, 0.06, 0.10, 0.15, 0.22, 0.32, 0.45)
SOWING_DEPTHS_M = (0.013, 0.025, 0.045)
"""Crops are judged at the nearest of these, so that a place is run three times, not thirty."""
CANDIDATES = np.concatenate([np.arange(0, 30), np.arange(30, 273, 3)])
BAND = (0.1, 0.5, 0.9)
STRANGE_K = 5.0
"""A reading further than this from the course fitted to all of them is asked about."""

GROUND = {"open": "open", "raised": "open", "mulched": "mulched", "fleece": "fleece"}
GROUND |= {"tunnel": "covered", "arch": "covered", "frame": "covered", "bell": "covered"}
GROUND |= {"mat": "heated", "cable": "heated", "hotbed": "heated"}
SHELTER_K = {"fleece": 2.0, "tunnel": 1.5, "arch": 2.5, "frame": 3.0, "bell": 2.0, "mat": 10.0, "cable": 4.0, "hotbed": 4.0}
"""How much warmer a cover keeps seedlings on a frosty night (assumption)."""


@dataclass(frozen=True)
class Evidence:
    """All that a place's forecast rests on. Temperatures [°C], depths [m], instants aware, days local."""

    kind: str
    seed_depth_m: float
    latitude_deg: float
    longitude_deg: float
    elevation_m: float
    timezone: ZoneInfo
    today: date
    readings: list[tuple[int, datetime, float, float]]
    weather: list[tuple[date, float, float]]
    typed_normals: tuple[list[float], list[float]] | None
    seed: int


@dataclass(frozen=True)
class PlaceForecast:
    """Plain values. near: hourly at seed depth around today; field: by depth every two hours; far: daily means."""

    day: str
    start: str
    depth_m: float
    near_low_c: list[float]
    near_mid_c: list[float]
    near_high_c: list[float]
    field_depths_m: list[float]
    field_c: list[list[float]]
    far_low_c: list[float]
    far_mid_c: list[float]
    far_high_c: list[float]
    band_k: dict[str, float]
    readings_used: int
    strange: dict[str, float]
    weather_days: int
    normals_source: str
    normals_years: int


@dataclass(frozen=True)
class CropDays:
    """Plain values of one crop's outlook: dates as ISO text, shares 0-1, None for never. half_d, share: if sown today."""

    crop_key: str
    windows: list[dict[str, Any]]
    sow_now: bool
    main_limit: str
    half_d: float | None
    share: float
    ribbon: dict[str, list[Any]]
    days: dict[str, Any]


def forecast(evidence: Evidence) -> tuple[PlaceForecast, list[CropDays]]:
    """Learn the place and run it over the coming year."""
    day_0 = evidence.today - timedelta(days=PAST_D)
    normals = site_normals(evidence)
    known = _known_air(evidence, day_0)
    rng = np.random.default_rng(evidence.seed)
    air = scenarios(known, normals, PAST_D, MEMBERS, rng)
    hour_0 = _midnight(evidence, day_0)
    readings, numbers = _readings(evidence, hour_0)
    site = Site(evidence.latitude_deg, 12.0 + standard_offset_h(evidence.timezone, day_0) - evidence.longitude_deg / 15)
    ground = LaggedResponse().learn(GROUND[evidence.kind], site, air, readings)
    soil = _run(ground, air, evidence.seed_depth_m, evidence.seed)
    place = _place_forecast(evidence, ground, air, soil, normals, known, readings, numbers, hour_0)
    return place, _crop_days(evidence, ground, air)


def site_normals(evidence: Evidence) -> Normals:
    """Typed normals first, else from the site's own days, else the guess from latitude."""
    guess = guess_from_latitude(evidence.latitude_deg, evidence.elevation_m)
    if evidence.typed_normals:
        low, high = (np.array(values) for values in evidence.typed_normals)
        return Normals(low, high, guess.day_sd_k, "typed")
    past = [row for row in evidence.weather if row[0] <= evidence.today]
    if not past:
        return guess
    month = np.array([day.month for day, _, _ in past])
    return from_record(month, np.array([r[1] for r in past]), np.array([r[2] for r in past]), guess)


def _midnight(evidence: Evidence, day: date) -> datetime:
    hours = standard_offset_h(evidence.timezone, day)
    return datetime(day.year, day.month, day.day, tzinfo=UTC) - timedelta(hours=hours)


def _known_air(evidence: Evidence, day_0: date) -> DailyAir:
    days = PAST_D + HORIZON_D
    low, high = np.full(days, np.nan), np.full(days, np.nan)
    for day, low_c, high_c in evidence.weather:
        index = (day - day_0).days
        if 0 <= index < days:
            low[index], high[index] = low_c, high_c
    return DailyAir(day_0.timetuple().tm_yday, low, high)


def _readings(evidence: Evidence, hour_0: datetime) -> tuple[Readings, list[int]]:
    rows = [row for row in evidence.readings if row[1] >= hour_0]
    hour = np.array([(at - hour_0) / timedelta(hours=1) for _, at, _, _ in rows])
    depth, value = np.array([row[2] for row in rows]), np.array([row[3] for row in rows])
    return Readings(hour, depth, value), [row[0] for row in rows]


def _run(ground: KnownGround, air: DailyAir, depth_m: float, seed: int) -> NDArray[np.float64]:
    # The same stream at every depth: a member is one course of events, seen at several depths.
    return np.clip(ground.run(air, depth_m, np.random.default_rng(seed)), -29.0, 59.0)


def _place_forecast(
    evidence: Evidence,
    ground: KnownGround,
    air: DailyAir,
    soil: NDArray[np.float64],
    normals: Normals,
    known: DailyAir,
    readings: Readings,
    numbers: list[int],
    hour_0: datetime,
) -> PlaceForecast:
    first, last = PAST_D - NEAR_PAST_D, PAST_D + NEAR_D
    near = np.quantile(soil[first * 24 : last * 24], BAND, axis=1)
    daily = soil.reshape(len(air.low_c), 24, -1).mean(axis=1)
    far = np.quantile(daily[PAST_D:], BAND, axis=1)
    surprise = ground.surprise_k()
    strange = (
        {str(n): float(s) for n, s in zip(numbers, surprise - np.median(surprise), strict=True) if abs(s) > STRANGE_K}
        if len(numbers)
        else {}
    )
    width = (far[2] - far[0]) / 2
    return PlaceForecast(
        day=evidence.today.isoformat(),
        start=(hour_0 + timedelta(days=first)).isoformat(),
        depth_m=evidence.seed_depth_m,
        near_low_c=_short(near[0]),
        near_mid_c=_short(near[1]),
        near_high_c=_short(near[2]),
        field_depths_m=list(FIELD_DEPTHS_M),
        field_c=_field(ground, air, evidence.seed, first, last),
        far_low_c=_short(far[0]),
        far_mid_c=_short(far[1]),
        far_high_c=_short(far[2]),
        band_k={"1": float(width[1]), "3": float(width[3]), "7": float(width[7]), "14": float(width[14])},
        readings_used=len(readings),
        strange=strange,
        weather_days=int(np.isfinite(known.low_c[PAST_D - 14 : PAST_D + 1]).sum()),
        normals_source=normals.source,
        normals_years=normals.years,
    )


def _field(ground: KnownGround, air: DailyAir, seed: int, first: int, last: int) -> list[list[float]]:
    """Mean soil by depth and every two hours around today: rows are depths."""
    few = DailyAir(air.first_day_of_year, air.low_c[:last, :16], air.high_c[:last, :16])
    rows = []
    for depth_m in FIELD_DEPTHS_M:
        course = _run(ground, few, max(depth_m, 0.005), seed)[first * 24 :].mean(axis=1)
        rows.append(_short(course.reshape(-1, FIELD_STEP_H).mean(axis=1)))
    return rows


def _crop_days(evidence: Evidence, ground: KnownGround, air: DailyAir) -> list[CropDays]:
    ahead = DailyAir(int(air.day_of_year[PAST_D]), air.low_c[PAST_D:], air.high_c[PAST_D:])
    shelter_k = SHELTER_K.get(evidence.kind, 0.0)
    beds = {
        depth_m: Bed.of(_run(ground, air, depth_m, evidence.seed)[PAST_D * 24 :], ahead, shelter_k)
        for depth_m in SOWING_DEPTHS_M
    }
    result = []
    for crop in crop_rows.crops():
        depth_m = min(SOWING_DEPTHS_M, key=lambda d: abs(d - crop.sowing_depth_m))
        result.append(_plain(outlook(crop, beds[depth_m], CANDIDATES), evidence.today))
    return result


def _plain(found: Outlook, today: date) -> CropDays:
    windows = [_plain_window(window, today) for window in found.windows]
    thin = np.arange(0, len(found.sow_day), 2)
    return CropDays(
        crop_key=found.crop.key,
        windows=windows,
        sow_now=any(window.earliest == 0 for window in found.windows),
        main_limit="" if windows else str(main_limit(found)),
        half_d=_short(found.days_to[HALF, 1, :1])[0],
        share=float(found.share[1, 0]),
        ribbon={
            "day": found.sow_day[thin].tolist(),
            "success": _short(found.success[thin], 2),
            "soil_c": _short(found.soil_c[thin]),
        },
        days={
            "day": found.sow_day.tolist(),
            "success": _short(found.success, 3),
            "days_to": [[_short(band) for band in fraction] for fraction in found.days_to],
            "share": [_short(band, 3) for band in found.share],
            "soil_c": _short(found.soil_c),
            "failing": {str(limit): _short(values, 3) for limit, values in found.failing.items()},
        },
    )


def _plain_window(window: Window, today: date) -> dict[str, Any]:
    plain = asdict(window)
    for key in ("earliest", "best_from", "best_to", "last"):
        plain[key] = (today + timedelta(days=plain[key])).isoformat()
    for key in ("opens_after", "closes_before"):
        plain[key] = plain[key] and str(plain[key])
    return plain


def _short(values: NDArray[np.float64], digits: int = 2) -> list[Any]:
    """For storage only: hundredths are finer than any probe. inf becomes None."""
    return [round(float(v), digits) if math.isfinite(v) else None for v in values]
