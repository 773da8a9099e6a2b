"""Import of a plan from spreadsheet rows of bed, crop, day and number."""

from __future__ import annotations

import csv
from collections.abc import Callable
from datetime import date
from functools import cache
from typing import Any

from django import forms
from django.contrib import messages
from django.db import transaction
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.utils.translation import ngettext

from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.plants import flows
from cloche.apps.plants.models import MOST_PLANTS, BedShape, Planting
from cloche.apps.plants.selectors import shape_of
from cloche.apps.shared import fields
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.tables import crop_keys, delimiter
from cloche.apps.shared.words import lazy
from cloche.bridge.services import crops

MOST_LINES = 400
HEADINGS = {"bed", "place", "where"}


class BringForm(forms.Form):
    """Form for pasted rows. Every unreadable row is reported, and nothing is saved until all can be read."""

    lines = forms.CharField(
        label=lazy("Bed, crop, date, number of plants; one planting per line"),
        widget=forms.Textarea(attrs={"rows": 10, "spellcheck": "false", "placeholder": "North bed; Carrot; 2027-04-20; 64"}),
        max_length=40_000,
    )

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.garden = garden
        self.plantings: list[Planting] = []

    def clean_lines(self) -> str:
        """Parse all rows, or report every error with its row."""
        text: str = self.cleaned_data["lines"]
        rows = [row for row in csv.reader(text.splitlines(), delimiter=delimiter(text)) if any(cell.strip() for cell in row)]
        if rows and rows[0][0].strip().lower() in HEADINGS:
            rows = rows[1:]
        if len(rows) > MOST_LINES:
            raise forms.ValidationError(_("Enter at most {most} lines at a time.").format(most=MOST_LINES))
        places = {place.name.lower(): place for place in self.garden.places.all()}
        known = crop_keys()
        wrong = []
        shapes = cache(shape_of)
        for number, row in enumerate(rows, 1):
            cells = [cell.strip() for cell in row] + [""] * 4
            planned = _read(cells, places, known, shapes)
            if isinstance(planned, Planting):
                self.plantings.append(planned)
            else:
                wrong.append(_("Line {number}: {what}").format(number=number, what=planned))
        if wrong:
            raise forms.ValidationError(wrong)
        return text


def _read(
    cells: list[str], places: dict[str, Place], known: dict[str, str], shapes: Callable[[Place], BedShape]
) -> Planting | str:
    """Return the planting of a row, or an error message."""
    place, key = places.get(cells[0].lower()), known.get(cells[1].lower())
    if place is None:
        return _("there is no place called “{name}” in this garden.").format(name=cells[0])
    if key is None:
        return _("there is no crop called “{name}”.").format(name=cells[1])
    try:
        on = date.fromisoformat(cells[2]) if cells[2] else None
        if on is not None:
            fields.sane_day(on)
    except (ValueError, forms.ValidationError):
        return _("“{text}” is not a date. Enter it like 2027-04-20.").format(text=cells[2])
    if cells[3] and not (cells[3].isdecimal() and 1 <= int(cells[3]) <= MOST_PLANTS):
        return _("“{text}” is not a number of plants.").format(text=cells[3])
    crop, side = crops.crop(key), shapes(place).square_m
    origin = Planting.Origin.SOWN if crop.sown_direct else Planting.Origin.RAISED
    number = int(cells[3]) if cells[3] else None
    return Planting(place=place, crop_key=key, planned_on=on, number=number, origin=origin, length_m=side, width_m=side)


@in_garden(writing=LOGS)
def bring_plan(request: GardenRequest) -> HttpResponse:
    """Import pasted rows into the plan."""
    request.room = "plan"  # type: ignore[attr-defined]
    form = BringForm(request.POST or None, garden=request.garden)
    if form.is_valid():
        with transaction.atomic():
            for planting in form.plantings:
                flows.keep(planting, request.user)
        number = len(form.plantings)
        text = ngettext("Added {number} planting to the plan.", "Added {number} plantings to the plan.", number)
        messages.success(request, text.format(number=number))
        return redirect("plan", request.garden.pk)
    return render(request, "plan/bring.html", {"form": form}, status=INVALID if form.errors else 200)
