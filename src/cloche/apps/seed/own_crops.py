"""A garden's own crops: a relative under another name, with the values that differ."""

from __future__ import annotations

import secrets
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.flows import change_site
from cloche.apps.gardens.models import Garden
from cloche.apps.seed.values import ALL, ValueSpec, is_far, label_of, out_of_order, parse_value, shown_value, typed_value
from cloche.apps.shared import fields
from cloche.apps.shared.fields import TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.services import crops
from cloche.bridge.values import border
from cloche.bridge.values.units import Units
from cloche_engine.crops import grown
from cloche_engine.crops.catalogue import Crop

MORE = (
    ValueSpec("most", "maximum_c", lazy("Highest germination temperature"), "soil", 12.0),
    ValueSpec("frost_hardened", "frost_planted_c", lazy("Coldest night when hardened"), "air", 8.0),
    ValueSpec("frost_grown", "frost_grown_c", lazy("Coldest night when full-grown"), "air", 8.0),
    ValueSpec("germinate", "germinate_c", lazy("Germination temperature on the bench"), "soil", 8.0),
    ValueSpec("grow_on", "grow_on_c", lazy("Air temperature for growing on"), "air", 8.0),
    ValueSpec("begins", "begins_c", lazy("Growth starts at (daily mean)"), "air", 8.0),
    ValueSpec("best", "best_c", lazy("Best growth at"), "air", 8.0),
    ValueSpec("ends", "ends_c", lazy("Growth stops at"), "air", 8.0),
    ValueSpec("height", "height_m", lazy("Height"), "length", 4.0),
    ValueSpec("setback", "setback_d", lazy("Days lost by transplanting"), "number", 5.0, 0, 60),
    ValueSpec("keeps", "keeps_y", lazy("Years that seed keeps"), "number", 5.0, 1, 20),
)
EVERY = (*ALL, *MORE)
PARTS = {
    lazy("Germination"): ("minimum", "ideal_from", "ideal_to", "most", "pace", "depth", "together", "keeps"),
    lazy("Growth to harvest"): ("days_sown", "days", "days_planted", "begins", "best", "ends", "heat"),
    lazy("Frost tolerance"): ("frost", "frost_hardened", "frost_grown"),
    lazy("Raising and planting out"): ("germinate", "grow_on", "weeks", "setback", "plant_soil", "plant_night"),
    "Room": ("row", "apart", "height"),
}
"""Every field once, by what a grower thinks of together."""
GROWS = ("begins", "best", "ends")


def value_of(crop: Crop, spec: ValueSpec) -> float | None:
    """Return a value of a crop, or None where it has none."""
    value = getattr(crop.life if spec.name in grown.GROWS else crop, spec.name, 1.0)
    return None if value is None else float(value)


def check_own(entry: Any) -> None:
    """Validate own crops from any source. Raises NotAllowed."""
    if not isinstance(entry, dict) or len(entry) > crops.MOST:
        raise border.NotAllowed(_("Crops of your own are listed by key, at most {most}.").format(most=crops.MOST))
    known = {crop.key for crop in crops.crops()}
    for key, value in entry.items():
        if not crops.KEY.fullmatch(key) or not isinstance(value, dict) or set(value) != {"of", "name", "plural", "values"}:
            raise border.NotAllowed(_("A crop of your own needs a key, a relative, a singular and a plural name, and values."))
        if value["of"] not in known or crops.KEY.fullmatch(str(value["of"])):
            raise border.NotAllowed(_("“{str}” is not a crop in the catalogue.").format(str=str(value["of"])[:40]))
        for part in ("name", "plural"):
            if not isinstance(value[part], str) or not 0 < len(value[part]) <= 60:
                raise border.NotAllowed(_("Enter a name of 1 to 60 characters."))
            border.plain_text(value[part])
        _check_values(value["values"])


