"""A device's name and unit, and where its channels stick."""

from __future__ import annotations

import re
from typing import Any, cast

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.models import Device
from cloche.apps.places.models import Place
from cloche.apps.shared.fields import TypedNumber, parse_with
from cloche.apps.shared.i18n import lazy
from cloche.bridge.values.units import Units, parse_depth

MOST_DEVICES = 60
CHANNEL = re.compile(r"[A-Za-z0-9_.:-]{1,40}")


def channel_name(text: str) -> str:
    """A channel as devices may name it; raises ValueError with a sentence."""
    if not CHANNEL.fullmatch(text):
        raise ValueError(_("Letters, digits and . _ : - only, without spaces."))
    return text


class DeviceForm(forms.ModelForm):
    """A new logger."""

    class Meta:
        model = Device
        fields = ["name", "unit"]
        labels = {"name": lazy("What you call it"), "unit": lazy("It measures in")}
        help_texts = {"unit": lazy("Unless it says otherwise with what it sends.")}

    def clean(self) -> dict[str, Any]:
        """Not more devices than anyone has."""
        data = super().clean() or {}
        if self.instance.garden_id and self.instance.garden.devices.count() >= MOST_DEVICES:
            raise forms.ValidationError(
                _("A garden has up to {most_devices} loggers.").format(most_devices=MOST_DEVICES), code="many"
            )
        return data


class ProbeForm(forms.Form):
    """Where a channel sticks."""

    channel = forms.CharField(
        label=lazy("Channel"), max_length=40, initial="1", help_text=lazy("As the device names it; 1 if it has only one.")
    )
    place = forms.ModelChoiceField(label=lazy("Place"), queryset=Place.objects.none())
    depth = TypedNumber(label=lazy("Depth"), required=False)
    in_air = forms.BooleanField(label=lazy("It hangs in the air among the plants"), required=False)

    def __init__(self, *args: Any, garden: Garden, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        place = cast(forms.ModelChoiceField, self.fields["place"])
        place.queryset = garden.places.all()
        # Asked once, however many devices show this form.
        place.choices = list(place.choices)  # type: ignore[arg-type]
        parse_with(self.fields["depth"], lambda text: parse_depth(text, units))
        self.fields["depth"].label = _("Depth, {length}").format(length=units.length)
        self.fields["depth"].help_text = _("Left empty: the place’s seed depth.")

    def clean_channel(self) -> str:
        """Only what an address can carry."""
        try:
            return channel_name(self.cleaned_data["channel"].strip())
        except ValueError as refusal:
            raise forms.ValidationError(str(refusal), code="channel") from refusal

    @property
    def depth_m(self) -> float:
        """As typed, or the place's own."""
        typed = self.cleaned_data["depth"]
        return self.cleaned_data["place"].seed_depth_m if typed is None else round(typed, 4)
