"""Fields of forms and tables, and what they refuse."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, datetime
from typing import Any, cast

from django import forms
from django.core.exceptions import ValidationError
from django.db import models

from cloche.bridge.values import border
from cloche.bridge.values.units import NotANumber, parse_number
from cloche_engine import results
from cloche_engine.errors import OutOfRange

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


DATE = forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")
"""The browser’s own calendar."""


class DayField(forms.DateField):
    """A day in a year that a record can be about."""

    default_validators = [sane_day]
    widget = DATE


class LineField(forms.CharField):
    """A line of text without signs that cannot be seen."""

    default_validators = [plain]


class TypedNumber(forms.CharField):
    """A number as people type it, comma or point, with the bridge's messages."""

    def __init__(self, *, parse: Any = parse_number, **kwargs: Any) -> None:
        kwargs.setdefault("widget", forms.TextInput(attrs={"inputmode": "decimal", "autocomplete": "off"}))
        super().__init__(**kwargs)
        self.parse = parse

    def clean(self, value: Any) -> float | None:
        """The parsed number; None when empty and not required."""
        text = super().clean(value)
        if text == "":
            return None
        try:
            return float(self.parse(text))
        except (NotANumber, OutOfRange) as refusal:
            raise forms.ValidationError(str(refusal), code="number") from refusal


class ShownAs(forms.BaseForm):
    """A form that asks for some of its row's fields under other names: what the row refuses is said at the one that is shown.

    shown_as: the row's field → the form's.
    """

    shown_as: dict[str, str] = {}

    def add_error(self, field: str | None, error: Any) -> None:
        """Refusals of the row, under the names of the form's fields."""
        if field is None and hasattr(error, "error_dict"):
            error = forms.ValidationError({self.shown_as.get(name, name): said for name, said in error.error_dict.items()})
        super().add_error(field, error)


def parse_with(field: forms.Field, parse: Callable[[str], float]) -> None:
    """Give a TypedNumber the parser of a person's units."""
    cast(TypedNumber, field).parse = parse


class RecordField(models.JSONField):
    """A record of cloche_engine.results, or a list of them, as JSON; what was stored in another format reads as `nothing()`."""

    def __init__(self, kind: Any = None, *args: Any, nothing: Callable[[], Any] | None = None, **kwargs: Any) -> None:
        if nothing is not None:
            kwargs.setdefault("default", nothing)
        super().__init__(*args, **kwargs)
        self.kind, self.nothing = kind, nothing or (lambda: None)

    def deconstruct(self) -> Any:
        """For the database it is JSON; which record is the program's business."""
        name, _, args, kwargs = super().deconstruct()
        return name, "django.db.models.JSONField", args, kwargs

    def from_db_value(self, value: Any, expression: Any, connection: Any) -> Any:
        """The record."""
        if value is None:
            return None
        record = results.load(value, self.kind)
        return self.nothing() if record is None else record

    def get_db_prep_value(self, value: Any, connection: Any, prepared: bool = False) -> Any:
        """Its JSON."""
        plain = None if value is None else results.dump(value, self.kind)
        return super().get_db_prep_value(plain, connection, prepared)
