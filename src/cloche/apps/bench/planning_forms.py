"""Forms of what is planned for raised plants: what heat would do, a bench to build, potatoes to chit."""

from __future__ import annotations

from datetime import date, timedelta
from functools import partial
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.bench.forms import typed
from cloche.apps.bench.pages.gains import Costs
from cloche.apps.bench.pages.stands import OFTEN_RAISED
from cloche.apps.bench.selectors import climate_of, raised_on
from cloche.apps.bench.tubers import CHITS_AT_C
from cloche.apps.forecasts.selectors import Ground, grounds_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.forms import refuse_name_in_use
from cloche.apps.places.models import HeatPeriod, Place, Room, TuberTray
from cloche.apps.seed import selectors as packets
from cloche.apps.shared import words
from cloche.apps.shared.fields import DATE, DayField, TypedNumber, plain
from cloche.apps.shared.words import lazy
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import sowings_in
from cloche.bridge.services import crops
from cloche.bridge.services.beds import groups
from cloche.bridge.values.units import Units, parse_air, parse_any_length, parse_depth, parse_number, parse_soil
from cloche_engine.places.kinds import BENCH_KINDS

PRICES = ("seeds", "seed_price", "mat_price")
MOST_PRICE = 100_000.0
NUMBER = forms.TextInput(attrs={"inputmode": "numeric", "autocomplete": "off"})
LIES = "sown-"
"""What a choice of a sowing that lies there begins with."""


class AskForm(forms.Form):
    """A tray, and either a crop to sow there or a sowing in it."""

    place = forms.ModelChoiceField(Place.objects.none(), label=lazy("Tray"), empty_label=None)
    crop = forms.ChoiceField(label=lazy("Crop"))
    seeds = forms.IntegerField(label=lazy("Seeds"), required=False, min_value=1, max_value=100_000, widget=NUMBER)
    seed_price = TypedNumber(label=lazy("Price of these seeds"), required=False)
    mat_price = TypedNumber(label=lazy("Price of a mat to buy"), required=False)

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for name in ("seed_price", "mat_price"):
            typed(self, name, parse_number, str(self.fields[name].label), None)
        self.fields["place"].queryset = raised_on(garden)  # type: ignore[attr-defined]
        self.lying = {f"{LIES}{sowing.pk}": sowing for sowing in sowings_in(garden) if not sowing.finished}
        grown = [(crop.key, crop.name_plural) for crop in crops.of_garden(garden.crops, packets.values_in_use(garden))]
        places = self.fields["place"].queryset  # type: ignore[attr-defined]
        lying = [(key, self._name(sowing)) for key, sowing in self.lying.items() if sowing.place in places]
        choices: list[Any] = [(_("To sow today"), grown)]
        if lying:
            choices.append((_("Already sown"), lying))
        self.fields["crop"].choices = choices  # type: ignore[attr-defined]
        often = next((key for key, _name in grown if key in OFTEN_RAISED), grown[0][0] if grown else None)
        self.initial.setdefault("crop", lying[0][0] if lying else often)
        if self.is_bound:
            # A link names the tray alone: of the rest it takes what is offered first.
            self.data = {"crop": self.initial["crop"]} | dict(self.data.items())

    @staticmethod
    def _name(sowing: Sowing) -> str:
        name = crops.crop(sowing.crop_key).name_plural
        return _("{name} in {place}, sown {day}").format(name=name, place=sowing.place.name, day=words.day(sowing.sown_on))

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        lying = self.lying.get(data.get("crop", ""))
        if lying is not None:
            data["place"] = lying.place
        return data

    def clean_seed_price(self) -> float | None:
        """Refuse a price below nothing."""
        return self._price("seed_price")

    def clean_mat_price(self) -> float | None:
        """Refuse a price below nothing."""
        return self._price("mat_price")

    def _price(self, name: str) -> float | None:
        price: float | None = self.cleaned_data[name]
        if price is not None and not 0 <= price <= MOST_PRICE:
            raise forms.ValidationError(_("Enter a price from 0 to {most}.").format(most=f"{MOST_PRICE:,.0f}"))
        return price

    @property
    def costs(self) -> Costs:
        """Return what has been entered of prices."""
        return Costs(*(self.cleaned_data.get(name) for name in PRICES))

    @property
    def about(self) -> list[forms.BoundField]:
        """Return the fields of the question."""
        return [self[name] for name in self.fields if name not in PRICES]

    @property
    def prices(self) -> list[forms.BoundField]:
        """Return the fields of what it costs."""
        return [self[name] for name in PRICES]

    @property
    def has_prices(self) -> bool:
        """Whether any of them has been filled in."""
        return any(field.value() for field in self.prices)

    @property
    def what(self) -> tuple[str, Sowing | None]:
        """Return the key of the crop, and the sowing if there is one."""
        lying = self.lying.get(self.cleaned_data["crop"])
        return (lying.crop_key, lying) if lying else (self.cleaned_data["crop"], None)


