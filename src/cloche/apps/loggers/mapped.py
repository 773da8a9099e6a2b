"""Messages in a device's own words: where in them the values stand, by JSON Pointer [RFC6901], and what is read there."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Any

from django.utils.translation import gettext as _
from jsonpointer import JsonPointer, JsonPointerException

from cloche.apps.loggers.flows.take_in import MOST_ROWS, Sent
from cloche.bridge.values import border

MOST_BYTES, MOST_NAME = 4_000_000, 40
MILLISECONDS = 100_000_000_000
"""A number of seconds this large would lie three thousand years ahead: it counts thousandths."""
WILD, REST = "+", "#"
_NOT_IN_A_NAME = re.compile(r"[^A-Za-z0-9_.:-]+")


class Unreadable(ValueError):
    """Raised when a message has no value at the expected position. Names the position."""


@dataclass(frozen=True)
class Shape:
    """Position of the values in a message.

    `each` is a list of values, or else the message is one. `value`, `at` and `channel` are found in each. If they are empty,
    the message itself is the value, its time is now, and its channel comes from the topic or is 1.
    """

    each: str = ""
    value: str = ""
    at: str = ""
    channel: str = ""


SENSOR_THINGS_OF_ONE = Shape(value="/result", at="/phenomenonTime")
"""An Observation as OGC's SensorThings words it, of a Datastream that is named beside it [SensorThings]."""
WORDINGS = {
    "": Shape(value="/temperature"),
    "number": Shape(),
    "json": Shape(value="/temperature", at="/time"),
    "observation": replace(SENSOR_THINGS_OF_ONE, channel="/Datastream/@iot.id"),
    "observations": replace(SENSOR_THINGS_OF_ONE, each="/value", channel="/Datastream/@iot.id"),
}
"""What a form begins with."""


def values_of(shape: Shape, payload: bytes, from_topic: str = "") -> list[Sent]:
    """Return the values in a message; `from_topic` is the channel in its topic. Raises Unreadable."""
    words = _words(payload)
    rows = _at(words, shape.each) if shape.each else [words]
    if not isinstance(rows, list):
        raise Unreadable(_("There is no list at {path}.").format(path=shape.each))
    if len(rows) > MOST_ROWS:
        raise Unreadable(_("At most {most_rows} values are accepted at a time.").format(most_rows=MOST_ROWS))
    return [_value_of(shape, row, from_topic) for row in rows]


def channel_from(words: Any) -> str:
    """Return a channel name from any text."""
    return _NOT_IN_A_NAME.sub("-", str(words).strip())[:MOST_NAME].strip("-") or "1"


def channel_in(topic: str, pattern: str) -> str:
    """Return the levels of a topic matched by wildcards, joined; none may be empty.

    >>> channel_in("home/bed 2/soil", "home/+/soil")
    'bed-2'
    """
    levels, wanted = topic.split("/"), pattern.split("/")
    if wanted[-1] == REST:
        wanted[-1:] = [WILD] * (len(levels) - len(wanted) + 1)
    open_levels = [level for level, part in zip(levels, wanted, strict=False) if part == WILD]
    return channel_from(".".join(open_levels)) if open_levels else ""


def check_pointer(text: str) -> str:
    """Return a JSON pointer. A bare name stands for /name. Raises ValueError with a sentence."""
    pointer = text if not text or text.startswith("/") else f"/{text}"
    try:
        JsonPointer(pointer)
    except JsonPointerException as odd:
        raise ValueError(_("Enter the path with / before each name, such as /sensor/temperature.")) from odd
    return pointer


def check_topic(text: str) -> str:
    """Return a topic with + for one level and # for the rest. Raises ValueError with a sentence."""
    levels = text.split("/")
    for number, level in enumerate(levels):
        if (WILD in level and level != WILD) or (REST in level and (level != REST or number < len(levels) - 1)):
            raise ValueError(_("A + stands for one whole level, a # for all the last ones."))
    if levels[0] in (WILD, REST, "cloche") or text.startswith("$") or any(not level for level in levels):
        raise ValueError(_("Begin with a name of your own, such as home/beds/+/temperature."))
    return text


def _words(payload: bytes) -> Any:
    """Return JSON, or plain text as some devices send it."""
    try:
        return border.read_json(payload, MOST_BYTES)
    except border.NotAllowed as refusal:
        text = payload[:MOST_NAME].decode("utf-8", "replace").strip()
        if text and text[0] not in "{[":
            return text
        raise Unreadable(str(refusal)) from refusal


def _at(words: Any, path: str) -> Any:
    try:
        return JsonPointer(path).resolve(words)
    except (JsonPointerException, TypeError) as missing:
        raise Unreadable(_("There is no value at {path}.").format(path=path)) from missing


def _value_of(shape: Shape, row: Any, from_topic: str) -> Sent:
    channel = channel_from(_at(row, shape.channel)) if shape.channel else from_topic or "1"
    at = _instant(_at(row, shape.at)) if shape.at else None
    return Sent(channel, _number(_at(row, shape.value)), at)


def _number(value: Any) -> float:
    try:
        if not isinstance(value, (int, float, str)) or isinstance(value, bool):
            raise ValueError
        number = float(value)
    except ValueError:
        raise Unreadable(_("“{value}” is not a number.").format(value=border.one_line(str(value))[:MOST_NAME])) from None
    if not abs(number) < 1e6:
        raise Unreadable(_("{number} is not a temperature.").format(number=number))
    return number


def _instant(value: Any) -> datetime:
    """Return a time with offset, the middle of two separated by /, or seconds since 1970."""
    try:
        if isinstance(value, str) and value.count("/") == 1:
            first, last = (_instant(part) for part in value.split("/", 1))
            return border.instant(first + (last - first) / 2)
        if isinstance(value, str):
            return border.instant(datetime.fromisoformat(value))
        if isinstance(value, (int, float)) and not isinstance(value, bool):
            return border.instant(datetime.fromtimestamp(value / 1000 if abs(value) > MILLISECONDS else value, tz=UTC))
    except (ValueError, OverflowError, OSError, border.NotAllowed):
        pass
    shown = border.one_line(str(value))[:MOST_NAME]
    raise Unreadable(_("“{shown}” is not a time with its UTC offset, such as 2026-04-22T06:00:00Z.").format(shown=shown))
