"""How a stored forecast is laid out: what the pages must know to read it, without the weight of computing one."""

from __future__ import annotations

from cloche.core.weather.scenarios import FEWEST_YEARS
from cloche.core.windows.limits import FRACTIONS, HALF

MEMBERS = 40
"""Courses of weather and ground that every probability counts."""
FIELD_STEP_H = 2
"""Hours between two columns of the field of soil by depth."""

__all__ = ["FEWEST_YEARS", "FIELD_STEP_H", "FRACTIONS", "HALF", "MEMBERS"]
