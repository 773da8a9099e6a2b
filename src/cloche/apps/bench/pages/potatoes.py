"""Potatoes before they are planted: when to set them out, and when they are ready."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from django.utils.translation import gettext as _

from cloche.apps.forecasts.selectors import Ground, ground_of
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.bridge.services import beds, crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units

LATE_D, BEHIND_D = 7, 21
CHITS_AT_C = 10.0
"""Air in which seed potatoes make short, stout sprouts (common practice, no source)."""


@dataclass(frozen=True)
class PotatoesPage:
    """Context of bench/potatoes.html."""

    headline: str
    lines: list[str]


def potatoes_page(data: dict[str, Any], units: Units, today: date) -> PotatoesPage:
    """Return the page for a valid form."""
    crop = crops.crop(data["group"])
    place: Place = data["place"]
    first, last = beds.lifting(data["group"], data["planted"])
    lines = [
        _("Ready to lift from {first} to {last}. Early tubers are fewer and smaller.").format(
            first=words.day(first, today), last=words.day(last, today)
        ),
        _(
            "A tub of {litres} litres has room for {tubers}. The more sprouts you leave, the more tubers you "
            "get, and the smaller they are."
        ).format(
            litres=number_text(f"{data['litres']:g}"),
            tubers=words.count(beds.tubers_in(data["litres"]), "seed potato", "seed potatoes"),
        ),
    ]
    ground = ground_of(place)
    if ground is None:
        return PotatoesPage(_("Working out the forecast for {name}…").format(name=place.name), lines)
    chitting = _chitting(ground, data["set_out"])
    if chitting.frost is not None:
        day = words.day(chitting.frost, today)
        lines.insert(0, _("Bring them in before {day}: {place} may freeze that night.").format(day=day, place=place.name))
    return PotatoesPage(_headline(crop.name_plural, chitting, data["planted"], place, units, today), lines)


def _headline(name: str, chitting: beds.Chitting, planted: date, place: Place, units: Units, today: date) -> str:
    if chitting.ready is None:
        return _("{place} is too cold for {name} to sprout. Move them to about {wanted}.").format(
            place=place.name, name=name, wanted=units.temperature_text(CHITS_AT_C, 0)
        )
    day = words.day(chitting.ready, today)
    if chitting.ready > planted:
        return _(
            "{name} will have short, stout sprouts about {day}, after your planting date. Move them "
            "somewhere warmer, or plant them as they are."
        ).format(name=name, day=day)
    if chitting.long is not None and chitting.long < planted:
        return _(
            "{name} will have short, stout sprouts about {day}. By your planting date they will be long and "
            "brittle: move them somewhere cooler and brighter."
        ).format(name=name, day=day)
    return _("{name} will have short, stout sprouts about {day}, ready for planting on {planted}.").format(
        name=name, day=day, planted=words.day(planted, today)
    )


def _chitting(ground: Ground, set_out: date) -> beds.Chitting:
    """Predict chitting from the past and coming days of the place."""
    hours = ground.data.near_mid_c[: BEHIND_D * 24]
    behind = [sum(hours[i : i + 24]) / 24 for i in range(0, len(hours), 24)]
    mean = behind + ground.data.far_mid_c
    low = behind + ground.data.far_low_c
    begin = max((set_out - ground.data.day).days + len(behind), 0)
    return beds.chitting(set_out, mean[begin:], low[begin:])
