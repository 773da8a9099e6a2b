"""Growth and watering of plants in trays."""

from __future__ import annotations

from datetime import date

import numpy as np

from cloche.bridge.services.crops import crop
from cloche_engine.soil.watering import COLD_TAP_C, TEMPERED_C, back_h, dipped_c
from cloche_engine.windows.growth import growth_index, light_share

ROOTS = 0.5
"""Share of growth's warmth that is the roots', the rest the air's: cabled beds keep salads growing in cold air (assumption)."""


def growth_days(crop_key: str, air_c: list[float], roots_c: list[float], first: date, latitude_deg: float) -> float:
    """Return the equivalent days of full growth from air and root temperatures and seasonal light.

    Both lists hold one value a day and have the same length.
    """
    warmth = (1 - ROOTS) * np.array(air_c) + ROOTS * np.array(roots_c)
    day = first.timetuple().tm_yday + np.arange(len(warmth))
    growth = np.minimum(growth_index(warmth, crop(crop_key)), light_share(day, latitude_deg))
    return round(float(growth.sum()), 1)


TRAY_M2, TRAY_DEPTH_M = 0.091, 0.05
"""A seed tray of 38 by 24 cm with 5 cm of mix."""

__all__ = ["COLD_TAP_C", "TEMPERED_C", "TRAY_DEPTH_M", "TRAY_M2", "back_h", "dipped_c"]
