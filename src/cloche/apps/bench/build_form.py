"""The form of a bench that is planned."""

from __future__ import annotations

from functools import partial
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.bench.forms import typed
from cloche.apps.places.models import HeatPeriod
from cloche.apps.shared.fields import TypedNumber
from cloche.apps.shared.i18n import lazy
from cloche.bridge.values.units import Units, parse_air, parse_any_length, parse_depth, parse_number, parse_soil

USUAL = {"length": 1.22, "width": 0.61, "under": 0.025, "over": 0.07, "mix": 0.05, "tray_length": 0.38, "tray_width": 0.24}
"""A bench of 4 by 2 ft filled to 95 mm (common practice, no source); trays of usual size."""
PLAIN = {"bag": 25.0, "cable_m": 8.0, "cable_w_m": 10.0, "volts": 230.0, "cells": 24.0}
LIMITS = {
    "length": (0.3, 20.0), "width": (0.2, 5.0), "under": (0.0, 0.2), "over": (0.02, 0.3), "mix": (0.02, 0.2),
    "tray_length": (0.1, 2.0), "tray_width": (0.1, 2.0), "bag": (1.0, 2000.0), "cable_m": (1.0, 200.0),
    "cable_w_m": (1.0, 40.0), "volts": (12.0, 250.0), "cells": (1.0, 500.0),
}  # fmt: skip
ROOM_C, HOLD_C = 5.0, 18.0


class BuildForm(forms.Form):
    """Size, layers, cable, room, trays."""

    length = TypedNumber()
    width = TypedNumber()
    under = TypedNumber()
    over = TypedNumber()
    filling = forms.ChoiceField(label=lazy("Layer of"), choices=HeatPeriod.Filling.choices)
    wet = forms.BooleanField(label=lazy("kept moist"), required=False)
    bag = TypedNumber(label=lazy("A bag holds, litres"))
    mix = TypedNumber()
    cable_m = TypedNumber(label=lazy("Cable, metres"))
    cable_w_m = TypedNumber(label=lazy("Watts a metre"))
    volts = TypedNumber(label=lazy("Supply, volts"))
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
            "length": _("Length inside, {length}"), "width": _("Width inside, {length}"),
            "under": _("Layer below the cable, {length}"), "over": _("Layer above it, {length}"),
            "mix": _("Mix in the trays, {length}"), "tray_length": _("A tray’s length, {length}"),
            "tray_width": _("A tray’s width, {length}"),
        }  # fmt: skip
        for name, label in labels.items():
            parse = partial(parse_depth if name in ("under", "over", "mix") else parse_any_length, units=units)
            typed(self, name, parse, label.format(length=units.length), round(units.length_from_m(USUAL[name]), 1))
        for name, value in PLAIN.items():
            typed(self, name, parse_number, str(self.fields[name].label), value)
        room, hold = (units.temperature_from_c(value) for value in (ROOM_C, HOLD_C))
        typed(self, "room", lambda text: parse_air(text, units), _("Room at night, {d}").format(d=units.degree), room)
        typed(self, "hold", lambda text: parse_soil(text, units), _("To be held, {d}").format(d=units.degree), round(hold))
        self.initial.update({"filling": HeatPeriod.Filling.SAND, "wet": True, "lid": True})

    def usual(self) -> dict[str, Any]:
        """What it begins with, as if it had been typed."""
        return dict(self.initial)

    def clean(self) -> dict[str, Any]:
        """Each number within what a bench can be."""
        data = super().clean() or {}
        for name, (low, high) in LIMITS.items():
            value = data.get(name)
            if value is not None and not low <= value <= high:
                words = [self.units.length_text(end) if name in USUAL else f"{end:g}" for end in (low, high)]
                self.add_error(name, _("Between {low} and {high}.").format(low=words[0], high=words[1]))
        return data
