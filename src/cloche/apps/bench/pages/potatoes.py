"""Seed potatoes from setting out to planting: kept trays, and dates for chitting and lifting."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any
from urllib.parse import urlencode

from django.urls import reverse
from django.utils.translation import gettext as _

from cloche.apps.bench import tubers
from cloche.apps.forecasts.selectors import Ground, ground_of, grounds_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place, TuberTray
from cloche.apps.shared import words
from cloche.bridge.services import beds, crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units


@dataclass(frozen=True)
class PotatoesPage:
    """Context of bench/potatoes.html."""

    headline: str
    lines: list[str]


@dataclass(frozen=True)
class TrayLine:
    """A kept tray in words; `urgent` marks one that must be moved, `sow_url` leads to the record of its planting."""

    tray: TuberTray
    name: str
    when: str
    text: str
    urgent: bool
    sow_url: str


def tray_lines(garden: Garden, units: Units, today: date) -> list[TrayLine]:
    """Return the kept trays of a garden."""
    trays = tubers.trays_in(garden, today)
    grounds = {place.pk: ground for place, ground in grounds_in(garden)} if trays else {}
    return [_tray_line(tray, grounds.get(tray.place_id), units, today) for tray in trays]


def _tray_line(tray: TuberTray, ground: Ground | None, units: Units, today: date) -> TrayLine:
    sprouting = tubers.sprouting_of(tray, ground, today)
    name = words.sentence(tubers.name_of(tray))
    when = _("in {place} since {day}").format(place=tray.place.name, day=words.day(tray.set_out_on, today))
    query = urlencode({"crop": tray.crop_key, "seeds": tray.tubers})
    sow_url = f"{reverse('new_sowing', args=[tray.place.garden_id])}?{query}"
    due = sprouting.due(today)
    if tray.planted_on is not None:
        text = _("Planted {day}.").format(day=words.day(tray.planted_on, today))
    elif due is not None:
        text = " ".join(tubers.due_text(sprouting, due, today))
    elif sprouting.chitting is None:
        text = _("Working out the forecast for {name}…").format(name=tray.place.name)
    else:
        plural = crops.crop(tray.crop_key).name_plural
        text = tubers.headline(plural, sprouting.chitting, tray.plant_on, tray.place.name, units, today)
    return TrayLine(tray, name, when, text, due is tubers.TuberDue.FROST and tray.planted_on is None, sow_url)


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
    chitting = tubers.chitting_in(ground, data["set_out"], today)
    if chitting.frost is not None:
        day = words.day(chitting.frost, today)
        lines.insert(0, _("Bring them in before {day}: {place} may freeze that night.").format(day=day, place=place.name))
    return PotatoesPage(tubers.headline(crop.name_plural, chitting, data["planted"], place.name, units, today), lines)
