"""Who wants the day by mail, and when."""

from __future__ import annotations

from django import forms

from cloche.apps.shared import words
from cloche.apps.shared.words import lazy


def hours() -> list[tuple[int, str]]:
    """From four to nine in the evening, as the reader writes them."""
    return [(hour, words.hour(hour)) for hour in range(4, 22)]


class DigestForm(forms.Form):
    """An address and an hour of the garden's clock."""

    email = forms.EmailField(label=lazy("Email address"))
    hour = forms.TypedChoiceField(label=lazy("Time"), choices=hours, coerce=int)
