"""Forms of the plan: bed sizes, plantings and observations."""

from __future__ import annotations

from datetime import date
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.plants.models import APART_M, HEIGHT_M, MOST_KG, SIDE_M, BedShape, PlantEvent, Planting
from cloche.apps.seed.models import Packet
from cloche.apps.shared import fields
from cloche.apps.shared.fields import DATE, DayField, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.apps.sowings.models import Sowing
from cloche.bridge.services import beds, crops
from cloche.bridge.values.units import Units, parse_any_length, parse_weight
from cloche_engine.errors import OutOfRange

LEFT = ""
MOST_TIMES, MOST_EVERY_D = 12, 90


def _length(form: forms.BaseForm, name: str, label: str, units: Units, value_m: float | None) -> None:
    """Add a length field in the person's unit."""
    parse_with(form.fields[name], lambda text: parse_any_length(text, units))
    form.fields[name].label = f"{label}, {units.length}"
    if value_m is not None:
        form.initial.setdefault(name, f"{round(units.length_from_m(value_m), 1):g}")


class _Lengths(forms.ModelForm):
    """Base of forms whose lengths are typed in the person's unit and stored in metres."""

    LENGTHS: dict[str, tuple[str, tuple[float, float]]] = {}
    """Field of the form: of the model, and its limits [m]."""

    def __init__(self, *args: Any, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.units = units

    def clean(self) -> dict[str, Any]:
        """Check the ranges and pass the values to the model."""
        data = super().clean() or {}
        for name, (column, (low, high)) in self.LENGTHS.items():
            value = data.get(name)
            if name in data and value is not None and not low <= value <= high:
                ends = self.units.length_text(low), self.units.length_text(high)
                self.add_error(name, _("Enter a value from {low} to {high}.").format(low=ends[0], high=ends[1]))
            elif name in data:
                setattr(self.instance, column, value)
        return data


class ShapeForm(_Lengths):
    """Form for the size, direction and grid of a bed."""

    LENGTHS = {"length": ("length_m", (0.2, 60.0)), "width": ("width_m", (0.2, 20.0)), "square": ("square_m", (0.05, 2.0))}
    length, width, square = TypedNumber(), TypedNumber(), TypedNumber()

    class Meta:
        model = BedShape
        fields = ["runs_deg"]
        labels = {"runs_deg": lazy("Direction of its length")}

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        shape: BedShape = self.instance
        _length(self, "length", _("Length"), self.units, shape.length_m)
        _length(self, "width", _("Width"), self.units, shape.width_m)
        _length(self, "square", _("Side of a square"), self.units, shape.square_m)


class PlantingForm(_Lengths):
    """Form for a planned or standing planting."""

    LENGTHS = {
        "x": ("x_m", (0.0, 60.0)),
        "y": ("y_m", (0.0, 60.0)),
        "length": ("length_m", SIDE_M),
        "width": ("width_m", SIDE_M),
        "plant": ("plant_m", APART_M),
        "row": ("row_m", APART_M),
        "height": ("height_m", HEIGHT_M),
    }
    x, y = TypedNumber(required=False), TypedNumber(required=False)
    length, width = TypedNumber(), TypedNumber()
    plant, row = TypedNumber(required=False), TypedNumber(required=False)
    height = TypedNumber(required=False)

    class Meta:
        model = Planting
        fields = ["crop_key", "origin", "planned_on", "planted_on", "number", "layout", "per_station", "thinning", "note"]
        labels = {
            "origin": lazy("Start as"),
            "planned_on": lazy("Planned for"),
            "planted_on": lazy("Date done"),
            "number": lazy("Number of plants, if counted"),
            "layout": lazy("Layout"),
            "per_station": lazy("Seeds per station"),
            "thinning": lazy("Thinning"),
            "note": lazy("Note"),
        }
        help_texts = {"planted_on": lazy("Leave empty if it is only planned.")}
        widgets = {"planned_on": DATE, "planted_on": DATE}

    def __init__(self, *args: Any, garden: Garden, place: Place, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "plant_%s"} | kwargs))
        self.garden, self.place, self.today = garden, place, today
        grown = crops.of_garden(garden.crops)
        known = {crop.key for crop in grown}
        choices: list[Any] = [(LEFT, _("nothing: keep the space for later"))] + [(crop.key, crop.name) for crop in grown]
        others = [(crop.key, crop.name) for crop in crops.crops() if crop.key not in known]
        if others:
            choices.append((_("Not grown here so far"), others))
        self.fields["crop_key"] = forms.ChoiceField(label=_("Crop"), choices=choices, required=False)
        kept: Planting = self.instance
        units = self.units
        _length(self, "x", _("Distance from the left end"), units, kept.x_m)
        _length(self, "y", _("Distance from the upper edge"), units, kept.y_m)
        _length(self, "length", _("Length"), units, kept.length_m)
        _length(self, "width", _("Width"), units, kept.width_m)
        _length(self, "plant", _("Distance between plants"), units, kept.plant_m)
        _length(self, "row", _("Distance between rows"), units, kept.row_m)
        _length(self, "height", _("Height at planting out"), units, kept.height_m)
        self.order_fields(["crop_key", "origin", "planned_on", "planted_on", "number", "layout", "length", "width", "x", "y"])

    def clean(self) -> dict[str, Any]:
        """Check the dates, and that no more plants are wanted than fit."""
        data = super().clean()
        planted, key = data.get("planted_on"), data.get("crop_key")
        if planted and planted > self.today:
            self.add_error("planted_on", _("That date is in the future. Enter it under “Planned for”."))
        if (data.get("x") is None) != (data.get("y") is None) and not {"x", "y"} & self.errors.keys():
            self.add_error(
                "x" if data.get("x") is None else "y", _("Enter both distances, or neither if it is not on the plan yet.")
            )
        if key and not self.errors:
            own = data.get("plant"), data.get("row"), data.get("per_station")
            try:
                beds.patch(key, (data["length"], data["width"]), data["layout"], own)
            except OutOfRange as refusal:
                self.add_error("plant", str(refusal))
        return data

    def save(self, commit: bool = True) -> Planting:
        """Build the planting, unsaved, with the packet in use and any existing sowing attached."""
        planting: Planting = super().save(commit=False)
        planting.place = self.place
        if planting.packet is None or "crop_key" in self.changed_data:
            planting.packet = Packet.objects.filter(
                garden=self.garden, crop_key=planting.crop_key, in_use=True, removed_at__isnull=True
            ).first()
        if planting.origin == Planting.Origin.SOWN and planting.planted_on and planting.sowing is None:
            planting.sowing = Sowing.objects.filter(
                place=self.place, crop_key=planting.crop_key, sown_on=planting.planted_on, removed_at__isnull=True
            ).first()
        return planting


