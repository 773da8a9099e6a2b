"""Stored records of no particular place, for tests that need only some of their values."""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Any

from cloche_engine.results import CoveredDays, OpeningDay, PlaceForecast, SowingOutlook, Uncovering

NEVER = (None, None, None)


def stored_forecast(**values: Any) -> PlaceForecast:
    """A place's forecast, empty but for what is given."""
    start = datetime(2026, 4, 1, tzinfo=UTC)
    lists: dict[str, Any] = {name: [] for name in PlaceForecast.__dataclass_fields__}
    plain = {"day": date(2026, 4, 22), "start": start, "spread_start": start, "depth_m": 0.05, "normals_source": "guess"}
    plain |= dict.fromkeys(("readings_used", "weather_days", "normals_years", "replayed_years"), 0)
    plain |= dict.fromkeys(("heat", "light", "alarm"))
    plain |= {name: {} for name in ("band_k", "strange", "weights", "parameters")}
    return PlaceForecast(**lists | plain | values)


def sowing_outlook(half: date | None, overdue: date | None) -> SowingOutlook:
    """What is expected of a sowing, by its middle day."""
    whole = (0.0, 1.0, 0.0, 1.0)
    return SowingOutlook([[0.0], [0.0], [0.0]], NEVER, (None, half, None), NEVER, overdue, 0.8, [], whole, whole)


def covered_days(*days: OpeningDay) -> CoveredDays | None:
    """Coming days under a cover, by their plans; none where there are none."""
    hours = [10.0] * 24 * max(len(days), 1)
    off = Uncovering(nights=None, night_c=5.0, established=False, heat=False, height=False)
    return CoveredDays(hours, [hours] * 3, [hours] * 3, list(days), off) if days else None
