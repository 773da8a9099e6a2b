"""What a garden's seed packets say: the form, keeping it, and reading it for the pages."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from django import forms

from cloche.apps.gardens.forms import TypedNumber, parse_with
from cloche.apps.gardens.models import Garden, PacketWord
from cloche.bridge.crops import Crop, Packet
from cloche.bridge.units import Units, parse_soil

FAR_K = 12.0
"""A packet that lies further than this from the table is asked about."""


def packets_of(garden: Garden) -> dict[str, Packet]:
    """By crop: one query."""
    rows = PacketWord.objects.filter(garden=garden).values_list("crop_key", "minimum_c", "ideal_from_c", "ideal_to_c")
    return {key: Packet(*values) for key, *values in rows}


def keep(garden: Garden, crop_key: str, packet: Packet) -> None:
    """Store it; an empty one gives the table its word back."""
    mine = PacketWord.objects.filter(garden=garden, crop_key=crop_key)
    if packet == Packet():
        mine.delete()
        return
    PacketWord.objects.update_or_create(garden=garden, crop_key=crop_key, defaults=asdict(packet))


class PacketForm(forms.Form):
    """Minimum and ideal as the packet prints them; what lies far from the table is asked about once."""

    minimum = TypedNumber(label="Minimum", required=False)
    ideal_from = TypedNumber(label="Ideal from", required=False)
    ideal_to = TypedNumber(label="Ideal to", required=False)
    meant = forms.BooleanField(label="Yes, that is what the packet says", required=False, widget=forms.HiddenInput)

    def __init__(self, *args: Any, crop: Crop, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.crop, self.units, self.odd = crop, units, False
        for name in ("minimum", "ideal_from", "ideal_to"):
            parse_with(self.fields[name], lambda text: parse_soil(text, units))
            self.fields[name].label = f"{self.fields[name].label}, {units.degree}"

    def clean(self) -> dict[str, Any]:
        """In order, and not far from the table unless that is meant."""
        data = super().clean() or {}
        low, start, end = (data.get(name) for name in ("minimum", "ideal_from", "ideal_to"))
        if low is not None and start is not None and low > start:
            self.add_error("ideal_from", "The ideal begins below the minimum.")
        if start is not None and end is not None and start > end:
            self.add_error("ideal_to", "The ideal ends before it begins.")
        table = {"minimum": self.crop.minimum_c, "ideal_from": self.crop.optimum_from_c, "ideal_to": self.crop.optimum_to_c}
        for name, known in table.items():
            value = data.get(name)
            if value is not None and abs(value - known) > FAR_K and not data.get("meant"):
                self.odd = True
                said = f"The table says {self.units.temperature_text(known, 0)}."
                self.add_error(name, f"{said} Was it in {'°F' if self.units.temperature == 'C' else '°C'}?")
        return data

    @property
    def packet(self) -> Packet:
        """The valid content."""
        return Packet(*(self.cleaned_data.get(name) for name in ("minimum", "ideal_from", "ideal_to")))


def packet_initial(packet: Packet | None, units: Units) -> dict[str, str]:
    """A packet as the form shows it."""
    if packet is None:
        return {}
    said = asdict(packet).items()
    return {name.removesuffix("_c"): f"{units.temperature_from_c(v):.1f}" for name, v in said if v is not None}
