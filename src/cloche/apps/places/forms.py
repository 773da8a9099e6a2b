"""Forms of a place: how it lies, what covers it, what is done to it."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.places import selectors as place_selectors
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.places.models.covers import COVERED_M
from cloche.apps.places.pages import cover_name, the_cover, work_choices
from cloche.apps.places.selectors import usual_period
from cloche.apps.shared import clock, words
from cloche.apps.shared.fields import DATE, DayField, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.services import offered
from cloche.bridge.values.units import Units, parse_air, parse_any_length, parse_depth
from cloche_engine.errors import OutOfRange
from cloche_engine.soil.bed import AIRING, Work

OPENINGS = [("0.15", lazy("a crack")), ("0.4", lazy("a hand’s width")), ("0.7", lazy("half way")), ("1.0", lazy("wide"))]


OWN = "own-"
"""What a choice of one of the garden's own covers begins with."""


def _from_to(period: CoverPeriod) -> str:
    if period.last is None:
        return _("from {day} onwards").format(day=words.day(period.first))
    return _("from {day} to {until}").format(day=words.day(period.first), until=words.day(period.last))


def refuse_name_in_use(garden: Garden, name: str, but: Place | None = None) -> None:
    """Raise ValidationError if another place of the garden, apart from one, has a name."""
    others = garden.places.filter(name__iexact=name)
    if (others if but is None else others.exclude(pk=but.pk)).exists():
        raise forms.ValidationError(_("This garden already has a place called {name}.").format(name=name))


