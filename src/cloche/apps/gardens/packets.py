"""A garden's packets of seed and what it chooses for a crop: reading them, keeping them, the form."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from django import forms
from django.db import transaction

from cloche.apps.gardens import clock
from cloche.apps.gardens.flows.evidence import note_change_in
from cloche.apps.gardens.forms import TypedNumber, parse_with
from cloche.apps.gardens.models import CropChoice, Garden, Packet
from cloche.bridge import border
from cloche.bridge.bounds import AIR_C, SOIL_C, SPACING_M
from cloche.bridge.crops import Crop
from cloche.bridge.units import Units, parse_air, parse_number, parse_plain_length, parse_soil

Kind = Literal["soil", "air", "length", "number"]


@dataclass(frozen=True)
class ValueSpec:
    """A value that a packet or a grower may say. name: of the catalogue's value; far: from the catalogue's, in kelvin or as a
    factor, beyond which it is asked about; least, most: of plain numbers."""

    field: str
    name: str
    label: str
    kind: Kind
    far: float
    least: float = 0.0
    most: float = 0.0

    @property
    def limits(self) -> tuple[float, float]:
        """Least and most that can be, in canonical units."""
        return {"soil": SOIL_C, "air": AIR_C, "length": SPACING_M}.get(self.kind, (self.least, self.most))


FIRST = (
    ValueSpec("minimum", "minimum_c", "Minimum", "soil", 12.0),
    ValueSpec("ideal_from", "optimum_from_c", "Ideal from", "soil", 12.0),
    ValueSpec("ideal_to", "optimum_to_c", "Ideal to", "soil", 12.0),
)
MORE = (
    ValueSpec("days_sown", "maturity_sown_d", "Days to harvest, counted from sowing", "number", 2.5, 1, 500),
    ValueSpec("days", "maturity_d", "Days to harvest, counted from when it is up", "number", 2.5, 1, 400),
    ValueSpec("days_planted", "maturity_planted_d", "Days to harvest, counted from planting out", "number", 2.5, 1, 400),
    ValueSpec("depth", "sowing_depth_m", "Sowing depth", "length", 4.0),
    ValueSpec("row", "row_m", "Between rows", "length", 4.0),
    ValueSpec("apart", "plant_m", "Between plants in the row", "length", 4.0),
    ValueSpec("together", "per_station", "Seeds put together", "number", 6.0, 1, 20),
    ValueSpec("frost", "frost_limit_c", "Coldest night that seedlings stand", "air", 8.0),
    ValueSpec("heat", "heat_limit_c", "Hottest days it crops in", "air", 8.0),
    ValueSpec("weeks", "raise_weeks", "Weeks from the bench to planting out", "number", 3.0, 1, 30),
    ValueSpec("plant_soil", "plant_soil_c", "Soil wanted for planting out", "soil", 8.0),
    ValueSpec("plant_night", "plant_night_c", "Nights wanted for planting out", "air", 8.0),
    ValueSpec("pace", "pace", "Days to come up, times the table’s", "number", 3.0, 0.2, 5),
)
ALL = FIRST + MORE


def check_values(values: Any) -> None:
    """What a packet says of its crop, in canonical units, from wherever it comes; raises NotAllowed."""
    known = {spec.name: spec for spec in ALL}
    if not isinstance(values, dict) or not set(values) <= set(known):
        raise border.NotAllowed("There is a value in it that no packet has.")
    for name, value in values.items():
        try:
            border.number(value, *known[name].limits)
        except border.NotAllowed as refusal:
            raise border.NotAllowed(f"{known[name].label}: {refusal}") from refusal
    for _, why in out_of_order(*(values.get(spec.name) for spec in FIRST)):
        raise border.NotAllowed(why)


def out_of_order(low: float | None, start: float | None, end: float | None) -> Iterator[tuple[str, str]]:
    """The field and what is wrong with it, where a minimum and an ideal range contradict each other."""
    if low is not None and start is not None and low > start:
        yield "ideal_from", "The ideal begins below the minimum."
    if low is not None and end is not None and low > end:
        yield "ideal_to", "The ideal ends below the minimum."
    if start is not None and end is not None and start > end:
        yield "ideal_to", "The ideal ends before it begins."


def values_in_use(garden: Garden) -> dict[str, dict[str, float]]:
    """What is said of each crop by the packet in use: one query."""
    return {packet.crop_key: packet.values for packet in _current(garden).filter(in_use=True).only("crop_key", "values")}


def prices_in_use(garden: Garden) -> dict[str, float]:
    """What the packets in use cost, where that is told: one query."""
    rows = _current(garden).filter(in_use=True, price__isnull=False)
    return dict(rows.values_list("crop_key", "price"))


def varieties_in_use(garden: Garden) -> dict[str, str]:
    """Names of the packets in use by crop: one query."""
    return dict(_current(garden).filter(in_use=True).values_list("crop_key", "variety"))


def packets_of(garden: Garden, crop_key: str) -> list[Packet]:
    """A crop's packets, the one in use first."""
    return list(_current(garden).filter(crop_key=crop_key))


