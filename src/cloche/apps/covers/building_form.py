"""The form of a cover that is to be built."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.covers.pages.building import Built
from cloche.apps.shared.fields import TypedNumber, parse_with
from cloche.apps.shared.i18n import lazy
from cloche.bridge.services import cover_builder, covers
from cloche.bridge.values.units import Units, parse_any_length

PROPS = [
    ("0", lazy("nothing: it is shut")),
    ("0.015", lazy("a finger")),
    ("0.065", lazy("a brick on its side")),
    ("0.1", lazy("a hand’s width, a brick on edge")),
    ("0.2", lazy("a brick on end")),
]
"""Heights that growers have at hand [m] (common practice, no source)."""
FACES = [
    ("0", lazy("the noon sun")),
    ("45", lazy("half away from it")),
    ("90", lazy("east or west")),
    ("180", lazy("away from it")),
]
USUAL_M = {"sheet": None, "spread": None, "strip": 0.35, "plants": 0.12, "depth": 1.2, "low": 0.2, "high": 0.35}
LIMITS_M = {"sheet": (0.2, 12.0), "spread": (0.1, 12.0), "strip": (0.05, 6.0), "plants": (0.01, 3.0)}
LIMITS_M |= {"depth": (0.2, 6.0), "low": (0.03, 3.0), "high": (0.03, 3.0)}


class BuildingForm(forms.Form):
    """Kind, sizes, what is to stand under it."""

    kind = forms.ChoiceField(label=lazy("Made of"))
    strip = TypedNumber(label=lazy("Strip that is planted"))
    plants = TypedNumber(label=lazy("Plants that get so tall"))
    sheet = TypedNumber(label=lazy("Width of the sheet"), required=False)
    spread = TypedNumber(label=lazy("Its edges apart"), required=False)
    depth = TypedNumber(label=lazy("Frame from front to back"))
    low = TypedNumber(label=lazy("High in front"))
    high = TypedNumber(label=lazy("High at the back"))
    faces = forms.TypedChoiceField(label=lazy("Its lid faces"), choices=FACES, coerce=float)
    prop = forms.TypedChoiceField(label=lazy("Propped open by"), choices=PROPS, coerce=float)
    age = forms.FloatField(label=lazy("Years old"), min_value=0, max_value=60, initial=0)

    OF_SHEETS, OF_BOXES = ("strip", "sheet", "spread"), ("depth", "low", "high", "faces", "prop")

    def __init__(self, data: Any, *, units: Units) -> None:
        self.units = units
        usual = {name: _typed(value, units) for name, value in USUAL_M.items()}
        usual |= {"kind": "bent_sheet", "faces": "0", "prop": "0", "age": "0"}
        super().__init__(usual | {name: value for name, value in data.items() if name in usual})
        self.is_box = self.data["kind"] in cover_builder.BOXES
        family = cover_builder.BOXES if self.is_box else cover_builder.BENT
        self.fields["kind"].choices = [(key, covers.name_of(key)) for key in family]  # type: ignore[attr-defined]
        for name in self.OF_SHEETS if self.is_box else self.OF_BOXES:
            del self.fields[name]
        for name in USUAL_M.keys() & self.fields.keys():
            parse_with(self.fields[name], lambda text: parse_any_length(text, units))
            self.fields[name].label = f"{self.fields[name].label}, {units.length}"
        if not self.is_box:
            self.fields["sheet"].help_text = _("Left empty: the narrowest that will do.")
            self.fields["spread"].help_text = _("Left empty: as near as they may.")

    def clean(self) -> dict[str, Any]:
        """Sizes that can be."""
        data = super().clean() or {}
        for name, (least, most) in LIMITS_M.items():
            value = data.get(name)
            if value is not None and not least <= value <= most:
                low, high = self.units.length_text(least), self.units.length_text(most)
                self.add_error(name, _("Between {low} and {high}.").format(low=low, high=high))
        if not self.errors and self.is_box and data["low"] > data["high"]:
            self.add_error("high", _("The back is at least as high as the front."))
        return data

    def built(self) -> Built:
        """What was asked for."""
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
    """What an address may tell of a cover that is to be put on the list [m]."""

    kind = forms.ChoiceField(choices=covers.names, required=False)
    width_m = forms.FloatField(min_value=0.1, max_value=12.0, required=False)
    spread_m = forms.FloatField(min_value=0.1, max_value=12.0, required=False)
    low_m = forms.FloatField(min_value=0.03, max_value=3.0, required=False)
    high_m = forms.FloatField(min_value=0.03, max_value=3.0, required=False)


def _typed(value_m: float | None, units: Units) -> str:
    return "" if value_m is None else f"{round(units.length_from_m(value_m), 1):g}"
