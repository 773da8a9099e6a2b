"""Forms of trials and of the sandbox."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from typing import Any

from django import forms

from cloche.apps.covers import selectors
from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.seed import selectors as packets
from cloche.apps.shared.fields import DayField, TypedNumber, parse_with
from cloche.bridge.services import covers, crops
from cloche.bridge.values.units import Units, parse_depth, parse_soil

LOCAL = "%Y-%m-%dT%H:%M"
ALIKE = [
    ("soil", "the same soil, dug and watered alike"),
    ("sun", "the same sun through the day, no shade from the cover itself"),
    ("apart", "a good stride apart, for a covered strip warms its neighbour"),
    ("depth", "the same probe at the same depth"),
    ("hour", "both read within a few minutes, morning and evening"),
]


class TrialForm(forms.Form):
    """A covered place, a bare one beside it, and what was seen to."""

    covered = forms.ModelChoiceField(Place.objects.none(), label="Covered", empty_label=None)
    bare = forms.ModelChoiceField(Place.objects.none(), label="Bare, beside it", empty_label=None)
    begun_on = DayField(label="Since")
    depth = TypedNumber(label="Depth of both readings")
    alike = forms.MultipleChoiceField(label="Seen to", choices=ALIKE, required=False, widget=forms.CheckboxSelectMultiple)

    def __init__(self, *args: Any, garden: Garden, units: Units, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.today = today
        for name in ("covered", "bare"):
            self.fields[name].queryset = selectors.coverable(garden)  # type: ignore[attr-defined]
        parse_with(self.fields["depth"], lambda text: parse_depth(text, units))
        self.fields["depth"].label = f"Depth of both readings, {units.length}"
        places = list(selectors.coverable(garden).prefetch_related("cover_periods"))
        for name, wanted in (("covered", True), ("bare", False)):
            fit = [place for place in places if (selectors.now_over(place, today) is not None) is wanted]
            if fit:
                self.initial.setdefault(name, fit[0].pk)
        self.initial.setdefault("begun_on", today)
        self.initial.setdefault("depth", f"{round(units.length_from_m(0.05), 1):g}")

    def clean(self) -> dict[str, Any]:
        """Two places, since a day that has come."""
        data = super().clean() or {}
        if data.get("covered") and data.get("covered") == data.get("bare"):
            self.add_error("bare", "A bed cannot be compared with itself: choose the bare one beside it.")
        if data.get("begun_on") and data["begun_on"] > self.today:
            self.add_error("begun_on", "That day is still to come.")
        return data


class PairForm(forms.Form):
    """Both readings of one visit."""

    covered = TypedNumber(label="Covered")
    bare = TypedNumber(label="Bare")
    at = forms.DateTimeField(label="When", widget=forms.DateTimeInput(attrs={"type": "datetime-local"}, format=LOCAL))

    def __init__(self, *args: Any, trial: CoverTrial, units: Units, now: datetime, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.trial, self.zone, self.now = trial, trial.covered.garden.timezone, now
        for name, place in (("covered", trial.covered), ("bare", trial.bare)):
            parse_with(self.fields[name], lambda text: parse_soil(text, units))
            self.fields[name].label = f"{place.name}, {units.degree}"
        self.initial.setdefault("at", now.astimezone(self.zone).strftime(LOCAL))

    def clean_at(self) -> datetime:
        """In the garden's own clock, not ahead of it, not before the trial."""
        at: datetime = self.cleaned_data["at"].replace(tzinfo=self.zone)
        if at > self.now + timedelta(minutes=5):
            raise forms.ValidationError("That is still to come.")
        if at.date() < self.trial.begun_on:
            raise forms.ValidationError("That was before the trial began.")
        return at


class SandboxForm(forms.Form):
    """Where the sliders stand; what is out of range is taken as the nearest that can be."""

    MONTHS = [(number, f"{date(2000, number, 1):%B}") for number in range(1, 13)]
    month = forms.TypedChoiceField(label="In", choices=MONTHS, coerce=int)
    low = forms.FloatField(label="Night’s low")
    high = forms.FloatField(label="Day’s high")
    sun = forms.FloatField(label="Sun, of a cloudless day", min_value=12, max_value=100)
    wind = forms.FloatField(label="Wind, m/s", min_value=0, max_value=12)
    cover = forms.ChoiceField(label="Cover", required=False)
    opening = forms.FloatField(label="Open from 9 to 17", min_value=0, max_value=100)
    ground = forms.MultipleChoiceField(
        label="The bed", choices=covers.GROUNDS, required=False, widget=forms.CheckboxSelectMultiple
    )
    crop = forms.ChoiceField(label="Sown with")

    def __init__(self, *args: Any, garden: Garden, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["cover"].choices = [("", "none"), *covers.names()]  # type: ignore[attr-defined]
        grown = crops.chosen(garden.crops, packets.values_in_use(garden))
        self.fields["crop"].choices = [(crop.key, crop.name_plural) for crop in grown]  # type: ignore[attr-defined]
        ends = {name: (units.temperature_from_c(low), units.temperature_from_c(high)) for name, low, high in SLIDES_C}
        ends |= {"sun": (12, 100), "wind": (0, 12), "opening": (0, 100)}
        for name, (low, high) in ends.items():
            step = 0.5 if name == "wind" else 1
            unit = units.degree if name in ("low", "high") else {"wind": " m/s"}.get(name, " %")
            attrs = {"type": "range", "min": round(low), "max": round(high), "step": step}
            self.fields[name].widget, self.fields[name].help_text = forms.NumberInput(attrs=attrs), unit
        self.ends = ends

    def clean(self) -> dict[str, Any]:
        """What lies beyond a slider's end is taken as its end."""
        data = super().clean() or {}
        for name in ("low", "high"):
            if data.get(name) is not None:
                least, most = self.ends[name]
                data[name] = min(max(data[name], least), most)
        return data


SLIDES_C = (("low", -20.0, 25.0), ("high", -10.0, 40.0))
