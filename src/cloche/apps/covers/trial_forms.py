"""Forms of trials and of the sandbox."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.covers import selectors
from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import cover_on
from cloche.apps.seed import selectors as packets
from cloche.apps.shared import words
from cloche.apps.shared.fields import DayField, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.services import covers, crops
from cloche.bridge.values.units import Units, parse_depth, parse_soil

LOCAL = "%Y-%m-%dT%H:%M"
ALIKE = [
    ("soil", lazy("both have the same soil, dug and watered alike")),
    ("sun", lazy("both get the same sun, with no shade from the cover itself")),
    ("apart", lazy("the beds are a good stride apart, because a covered strip warms its neighbour")),
    ("depth", lazy("both are read with the same probe at the same depth")),
    ("hour", lazy("both are read within a few minutes, morning and evening")),
]


class TrialForm(forms.Form):
    """A covered place, a bare one beside it, and the checks that were made."""

    covered = forms.ModelChoiceField(Place.objects.none(), label=lazy("Covered bed"), empty_label=None)
    bare = forms.ModelChoiceField(Place.objects.none(), label=lazy("Uncovered bed beside it"), empty_label=None)
    begun_on = DayField(label=lazy("Since"))
    depth = TypedNumber(label=lazy("Depth of both readings"))
    alike = forms.MultipleChoiceField(
        label=lazy("Conditions checked"), choices=ALIKE, required=False, widget=forms.CheckboxSelectMultiple
    )

    def __init__(self, *args: Any, garden: Garden, units: Units, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.today = today
        for name in ("covered", "bare"):
            self.fields[name].queryset = selectors.coverable(garden)  # type: ignore[attr-defined]
        parse_with(self.fields["depth"], lambda text: parse_depth(text, units))
        self.fields["depth"].label = _("Depth of both readings ({length})").format(length=units.length)
        places = list(selectors.coverable(garden).prefetch_related("cover_periods"))
        for name, wanted in (("covered", True), ("bare", False)):
            fit = [place for place in places if (cover_on(place, today) is not None) is wanted]
            if fit:
                self.initial.setdefault(name, fit[0].pk)
        self.initial.setdefault("begun_on", today)
        self.initial.setdefault("depth", f"{round(units.length_from_m(0.05), 1):g}")

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        if data.get("covered") and data.get("covered") == data.get("bare"):
            self.add_error("bare", _("Choose another bed to compare with: a bed cannot be compared with itself."))
        if data.get("begun_on") and data["begun_on"] > self.today:
            self.add_error("begun_on", _("That date is in the future."))
        return data


class PairForm(forms.Form):
    """Both readings of one visit."""

    covered = TypedNumber(label=lazy("Covered bed"))
    bare = TypedNumber(label=lazy("Bed without a cover"))
    at = forms.DateTimeField(label=lazy("Date"), widget=forms.DateTimeInput(attrs={"type": "datetime-local"}, format=LOCAL))

    def __init__(self, *args: Any, trial: CoverTrial, units: Units, now: datetime, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.trial, self.zone, self.now = trial, trial.covered.garden.timezone, now
        for name, place in (("covered", trial.covered), ("bare", trial.bare)):
            parse_with(self.fields[name], lambda text: parse_soil(text, units))
            self.fields[name].label = f"{place.name}, {units.degree}"
        self.initial.setdefault("at", now.astimezone(self.zone).strftime(LOCAL))

    def clean_at(self) -> datetime:
        """Accept times on the garden's clock from the start of the trial until now."""
        at: datetime = self.cleaned_data["at"].replace(tzinfo=self.zone)
        if at > self.now + timedelta(minutes=5):
            raise forms.ValidationError(_("That time is in the future."))
        if at.date() < self.trial.begun_on:
            raise forms.ValidationError(_("That date is before the trial began."))
        return at


MOST_WIND_M_S = 12.0


def month_choices() -> list[tuple[int, str]]:
    """Return the months by name."""
    return [(number, words.month_name(number)) for number in range(1, 13)]


class SandboxForm(forms.Form):
    """Positions of the sliders. Values out of range are set to the nearest possible one."""

    month = forms.TypedChoiceField(label=lazy("Month"), choices=month_choices, coerce=int)
    low = forms.FloatField(label=lazy("Night’s low"))
    high = forms.FloatField(label=lazy("Day’s high"))
    sun = forms.FloatField(label=lazy("Sunshine (share of a clear day)"), min_value=0, max_value=100)
    wind = forms.FloatField(label=lazy("Wind"), min_value=0)
    cover = forms.ChoiceField(label=lazy("Cover"), required=False)
    opening = forms.FloatField(label=lazy("Open from 9 to 17"), min_value=0, max_value=100)
    ground = forms.MultipleChoiceField(
        label=lazy("Soil"), choices=covers.grounds, required=False, widget=forms.CheckboxSelectMultiple
    )
    crop = forms.ChoiceField(label=lazy("Sowing"))

    def __init__(self, *args: Any, garden: Garden, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["cover"].choices = [("", _("no cover")), *covers.names()]  # type: ignore[attr-defined]
        grown = crops.of_garden(garden.crops, packets.values_in_use(garden))
        self.fields["crop"].choices = [(crop.key, crop.name_plural) for crop in grown]  # type: ignore[attr-defined]
        ends = {name: (units.temperature_from_c(low), units.temperature_from_c(high)) for name, low, high in SLIDES_C}
        ends |= {"sun": (12, 100), "wind": (0, round(units.wind_from_m_s(MOST_WIND_M_S))), "opening": (0, 100)}
        for name, (low, high) in ends.items():
            step = 0.5 if name == "wind" else 1
            unit = units.degree if name in ("low", "high") else f" {units.wind}" if name == "wind" else " %"
            attrs = {"type": "range", "min": round(low), "max": round(high), "step": step}
            self.fields[name].widget, self.fields[name].help_text = forms.NumberInput(attrs=attrs), unit
        self.ends = ends

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        for name in self.ends:
            if data.get(name) is not None:
                least, most = self.ends[name]
                data[name] = min(max(data[name], least), most)
        return data


SLIDES_C = (("low", -20.0, 25.0), ("high", -10.0, 40.0))
