"""Winter-hardiness zones: the mean of each year's coldest night, in steps of ten degrees Fahrenheit, and nothing else.

USDA Plant Hardiness Zone Map, from memory: zone 1 begins at -60 °F; a and b halve a zone.
"""

from __future__ import annotations

import re

from cloche_engine.errors import OutOfRange
from cloche_engine.quantities import celsius_from_fahrenheit

ZONE_1_F, ZONE_F, HALF_F = -60.0, 10.0, 5.0
_ZONE = re.compile(r"^(1[0-3]|[1-9])([ab]?)$")


def winter_lows_c(zone: str) -> tuple[float, float]:
    """Return the range of the usual annual minimum in a hardiness zone [°C].

    Parameters
    ----------
    zone : str
        Winter hardiness zone, such as 7a.

    Raises
    ------
    OutOfRange
        For what is no zone.
    """
    match = _ZONE.match(zone.strip().lower())
    if match is None:
        raise OutOfRange(f"“{zone}” is no hardiness zone. Write it like 7 or 7a.")
    low_f = ZONE_1_F + ZONE_F * (int(match[1]) - 1) + (HALF_F if match[2] == "b" else 0.0)
    high_f = low_f + (ZONE_F if not match[2] else HALF_F)
    return celsius_from_fahrenheit(low_f), celsius_from_fahrenheit(high_f)
