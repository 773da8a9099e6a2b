"""What the rooms need of the core about watering trays."""

from __future__ import annotations

from cloche.core.soil.watering import COLD_TAP_C, TEMPERED_C, back_h, dipped_c

TRAY_M2, TRAY_DEPTH_M = 0.091, 0.05
"""A seed tray of 38 by 24 cm with 5 cm of mix."""

__all__ = ["COLD_TAP_C", "TEMPERED_C", "TRAY_DEPTH_M", "TRAY_M2", "back_h", "dipped_c"]
