"""Interface of weather providers, and one that speaks the plain JSON of the demo's stand-in."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any, Protocol
from urllib.parse import urlencode

from django.utils.translation import gettext as _

from cloche.apart.running import Limits, Misasked, Refused, TooMuch, run_apart
from cloche.apps.gardens.models import Garden
from cloche.apps.work.failures import Foreseen
from cloche.bridge.values import border
from cloche.bridge.values.texts import number_text

LIMITS = Limits(memory_bytes=600_000_000, cpu_s=5, wall_s=15, file_bytes=8_000_000)
"""Of one question in all: however slowly an answer drips in, and however much of it there is."""
MOST_BYTES, MOST_AHEAD, MOST_PAST, MOST_RUNS = 4_000_000, 20, 60_000, 100
LIKELY_C = (-90.0, 60.0)
MAY_BE_TOLD = {"rain_mm": 500.0, "wind_m_s": 60.0}
"""What a provider may tell of a coming day besides, and the most that can be."""


class NoAnswer(Foreseen):
    """Raised where the provider does not answer or its answer is implausible; the message tells which."""

    longest = timedelta(hours=1)


class NotHere(NoAnswer):
    """Raised where the provider works but does not cover the site."""


@dataclass(frozen=True)
class ProviderAnswer:
    """A provider's weather for a site.

    `ahead` holds days from the day of issue on, `past` one value a day from `first` on; `simulated` tells whether the
    weather is invented.
    """

    issued: datetime
    current_c: float | None
    ahead: list[dict[str, Any]]
    past: dict[str, Any]
    simulated: bool = False


class Provider(Protocol):
    """Interface of a weather provider."""

    def ask(self, garden: Garden) -> ProviderAnswer:
        """Return the latest weather for a garden. Raises NoAnswer."""
        ...


class HttpProvider:
    """Provider that speaks the stand-in's JSON."""

    def __init__(self, url: str) -> None:
        self.url = url.rstrip("/")

    def ask(self, garden: Garden) -> ProviderAnswer:
        """Send one request with a deadline; the caller retries later."""
        words = {
            "latitude": garden.latitude_deg,
            "longitude": garden.longitude_deg,
            "elevation": garden.elevation_m,
            "zone": garden.timezone_name,
        }
        return answer_from(read_from(f"{self.url}/v1/site?{urlencode(words)}"))


def read_from(address: str) -> Any:
    """Fetch JSON with a deadline and a size limit. Raises NoAnswer."""
    try:
        return border.read_json(run_apart("fetch", None, LIMITS, address, str(MOST_BYTES)), MOST_BYTES)
    except Misasked as refusal:
        raise NotHere(_("The weather service has no answer for this location. {refusal}").format(refusal=refusal)) from refusal
    except Refused as refusal:
        raise NoAnswer(_("The weather service does not answer. {refusal}").format(refusal=refusal)) from refusal
    except TooMuch as slow:
        raise NoAnswer(
            _("The weather service did not finish its answer within {wall_s} seconds.").format(wall_s=LIMITS.wall_s)
        ) from slow
    except border.NotAllowed as odd:
        raise NoAnswer(_("The weather service sent something unreadable. {odd}").format(odd=odd)) from odd


def answer_from(answer: Any) -> ProviderAnswer:
    """Validate an answer and return its used parts. Raises NoAnswer."""
    try:
        ahead = [_day(row) for row in _list(answer["forecast"], MOST_AHEAD)]
        daily = answer["daily"]
        low, high, rain = (_list(daily[name], MOST_PAST) for name in ("low_c", "high_c", "rain_mm"))
        first = border.day(date.fromisoformat(daily["first"]))
        if not len(low) == len(high) == len(rain):
            raise ValueError(_("its years have days of unequal length"))
        border.day(first + timedelta(days=len(low)))
        low, high = [_likely(value) for value in low], [_likely(value) for value in high]
        rain = [None if value is None else _within(value, MAY_BE_TOLD["rain_mm"]) for value in rain]
        current = answer.get("current", {}).get("air_c")
        return ProviderAnswer(
            border.instant(datetime.fromisoformat(answer["issued"])),
            None if current is None else _likely(current),
            ahead,
            {"first": first.isoformat(), "low_c": low, "high_c": high, "rain_mm": rain},
            simulated=answer.get("simulated") is True,
        )
    except (KeyError, TypeError, ValueError, AttributeError, OverflowError) as odd:
        raise NoAnswer(_("The weather service sent something unreadable: {odd}.").format(odd=str(odd).rstrip("."))) from odd


def _day(row: dict[str, Any]) -> dict[str, Any]:
    low, high = _likely(row["low_c"]), _likely(row["high_c"])
    if low > high:
        raise ValueError(_("the low of {row} is above its high").format(row=row["day"]))
    sky = row.get("sky") if row.get("sky") in ("clear", "broken", "overcast") else None
    day = {"day": border.day(date.fromisoformat(row["day"])).isoformat(), "low_c": low, "high_c": high, "sky": sky}
    runs = [_run(run, row["day"]) for run in row.get("runs", [])[:MOST_RUNS]]
    besides = {name: _within(row[name], most) for name, most in MAY_BE_TOLD.items() if row.get(name) is not None}
    return day | besides | ({"runs": runs} if runs else {})


def _run(run: Any, day: str) -> list[float | None]:
    """Return low, high and rain of one ensemble member."""
    low, high, rain = run
    low, high = _likely(low), _likely(high)
    if low > high:
        raise ValueError(_("the low of {row} is above its high").format(row=day))
    return [low, high, None if rain is None else _within(rain, MAY_BE_TOLD["rain_mm"])]


def _list(value: Any, most: int) -> list[Any]:
    if not isinstance(value, list) or len(value) > most:
        raise ValueError(_("a list of at most {most} days is expected").format(most=number_text(f"{most:,}")))
    return value


def _within(value: Any, most: float) -> float:
    return border.number(value, 0.0, most)


def _likely(value: Any) -> float:
    return border.number(value, *LIKELY_C)