class PlaceForm(forms.ModelForm):
    """Form for a place: name, kind, surroundings and seed depth."""

    seed_depth = TypedNumber(label=lazy("Position of the probe"))
    width = TypedNumber(label=lazy("Width"))

    class Meta:
        model = Place
        fields = ["name", "kind", "within", "texture", "slope_deg", "aspect_deg", "shaded_from_h", "shaded_to_h"]
        labels = {
            "name": lazy("Name"),
            "kind": lazy("Kind"),
            "within": lazy("House"),
            "texture": lazy("Soil"),
            "slope_deg": lazy("Slope (degrees)"),
            "aspect_deg": lazy("Slope faces"),
            "shaded_from_h": lazy("Shaded from (hour)"),
            "shaded_to_h": lazy("until (hour)"),
        }
        help_texts = {
            "within": lazy("A frame, bench or hotbed in a house gets the air and light of the house."),
            "slope_deg": lazy("0 for level ground; a gentle garden slope is 3 to 5 degrees."),
            "shaded_from_h": lazy("In standard time, without daylight saving. Leave empty if nothing shades it."),
        }

    def __init__(self, *args: Any, units: Units, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.garden = garden
        self.units = units
        self.fields["within"].choices = [("", _("none: in the open")), *Place.House.choices]  # type: ignore[attr-defined]
        for name in ("texture", "slope_deg", "aspect_deg", "width"):
            self.fields[name].required = False  # left alone, they stay as they are
        wide = self.fields["width"]
        parse_with(wide, lambda text: parse_any_length(text, units))
        wide.label = _("Width across ({length})").format(length=units.length)
        wide.help_text = _("Narrow covered strips lose warmth to the open ground beside them.")
        self.initial.setdefault("width", f"{round(units.length_from_m(self.instance.width_m)):g}")
        depth = self.fields["seed_depth"]
        parse_with(depth, lambda text: parse_depth(text, units))
        depth.label = _("Seed depth, where the probe goes ({length})").format(length=units.length)
        value = units.length_from_m(self.instance.seed_depth_m)
        self.initial.setdefault("seed_depth", f"{round(value, 1):g}")

    def clean_name(self) -> str:
        """Refuse a name already used in the garden."""
        name = self.cleaned_data["name"].strip()
        refuse_name_in_use(self.garden, name, self.instance)
        return name

    def clean_seed_depth(self) -> float:
        """Accept depths from half a centimetre to half a metre."""
        depth = self.cleaned_data["seed_depth"]
        if depth is not None and not 0.005 <= depth <= 0.5:
            raise forms.ValidationError(_("Enter a seed depth from 0.5 to 50 cm (0.2 to 20 in)."))
        return float(depth)

    def clean_width(self) -> float:
        """Accept widths from a hand to a field."""
        width = self.cleaned_data["width"]
        if width is None:
            return self.instance.width_m
        if not 0.1 <= width <= 20:
            low, high = self.units.length_text(0.1), self.units.length_text(20.0)
            raise forms.ValidationError(_("Enter a width from {low} to {high}.").format(low=low, high=high))
        return float(width)

    def clean_slope_deg(self) -> float:
        """Return 0 if no slope is given."""
        return float(self.cleaned_data["slope_deg"] or 0.0)

    def save(self, commit: bool = True) -> Place:
        """Copy the depth to the place; the flow saves it."""
        self.instance.seed_depth_m = self.cleaned_data["seed_depth"]
        self.instance.width_m = self.cleaned_data["width"]
        return super().save(commit=commit)


class CoverForm(forms.ModelForm):
    """Form for a cover, its dates and its ventilation."""

    above = TypedNumber(label=lazy("Keep below"), required=False)
    opening = forms.TypedChoiceField(label=lazy("Opening"), choices=OPENINGS, coerce=float)
    covered = TypedNumber(label=lazy("Length covered"), required=False)
    both = forms.BooleanField(label=lazy("Both covers are on, one over the other"), required=False)

    class Meta:
        model = CoverPeriod
        fields = ["cover", "first", "last", "ends_capped", "opens", "from_h", "to_h", "opening", "blanket"]
        labels = {
            "cover": lazy("Cover"),
            "first": lazy("Date put on"),
            "last": lazy("Last day on"),
            "ends_capped": lazy("Ends are closed"),
            "opens": lazy("Airing"),
            "from_h": lazy("From (hour)"),
            "to_h": lazy("to (hour)"),
            "blanket": lazy("Night blanket on top"),
        }
        help_texts = {"last": lazy("Leave empty if it is still on."), "ends_capped": lazy("For tunnels and arches.")}
        widgets = {"first": DATE, "last": DATE, "opens": forms.RadioSelect}

    def __init__(self, *args: Any, units: Units, place: Place, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.place, self.units = place, units
        self.own = {f"{OWN}{cover.pk}": cover for cover in place.garden.covers.filter(removed_at__isnull=True)}
        self.fields["cover"] = forms.ChoiceField(label=_("Cover"), choices=self._choices(clock.today(place.garden.timezone)))
        if self.instance.item_id and f"{OWN}{self.instance.item_id}" in self.own:
            self.initial["cover"] = f"{OWN}{self.instance.item_id}"
        self.fields["opening"].initial = min(OPENINGS, key=lambda o: abs(float(o[0]) - self.instance.opening))[0]
        self.initial["opening"] = self.fields["opening"].initial
        self.initial.setdefault("both", self.instance.pk is not None and bool(self._roofs(self.instance)))
        self.usual = usual_period(place, clock.today(place.garden.timezone))
        if self.usual is not None:
            self.fields["both"].help_text = _("Without the tick, it replaces the {cover} that is always there.").format(
                cover=cover_name(self.usual.cover)
            )
        covered = self.fields["covered"]
        parse_with(covered, lambda text: parse_any_length(text, units))
        covered.label = _("Length covered ({length})").format(length=units.length)
        covered.help_text = _("Leave empty if it covers the whole bed. The forecast is for the soil under it.")
        if self.instance.covered_m is not None:
            self.initial.setdefault("covered", f"{round(units.length_from_m(self.instance.covered_m), 1):g}")
        above = self.fields["above"]
        parse_with(above, lambda text: parse_air(text, units))
        above.label = _("Keep below ({degree})").format(degree=units.degree)
        self.initial.setdefault("above", f"{units.temperature_from_c(self.instance.above_c):.0f}")
        if self.instance.pk is None:
            self.initial["first"] = self.initial.get("first") or clock.today(place.garden.timezone)

    def _choices(self, today: date) -> list[Any]:
        """Return free covers first and those on other beds last, named with the bed, since a cover can be on one bed only."""
        kinds: list[Any] = offered.cover_names()
        there = {period.item_id: period for period in place_selectors.periods_from(self.place.garden, today)}
        free: list[tuple[str, str]] = []
        busy: list[tuple[str, str]] = []
        for key, cover in self.own.items():
            period = there.get(cover.pk)
            if period is None or period.place_id == self.place.pk:
                free.append((key, cover.name))
            else:
                busy.append((key, _("{cover}, on {place}").format(cover=cover.name, place=period.place.name)))
        groups = [
            (_("Your covers, free"), free),
            (_("Any cover of this kind"), kinds),
            (_("Your covers, on another bed"), busy),
        ]
        return [group for group in groups if group[1]] if self.own else kinds

    def clean(self) -> dict[str, Any]:
        """Refuse unintended double covers, and require a temperature if ventilation depends on it."""
        data = super().clean() or {}
        first, last = data.get("first"), data.get("last")
        if first and not (last and last < first):
            self._refuse_more(first, last)
        covered = data.get("covered")
        if covered is not None and not COVERED_M[0] <= covered <= COVERED_M[1]:
            low, high = (self.units.length_text(end) for end in COVERED_M)
            self.add_error("covered", _("Enter a value from {low} to {high}.").format(low=low, high=high))
        if data.get("opens") == CoverPeriod.Opens.ABOVE and data.get("above") is None and "above" not in self.errors:
            self.add_error("above", _("Enter the temperature to stay below."))
        return data

    def _refuse_more(self, first: date, last: date | None) -> None:
        """Refuse a third cover, and a second one unless the grower confirms that both stay."""
        own = self.own.get(self.cleaned_data.get("cover", ""))
        meant = CoverPeriod(pk=self.instance.pk, cover=own.kind if own else self.cleaned_data.get("cover", ""), item=own)
        meant.first, meant.last = first, last
        there = self.place.cover_periods.exclude(pk=self.instance.pk)
        other = place_selectors.in_the_way(meant, there)
        if other:
            self.add_error(
                "first", _("Another cover is on {from_to}. Take that one off first.").format(from_to=_from_to(other))
            )
        elif (roofs := self._roofs(meant)) and not self.cleaned_data.get("both"):
            self.add_error(
                "both",
                _("{cover} is on {from_to}. Take it off first, or tick that both are on.").format(
                    cover=words.sentence(the_cover(roofs[0])), from_to=_from_to(roofs[0])
                ),
            )

    @property
    def asks_both(self) -> bool:
        """Return whether another cover is there, so that the form asks whether it stays."""
        return bool(self["both"].errors or self["both"].value() or self.usual)

    @property
    def usual_beside(self) -> CoverPeriod | None:
        """Return the place's usual cover, unsaved, if it stays beside the new one."""
        if self.usual is None or not self.cleaned_data["both"] or self.usual.cover == self.instance.cover:
            return None
        self.usual.first = min(self.usual.first, self.cleaned_data["first"])
        return self.usual

    def _roofs(self, meant: CoverPeriod) -> list[CoverPeriod]:
        """Return other covers at the same time that need room beneath, like this one."""
        films = offered.films()
        there = self.place.cover_periods.exclude(pk=meant.pk).exclude(cover__in=films).select_related("item")
        return [] if meant.cover in films else [period for period in there if place_selectors.overlap(meant, period)]

    def save(self, commit: bool = True) -> CoverPeriod:
        """Copy the values whose names differ from the model's; the flow saves the period."""
        period = super().save(commit=False)
        period.place = self.place
        chosen = self.cleaned_data["cover"]
        period.item = self.own.get(chosen)
        period.cover, period.opening = period.item.kind if period.item else chosen, self.cleaned_data["opening"]
        if self.cleaned_data.get("above") is not None:
            period.above_c = self.cleaned_data["above"]
        period.covered_m = self.cleaned_data["covered"]
        return period


MOST_WATER_MM = 200.0


class OperationForm(forms.Form):
    """Form for work on a place."""

    work = forms.ChoiceField(label=lazy("Work done"), choices=work_choices())
    day = DayField(label=lazy("Date"))
    amount = TypedNumber(label=lazy("Amount"), required=False)

    def __init__(self, *args: Any, units: Units, place: Place, **kwargs: Any) -> None:
        # It stands on one page with the form of a reading, which has a day of its own.
        super().__init__(*args, **({"auto_id": "operation_%s"} | kwargs))
        self.place, self.units = place, units
        self.fields["day"].initial = clock.today(place.garden.timezone)
        self.fields["amount"].label = _("Amount: {rain} of water, or {length} of material").format(
            rain=units.rain, length=units.length
        )
        self.fields["amount"].help_text = _("Leave empty for the usual amount.")

    def clean(self) -> dict[str, Any]:
        """Refuse future dates and implausible amounts."""
        data = super().clean() or {}
        day, amount = data.get("day"), data.get("amount")
        if day and day > clock.today(self.place.garden.timezone):
            self.add_error("day", _("That date is in the future. Record work once it is done."))
        if amount is not None:
            self._amount(data, amount)
        return data

    def _amount(self, data: dict[str, Any], amount: float) -> None:
        """Set the amount in mm of water or metres of material, depending on the work."""
        if data.get("work") in AIRING:
            self.add_error("amount", _("The opening is entered with the cover. Leave this empty."))
        elif amount < 0:
            self.add_error("amount", _("Enter a value of zero or more."))
        elif data.get("work") == Work.WATERED:
            data["amount"] = amount / self.units.rain_from_mm(1.0)
            if data["amount"] > MOST_WATER_MM:
                self.add_error("amount", _("Enter a value from 0 to {most}.").format(most=self.units.rain_text(MOST_WATER_MM)))
        else:
            try:
                data["amount"] = parse_depth(f"{amount:f}", self.units)
            except OutOfRange as refusal:
                self.add_error("amount", str(refusal))

    @property
    def at(self) -> datetime:
        """Return noon of the day in the garden's time zone, or now if noon is still to come."""
        day = self.cleaned_data["day"]
        midday = datetime(day.year, day.month, day.day, 12, tzinfo=self.place.garden.timezone)
        return min(midday, clock.now() - timedelta(seconds=1))
