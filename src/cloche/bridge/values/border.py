"""What may come in, by whichever way it comes: forms, devices, files, archives and services are all held against these.

Each check returns the value as it is kept, or raises NotAllowed with a sentence.
"""

from __future__ import annotations

import json
import math
import re
import unicodedata
from datetime import date, datetime
from functools import cache
from typing import Any
from zoneinfo import available_timezones

from cloche.bridge.values.texts import number_text, say

FIRST_YEAR, LAST_YEAR = 1900, 2100
MOST_DEPTH = 24
"""Brackets within brackets in what devices and services send; ours have six."""
_BRACKETS = re.compile(r'"(?:[^"\\]|\\.)*"|[\[\]{}]', re.DOTALL)
_WHOLE = re.compile(r"[0-9]{1,9}")
_TURNS_TEXT_ROUND = re.compile("[\u200e\u200f\u202a-\u202e\u2066-\u2069]")


class NotAllowed(ValueError):
    """Raised for a value that cannot be accepted; the message gives the reason."""


def plain_text(text: str) -> str:
    """Return a line of text without control characters, lone surrogates or bidirectional overrides."""
    for sign in text:
        if unicodedata.category(sign) in ("Cc", "Cs", "Zl", "Zp") or _TURNS_TEXT_ROUND.match(sign):
            raise NotAllowed(say("The text contains a character that cannot be displayed or printed. Type it again."))
    return text


def printable(text: str) -> str:
    """Return text stored before these checks existed in a form that passes them; other text unchanged."""
    try:
        return plain_text(text)
    except NotAllowed:
        return one_line(_TURNS_TEXT_ROUND.sub("", text))


def one_line(text: str) -> str:
    """Return stored text made safe for an email header, with unprintable characters replaced by spaces."""
    seen = (" " if unicodedata.category(sign)[0] in "CZ" and sign != "\u200d" else sign for sign in text)
    return " ".join("".join(seen).split())


@cache
def zones() -> tuple[str, ...]:
    """Return names of the time zones a garden may use, UTC first."""
    names = (name for name in available_timezones() if "/" in name and not name.startswith(("Etc/", "posix", "right")))
    return ("UTC", *sorted(names))


def is_zone(name: str) -> bool:
    """Return whether this machine knows the time zone."""
    return name in _known_zones()


@cache
def _known_zones() -> frozenset[str]:
    return frozenset(zones())


def zone(name: str) -> str:
    """Return a time zone's name. Raises NotAllowed for an unknown one."""
    if not is_zone(name):
        raise NotAllowed(
            say("“{name}” is not a time zone. Choose one such as Europe/London or America/Chicago.", name=f"{name[:40]}")
        )
    return name


def whole(text: str) -> int | None:
    """Return a whole number from a URL; None for anything else or a number too long to be meant."""
    return int(text) if _WHOLE.fullmatch(text) else None


def day(on: date) -> date:
    """Return a date within the range of records. Raises NotAllowed."""
    if not FIRST_YEAR <= on.year <= LAST_YEAR:
        raise NotAllowed(
            say(
                "Enter a year from {first_year} to {last_year}, not {year}.",
                first_year=FIRST_YEAR,
                last_year=LAST_YEAR,
                year=on.year,
            )
        )
    return on


def instant(at: datetime) -> datetime:
    """Return a time with its UTC offset within the range of records. Raises NotAllowed."""
    if at.tzinfo is None:
        raise NotAllowed(say("The time has no UTC offset, such as +02:00 or Z."))
    day(at.date())
    return at


def number(value: Any, least: float, most: float) -> float:
    """Return a finite number within limits. Raises NotAllowed for text, booleans and anything else."""
    if isinstance(value, bool) or not isinstance(value, (int, float)):
        raise NotAllowed(say("Enter a number."))
    try:
        converted = float(value)
    except OverflowError as large:
        raise NotAllowed(say("That number is too large.")) from large
    if not math.isfinite(converted):
        raise NotAllowed(say("{value} is not a number.", value=converted))
    if not least <= converted <= most:
        raise NotAllowed(
            say(
                "{value} is outside {least} to {most}.",
                value=number_text(f"{converted:g}"),
                least=number_text(f"{least:g}"),
                most=number_text(f"{most:g}"),
            )
        )
    return converted


def read_json(data: bytes | str, most_bytes: int) -> Any:
    """Parse untrusted JSON with limits on size and depth, in UTF-8 and without NaN or infinities."""
    if len(data) > most_bytes:
        raise NotAllowed(
            say(
                "The file has {size} bytes; at most {most_bytes} are accepted.",
                size=number_text(f"{len(data):,}"),
                most_bytes=number_text(f"{most_bytes:,}"),
            )
        )
    try:
        text = data.decode("utf-8") if isinstance(data, bytes) else data
    except UnicodeDecodeError as broken:
        raise NotAllowed(say("The text is not in UTF-8.")) from broken
    _refuse_deep(text)
    try:
        parsed = json.loads(text, parse_constant=_no_number)
        if "\\ud" in text.lower():
            json.dumps(parsed, ensure_ascii=False).encode("utf-8")  # halves of characters can be written so, and are none
    except (ValueError, RecursionError) as broken:
        raise NotAllowed(say("This is not valid JSON: {why}.", why=str(broken)[:120])) from broken
    return parsed


def _refuse_deep(text: str) -> None:
    depth = 0
    for sign in _BRACKETS.finditer(text):
        if sign.group() in "[{":
            depth += 1
            if depth > MOST_DEPTH:
                raise NotAllowed(say("Brackets are nested more than {most_depth} levels deep.", most_depth=MOST_DEPTH))
        elif sign.group() in "]}":
            depth -= 1


def _no_number(name: str) -> float:
    raise NotAllowed(say("{name} is not a number.", name=name))
