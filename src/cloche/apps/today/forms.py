"""Who wants the day by mail, and when."""

from __future__ import annotations

from django import forms

HOURS = [(hour, f"{hour}:00") for hour in range(4, 22)]


class DigestForm(forms.Form):
    """An address and an hour of the garden's clock."""

    email = forms.EmailField(label="Send it to")
    hour = forms.TypedChoiceField(label="at", choices=HOURS, coerce=int)
