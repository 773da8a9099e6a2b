"""Hours of the day and of a course, and spans of them as growers write them."""

from __future__ import annotations

import re
from typing import Any

from cloche.bridge.values.texts import say
from cloche_engine.errors import OutOfRange

Span = tuple[float, float]
_CLOCK = r"(\d{1,2})(?:[:.](\d{2}))?\s*([ap]\.?m\.?)?"
_SPAN = re.compile(rf"^\s*{_CLOCK}\s*(?:–|-|—|to)\s*{_CLOCK}\s*$", re.IGNORECASE)
MOST = 4


def parse_spans(text: str) -> list[Span]:
    """Parse hours of the day in the order typed, spanning midnight where the end precedes the start.

    Raises OutOfRange.
    """
    parts = [part for part in re.split(r"[,;]| and ", text) if part.strip()]
    if not parts or len(parts) > MOST:
        raise OutOfRange(say("Enter when it is on, for example 6–22, or 5:30–9, 16–21 for two periods."))
    return [_span(part) for part in parts]


def check_spans(spans: Any) -> None:
    """Raise OutOfRange unless there are at most four pairs of two different hours of the day."""
    if not isinstance(spans, list) or len(spans) > MOST:
        raise OutOfRange(say("Enter at most four periods."))
    for span in spans:
        pair = isinstance(span, list) and len(span) == 2 and all(isinstance(hour, int | float) for hour in span)
        if not pair or not all(0 <= hour <= 24 for hour in span) or span[0] == span[1]:
            raise OutOfRange(say("Enter hours from and to, for example 6–22."))


def _span(text: str) -> Span:
    match = _SPAN.match(text)
    if not match:
        raise OutOfRange(say("“{text}” is not a period such as 6–22 or 5:30–9.", text=text.strip()[:30]))
    start, end = _hour(*match.groups()[:3]), _hour(*match.groups()[3:])
    if start == end:
        raise OutOfRange(say("“{text}” starts when it ends.", text=text.strip()[:30]))
    return start, end


def _hour(hour: str, minute: str | None, half: str | None) -> float:
    value = int(hour)
    if half:
        if not 1 <= value <= 12:
            raise OutOfRange(say("{hour} is not an hour with am or pm.", hour=value))
        value = value % 12 + (12 if half.lower().startswith("p") else 0)
    part = int(minute or 0)
    if value > 24 or part > 59 or (value == 24 and part):
        raise OutOfRange(say("{hour} is not an hour of the day.", hour=f"{hour}:{minute}" if minute else hour))
    return value + part / 60


def spans_text(spans: list[Span] | list[list[float]]) -> str:
    """Return hours of the day as they would be typed."""
    return ", ".join(f"{_clock(start)}–{_clock(end)}" for start, end in spans)


def _clock(hour: float) -> str:
    whole, part = int(hour), round(hour % 1 * 60)
    return f"{whole}:{part:02d}" if part else f"{whole}"
