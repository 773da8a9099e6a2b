"""How axes name their days. English until the application says how its reader would have it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date


@dataclass
class Labels:
    """Labels of a day: 9 April, 9 Apr, and its month, Apr."""

    day: Callable[[date], str] = lambda on: f"{on.day} {on:%B}"
    short_day: Callable[[date], str] = lambda on: f"{on.day} {on:%b}"
    month: Callable[[date], str] = lambda on: f"{on:%b}"


labels = Labels()
