"""Typical years from EPW files, for the rooms."""

from __future__ import annotations

from cloche.core.weather.epw import NotAnEpw, TypicalYear, typical_year

__all__ = ["NotAnEpw", "TypicalYear", "typical_year"]
