"""Forms of covers: compare them, own them, build them."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.covers import selectors
from cloche.apps.covers.pages.compare import MOST_COVERS, MOST_CROPS
from cloche.apps.covers.pages.inventory import Built
from cloche.apps.gardens.models import Garden
from cloche.apps.places.forms import CoverForm
from cloche.apps.places.models import Cover, CoverDamage, Hotbed, Place
from cloche.apps.seed import selectors as packets
from cloche.apps.shared import words
from cloche.apps.shared.fields import DATE, MOST_MONEY, DayField, ShownAs, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.services import covers, crops, hotbeds
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units, parse_any_length, parse_weight

AHEAD_D = 365
WARMED = [(0, lazy("at once")), (7, lazy("a week later")), (14, lazy("two weeks later")), (21, lazy("three weeks later"))]


class AskForm(forms.Form):
    """The bed, crop and date of the question."""

    place = forms.ModelChoiceField(Place.objects.none(), label=lazy("Bed"), empty_label=None)
    crop = forms.ChoiceField(label=lazy("Crop"), required=False)
    on = DayField(label=lazy("Date put on"))
    warm = forms.TypedChoiceField(label=lazy("Date sown"), choices=WARMED, coerce=int, initial=14)
    also = forms.ChoiceField(label=lazy("Compare with"), required=False)

    def __init__(self, *args: Any, garden: Garden, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.today = today
        self.fields["place"].queryset = selectors.coverable(garden)  # type: ignore[attr-defined]
        grown = [(crop.key, crop.name_plural) for crop in crops.of_garden(garden.crops, packets.values_in_use(garden))]
        self.fields["crop"].choices = [("", _("all my crops")), *grown]  # type: ignore[attr-defined]
        self.fields["also"].choices = [("", _("no further cover")), *covers.for_beds()]  # type: ignore[attr-defined]

    def clean_on(self) -> date:
        """Check the date: up to a year ahead where the typical climate allows a forecast."""
        on: date = self.cleaned_data["on"]
        if not self.today <= on <= self.today + timedelta(days=AHEAD_D):
            raise forms.ValidationError(
                _("Enter a date from today to {day}, a year ahead.").format(
                    day=words.day(self.today + timedelta(days=AHEAD_D), self.today)
                )
            )
        return on


class SeasonForm(forms.Form):
    """The bed, crops and covers to compare."""

    place = forms.ModelChoiceField(Place.objects.none(), empty_label=None)
    crop = forms.MultipleChoiceField(label=lazy("Crops"), required=False, widget=forms.CheckboxSelectMultiple)
    cover = forms.MultipleChoiceField(label=lazy("Covers"), required=False, widget=forms.CheckboxSelectMultiple)

    def __init__(self, *args: Any, garden: Garden, offered: list[tuple[str, str]], **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["place"].queryset = selectors.coverable(garden)  # type: ignore[attr-defined]
        grown = [(crop.key, crop.name_plural) for crop in crops.of_garden(garden.crops, packets.values_in_use(garden))]
        self.fields["crop"].choices = grown  # type: ignore[attr-defined]
        self.fields["cover"].choices = offered  # type: ignore[attr-defined]

    def clean_crop(self) -> list[str]:
        """Limit the number of crops for the sake of space."""
        return self._few("crop", MOST_CROPS, "crops")

    def clean_cover(self) -> list[str]:
        """Limit the number of covers, because each takes seconds."""
        return self._few("cover", MOST_COVERS, "covers")

    def _few(self, name: str, most: int, what: str) -> list[str]:
        chosen: list[str] = self.cleaned_data[name]
        if len(chosen) > most:
            raise forms.ValidationError(
                _("Choose at most {most} {what} at a time. You have chosen {len}.").format(
                    most=most, what=what, len=len(chosen)
                )
            )
        return chosen


class PutOnForm(CoverForm):
    """A cover from a date on, and the sowings planned under it."""

    crop = forms.ChoiceField(label=lazy("Crop to sow"), required=False)
    sow_on = DayField(label=lazy("Sowing date"), required=False)

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        garden = self.place.garden
        grown = [(crop.key, crop.name_plural) for crop in crops.of_garden(garden.crops, packets.values_in_use(garden))]
        self.fields["crop"].choices = [("", _("nothing yet")), *grown]  # type: ignore[attr-defined]

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean()
        first, sow_on = data.get("first"), data.get("sow_on")
        if data.get("crop") and sow_on is None and "sow_on" not in self.errors:
            self.add_error("sow_on", _("Date"))
        elif data.get("crop") and first and sow_on and sow_on < first:
            self.add_error("sow_on", _("That date is before the cover goes on."))
        return data


MOST_KG = 500.0


class OwnCoverForm(ShownAs, forms.ModelForm):
    """A cover the garden owns."""

    shown_as = {f"{name}_m": name for name in ("length", "width", "spread", "low", "high")} | {"weight_kg": "weight"}

    length = TypedNumber(label=lazy("Length"))
    width = TypedNumber(label=lazy("Width"))
    spread = TypedNumber(label=lazy("Distance between the edges"), required=False)
    low = TypedNumber(label=lazy("Height at the front"), required=False)
    high = TypedNumber(label=lazy("Height at the back"), required=False)
    price = TypedNumber(label=lazy("Price"), required=False)
    weight = TypedNumber(label=lazy("Weight"), required=False)

    class Meta:
        model = Cover
        fields = ["kind", "name", "purchase_year", "dirty"]
        labels = {"name": lazy("Name"), "purchase_year": lazy("Year bought"), "dirty": lazy("Dirty or clouded")}
        help_texts = {"purchase_year": lazy("Enter a year. Sheets and films lose light as they age.")}

    def __init__(self, *args: Any, garden: Garden, units: Units, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.garden, self.units, self.today = garden, units, today
        self.fields["kind"] = forms.ChoiceField(label=_("Kind"), choices=covers.ownable())
        if not self.instance.kind:
            self.initial["kind"] = covers.OFTEN[0]
        for name, label in (
            ("length", _("Length along the bed")),
            ("width", _("Width of the sheet or frame")),
            ("spread", _("Distance between the edges of a bent sheet")),
            ("low", _("Height of a frame at the front")),
            ("high", _("Height of a frame at the back")),
        ):
            parse_with(self.fields[name], lambda text: parse_any_length(text, units))
            self.fields[name].label = f"{label}, {units.length}"
            value = getattr(self.instance, f"{name}_m")
            if value is not None:
                self.initial.setdefault(name, f"{round(units.length_from_m(value), 1):g}")
        self.fields["spread"].help_text = _("For tunnels and arches. Leave empty for the usual distance of the kind.")
        self.fields["price"].help_text = _("In your own currency, to work out the cost per season.")
        self.fields["weight"].label = _("Weight ({unit})").format(unit=units.weight)
        parse_with(self.fields["weight"], lambda text: parse_weight(text, units, (0.0, MOST_KG)))
        if self.instance.price is not None:
            self.initial.setdefault("price", f"{self.instance.price:g}")
        if self.instance.weight_kg is not None:
            self.initial.setdefault("weight", f"{round(units.weight_from_kg(self.instance.weight_kg), 1):g}")

    def clean_name(self) -> str:
        """Refuse a name that the garden already uses."""
        name: str = self.cleaned_data["name"].strip()
        same = self.garden.covers.filter(name__iexact=name, removed_at__isnull=True).exclude(pk=self.instance.pk)
        if same.exists():
            raise forms.ValidationError(
                _(
                    "You already have a cover called {name}. Give each cover its own name, because it can be on only one bed."
                ).format(name=name)
            )
        return name

    def clean_purchase_year(self) -> int | None:
        """Refuse future years and implausibly old ones."""
        year: int | None = self.cleaned_data["purchase_year"]
        if year is not None and not 1950 <= year <= self.today.year:
            raise forms.ValidationError(_("Enter a year from 1950 to {year}.").format(year=self.today.year))
        return year

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        limits = [("length", 0.1, 60.0), ("width", 0.1, 12.0), ("spread", 0.1, 12.0), ("low", 0.03, 3.0), ("high", 0.03, 3.0)]
        for name, least, most in limits:
            value = data.get(name)
            if value is not None and not least <= value <= most:
                low, high = self.units.length_text(least), self.units.length_text(most)
                self.add_error(name, _("Enter a value from {low} to {high}.").format(low=low, high=high))
        for name, most in (("price", MOST_MONEY), ("weight", 500.0)):
            value = data.get(name)
            if value is not None and not 0 <= value <= most:
                self.add_error(name, _("Enter a value from 0 to {most}.").format(most=number_text(f"{most:g}")))
        if not self.errors:
            self._carry_over(data)
        return data

    def _carry_over(self, data: dict[str, Any]) -> None:
        """Copy values to the differently named fields of the model, which validates them."""
        cover, kind = self.instance, data["kind"]
        cover.garden, cover.kind = self.garden, kind
        cover.length_m, cover.width_m = data["length"], data["width"]
        cover.spread_m = data["spread"] if covers.bends(kind) else None
        cover.low_m, cover.high_m = (data["low"], data["high"]) if covers.is_box(kind) else (None, None)
        cover.price, cover.weight_kg = data["price"], data["weight"]


class DamageForm(forms.ModelForm):
    """Damage to a cover."""

    class Meta:
        model = CoverDamage
        fields = ["on", "what", "cause", "note"]
        labels = {"on": lazy("Date"), "what": lazy("Damage"), "cause": lazy("Cause"), "note": lazy("Note")}
        widgets = {"on": DATE}

    def __init__(self, *args: Any, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "damage_%s"} | kwargs))
        self.today = today
        self.initial.setdefault("on", today)
        for name, choices in (("what", CoverDamage.What.choices), ("cause", CoverDamage.Cause.choices)):
            self.fields[name].choices = choices  # type: ignore[attr-defined]

    def clean_on(self) -> date:
        """Check the date: up to a year ahead where the typical climate allows a forecast."""
        on: date = self.cleaned_data["on"]
        if on > self.today:
            raise forms.ValidationError(_("That date is in the future."))
        return on


class HotbedForm(forms.ModelForm):
    """How a hotbed is built."""

    depth = TypedNumber(label=lazy("Depth of the material"))
    length = TypedNumber(label=lazy("Length"))
    width = TypedNumber(label=lazy("Width"))
    soil = TypedNumber(label=lazy("Depth of soil on top"))

    class Meta:
        model = Hotbed
        fields = ["filled_on", "matted_until", "insulated"]
        labels = {
            "filled_on": lazy("Filled on"),
            "matted_until": lazy("Mat on until"),
            "insulated": lazy("Edges insulated"),
        }
        help_texts = {
            "matted_until": lazy("Straw, sacking or old carpet over the whole heap. Leave empty if there is none."),
            "insulated": lazy("For example cardboard, wool or straw bales."),
        }
        widgets = {"filled_on": DATE, "matted_until": DATE}

    SIZES = [("depth", lazy("Depth of the material"), 0.2, 2.0), ("length", lazy("Length"), 0.3, 50.0)]
    SIZES += [("width", lazy("Width"), 0.3, 10.0), ("soil", lazy("Depth of soil on top"), 0.0, 0.5)]

    def __init__(self, *args: Any, units: Units, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.units, self.today = units, today
        for name, label, choices in (
            ("material", _("Materials"), hotbeds.materials()),
            ("moist", _("Moisture when filled"), hotbeds.moistures()),
            ("trodden", _("How it was trodden"), hotbeds.treads()),
        ):
            self.fields[name] = forms.ChoiceField(label=label, choices=choices, initial=getattr(self.instance, name))
        for name, label, _unused, _unused in self.SIZES:
            parse_with(self.fields[name], lambda text: parse_any_length(text, units))
            self.fields[name].label = f"{label}, {units.length}"
            self.initial.setdefault(name, f"{round(units.length_from_m(getattr(self.instance, f'{name}_m')), 1):g}")

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        for name, _unused, low, high in self.SIZES:
            value = data.get(name)
            if value is not None and not low <= value <= high:
                self.add_error(
                    name,
                    _("Enter a value from {length} to {length2}.").format(
                        length=self.units.length_text(low), length2=self.units.length_text(high)
                    ),
                )
        return data

    def save(self, commit: bool = True) -> Hotbed:
        """Copy values to the differently named fields of the model; the flow saves it."""
        bed: Hotbed = super().save(commit=False)
        for name, *_unused in self.SIZES:
            setattr(bed, f"{name}_m", self.cleaned_data[name])
        for name in ("material", "moist", "trodden"):
            setattr(bed, name, self.cleaned_data[name])
        return bed


PROPS = [
    ("0", lazy("nothing (closed)")),
    ("0.015", lazy("a finger")),
    ("0.065", lazy("a brick on its side")),
    ("0.1", lazy("a brick on edge, about a hand’s width")),
    ("0.2", lazy("a brick on end")),
]
"""Heights that growers have at hand [m] (common practice, no source)."""
FACES = [
    ("0", lazy("the noon sun")),
    ("45", lazy("half away from the noon sun")),
    ("90", lazy("east or west")),
    ("180", lazy("away from the noon sun")),
]
USUAL_M = {"sheet": None, "spread": None, "strip": 0.35, "plants": 0.12, "depth": 1.2, "low": 0.2, "high": 0.35}
LIMITS_M = {"sheet": (0.2, 12.0), "spread": (0.1, 12.0), "strip": (0.05, 6.0), "plants": (0.01, 3.0)}
LIMITS_M |= {"depth": (0.2, 6.0), "low": (0.03, 3.0), "high": (0.03, 3.0)}


class BuildingForm(forms.Form):
    """Kind and size of a cover, and what should fit under it."""

    kind = forms.ChoiceField(label=lazy("Materials"))
    strip = TypedNumber(label=lazy("Width of the planted strip"))
    plants = TypedNumber(label=lazy("Height of the plants"))
    sheet = TypedNumber(label=lazy("Width of the sheet"), required=False)
    spread = TypedNumber(label=lazy("Distance between its edges"), required=False)
    depth = TypedNumber(label=lazy("Frame, front to back"))
    low = TypedNumber(label=lazy("Height at the front"))
    high = TypedNumber(label=lazy("Height at the back"))
    faces = forms.TypedChoiceField(label=lazy("Lid faces"), choices=FACES, coerce=float)
    prop = forms.TypedChoiceField(label=lazy("Prop"), choices=PROPS, coerce=float)
    age = forms.FloatField(label=lazy("Age in years"), min_value=0, max_value=60, initial=0)

    OF_SHEETS, OF_BOXES = ("strip", "sheet", "spread"), ("depth", "low", "high", "faces", "prop")

    def __init__(self, data: Any, *, units: Units) -> None:
        self.units = units
        usual = {name: _typed(value, units) for name, value in USUAL_M.items()}
        usual |= {"kind": "bent_sheet", "faces": "0", "prop": "0", "age": "0"}
        super().__init__(usual | {name: value for name, value in data.items() if name in usual})
        self.is_box = self.data["kind"] in covers.BOXES
        family = covers.BOXES if self.is_box else covers.BENT
        self.fields["kind"].choices = [(key, covers.name_of(key)) for key in family]  # type: ignore[attr-defined]
        for name in self.OF_SHEETS if self.is_box else self.OF_BOXES:
            del self.fields[name]
        for name in USUAL_M.keys() & self.fields.keys():
            parse_with(self.fields[name], lambda text: parse_any_length(text, units))
            self.fields[name].label = f"{self.fields[name].label}, {units.length}"
        if not self.is_box:
            self.fields["sheet"].help_text = _("Leave empty for the narrowest that will work.")
            self.fields["spread"].help_text = _("Leave empty for the closest spacing.")

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        for name, (least, most) in LIMITS_M.items():
            value = data.get(name)
            if value is not None and not least <= value <= most:
                low, high = self.units.length_text(least), self.units.length_text(most)
                self.add_error(name, _("Enter a value from {low} to {high}.").format(low=low, high=high))
        if not self.errors and self.is_box and data["low"] > data["high"]:
            self.add_error("high", _("The back must be at least as high as the front."))
        return data

    def built(self) -> Built:
        """Return the requested construction."""
        data = USUAL_M | {"faces": 0.0, "prop": 0.0} | self.cleaned_data
        return Built(
            key=data["kind"],
            sheet_m=data["sheet"],
            spread_m=data["spread"] if data["sheet"] else None,
            strip_m=data["strip"],
            plant_m=data["plants"],
            depth_m=data["depth"],
            low_m=data["low"],
            high_m=data["high"],
            away_deg=data["faces"],
            prop_m=data["prop"],
            age_y=data["age"],
        )


class BegunForm(forms.Form):
    """Measurements of a new cover from a link [m]."""

    kind = forms.ChoiceField(choices=covers.names, required=False)
    width_m = forms.FloatField(min_value=0.1, max_value=12.0, required=False)
    spread_m = forms.FloatField(min_value=0.1, max_value=12.0, required=False)
    low_m = forms.FloatField(min_value=0.03, max_value=3.0, required=False)
    high_m = forms.FloatField(min_value=0.03, max_value=3.0, required=False)


def _typed(value_m: float | None, units: Units) -> str:
    return "" if value_m is None else f"{round(units.length_from_m(value_m), 1):g}"
