"""What would come of each crop in a place whose course is known."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date, timedelta
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cloche.bridge.crops import Crop
from cloche.bridge.plain import CropDays, short
from cloche.core.soil.simulate import Course
from cloche.core.weather.record import DailyRecord
from cloche.core.windows.outlook import HALF, Bed, Outlook, Window, main_limit, outlook

SOWING_DEPTHS_M = (0.013, 0.025, 0.045, 0.10)
"""Crops are judged at the nearest of these, so that a place is read four times, not thirty."""
CANDIDATES = np.concatenate([np.arange(0, 30), np.arange(30, 273, 3)])
PLANT_COLDER_K = 1.5
"""Air among seedlings in the open is colder than at screen height on clear nights [K] (assumption, low side of 2-4)."""


def plant_air(course: Course, weather: DailyRecord, covered: bool) -> DailyRecord:
    """Daily air as plants feel it: nights at their height, under their cover; beyond the course those of the site.

    weather: (days, members) from the course's first day. Highs are the site's: covers come off before summer's heat.
    """
    low = weather.low_c - PLANT_COLDER_K
    if covered:
        days = len(course.air_c) // 24
        shape = (days, 24, course.air_c.shape[1])
        # Leaves under a cover face it as much as the air.
        felt = np.minimum(course.air_c, (course.air_c + course.cover_c) / 2).reshape(shape)
        low[:days] = felt.min(axis=1)
    return DailyRecord.of(weather.first, low, weather.high_c)


def depth_for(crop: Crop) -> float:
    """Where its seed or set is judged to lie [m]."""
    return min(SOWING_DEPTHS_M, key=lambda depth: abs(depth - crop.sowing_depth_m))


def crop_days(crops: list[Crop], soil_c: dict[float, NDArray[np.float64]], air: DailyRecord, today: date) -> list[CropDays]:
    """soil_c: hourly by `depth_for` each crop, (hours, members), from midnight of today; air: of the same days and more."""
    beds = {depth: Bed.of(hourly, air) for depth, hourly in soil_c.items()}
    return [_plain(outlook(crop, beds[depth_for(crop)], CANDIDATES), today) for crop in crops]


def _plain(found: Outlook, today: date) -> CropDays:
    windows = [_plain_window(window, today) for window in found.windows]
    thin = np.arange(0, len(found.sow_day), 2)
    return CropDays(
        crop_key=found.crop.key,
        windows=windows,
        sow_now=any(window.earliest == 0 for window in found.windows),
        main_limit="" if windows else str(main_limit(found)),
        half_d=short(found.days_to[HALF, 1, :1])[0],
        share=float(found.share[1, 0]),
        ribbon={
            "day": found.sow_day[thin].tolist(),
            "success": short(found.success[thin], 2),
            "soil_c": short(found.soil_c[thin]),
        },
        days={
            "day": found.sow_day.tolist(),
            "success": short(found.success, 3),
            "days_to": [[short(band) for band in fraction] for fraction in found.days_to],
            "share": [short(band, 3) for band in found.share],
            "soil_c": short(found.soil_c),
            "failing": {str(limit): short(values, 3) for limit, values in found.failing.items()},
        },
    )


def _plain_window(window: Window, today: date) -> dict[str, Any]:
    plain = asdict(window)
    for key in ("earliest", "best_from", "best_to", "last"):
        plain[key] = (today + timedelta(days=plain[key])).isoformat()
    for key in ("opens_after", "closes_before"):
        plain[key] = plain[key] and str(plain[key])
    return plain
