"""Forms for packets and for a garden's choices about a crop."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.seed.models import Packet
from cloche.apps.seed.values import (
    ALL,
    FIRST,
    MORE,
    ValueSpec,
    is_far,
    label_of,
    out_of_order,
    parse_value,
    shown_value,
    typed_value,
)
from cloche.apps.shared.fields import TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.values.units import Units
from cloche_engine.crops.catalogue import Crop


class PacketForm(forms.ModelForm):
    """Form for a packet; values far from the table are queried once."""

    meant = forms.BooleanField(label=lazy("Yes, that is correct"), required=False, widget=forms.HiddenInput)

    class Meta:
        model = Packet
        fields = ["variety", "packed_year", "tested_of", "tested_up", "price", "in_use"]
        labels = {
            "variety": lazy("Variety"),
            "packed_year": lazy("Year packed"),
            "tested_of": lazy("Seeds tested"),
            "tested_up": lazy("Of these, germinated"),
            "price": lazy("Price"),
            "in_use": lazy("Use this packet for the windows"),
        }
        help_texts = {
            "tested_of": "",
            "tested_up": "",
            "price": lazy("In your own currency. Cloche uses it to weigh the cost of a failed sowing."),
        }

    def __init__(self, *args: Any, crop: Crop, units: Units, year: int, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.crop, self.units, self.year, self.odd = crop, units, year, False
        for spec in ALL:
            field = TypedNumber(label=label_of(spec, units), required=False)
            parse_with(field, lambda text, spec=spec: parse_value(text, spec, units))  # type: ignore[misc]
            table = getattr(crop, spec.name, 1.0)
            field.help_text = (
                _("There is no value in the table.")
                if table is None
                else _("The table has {shown_value}.").format(shown_value=shown_value(table, spec, units))
            )
            value = self.instance.values.get(spec.name)
            if value is not None:
                self.initial[spec.field] = typed_value(value, spec, units)
            self.fields[spec.field] = field

    def rows(self, of: tuple[ValueSpec, ...]) -> list[forms.BoundField]:
        """Return the bound fields of some values."""
        return [self[spec.field] for spec in of]

    @property
    def first(self) -> list[forms.BoundField]:
        """Return the fields that every packet prints."""
        return self.rows(FIRST)

    @property
    def more(self) -> list[forms.BoundField]:
        """Return the fields for all other values that can be overridden."""
        return self.rows(MORE)

    def clean_packed_year(self) -> int | None:
        """Refuse years in the future or more than a century ago."""
        year: int | None = self.cleaned_data["packed_year"]
        if year is not None and not self.year - 60 <= year <= self.year + 1:
            raise forms.ValidationError(
                _("Enter a year from {year} to {year2}.").format(year=self.year - 60, year2=self.year + 1)
            )
        return year

    def clean(self) -> dict[str, Any]:
        """Check that the values are in order, and near the table's unless confirmed."""
        data = super().clean() or {}
        for name, why in out_of_order(*(data.get(name) for name in ("minimum", "ideal_from", "ideal_to"))):
            self.add_error(name, why)
        if not data.get("meant"):
            self._ask_about_what_lies_far(data)
        return data

    def _ask_about_what_lies_far(self, data: dict[str, Any]) -> None:
        for spec in ALL:
            value, table = data.get(spec.field), getattr(self.crop, spec.name, 1.0)
            if value is None or table is None or not is_far(value, table, spec):
                continue
            self.odd = True
            other = "°F" if self.units.temperature == "C" else "°C"
            ask = _("Did you mean {other}?").format(other=other) if spec.kind in ("soil", "air") else _("Please confirm")
            self.add_error(
                spec.field,
                _("The table has {shown_value}. {ask}").format(shown_value=shown_value(table, spec, self.units), ask=ask),
            )

    def save(self, commit: bool = True) -> Packet:
        """Build the packet with its values, unsaved."""
        packet: Packet = super().save(commit=False)
        packet.values = {s.name: self.cleaned_data[s.field] for s in ALL if self.cleaned_data.get(s.field) is not None}
        return packet


METHODS = [
    ("", lazy("whichever suits the place")),
    ("direct", lazy("sown in place")),
    ("transplanted", lazy("raised and planted out")),
]


class ChoiceForm(forms.Form):
    """Form for the sowing rule and method a garden uses for a crop."""

    sowing_rule = forms.ChoiceField(label=lazy("Day to start"), required=False)
    method = forms.ChoiceField(label=lazy("It is"), required=False, choices=METHODS)

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["sowing_rule"].help_text = _("Same as the garden: {get_sowing_rule_display}").format(
            get_sowing_rule_display=garden.get_sowing_rule_display()
        )
        self.fields["sowing_rule"].choices = [("", _("same as the garden")), *Garden.SowingRule.choices]  # type: ignore[attr-defined]
