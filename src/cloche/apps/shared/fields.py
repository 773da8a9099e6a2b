"""Fields of forms and models with their validation."""

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
    """Validate one line of text without invisible characters."""
    _checked(border.plain_text, text, "signs")


def zone(name: str) -> None:
    """Validate a known time zone."""
    _checked(border.zone, name, "zone")


def sane_day(on: date) -> None:
    """Validate a date between 1900 and 2100."""
    _checked(border.day, on, "day")


def sane_instant(at: datetime) -> None:
    """Validate a time between 1900 and 2100."""
    _checked(border.instant, at, "instant")


DATE = forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")
"""The browser’s own calendar."""


class DayField(forms.DateField):
    """Form field for a date within the range of records."""

    default_validators = [sane_day]
    widget = DATE


class LineField(forms.CharField):
    """Form field for one line of text without invisible characters."""

    default_validators = [plain]


class TypedNumber(forms.CharField):
    """Form field for a number with decimal comma or point."""

    def __init__(self, *, parse: Any = parse_number, **kwargs: Any) -> None:
        kwargs.setdefault("widget", forms.TextInput(attrs={"inputmode": "decimal", "autocomplete": "off"}))
        super().__init__(**kwargs)
        self.parse = parse

    def clean(self, value: Any) -> float | None:
        """Return the parsed number, or None if empty and not required."""
        text = super().clean(value)
        if text == "":
            return None
        try:
            return float(self.parse(text))
        except (NotANumber, OutOfRange) as refusal:
            raise forms.ValidationError(str(refusal), code="number") from refusal


class ShownAs(forms.BaseForm):
    """Form mixin that shows model errors at form fields of another name.

    shown_as: the row's field → the form's.
    """

    shown_as: dict[str, str] = {}

    def add_error(self, field: str | None, error: Any) -> None:
        """Add model errors under the names of the form's fields."""
        if field is None and hasattr(error, "error_dict"):
            error = forms.ValidationError({self.shown_as.get(name, name): said for name, said in error.error_dict.items()})
        super().add_error(field, error)


def parse_with(field: forms.Field, parse: Callable[[str], float]) -> None:
    """Set the parser of a TypedNumber to that of a person's units."""
    cast(TypedNumber, field).parse = parse


class RecordField(models.JSONField):
    """JSON field for records of cloche_engine.results; data stored in another format reads as `nothing()`."""

    def __init__(self, kind: Any = None, *args: Any, nothing: Callable[[], Any] | None = None, **kwargs: Any) -> None:
        if nothing is not None:
            kwargs.setdefault("default", nothing)
        super().__init__(*args, **kwargs)
        self.kind, self.nothing = kind, nothing or (lambda: None)

    def deconstruct(self) -> Any:
        """Describe the field as plain JSON for migrations."""
        name, _, args, kwargs = super().deconstruct()
        return name, "django.db.models.JSONField", args, kwargs

    def from_db_value(self, value: Any, expression: Any, connection: Any) -> Any:
        """Convert JSON to the record."""
        if value is None:
            return None
        record = results.load(value, self.kind)
        return self.nothing() if record is None else record

    def get_db_prep_value(self, value: Any, connection: Any, prepared: bool = False) -> Any:
        """Convert the record to JSON."""
        plain = None if value is None else results.dump(value, self.kind)
        return super().get_db_prep_value(plain, connection, prepared)