def choices_of(garden: Garden) -> dict[str, CropChoice]:
    """By crop: one query."""
    return {choice.crop_key: choice for choice in CropChoice.objects.filter(garden=garden)}


def sowing_rule_for(garden: Garden, choice: CropChoice | None) -> str:
    """By which rule this garden sows this crop."""
    return (choice.sowing_rule if choice else "") or garden.sowing_rule


def _current(garden: Garden) -> Any:
    return Packet.objects.filter(garden=garden, removed_at__isnull=True)


@transaction.atomic
def keep(packet: Packet) -> Packet:
    """Save it; the one in use puts the others out of use."""
    others = _current(packet.garden).filter(crop_key=packet.crop_key).exclude(pk=packet.pk)
    if packet.in_use:
        others.update(in_use=False)
    packet.save()
    note_change_in(packet.garden)
    return packet


@transaction.atomic
def remove(packet: Packet) -> None:
    """Put it away; the next one, if there is one, comes into use."""
    Packet.objects.filter(pk=packet.pk).update(removed_at=clock.now(), in_use=False)
    if packet.in_use and (following := _current(packet.garden).filter(crop_key=packet.crop_key).first()):
        Packet.objects.filter(pk=following.pk).update(in_use=True)
    note_change_in(packet.garden)


@transaction.atomic
def put_back(packet: Packet) -> None:
    """Undo a removal; it does not come into use by itself unless it is the only one."""
    alone = not _current(packet.garden).filter(crop_key=packet.crop_key, in_use=True).exists()
    Packet.objects.filter(pk=packet.pk).update(removed_at=None, in_use=alone)
    note_change_in(packet.garden)


@transaction.atomic
def choose(garden: Garden, crop_key: str, sowing_rule: str, method: str) -> None:
    """Keep how the garden goes about a crop; nothing chosen gives the garden's own way back."""
    mine = CropChoice.objects.filter(garden=garden, crop_key=crop_key)
    before = mine.values_list("sowing_rule", "method").first() or ("", "")
    mine.delete()
    if sowing_rule or method:
        CropChoice.objects.create(garden=garden, crop_key=crop_key, sowing_rule=sowing_rule, method=method)
    if (sowing_rule, method) != before:
        note_change_in(garden)


