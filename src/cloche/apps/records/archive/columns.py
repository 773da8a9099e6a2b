"""Columns of the archive: name, type and unit, and how values are written and read."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import Any

from cloche.apps.readings.files.tables import as_meant, inert
from cloche.bridge.values import border

MOST_NUMBER, MOST_WHOLE, MOST_JSON = 1e12, 2_147_483_647, 20_000
TEXTS = ("string",)
"""Types whose cells could be taken for formulas."""


class Unreadable(ValueError):
    """Raised for a cell that cannot be read; the message tells what was expected."""


@dataclass(frozen=True)
class Column:
    """One column of the archive.

    `name` is its heading and, unless `source` says otherwise, the model's field; `type` is a Table Schema type.

    unit: of a number, in words of SI. within: least and greatest. optional: may be empty. one_of: what may
    stand there, or who knows it. check: raises ValueError with a sentence.
    later: came after 0.1.0; an archive that lacks it leaves the model's own default.
    """

    name: str
    type: str
    description: str
    unit: str = ""
    optional: bool = False
    within: tuple[float, float] | None = None
    one_of: tuple[str, ...] | Callable[[], tuple[str, ...]] = ()
    most: int = 200
    check: Callable[[Any], object] | None = None
    later: bool = False

    def write(self, value: Any) -> str:
        """Format a value so that `read` returns the same value."""
        if value is None:
            return ""
        text = WRITE[self.type](value)
        return inert(text) if self.type in TEXTS else text

    def read(self, text: str) -> Any:
        """Parse a cell. Raises Unreadable."""
        if text == "" and self.optional:
            return None
        try:
            value = READ[self.type](as_meant(text) if self.type in TEXTS else text)
        except border.NotAllowed as wrong:
            raise Unreadable(str(wrong).rstrip(".")) from wrong
        except (ValueError, OverflowError) as wrong:
            raise Unreadable(f"“{text[:40]}” is not a valid {self.type}") from wrong
        if self.within and not self.within[0] <= value <= self.within[1]:
            raise Unreadable(f"{value:g} is outside {self.within[0]:g} to {self.within[1]:g}")
        choices = self.one_of() if callable(self.one_of) else self.one_of
        if choices and value not in choices:
            raise Unreadable(f"“{text[:40]}” is none of {', '.join(choices[:8])}")
        if self.type == "string" and len(value) > self.most:
            raise Unreadable(f"text of at most {self.most} characters")
        if self.check is not None:
            self._checked(value)
        return value

    def _checked(self, value: Any) -> None:
        assert self.check is not None  # noqa: S101 - asked for
        try:
            self.check(value)
        except ValueError as wrong:
            raise Unreadable(str(wrong).rstrip(".")) from wrong

    def described(self) -> dict[str, Any]:
        """Return the column's Table Schema descriptor."""
        limits: dict[str, Any] = {} if self.optional else {"required": True} if self.type != "string" else {}
        if self.within:
            limits |= {"minimum": self.within[0], "maximum": self.within[1]}
        field: dict[str, Any] = {"name": self.name, "type": self.type, "description": self.description}
        if self.unit:
            field["unit"] = self.unit
        return field | ({"constraints": limits} if limits else {})


def _instant(text: str) -> datetime:
    at = datetime.fromisoformat(text.replace("Z", "+00:00"))
    return border.instant(at).astimezone(UTC)


def _number(text: str) -> float:
    return border.number(float(text), -MOST_NUMBER, MOST_NUMBER)


def _whole(text: str) -> int:
    value = int(text)
    border.number(value, -MOST_WHOLE, MOST_WHOLE)
    return value


def _truth(text: str) -> bool:
    return {"true": True, "false": False}[text.lower()] if text.lower() in ("true", "false") else _refuse(text)


def _refuse(text: str) -> bool:
    raise ValueError(text)


def _object(text: str) -> Any:
    parsed = border.read_json(text, MOST_JSON)
    if not isinstance(parsed, dict):
        raise ValueError(text)
    return parsed


def _array(text: str) -> Any:
    parsed = border.read_json(text, MOST_JSON)
    if not isinstance(parsed, list) or not all(_plain(value) for value in parsed) or len(parsed) > 40:
        raise ValueError(text)
    return parsed


def _plain(value: Any) -> bool:
    """Return whether a value is a short string, a number, None or a pair of numbers."""
    if value is None or (isinstance(value, int | float) and not isinstance(value, bool)):
        return True
    if isinstance(value, list):
        return len(value) == 2 and all(isinstance(part, int | float) and not isinstance(part, bool) for part in value)
    return isinstance(value, str) and len(value) <= 40


def _written(at: datetime) -> str:
    grain = "microseconds" if at.microsecond else "seconds"
    return at.isoformat(timespec=grain).replace("+00:00", "Z")


WRITE: dict[str, Callable[[Any], str]] = {
    "string": border.printable,
    "integer": lambda v: str(int(v)),
    "number": lambda v: repr(float(v)),
    "boolean": lambda v: "true" if v else "false",
    "date": lambda v: v.isoformat(),
    "datetime": lambda v: _written(v.astimezone(UTC)),
    "object": lambda v: json.dumps(v, sort_keys=True, ensure_ascii=False),
    "array": lambda v: json.dumps(v, ensure_ascii=False),
}
READ: dict[str, Callable[[str], Any]] = {
    "string": border.plain_text,
    "integer": _whole,
    "number": _number,
    "boolean": _truth,
    "date": lambda text: border.day(date.fromisoformat(text)),
    "datetime": _instant,
    "object": _object,
    "array": _array,
}
