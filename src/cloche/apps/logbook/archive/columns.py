"""Columns of the archive: their names, types and units, how a value is written and how it is read again."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import Any


class Unreadable(ValueError):
    """A cell that cannot be read; the message says what it should have been."""


@dataclass(frozen=True)
class Column:
    """name as in the heading and, unless source says otherwise, in the model. type: as the Table Schema names it.

    unit: of a number, in words of SI. within: least and greatest. optional: may be empty. one_of: what may
    stand there, or who knows it.
    """

    name: str
    type: str
    said: str
    unit: str = ""
    optional: bool = False
    within: tuple[float, float] | None = None
    one_of: tuple[str, ...] | Callable[[], tuple[str, ...]] = ()
    most: int = 200

    def write(self, value: Any) -> str:
        """As text that reads back as the same value."""
        return "" if value is None else WRITE[self.type](value)

    def read(self, text: str) -> Any:
        """The value of a cell; raises Unreadable."""
        if text == "" and self.optional:
            return None
        try:
            value = READ[self.type](text)
        except (ValueError, OverflowError) as wrong:
            raise Unreadable(f"“{text[:40]}” is no {self.type}") from wrong
        if self.within and not self.within[0] <= value <= self.within[1]:
            raise Unreadable(f"{value:g} is outside {self.within[0]:g} to {self.within[1]:g}")
        choices = self.one_of() if callable(self.one_of) else self.one_of
        if choices and value not in choices:
            raise Unreadable(f"“{text[:40]}” is none of {', '.join(choices[:8])}")
        if self.type == "string" and (len(value) > self.most or "\x00" in value):
            raise Unreadable(f"text of at most {self.most} characters")
        return value

    def described(self) -> dict[str, Any]:
        """The column in the words of the Table Schema."""
        limits: dict[str, Any] = {} if self.optional else {"required": True} if self.type != "string" else {}
        if self.within:
            limits |= {"minimum": self.within[0], "maximum": self.within[1]}
        field: dict[str, Any] = {"name": self.name, "type": self.type, "description": self.said}
        if self.unit:
            field["unit"] = self.unit
        return field | ({"constraints": limits} if limits else {})


def _instant(text: str) -> datetime:
    at = datetime.fromisoformat(text.replace("Z", "+00:00"))
    if at.tzinfo is None or not 1900 < at.year < 2200:
        raise ValueError(text)
    return at.astimezone(UTC)


def _number(text: str) -> float:
    value = float(text)
    if value != value or abs(value) == float("inf"):
        raise ValueError(text)
    return value


def _truth(text: str) -> bool:
    return {"true": True, "false": False}[text.lower()] if text.lower() in ("true", "false") else _refuse(text)


def _refuse(text: str) -> bool:
    raise ValueError(text)


def _object(text: str) -> Any:
    found = json.loads(text)
    if not isinstance(found, dict):
        raise ValueError(text)
    return found


def _array(text: str) -> Any:
    found = json.loads(text)
    if not isinstance(found, list) or not all(isinstance(one, str) and len(one) <= 40 for one in found) or len(found) > 40:
        raise ValueError(text)
    return found


def _told(at: datetime) -> str:
    grain = "microseconds" if at.microsecond else "seconds"
    return at.isoformat(timespec=grain).replace("+00:00", "Z")


WRITE: dict[str, Callable[[Any], str]] = {
    "string": str,
    "integer": lambda v: str(int(v)),
    "number": lambda v: repr(float(v)),
    "boolean": lambda v: "true" if v else "false",
    "date": lambda v: v.isoformat(),
    "datetime": lambda v: _told(v.astimezone(UTC)),
    "object": lambda v: json.dumps(v, sort_keys=True, ensure_ascii=False),
    "array": lambda v: json.dumps(v, ensure_ascii=False),
}
READ: dict[str, Callable[[str], Any]] = {
    "string": str,
    "integer": int,
    "number": _number,
    "boolean": _truth,
    "date": date.fromisoformat,
    "datetime": _instant,
    "object": _object,
    "array": _array,
}
