"""Forms of heat tests and of a hotbed's diary."""

from __future__ import annotations

from datetime import date
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.bench.forms import typed
from cloche.apps.places.models import HotbedFill, HotbedNote, Place
from cloche.apps.places.models.bench import SPOTS
from cloche.apps.shared.fields import DayField, LineField, TypedNumber
from cloche.apps.shared.words import lazy
from cloche.bridge.services import hotbeds
from cloche.bridge.values.units import Units, parse_air, parse_any_length

CORE_C, HEIGHT_M, DEPTH_M = (-10.0, 90.0), (0.0, 2.5), (0.05, 2.0)


class _Dated(forms.Form):
    """An entry for a past day."""

    on = DayField(label=lazy("Date"))

    def __init__(self, *args: Any, units: Units, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.units, self.today = units, today
        self.fields["on"].initial = today

    def clean_on(self) -> date:
        """Refuse a future date."""
        on: date = self.cleaned_data["on"]
        if on > self.today:
            raise forms.ValidationError(_("That date is in the future."))
        return on

    def within(self, name: str, limits: tuple[float, float], texts: tuple[str, str]) -> None:
        """Report values outside the limits at their field."""
        value = self.cleaned_data.get(name)
        if value is not None and not limits[0] <= value <= limits[1]:
            self.add_error(name, _("Enter a value from {low} to {high}.").format(low=texts[0], high=texts[1]))


class HeatTestForm(_Dated):
    """Minutes until the set point is reached, and temperatures in nine places."""

    minutes = forms.IntegerField(
        label=lazy("Minutes to the set-point"), required=False, min_value=0, max_value=10_000,
        widget=forms.TextInput(attrs={"inputmode": "numeric", "autocomplete": "off"}),
    )  # fmt: skip

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "test_%s"} | kwargs))
        for number in range(1, SPOTS + 1):
            self.fields[f"spot_{number}"] = TypedNumber(required=False)
            label = _("Spot {number} ({degree})").format(number=number, degree=self.units.degree)
            typed(self, f"spot_{number}", lambda text: parse_air(text, self.units), label, None)

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        data["spots"] = [data.get(f"spot_{number}") for number in range(1, SPOTS + 1)]
        if not self.errors and data.get("minutes") is None and not any(spot is not None for spot in data["spots"]):
            self.add_error("minutes", _("Enter the minutes, or the temperature at some of the spots."))
        return data


class DiaryForm(_Dated):
    """An entry in a hotbed's diary."""

    core = TypedNumber(required=False)
    height = TypedNumber(required=False)
    note = LineField(label=lazy("Note"), required=False, max_length=200)

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "diary_%s"} | kwargs))
        units = self.units
        typed(self, "core", lambda text: _hot(text, units), _("Core temperature ({degree})").format(degree=units.degree), None)
        label = _("Height of the heap ({length})").format(length=units.length)
        typed(self, "height", lambda text: parse_any_length(text, units), label, None)

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        self.within("core", CORE_C, tuple(self.units.temperature_text(c, 0) for c in CORE_C))  # type: ignore[arg-type]
        self.within("height", HEIGHT_M, tuple(self.units.length_text(m) for m in HEIGHT_M))  # type: ignore[arg-type]
        if not self.errors and not any(data.get(name) not in (None, "") for name in ("core", "height", "note")):
            self.add_error("core", _("Enter a core temperature, a height or a note."))
        return data

    def note_for(self, place: Place) -> HotbedNote:
        """Return the unsaved entry."""
        data = self.cleaned_data
        return HotbedNote(place=place, on=data["on"], core_c=data["core"], height_m=data["height"], note=data["note"])


class FillForm(_Dated):
    """A further filling of a hotbed."""

    material = forms.ChoiceField(label=lazy("Material"))
    depth = TypedNumber()
    moist = forms.ChoiceField(label=lazy("Moisture"))
    trodden = forms.ChoiceField(label=lazy("How it was trodden"))

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "fill_%s"} | kwargs))
        units = self.units
        choices = (("material", hotbeds.materials()), ("moist", hotbeds.moistures()), ("trodden", hotbeds.treads()))
        for name, offered in choices:
            self.fields[name].choices = offered  # type: ignore[attr-defined]
        self.initial |= {"moist": "moist", "trodden": "firm"}  # type: ignore[operator]
        label = _("Thickness ({length})").format(length=units.length)
        typed(self, "depth", lambda text: parse_any_length(text, units), label, None)

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        self.within("depth", DEPTH_M, tuple(self.units.length_text(m) for m in DEPTH_M))  # type: ignore[arg-type]
        return data

    def fill_for(self, place: Place) -> HotbedFill:
        """Return the unsaved filling."""
        data = self.cleaned_data
        values = {name: data[name] for name in ("on", "material", "moist", "trodden")}
        return HotbedFill(place=place, depth_m=data["depth"], **values)


def _hot(text: str, units: Units) -> float:
    """Parse a core temperature, whose limits are wider than those of soil and air."""
    from cloche.bridge.values.units import parse_number

    return units.celsius(parse_number(text))