def _check_values(values: Any) -> None:
    known = {spec.name: spec for spec in EVERY}
    if not isinstance(values, dict) or not set(values) <= set(known):
        raise border.NotAllowed(_("The entry contains a value that crops do not have."))
    for name, value in values.items():
        border.number(value, *known[name].limits)
    if any(why for _unused, why in _disorder(lambda name: values.get(name))):
        raise border.NotAllowed(_("Its values contradict each other."))


def _disorder(of: Any) -> list[tuple[str, str]]:
    disorder = list(out_of_order(of("minimum_c"), of("optimum_from_c"), of("optimum_to_c")))
    grows = [of(name) for name in grown.GROWS]
    if None not in grows and not grows[0] < grows[1] < grows[2]:
        disorder.append(("best", _("Growth must start below the best temperature and stop above it.")))
    return disorder


class OwnCropForm(forms.Form):
    """Form for the name and every value that differs from the relative; implausible values are queried once."""

    name = forms.CharField(label=lazy("Singular name"), max_length=60, validators=[fields.plain])
    plural = forms.CharField(label=lazy("Plural name"), max_length=60, validators=[fields.plain])

    def __init__(self, *args: Any, garden: Garden, relative: Crop, key: str, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.garden, self.relative, self.key, self.units, self.odd = garden, relative, key, units, False
        entry = garden.own_crops.get(key, {"name": "", "plural": "", "values": {}})
        self.initial.update(name=entry["name"], plural=entry["plural"])
        for spec in EVERY:
            field = TypedNumber(label=label_of(spec, units), required=False)
            parse_with(field, lambda text, spec=spec: parse_value(text, spec, units))  # type: ignore[misc]
            has = value_of(relative, spec)
            field.help_text = "" if has is None else f"{relative.name}: {shown_value(has, spec, units)}"
            if spec.name in entry["values"]:
                self.initial[spec.field] = typed_value(entry["values"][spec.name], spec, units)
            self.fields[spec.field] = field

    @property
    def parts(self) -> list[tuple[str, list[forms.BoundField]]]:
        """Return the bound fields of values that can differ, grouped under headings."""
        return [(heading, [self[field] for field in fields]) for heading, fields in PARTS.items()]

    def clean_name(self) -> str:
        """Refuse the name of an existing crop."""
        name: str = self.cleaned_data["name"].strip()
        taken = {crop.name.lower() for crop in crops.crops() if crop.key != self.key}
        if name.lower() in taken:
            raise forms.ValidationError(_("There is already a crop of that name."))
        return name

    def clean(self) -> dict[str, Any]:
        """Check that the values are in order, and near the relative's unless confirmed."""
        data = super().clean() or {}
        by_name = {spec.name: data.get(spec.field) for spec in EVERY}
        for name in grown.GROWS:
            by_name[name] = by_name[name] if by_name[name] is not None else getattr(self.relative.life, name)
        for field, why in _disorder(by_name.get):
            self.add_error(field, why)
        if "meant" not in self.data:
            for spec in EVERY:
                value, has = data.get(spec.field), value_of(self.relative, spec)
                if value is not None and has is not None and is_far(value, has, spec):
                    self.odd = True
                    self.add_error(
                        spec.field,
                        _("{name} has {shown_value}. Please confirm the value.").format(
                            name=self.relative.name, shown_value=shown_value(has, spec, self.units)
                        ),
                    )
        return data

    def keep(self) -> str:
        """Save the crop in the garden as selected and return its key."""
        data = self.cleaned_data
        values = {spec.name: data[spec.field] for spec in EVERY if data.get(spec.field) is not None}
        entry = {"of": self.relative.key, "name": data["name"], "plural": data["plural"].strip(), "values": values}
        self.garden.own_crops = self.garden.own_crops | {self.key: entry}
        if self.key not in self.garden.crops:
            ticked = self.garden.crops or [crop.key for crop in crops.chosen()]
            self.garden.crops = [*ticked, self.key]
        change_site(self.garden)
        return self.key


def new_key(garden: Garden) -> str:
    """Return an unused key for a garden's own crop."""
    while (key := f"own_{secrets.token_hex(4)}") in garden.own_crops:
        pass
    return key
