"""Forms for germination trials, their batches and counts."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import date
from typing import Any

from django import forms
from django.http import QueryDict
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.seed.models import Packet
from cloche.apps.shared.fields import DATE, DayField, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.apps.trials.models import MOST_SEEDS, WARMTH_C, GerminationTrial, TrialBatch
from cloche.apps.trials.sheet import Cell, read_sheet
from cloche.bridge.services import crops
from cloche.bridge.values.units import NotANumber, Units, parse_soil
from cloche_engine.errors import OutOfRange


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


MOST_TEMPERATURES = 12
EXAMPLE = "Crop; 10; 15; 20\nCarrot; 8; 19; 22/25"


class LayoutForm(forms.Form):
    """Form that lays out several crops at several temperatures, as many seeds of each."""

    crop_keys = forms.MultipleChoiceField(label=lazy("Crops"), widget=forms.SelectMultiple(attrs={"size": 7}))
    warmths = forms.CharField(max_length=120)
    each = forms.IntegerField(
        label=lazy("Seeds of each"), min_value=1, max_value=MOST_SEEDS, initial=25,
        widget=forms.TextInput(attrs={"inputmode": "numeric", "autocomplete": "off"}),
    )  # fmt: skip

    def __init__(self, *args: Any, garden: Garden, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "layout_%s"} | kwargs))
        self.units = units
        self.fields["crop_keys"].choices = [(c.key, c.name) for c in crops.of_garden(garden.crops)]  # type: ignore[attr-defined]
        example = ", ".join(f"{units.temperature_from_c(value):.0f}" for value in (10.0, 15.0, 20.0, 25.0))
        self.fields["warmths"].label = _("Temperatures ({degree})").format(degree=units.degree)
        self.fields["warmths"].help_text = _("Separated by spaces or semicolons, such as {example}.").format(
            example=example.replace(",", "")
        )

    def clean_warmths(self) -> list[float]:
        """Return the temperatures [°C] in rising order."""
        parts = [part for part in re.split(r"[;\s]+|,\s", self.cleaned_data["warmths"]) if part]
        if len(parts) > MOST_TEMPERATURES:
            raise forms.ValidationError(_("Enter at most {most} temperatures.").format(most=MOST_TEMPERATURES))
        return sorted({warmth_from(part, self.units) for part in parts})

    def batches_for(self, trial: GerminationTrial) -> list[TrialBatch]:
        """Return the batches that the trial does not have yet, unsaved."""
        data = self.cleaned_data
        there = {(batch.crop_key, batch.warmth_c) for batch in trial.batches.all()}
        pairs = [(key, warmth) for key in data["crop_keys"] for warmth in data["warmths"] if (key, warmth) not in there]
        return [TrialBatch(trial=trial, crop_key=key, warmth_c=warmth, seeds=data["each"]) for key, warmth in pairs]


def warmth_from(text: str, units: Units) -> float:
    """Parse a temperature [°C]. Raises ValidationError with the text if it is not one or out of range."""
    try:
        value = parse_soil(text, units)
    except NotANumber as refusal:
        raise forms.ValidationError(str(refusal)) from refusal
    except OutOfRange as refusal:
        raise forms.ValidationError(f"“{text}”: {refusal}") from refusal
    if not WARMTH_C[0] <= value <= WARMTH_C[1]:
        low, high = (units.temperature_text(end, 0) for end in WARMTH_C)
        raise forms.ValidationError(
            _("“{text}”: enter a temperature from {low} to {high}.").format(text=text, low=low, high=high)
        )
    return value


class SheetForm(forms.Form):
    """Form that takes a whole trial from a spreadsheet: crops down the side, temperatures along the top.

    Every unreadable cell is reported, and nothing is saved until all can be read.
    """

    counted_on = DayField(label=lazy("Date of count"))
    seeds_each = forms.IntegerField(
        label=lazy("Seeds of each"), min_value=1, max_value=MOST_SEEDS, initial=25,
        widget=forms.TextInput(attrs={"inputmode": "numeric", "autocomplete": "off"}),
    )  # fmt: skip
    table = forms.CharField(
        label=lazy("Table"),
        max_length=20_000,
        widget=forms.Textarea(
            attrs={"rows": 6, "spellcheck": "false", "placeholder": "Crop; 10; 15; 20\nCarrot; 8; 19; 22/25"}
        ),
        help_text=lazy(
            "Copy it from a spreadsheet: temperatures along the top, a crop in each row, seedlings in the cells. "
            "A cell such as 22/50 gives its own number of seeds. Leave a cell empty if there was no such batch."
        ),
    )

    def __init__(self, *args: Any, trial: GerminationTrial, units: Units, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "sheet_%s"} | kwargs))
        self.trial, self.units, self.today = trial, units, today
        self.initial.setdefault("counted_on", today.isoformat())
        self.cells: list[Cell] = []

    def clean_counted_on(self) -> date:
        """Require a day between the start of the trial and today."""
        return day_of_count(self.cleaned_data["counted_on"], self.trial, self.today)

    def clean(self) -> dict[str, Any]:
        """Read all cells, or report every error with its row."""
        data = super().clean() or {}
        if "table" in data and "seeds_each" in data:
            try:
                self.cells = read_sheet(data["table"], data["seeds_each"], lambda text: warmth_from(text, self.units))
            except forms.ValidationError as refusal:
                self.add_error("table", refusal)
        return data

    @property
    def day(self) -> date:
        """Return the day of the counts."""
        return self.cleaned_data["counted_on"]  # type: ignore[no-any-return]


def day_of_count(on: date, trial: GerminationTrial, today: date) -> date:
    """Return the day if seedlings can have been counted on it. Raises ValidationError."""
    if on > today:
        raise forms.ValidationError(_("That date is in the future."))
    if on <= trial.begun_on:
        raise forms.ValidationError(_("That is too early for any seedlings."))
    return on


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
        return day_of_count(self.cleaned_data["on"], self.trial, self.today)

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
    def day(self) -> date:
        """Return the day of the counts."""
        return self.cleaned_data["on"]  # type: ignore[no-any-return]

    @property
    def counted(self) -> list[tuple[TrialBatch, int]]:
        """Return the batches with a count."""
        counts = ((batch, self.cleaned_data.get(f"up_{batch.pk}")) for batch in self.batches)
        return [(batch, up) for batch, up in counts if up is not None]


@dataclass(frozen=True)
class TrialForms:
    """The forms of a trial's page, of which at most one was posted."""

    batch: BatchForm
    layout: LayoutForm
    sheet: SheetForm
    grid: CountGrid

    @classmethod
    def of(cls, post: QueryDict | None, trial: GerminationTrial, units: Units, today: date) -> TrialForms:
        """Return all forms, the posted one bound: a field that only it has tells which."""
        marks = {"batch": "crop_key", "layout": "warmths", "sheet": "table"}
        which = "" if post is None else next((name for name, mark in marks.items() if mark in post), "grid")
        data = {name: post if name == which else None for name in (*marks, "grid")}
        return cls(
            BatchForm(data["batch"], garden=trial.garden, units=units),
            LayoutForm(data["layout"], garden=trial.garden, units=units),
            SheetForm(data["sheet"], trial=trial, units=units, today=today),
            CountGrid(data["grid"], trial=trial, batches=list(trial.batches.all()), today=today),
        )

    @property
    def posted(self) -> BatchForm | LayoutForm | SheetForm | CountGrid | None:
        """Return the form that was posted."""
        return next((form for form in (self.batch, self.layout, self.sheet, self.grid) if form.is_bound), None)