USUAL = {"length": 1.22, "width": 0.61, "under": 0.025, "over": 0.07, "mix": 0.05, "tray_length": 0.38, "tray_width": 0.24}
"""A bench of 4 by 2 ft filled to 95 mm (common practice, no source); trays of usual size."""
PLAIN = {"bag": 25.0, "cable_m": 8.0, "cable_w_m": 10.0, "volts": 230.0, "cells": 24.0}
LIMITS = {
    "length": (0.3, 20.0), "width": (0.2, 5.0), "under": (0.0, 0.2), "over": (0.02, 0.3), "mix": (0.02, 0.2),
    "tray_length": (0.1, 2.0), "tray_width": (0.1, 2.0), "bag": (1.0, 2000.0), "cable_m": (1.0, 200.0),
    "cable_w_m": (1.0, 40.0), "volts": (12.0, 250.0), "cells": (1.0, 500.0),
}  # fmt: skip
ROOM_C, HOLD_C = 5.0, 18.0
ALONG, ACROSS = "along", "across"


class BuildForm(forms.Form):
    """Size, layers, cable, room and trays."""

    length = TypedNumber()
    width = TypedNumber()
    under = TypedNumber()
    over = TypedNumber()
    filling = forms.ChoiceField(label=lazy("Material of the layer"), choices=HeatPeriod.Filling.choices)
    wet = forms.BooleanField(label=lazy("kept moist"), required=False)
    bag = TypedNumber(label=lazy("Litres in a bag"))
    mix = TypedNumber()
    cable_m = TypedNumber(label=lazy("Length of cable (m)"))
    cable_w_m = TypedNumber(label=lazy("Watts per metre"))
    runs = forms.ChoiceField(
        label=lazy("Direction of the cable"),
        choices=[(ALONG, lazy("along the bench")), (ACROSS, lazy("across the bench"))],
        required=False,
    )
    volts = TypedNumber(label=lazy("Supply voltage (V)"))
    room = TypedNumber()
    hold = TypedNumber()
    lid = forms.BooleanField(label=lazy("Covered with lids or film"), required=False)
    tray_length = TypedNumber()
    tray_width = TypedNumber()
    cells = TypedNumber(label=lazy("Cells in a tray"))

    def __init__(self, *args: Any, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.units = units
        labels = {
            "length": _("Inside length ({length})"), "width": _("Inside width ({length})"),
            "under": _("Layer below the cable ({length})"), "over": _("Layer above the cable ({length})"),
            "mix": _("Depth of mix in the trays ({length})"), "tray_length": _("Length of a tray ({length})"),
            "tray_width": _("Width of a tray ({length})"),
        }  # fmt: skip
        for name, label in labels.items():
            parse = partial(parse_depth if name in ("under", "over", "mix") else parse_any_length, units=units)
            typed(self, name, parse, label.format(length=units.length), round(units.length_from_m(USUAL[name]), 1))
        for name, value in PLAIN.items():
            typed(self, name, parse_number, str(self.fields[name].label), value)
        room, hold = (units.temperature_from_c(value) for value in (ROOM_C, HOLD_C))
        typed(
            self, "room", lambda text: parse_air(text, units), _("Room temperature at night ({d})").format(d=units.degree), room
        )
        typed(
            self,
            "hold",
            lambda text: parse_soil(text, units),
            _("Temperature to hold ({d})").format(d=units.degree),
            round(hold),
        )
        self.initial.update({"filling": HeatPeriod.Filling.SAND, "wet": True, "lid": True, "runs": ALONG})

    def usual(self) -> dict[str, Any]:
        """Return the initial values."""
        return dict(self.initial)

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        for name, (low, high) in LIMITS.items():
            value = data.get(name)
            if value is not None and not low <= value <= high:
                words = [self.units.length_text(end) if name in USUAL else f"{end:g}" for end in (low, high)]
                self.add_error(name, _("Enter a value from {low} to {high}.").format(low=words[0], high=words[1]))
        return data


class KeepBenchForm(forms.Form):
    """Name and position of a bench that has been built."""

    name = forms.CharField(label=lazy("Name"), max_length=60, validators=[plain])
    within = forms.ChoiceField(label=lazy("House"), required=False)
    room = forms.ModelChoiceField(Room.objects.none(), label=lazy("Room"), required=False, empty_label=lazy("a usual room"))

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        # The plan's own form, posted with it, has a room as well: that one is a temperature.
        super().__init__(*args, **({"prefix": "bench"} | kwargs))
        self.garden = garden
        self.fields["within"].choices = [("", _("none: it stands in a room")), *Place.House.choices]  # type: ignore[attr-defined]
        self.fields["room"].queryset = garden.rooms.filter(removed_at__isnull=True)  # type: ignore[attr-defined]
        self.initial.setdefault("name", _("Cable bench"))

    def clean_name(self) -> str:
        """Refuse a name already used in the garden."""
        name: str = self.cleaned_data["name"].strip()
        refuse_name_in_use(self.garden, name)
        return name


USUAL_TUB_L, PLANTED_D, AGO_D = 30.0, 35, 120
FROST_FREE_C, LIGHT_MOL, WATCHED_D = 1.0, 1.0, 35


def _suits_tubers(ground: Ground) -> tuple[bool, bool, float]:
    """Return how a place suits sprouting tubers, the best first: free of frost, light, and neither warm nor cold."""
    low = min(ground.data.far_low_c[:WATCHED_D])
    dark = (climate_of(ground).mol or 0.0) < LIGHT_MOL
    mean = sum(ground.data.far_mid_c[:WATCHED_D]) / WATCHED_D
    return low < FROST_FREE_C, dark, abs(mean - CHITS_AT_C)


class TuberTrayForm(forms.ModelForm):
    """A tray of seed potatoes to keep."""

    class Meta:
        model = TuberTray
        fields = ["crop_key", "place", "set_out_on", "plant_on", "tubers", "variety"]
        labels = {
            "place": lazy("Place for chitting"), "set_out_on": lazy("Since"), "plant_on": lazy("Planting date"),
            "tubers": lazy("Number of seed potatoes"), "variety": lazy("Variety"),
        }  # fmt: skip
        widgets = {"set_out_on": DATE, "plant_on": DATE}

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "tray_%s"} | kwargs))
        self.fields["crop_key"] = forms.ChoiceField(label=_("Kind"), choices=groups())
        self.fields["place"].queryset = raised_on(garden)  # type: ignore[attr-defined]
        self.order_fields(self.Meta.fields)


