"""Fields of forms: days, lines and numbers as people type them."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, cast

from django import forms

from cloche.apps.shared import validators
from cloche.bridge.values.units import NotANumber, parse_number
from cloche.core.errors import OutOfRange

DATE = forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")
"""The browser’s own calendar."""


class DayField(forms.DateField):
    """A day in a year that a record can be about."""

    default_validators = [validators.sane_day]
    widget = DATE


class LineField(forms.CharField):
    """A line of text without signs that cannot be seen."""

    default_validators = [validators.plain]


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
