"""What a weather provider is to Cloche, and the one that ships: JSON over HTTP, answered by the demo's stand-in."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from typing import Any, Protocol

import requests
from django.conf import settings

from cloche.apps.gardens.models import Garden

TIMEOUT_S = (2.0, 8.0)
LIKELY_C = (-90.0, 60.0)
MAY_BE_TOLD = {"rain_mm": 500.0, "wind_m_s": 60.0}
"""What a provider may tell of a coming day besides, and the most that can be."""


class NotHeard(Exception):
    """The provider does not answer, or not in a way that can be believed; the message says which."""


@dataclass(frozen=True)
class Heard:
    """What a provider says of a site. ahead: days from the day of issue on; past: one value a day from `first`."""

    issued: datetime
    current_c: float | None
    ahead: list[dict[str, Any]]
    past: dict[str, Any]


class Provider(Protocol):
    """Anything that can be asked about a site's weather."""

    def ask(self, garden: Garden) -> Heard:
        """The latest for a garden; raises NotHeard."""
        ...


class HttpProvider:
    """A provider that speaks the stand-in's JSON."""

    def __init__(self, url: str) -> None:
        self.url = url.rstrip("/")

    def ask(self, garden: Garden) -> Heard:
        """One question with short patience; whoever asks tries again later."""
        words: dict[str, str | float] = {
            "latitude": garden.latitude_deg,
            "longitude": garden.longitude_deg,
            "elevation": garden.elevation_m,
            "zone": garden.timezone_name,
        }
        try:
            answer = requests.get(f"{self.url}/v1/site", params=words, timeout=TIMEOUT_S)
            answer.raise_for_status()
            return heard_of(answer.json())
        except requests.RequestException as lost:
            raise NotHeard(f"The weather service does not answer ({type(lost).__name__}).") from lost


def heard_of(said: Any) -> Heard:
    """Check an answer and take from it what is used; raises NotHeard."""
    try:
        ahead = [_day(row) for row in said["forecast"]]
        daily = said["daily"]
        first, low, high, rain = daily["first"], daily["low_c"], daily["high_c"], daily["rain_mm"]
        date.fromisoformat(first)
        if not len(low) == len(high) == len(rain):
            raise ValueError("its years have days of unequal length")
        for one in (*low, *high):
            _likely(one)
        current = said.get("current", {}).get("air_c")
        return Heard(
            datetime.fromisoformat(said["issued"]),
            None if current is None else _likely(current),
            ahead,
            {"first": first, "low_c": low, "high_c": high, "rain_mm": rain},
        )
    except (KeyError, TypeError, ValueError, AttributeError) as odd:
        raise NotHeard(f"The weather service said something that cannot be read: {odd}.") from odd


def provider() -> Provider | None:
    """The provider of this installation, if it has one."""
    return HttpProvider(settings.CLOCHE_WEATHER_URL) if settings.CLOCHE_WEATHER_URL else None


def _day(row: dict[str, Any]) -> dict[str, Any]:
    low, high = _likely(row["low_c"]), _likely(row["high_c"])
    if low > high:
        raise ValueError(f"the low of {row['day']} is above its high")
    sky = row.get("sky") if row.get("sky") in ("clear", "broken", "overcast") else None
    told = {"day": date.fromisoformat(row["day"]).isoformat(), "low_c": low, "high_c": high, "sky": sky}
    return told | {name: _within(row[name], most) for name, most in MAY_BE_TOLD.items() if row.get(name) is not None}


def _within(value: float, most: float) -> float:
    number = float(value)
    if not 0 <= number <= most:
        raise ValueError(f"{number:g} is not within 0 to {most:g}")
    return number


def _likely(value: float) -> float:
    number = float(value)
    if not LIKELY_C[0] <= number <= LIKELY_C[1]:
        raise ValueError(f"{number:g} °C")
    return number