class PotatoForm(forms.Form):
    """All values in one row."""

    group = forms.ChoiceField(label=lazy("Variety"))
    place = forms.ModelChoiceField(Place.objects.none(), label=lazy("Place for chitting"), empty_label=None)
    set_out = DayField(label=lazy("Since"))
    planted = DayField(label=lazy("Planting date"))
    litres = TypedNumber(label=lazy("Litres in a tub"))

    def __init__(self, *args: Any, garden: Garden, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.today = today
        self.fields["group"].choices = groups()  # type: ignore[attr-defined]
        self.fields["place"].queryset = raised_on(garden)  # type: ignore[attr-defined]

    @staticmethod
    def usual(garden: Garden, today: date) -> dict[str, Any]:
        """Return the initial values."""
        places = [(place, ground) for place, ground in grounds_in(garden) if ground and place.kind in BENCH_KINDS]
        place = min(places, key=lambda pair: _suits_tubers(pair[1]), default=(raised_on(garden).first(), None))[0]
        planted = today + timedelta(days=PLANTED_D)
        values = {"group": "potato_first_early", "place": place.pk if place else "", "set_out": today.isoformat()}
        return values | {"planted": planted.isoformat(), "litres": f"{USUAL_TUB_L:g}"}

    def clean_set_out(self) -> date:
        """Refuse a future date and one more than a few months ago."""
        on: date = self.cleaned_data["set_out"]
        if not self.today - timedelta(days=AGO_D) <= on <= self.today + timedelta(days=AGO_D):
            raise forms.ValidationError(_("Enter a date within four months of today."))
        return on

    def clean_litres(self) -> float:
        """Accept sizes from a bucket to a barrel."""
        litres: float = self.cleaned_data["litres"]
        if not 5 <= litres <= 1000:
            raise forms.ValidationError(_("Enter a volume from 5 to 1,000 litres."))
        return litres
