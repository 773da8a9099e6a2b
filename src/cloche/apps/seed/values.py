"""Crop values that a packet or grower can state, and how they are entered and shown."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.shared.words import lazy
from cloche.bridge.values import border
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units, parse_air, parse_number, parse_plain_length, parse_soil
from cloche_engine.quantities import AIR_C, SOIL_C, SPACING_M

Kind = Literal["soil", "air", "length", "number"]


@dataclass(frozen=True)
class ValueSpec:
    """A crop value that a packet or grower can state.

    `name` is the catalogue's field; `far` the deviation in kelvin or as a factor beyond which it is queried; `least` and
    `most` the limits of plain numbers.
    """

    field: str
    name: str
    label: str
    kind: Kind
    far: float
    least: float = 0.0
    most: float = 0.0

    @property
    def limits(self) -> tuple[float, float]:
        """Return the lowest and highest allowed values in canonical units."""
        return {"soil": SOIL_C, "air": AIR_C, "length": SPACING_M}.get(self.kind, (self.least, self.most))


FIRST = (
    ValueSpec("minimum", "minimum_c", lazy("Minimum"), "soil", 12.0),
    ValueSpec("ideal_from", "optimum_from_c", lazy("Ideal from"), "soil", 12.0),
    ValueSpec("ideal_to", "optimum_to_c", lazy("Ideal to"), "soil", 12.0),
)


MORE = (
    ValueSpec("days_sown", "maturity_sown_d", lazy("Days to harvest from sowing"), "number", 2.5, 1, 500),
    ValueSpec("days", "maturity_d", lazy("Days to harvest from emergence"), "number", 2.5, 1, 400),
    ValueSpec("days_planted", "maturity_planted_d", lazy("Days to harvest from planting out"), "number", 2.5, 1, 400),
    ValueSpec("depth", "sowing_depth_m", lazy("Sowing depth"), "length", 4.0),
    ValueSpec("row", "row_m", lazy("Distance between rows"), "length", 4.0),
    ValueSpec("apart", "plant_m", lazy("Distance between plants in the row"), "length", 4.0),
    ValueSpec("together", "per_station", lazy("Seeds per station"), "number", 6.0, 1, 20),
    ValueSpec("frost", "frost_limit_c", lazy("Coldest night that seedlings survive"), "air", 8.0),
    ValueSpec("heat", "heat_limit_c", lazy("Hottest days for a crop"), "air", 8.0),
    ValueSpec("weeks", "raise_weeks", lazy("Weeks from the bench to planting out"), "number", 3.0, 1, 30),
    ValueSpec("plant_soil", "plant_soil_c", lazy("Soil temperature for planting out"), "soil", 8.0),
    ValueSpec("plant_night", "plant_night_c", lazy("Night temperature for planting out"), "air", 8.0),
    ValueSpec("pace", "pace", lazy("Days to emergence, compared with the table"), "number", 3.0, 0.2, 5),
)


ALL = FIRST + MORE


def check_values(values: Any) -> None:
    """Validate a packet's crop values in canonical units, from any source. Raises NotAllowed."""
    known = {spec.name: spec for spec in ALL}
    if not isinstance(values, dict) or not set(values) <= set(known):
        raise border.NotAllowed(_("The entry contains a value that packets do not have."))
    for name, value in values.items():
        try:
            border.number(value, *known[name].limits)
        except border.NotAllowed as refusal:
            raise border.NotAllowed(f"{known[name].label}: {refusal}") from refusal
    for _unused, why in out_of_order(*(values.get(spec.name) for spec in FIRST)):
        raise border.NotAllowed(why)


def out_of_order(low: float | None, start: float | None, end: float | None) -> Iterator[tuple[str, str]]:
    """Yield field and message where minimum and ideal range contradict each other."""
    if low is not None and start is not None and low > start:
        yield "ideal_from", _("The ideal range must not begin below the minimum.")
    if low is not None and end is not None and low > end:
        yield "ideal_to", _("The ideal range must not end below the minimum.")
    if start is not None and end is not None and start > end:
        yield "ideal_to", _("The ideal range must end after it begins.")


def label_of(spec: ValueSpec, units: Units) -> str:
    """Return the label with its unit."""
    unit = {"soil": f", {units.degree}", "air": f", {units.degree}", "length": f", {units.length}"}.get(spec.kind, "")
    return f"{spec.label}{unit}"


def parse_value(text: str, spec: ValueSpec, units: Units) -> float:
    """Parse a value to canonical units. Raises NotANumber, OutOfRange or ValidationError."""
    if spec.kind == "soil":
        return parse_soil(text, units)
    if spec.kind == "air":
        return parse_air(text, units)
    if spec.kind == "length":
        return parse_plain_length(text, units, spec.label)
    value = parse_number(text)
    if not spec.least <= value <= spec.most:
        raise forms.ValidationError(
            _("{label}: enter a value from {least} to {most}.").format(
                label=spec.label, least=number_text(f"{spec.least:g}"), most=number_text(f"{spec.most:g}")
            )
        )
    return value


def is_far(value: float, table: float, spec: ValueSpec) -> bool:
    """Return whether a value is so far from the table's that the grower is asked to confirm it."""
    if spec.kind in ("soil", "air"):
        return abs(value - table) > spec.far
    return table > 0 and not table / spec.far <= value <= table * spec.far


def shown_value(value: float, spec: ValueSpec, units: Units) -> str:
    """Format a value with its unit."""
    if spec.kind in ("soil", "air"):
        return units.temperature_text(value, 0)
    return units.length_text(value) if spec.kind == "length" else number_text(f"{round(value, 2 if value < 10 else 0):g}")


def typed_value(value: float, spec: ValueSpec, units: Units) -> str:
    """Format a value as it would be typed."""
    if spec.kind in ("soil", "air"):
        return f"{units.temperature_from_c(value):.1f}"
    return f"{units.length_from_m(value):.1f}" if spec.kind == "length" else f"{value:g}"
