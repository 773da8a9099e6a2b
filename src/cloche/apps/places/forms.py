"""Forms of a place: how it lies, what covers it, what is done to it."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from django import forms

from cloche.apps.gardens.models import Garden
from cloche.apps.places import selectors as place_selectors
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.places.texts import work_choices
from cloche.apps.shared import clock
from cloche.apps.shared.fields import DATE, DayField, TypedNumber, parse_with
from cloche.bridge.services import offered
from cloche.bridge.values.units import Units, parse_air, parse_depth, parse_number
from cloche.core.errors import OutOfRange

OPENINGS = [("0.15", "a crack"), ("0.4", "a hand’s width"), ("0.7", "half"), ("1.0", "wide")]


OWN = "own-"
"""What a choice of one of the garden's own covers begins with."""


def _from_to(period: CoverPeriod) -> str:
    until = "and is still on" if period.last is None else f"to {period.last.day} {period.last:%B}"
    return f"from {period.first.day} {period.first:%B} {until}"


class PlaceForm(forms.ModelForm):
    """A place: what it is called, what stands over or under it, how deep seed goes."""

    seed_depth = TypedNumber(label="Probe at")
    width = TypedNumber(label="Width")

    class Meta:
        model = Place
        fields = ["name", "kind", "within", "texture", "slope_deg", "aspect_deg", "shaded_from_h", "shaded_to_h"]
        labels = {
            "name": "Name",
            "kind": "What it is",
            "within": "Stands inside",
            "texture": "Soil",
            "slope_deg": "Slope, degrees",
            "aspect_deg": "Slopes towards the",
            "shaded_from_h": "Shaded from, hour of the day",
            "shaded_to_h": "to",
        }
        help_texts = {
            "within": "A frame, bench or hotbed in a house sees the house’s air and light.",
            "slope_deg": "0 for level ground; a gentle garden slope is 3 to 5.",
            "shaded_from_h": "By the sun’s clock, without summer time. Empty: nothing shades it.",
        }

    def __init__(self, *args: Any, units: Units, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.garden = garden
        self.units = units
        self.fields["within"].choices = [("", "nothing: it lies in the open"), *Place.House.choices]  # type: ignore[attr-defined]
        for name in ("texture", "slope_deg", "aspect_deg", "width"):
            self.fields[name].required = False  # left alone, they stay as they are
        wide = self.fields["width"]
        parse_with(wide, lambda text: units.metres(parse_number(text)))
        wide.label = f"Width across, in {units.length}"
        wide.help_text = "Narrow covered strips lose warmth to the open ground beside them."
        self.initial.setdefault("width", f"{round(units.length_from_m(self.instance.width_m)):g}")
        depth = self.fields["seed_depth"]
        parse_with(depth, lambda text: parse_depth(text, units))
        depth.label = f"Seed depth, where the probe goes, in {units.length}"
        value = units.length_from_m(self.instance.seed_depth_m)
        self.initial.setdefault("seed_depth", f"{round(value, 1):g}")

    def clean_name(self) -> str:
        """One name once a garden."""
        name = self.cleaned_data["name"].strip()
        if self.garden.places.filter(name__iexact=name).exclude(pk=self.instance.pk).exists():
            raise forms.ValidationError(f"There is already a place called {name} in this garden.")
        return name

    def clean_seed_depth(self) -> float:
        """Half a centimetre to half a metre."""
        depth = self.cleaned_data["seed_depth"]
        if depth is not None and not 0.005 <= depth <= 0.5:
            raise forms.ValidationError("Seed depth lies between 0.5 and 50 cm (0.2 and 20 in).")
        return float(depth)

    def clean_width(self) -> float:
        """From a hand to a field."""
        width = self.cleaned_data["width"]
        if width is None:
            return self.instance.width_m
        if not 0.1 <= width <= 20:
            low, high = self.units.length_text(0.1), self.units.length_text(20.0)
            raise forms.ValidationError(f"A bed is between {low} and {high} wide.")
        return float(width)

    def clean_slope_deg(self) -> float:
        """Nothing said is level."""
        return float(self.cleaned_data["slope_deg"] or 0.0)

    def save(self, commit: bool = True) -> Place:
        """Carry the depth over; the flow saves."""
        self.instance.seed_depth_m = self.cleaned_data["seed_depth"]
        self.instance.width_m = self.cleaned_data["width"]
        return super().save(commit=commit)


class CoverForm(forms.ModelForm):
    """A cover, from when to when, and how it is aired."""

    above = TypedNumber(label="Stay below", required=False)
    opening = forms.TypedChoiceField(label="How far", choices=OPENINGS, coerce=float)

    class Meta:
        model = CoverPeriod
        fields = ["cover", "first", "last", "ends_capped", "opens", "from_h", "to_h", "opening", "blanket"]
        labels = {
            "cover": "Cover",
            "first": "On from",
            "last": "Last day on",
            "ends_capped": "Ends are closed",
            "opens": "Airing",
            "from_h": "From, hour",
            "to_h": "to, hour",
            "blanket": "A blanket lies over it at night",
        }
        help_texts = {"last": "Leave empty while it is on.", "ends_capped": "For tunnels and arches."}
        widgets = {"first": DATE, "last": DATE, "opens": forms.RadioSelect}

    def __init__(self, *args: Any, units: Units, place: Place, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.place = place
        self.own = {f"{OWN}{cover.pk}": cover for cover in place.garden.covers.filter(removed_at__isnull=True)}
        kinds: list[Any] = offered.cover_names()
        mine = [(key, cover.name) for key, cover in self.own.items()]
        choices = [("Yours", mine), ("Any of a kind", kinds)] if mine else kinds
        self.fields["cover"] = forms.ChoiceField(label="Cover", choices=choices)
        if self.instance.item_id and f"{OWN}{self.instance.item_id}" in self.own:
            self.initial["cover"] = f"{OWN}{self.instance.item_id}"
        self.fields["opening"].initial = min(OPENINGS, key=lambda o: abs(float(o[0]) - self.instance.opening))[0]
        self.initial["opening"] = self.fields["opening"].initial
        above = self.fields["above"]
        parse_with(above, lambda text: parse_air(text, units))
        above.label = f"Stay below, {units.degree}"
        self.initial.setdefault("above", f"{units.temperature_from_c(self.instance.above_c):.0f}")
        if self.instance.pk is None:
            self.initial["first"] = self.initial.get("first") or clock.today(place.garden.timezone)

    def clean(self) -> dict[str, Any]:
        """No two covers at once but a film on the soil under another; a warmth to stay below where it is aired by warmth."""
        data = super().clean() or {}
        first, last = data.get("first"), data.get("last")
        if first and not (last and last < first):
            self._refuse_two(first, last)
        if data.get("opens") == CoverPeriod.Opens.ABOVE and data.get("above") is None and "above" not in self.errors:
            self.add_error("above", "Say below which warmth it is to stay.")
        return data

    def _refuse_two(self, first: Any, last: Any) -> None:
        own = self.own.get(self.cleaned_data.get("cover", ""))
        key, films = own.kind if own else self.cleaned_data.get("cover", ""), offered.films()
        # A film on the soil and a cover above it are two layers; two of one layer there cannot be.
        there = self.place.cover_periods.exclude(pk=self.instance.pk)
        layer = there.filter(cover__in=films) if key in films else there.exclude(cover__in=films)
        other = place_selectors.first_overlap(layer, first, last)
        if other:
            self.add_error("first", f"Another cover is on {_from_to(other)}. Take that one off first.")

    def save(self, commit: bool = True) -> CoverPeriod:
        """Carry over what the model names otherwise; the flow saves."""
        period = super().save(commit=False)
        period.place = self.place
        chosen = self.cleaned_data["cover"]
        period.item = self.own.get(chosen)
        period.cover, period.opening = period.item.kind if period.item else chosen, self.cleaned_data["opening"]
        if self.cleaned_data.get("above") is not None:
            period.above_c = self.cleaned_data["above"]
        return period


class OperationForm(forms.Form):
    """What was done to a place."""

    work = forms.ChoiceField(label="What was done", choices=work_choices())
    day = DayField(label="Day")
    amount = TypedNumber(label="How much", required=False)

    def __init__(self, *args: Any, units: Units, place: Place, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.place, self.units = place, units
        self.fields["day"].initial = clock.today(place.garden.timezone)
        self.fields["amount"].label = f"How much: mm of water, or {units.length} laid on"
        self.fields["amount"].help_text = "Leave empty for the usual."

    def clean(self) -> dict[str, Any]:
        """Nothing ahead of its day, no flood."""
        data = super().clean() or {}
        day, amount = data.get("day"), data.get("amount")
        if day and day > clock.today(self.place.garden.timezone):
            self.add_error("day", "That day is still to come. What is done is written down after.")
        if amount is not None:
            watered = data.get("work") == "watered"
            if amount < 0 or (watered and amount > 200):
                self.add_error("amount", "Between 0 and 200 mm." if watered else "That is less than nothing.")
            elif not watered:
                self._laid_on(data, amount)
        return data

    def _laid_on(self, data: dict[str, Any], amount: float) -> None:
        try:
            data["amount"] = parse_depth(f"{amount:f}", self.units)
        except OutOfRange as refusal:
            self.add_error("amount", str(refusal))

    @property
    def at(self) -> datetime:
        """Midday of the day in the garden, or now if that is still to come."""
        day = self.cleaned_data["day"]
        midday = datetime(day.year, day.month, day.day, 12, tzinfo=self.place.garden.timezone)
        return min(midday, clock.now() - timedelta(seconds=1))