class PacketForm(forms.ModelForm):
    """What stands on a packet; values that lie far from the table are asked about once."""

    meant = forms.BooleanField(label="Yes, that is meant", required=False, widget=forms.HiddenInput)

    class Meta:
        model = Packet
        fields = ["variety", "packed_year", "tested_of", "tested_up", "price", "in_use"]
        labels = {
            "variety": "Variety",
            "packed_year": "Year of packing",
            "tested_of": "Tested: seeds laid out",
            "tested_up": "Of these germinated",
            "price": "Price",
            "in_use": "Windows go by this packet",
        }
        help_texts = {"tested_of": "", "tested_up": "", "price": "In your own money; it weighs what a failed sowing costs."}

    def __init__(self, *args: Any, crop: Crop, units: Units, year: int, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.crop, self.units, self.year, self.odd = crop, units, year, False
        for spec in ALL:
            field = TypedNumber(label=label_of(spec, units), required=False)
            parse_with(field, lambda text, spec=spec: parse_value(text, spec, units))  # type: ignore[misc]
            table = getattr(crop, spec.name, 1.0)
            field.help_text = (
                "The table says nothing." if table is None else f"The table says {shown_value(table, spec, units)}."
            )
            value = self.instance.values.get(spec.name)
            if value is not None:
                self.initial[spec.field] = typed_value(value, spec, units)
            self.fields[spec.field] = field

    def rows(self, of: tuple[ValueSpec, ...]) -> list[forms.BoundField]:
        """Some of its values, bound."""
        return [self[spec.field] for spec in of]

    @property
    def first(self) -> list[forms.BoundField]:
        """What every packet prints."""
        return self.rows(FIRST)

    @property
    def more(self) -> list[forms.BoundField]:
        """All that can be overruled besides."""
        return self.rows(MORE)

    def clean_packed_year(self) -> int | None:
        """Not of the future, and no heirloom of a century."""
        year: int | None = self.cleaned_data["packed_year"]
        if year is not None and not self.year - 60 <= year <= self.year + 1:
            raise forms.ValidationError(f"A year of packing lies between {self.year - 60} and {self.year + 1}.")
        return year

    def clean(self) -> dict[str, Any]:
        """In order, and not far from the table unless that is meant."""
        data = super().clean() or {}
        for name, why in out_of_order(*(data.get(name) for name in ("minimum", "ideal_from", "ideal_to"))):
            self.add_error(name, why)
        if not data.get("meant"):
            self._ask_about_what_lies_far(data)
        return data

    def _ask_about_what_lies_far(self, data: dict[str, Any]) -> None:
        for spec in ALL:
            value, table = data.get(spec.field), getattr(self.crop, spec.name, 1.0)
            if value is None or table is None or not is_far(value, table, spec):
                continue
            self.odd = True
            other = "°F" if self.units.temperature == "C" else "°C"
            ask = f"Was it in {other}?" if spec.kind in ("soil", "air") else "Is that meant?"
            self.add_error(spec.field, f"The table says {shown_value(table, spec, self.units)}. {ask}")

    def save(self, commit: bool = True) -> Packet:
        """The packet with its values, not yet kept."""
        packet: Packet = super().save(commit=False)
        packet.values = {s.name: self.cleaned_data[s.field] for s in ALL if self.cleaned_data.get(s.field) is not None}
        return packet


def label_of(spec: ValueSpec, units: Units) -> str:
    """Its label with the unit."""
    unit = {"soil": f", {units.degree}", "air": f", {units.degree}", "length": f", {units.length}"}.get(spec.kind, "")
    return f"{spec.label}{unit}"


def parse_value(text: str, spec: ValueSpec, units: Units) -> float:
    """What was typed, in canonical units; raises NotANumber, OutOfRange or ValidationError."""
    if spec.kind == "soil":
        return parse_soil(text, units)
    if spec.kind == "air":
        return parse_air(text, units)
    if spec.kind == "length":
        return parse_plain_length(text, units, spec.label)
    value = parse_number(text)
    if not spec.least <= value <= spec.most:
        raise forms.ValidationError(f"{spec.label}: between {spec.least:g} and {spec.most:g}.")
    return value


def is_far(value: float, table: float, spec: ValueSpec) -> bool:
    """Whether it lies so far from what the table has that one asks."""
    if spec.kind in ("soil", "air"):
        return abs(value - table) > spec.far
    return table > 0 and not table / spec.far <= value <= table * spec.far


def shown_value(value: float, spec: ValueSpec, units: Units) -> str:
    """As text with its unit."""
    if spec.kind in ("soil", "air"):
        return units.temperature_text(value, 0)
    return units.length_text(value) if spec.kind == "length" else f"{round(value, 2 if value < 10 else 0):g}"


def typed_value(value: float, spec: ValueSpec, units: Units) -> str:
    """As one would type it."""
    if spec.kind in ("soil", "air"):
        return f"{units.temperature_from_c(value):.1f}"
    return f"{units.length_from_m(value):.1f}" if spec.kind == "length" else f"{value:g}"
