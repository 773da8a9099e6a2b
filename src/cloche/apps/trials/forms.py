"""Forms for germination trials, their batches and counts."""

from __future__ import annotations

from datetime import date
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.seed.models import Packet
from cloche.apps.shared.fields import DATE, DayField, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.apps.trials.models import MOST_SEEDS, GerminationTrial, TrialBatch
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units, parse_soil


class NewTrialForm(forms.ModelForm):
    """Form for a trial's name and first day."""

    class Meta:
        model = GerminationTrial
        fields = ["name", "begun_on"]
        labels = {"name": lazy("Title"), "begun_on": lazy("Start date")}
        widgets = {"begun_on": DATE}

    def __init__(self, *args: Any, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.today = today
        self.fields["begun_on"].initial = today

    def clean_begun_on(self) -> date:
        """Refuse days in the future."""
        on: date = self.cleaned_data["begun_on"]
        if on > self.today:
            raise forms.ValidationError(_("That date is in the future."))
        return on


class BatchForm(forms.ModelForm):
    """Form for seeds of one crop at one temperature."""

    warmth = TypedNumber(required=False)

    class Meta:
        model = TrialBatch
        fields = ["crop_key", "packet", "place", "seeds"]
        labels = {"packet": lazy("From the packet"), "place": lazy("Place"), "seeds": lazy("Seeds")}

    def __init__(self, *args: Any, garden: Garden, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "batch_%s"} | kwargs))
        self.fields["crop_key"] = forms.ChoiceField(
            label=_("Crop"), choices=[(c.key, c.name) for c in crops.of_garden(garden.crops)]
        )
        packets = Packet.objects.filter(garden=garden, removed_at__isnull=True)
        self.fields["packet"].queryset = packets  # type: ignore[attr-defined]
        self.fields["packet"].label_from_instance = packet_name  # type: ignore[attr-defined]
        self.fields["place"].queryset = garden.places.all()  # type: ignore[attr-defined]
        self.fields["warmth"].label = _("Set-point ({degree})").format(degree=units.degree)
        self.fields["warmth"].help_text = _("Leave empty to use the place’s temperature.")
        parse_with(self.fields["warmth"], lambda text: parse_soil(text, units))
        self.order_fields(["crop_key", "seeds", "warmth", "place", "packet"])

    def clean(self) -> dict[str, Any]:
        """Require a temperature or a place, and a packet of the same crop."""
        data = super().clean() or {}
        if not self.errors and data.get("warmth") is None and data.get("place") is None:
            self.add_error("warmth", _("Enter a temperature or choose a place."))
        packet = data.get("packet")
        if packet is not None and packet.crop_key != data.get("crop_key"):
            self.add_error("packet", _("That packet is of another crop."))
        self.instance.warmth_c = data.get("warmth")
        return data


def packet_name(packet: Packet) -> str:
    """Return crop, variety and year of a packet."""
    year = "" if packet.packed_year is None else f" {packet.packed_year}"
    return f"{crops.crop(packet.crop_key).name} {packet.variety}{year}".replace("  ", " ").strip()


class CountGrid(forms.Form):
    """Form for one day's counts of all batches; an empty cell means not counted."""

    on = DayField(label=lazy("Date of count"))

    def __init__(self, *args: Any, trial: GerminationTrial, batches: list[TrialBatch], today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.trial, self.batches, self.today = trial, batches, today
        self.fields["on"].initial = today
        for batch in batches:
            widget = forms.TextInput(attrs={"inputmode": "numeric", "autocomplete": "off", "size": 5})
            self.fields[f"up_{batch.pk}"] = forms.IntegerField(
                min_value=0, max_value=MOST_SEEDS, required=False, widget=widget, label=_("Seedlings up")
            )

    def clean_on(self) -> date:
        """Require a day between the start of the trial and today."""
        on: date = self.cleaned_data["on"]
        if on > self.today:
            raise forms.ValidationError(_("That date is in the future."))
        if on <= self.trial.begun_on:
            raise forms.ValidationError(_("That is too early for any seedlings."))
        return on

    def clean(self) -> dict[str, Any]:
        """Require at least one count, and none above the number of seeds."""
        data = super().clean() or {}
        for batch in self.batches:
            up = data.get(f"up_{batch.pk}")
            if up is not None and up > batch.seeds:
                self.add_error(f"up_{batch.pk}", _("Enter at most {seeds}, the number tested.").format(seeds=batch.seeds))
        if not self.errors and not self.counted:
            raise forms.ValidationError(_("Nothing was counted: every row is empty."))
        return data

    @property
    def counted(self) -> list[tuple[TrialBatch, int]]:
        """Return the batches with a count."""
        counts = ((batch, self.cleaned_data.get(f"up_{batch.pk}")) for batch in self.batches)
        return [(batch, up) for batch, up in counts if up is not None]
