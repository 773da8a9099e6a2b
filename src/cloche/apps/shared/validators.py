"""The border's checks as Django asks for them; models, forms and archive use the same ones (bridge.values.border)."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, datetime
from typing import Any

from django.core.exceptions import ValidationError

from cloche.bridge.values import border

MOST_MONEY = 1e6
"""In whatever money."""


def _checked(check: Callable[[Any], Any], value: Any, code: str) -> None:
    try:
        check(value)
    except border.NotAllowed as refusal:
        raise ValidationError(str(refusal), code=code) from refusal


def plain(text: str) -> None:
    """One line without signs that cannot be seen."""
    _checked(border.plain_text, text, "signs")


def zone(name: str) -> None:
    """A time zone that is known."""
    _checked(border.zone, name, "zone")


def sane_day(on: date) -> None:
    """A day of a year from 1900 to 2100."""
    _checked(border.day, on, "day")


def sane_instant(at: datetime) -> None:
    """A moment of a year from 1900 to 2100."""
    _checked(border.instant, at, "instant")
