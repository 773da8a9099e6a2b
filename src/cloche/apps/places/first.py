"""The first places of a garden, made in one go: so many of each kind, named later."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from typing import Any

from django import forms
from django.db import transaction
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows import save_place
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.bridge.services import offered, site
from cloche.drawing.slice import Slice, slice_of

MOST_OF_A_KIND, SEED_DEPTH_M = 30, 0.05
DEPTHS_M = (0.0, 0.1, 0.2, 0.45)
COMMON = ("open", "raised", "frame", "tunnel")
"""What most gardens have stands first."""


class FirstPlacesForm(forms.Form):
    """Number of places of each kind."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for key, name in in_order():
            number = forms.NumberInput(attrs={"inputmode": "numeric", "min": 0, "max": MOST_OF_A_KIND, "data-step-field": ""})
            self.fields[key] = forms.IntegerField(
                label=words.sentence(name), min_value=0, max_value=MOST_OF_A_KIND, required=False, widget=number
            )

    def clean(self) -> dict[str, Any]:
        """Require at least one place."""
        data = super().clean() or {}
        if not self.errors and not any(data.values()):
            raise forms.ValidationError(_("Enter how many you have of at least one kind."))
        return data

    def counts(self) -> dict[str, int]:
        """Return the number of places by kind."""
        return {key: number for key, number in self.cleaned_data.items() if number}


@dataclass(frozen=True)
class Kind:
    """A kind with its drawing."""

    key: str
    cut: Slice
    field: forms.BoundField


def in_order() -> list[tuple[str, str]]:
    """Return keys and names of the kinds, common ones first."""
    names = offered.place_names()
    return sorted(names, key=lambda pair: COMMON.index(pair[0]) if pair[0] in COMMON else len(COMMON))


def kinds_drawn(form: FirstPlacesForm, garden: Garden, today: date) -> list[Kind]:
    """Return every kind as a slice of ground with the usual temperature of the season."""
    usual = site.usual_year(garden.latitude_deg, garden.longitude_deg, garden.elevation_m, today)
    months = [(low + high) / 2 for low, high in zip(usual.low_c, usual.high_c, strict=True)]
    now_c, year_c = months[today.month - 1], sum(months) / len(months)
    soil_c = [now_c + (year_c - now_c) * depth / (2 * DEPTHS_M[-1]) for depth in DEPTHS_M]
    return [Kind(key, slice_of(key, SEED_DEPTH_M, DEPTHS_M, soil_c), form[key]) for key, _name in in_order()]


def names_for(counts: dict[str, int], taken: set[str]) -> Iterator[tuple[str, str]]:
    """Yield kind and name of each new place: “Open bed” alone, otherwise “Open bed 1”, “Open bed 2”, skipping used names."""
    names, used = dict(offered.place_names()), Counter[str]()
    for kind, count in counts.items():
        name = words.sentence(names[kind])
        alone = count == 1 and name.lower() not in taken
        for _each in range(count):
            new = name
            while not alone and (new == name or new.lower() in taken):
                used[kind] += 1
                new = f"{name} {used[kind]}"
            taken.add(new.lower())
            yield kind, new


@transaction.atomic
def make_places(garden: Garden, counts: dict[str, int]) -> list[Place]:
    """Create all places in the order of the page, which becomes the walking order."""
    taken = {name.lower() for name in garden.places.values_list("name", flat=True)}
    return [save_place(Place(garden=garden, kind=kind, name=name)) for kind, name in names_for(counts, taken)]
