"""Hardiness zones as the rooms see them."""

from __future__ import annotations

from cloche.bridge.values.units import Units
from cloche.core.weather.zones import winter_lows_c


def zone_words(zone: str, units: Units) -> str:
    """What a zone says, and what it does not. Raises OutOfRange."""
    low, high = (units.temperature_text(value, 0) for value in winter_lows_c(zone))
    return (
        f"Zone {zone} says that the coldest night of a usual winter lies between {low} and {high}, for what stands outdoors "
        "all year. It says nothing of spring: no window goes by it."
    )