class LayForm(forms.Form):
    """Form for a patch dragged on the plan [cm]."""

    x = forms.FloatField(min_value=0, max_value=6000)
    y = forms.FloatField(min_value=0, max_value=6000)
    length = forms.FloatField(min_value=5, max_value=6000)
    width = forms.FloatField(min_value=5, max_value=6000)

    def __init__(self, *args: Any, shape: BedShape, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.shape = shape

    def clean(self) -> dict[str, Any]:
        """Check that the patch lies within the bed."""
        data = super().clean() or {}
        if not self.errors:
            ends = data["x"] + data["length"], data["y"] + data["width"]
            if ends[0] > 100 * self.shape.length_m + 0.5 or ends[1] > 100 * self.shape.width_m + 0.5:
                raise forms.ValidationError(_("That reaches beyond the bed."))
        return data

    @property
    def metres(self) -> tuple[float, float, float, float]:
        """Return corner, length and width in metres."""
        x, y, length, width = (round(self.cleaned_data[name] / 100, 3) for name in ("x", "y", "length", "width"))
        return x, y, length, width


class EventForm(_Lengths):
    """Form for an observation or a task done."""

    LENGTHS = {"height": ("height_m", HEIGHT_M)}
    weight, height = TypedNumber(required=False), TypedNumber(required=False)

    class Meta:
        model = PlantEvent
        fields = ["kind", "on", "number", "cause", "note"]
        labels = {
            "kind": lazy("What happened"),
            "on": lazy("Date"),
            "number": lazy("Number"),
            "cause": lazy("Cause of death"),
            "note": lazy("Note"),
        }
        widgets = {"on": DATE}

    def __init__(self, *args: Any, planting: Planting, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "event_%s"} | kwargs))
        self.planting, self.today = planting, today
        self.instance.planting = planting
        _length(self, "height", _("Height"), self.units, None)
        self.fields["weight"].label = _("Weight ({unit})").format(unit=self.units.weight)
        parse_with(self.fields["weight"], lambda text: parse_weight(text, self.units, (0.0, MOST_KG)))
        self.fields["on"].initial = today
        self.fields["kind"].choices = list(PlantEvent.Kind.choices)  # type: ignore[attr-defined]
        self.order_fields(["kind", "on", "number", "weight", "height", "cause", "note"])

    def clean_on(self) -> date:
        """Refuse days in the future and before planting."""
        on: date = self.cleaned_data["on"]
        if on > self.today:
            raise forms.ValidationError(_("That date is in the future."))
        if self.planting.planted_on is not None and on < self.planting.planted_on:
            raise forms.ValidationError(_("That date is before planting."))
        return on

    def clean(self) -> dict[str, Any]:
        """Check that the values required by this kind of event are present."""
        data = super().clean()
        kind = data.get("kind")
        if kind == PlantEvent.Kind.HARVESTED and data.get("number") is None and data.get("weight") is None:
            self.add_error("number", _("Enter a number, a weight or both."))
        if kind == PlantEvent.Kind.MEASURED and data.get("height") is None:
            self.add_error("height", _("Height"))
        if kind != PlantEvent.Kind.DIED and data.get("cause"):
            self.add_error("cause", _("Choose a cause of death only for plants that died."))
        self.instance.weight_kg = data.get("weight")
        return data


class AgainForm(forms.Form):
    """Form for succession sowings."""

    every_d = forms.IntegerField(label=lazy("Days between sowings"), min_value=1, max_value=MOST_EVERY_D, initial=14)
    times = forms.IntegerField(label=lazy("Number of further sowings"), min_value=1, max_value=MOST_TIMES, initial=3)


class TrellisForm(forms.Form):
    """Form for crops that alternate along a trellis."""

    length = TypedNumber()
    crops = forms.MultipleChoiceField(label=lazy("Alternating with"), widget=forms.SelectMultiple(attrs={"size": 6}))

    def __init__(self, *args: Any, garden: Garden, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        _length(self, "length", _("Length of the trellis"), units, 3.0)
        self.fields["crops"].choices = [(crop.key, crop.name) for crop in crops.of_garden(garden.crops)]  # type: ignore[attr-defined]


class DayForm(forms.Form):
    """Form for a day, today by default."""

    on = DayField(label=lazy("Date"), required=False)


class SavedSeedForm(forms.Form):
    """Form for naming seed saved from a planting."""

    variety = forms.CharField(label=lazy("Label"), max_length=60, required=False, validators=[fields.plain])
