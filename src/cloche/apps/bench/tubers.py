"""Seed potatoes set out to sprout: how far they are, and what is due."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

from django.utils.translation import gettext as _

from cloche.apps.forecasts.selectors import Ground, soil_of
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import TuberTray
from cloche.apps.shared import words
from cloche.bridge.services import beds, crops
from cloche.bridge.values.units import Units

CHITS_AT_C = 10.0
"""Air in which seed potatoes make short, stout sprouts (common practice, no source)."""
PLANTS_AT_C = 7.0
"""Soil in which they grow on (common practice, no source)."""
FROST_SOON_D, PLANTED_AGO_D = 2, 30


class TuberDue(StrEnum):
    """Job that is due for a tray of seed potatoes."""

    FROST = "frost"
    PLANT = "plant"


@dataclass(frozen=True)
class Sprouting:
    """A tray of seed potatoes with its dates; `chitting` is None where its place has no forecast."""

    tray: TuberTray
    chitting: beds.Chitting | None

    def due(self, today: date) -> TuberDue | None:
        """Return what is due today, frost first."""
        frost = self.chitting.frost if self.chitting else None
        if frost is not None and frost <= today + timedelta(days=FROST_SOON_D):
            return TuberDue.FROST
        return TuberDue.PLANT if self.tray.plant_on <= today else None


def trays_in(garden: Garden, today: date) -> list[TuberTray]:
    """Return the trays of a garden that wait, and those planted lately."""
    trays = TuberTray.objects.filter(place__garden=garden, removed_at__isnull=True, place__removed_at__isnull=True)
    lately = today - timedelta(days=PLANTED_AGO_D)
    return [tray for tray in trays.select_related("place") if tray.planted_on is None or tray.planted_on >= lately]


def sprouting_of(tray: TuberTray, ground: Ground | None, today: date) -> Sprouting:
    """Predict how a tray sprouts from the past and coming days of its place."""
    return Sprouting(tray, None if ground is None else chitting_in(ground, tray.set_out_on, today))


def chitting_in(ground: Ground, set_out: date, today: date) -> beds.Chitting:
    """Predict how tubers sprout that were set out in a place on a day."""
    # What frost did in the nights behind can be seen; only those to come are of use.
    ahead = max((today - set_out).days, 0)
    later = max((set_out - ground.data.day).days, 0)
    low = [float("inf")] * ahead + ground.data.far_low_c[later:]
    return beds.chitting(set_out, soil_of(ground.place, ground, today).since(set_out), low)


def name_of(tray: TuberTray) -> str:
    """Return the number and name of the tubers, such as 20 first early potatoes (Amber)."""
    name = crops.crop(tray.crop_key).name_plural
    return f"{tray.tubers} {name} ({tray.variety})" if tray.variety else f"{tray.tubers} {name}"


def due_text(sprouting: Sprouting, due: TuberDue, today: date) -> tuple[str, str]:
    """Return what to do with a tray, and why."""
    tray, chitting = sprouting.tray, sprouting.chitting
    if due is TuberDue.FROST and chitting is not None and chitting.frost is not None:
        what = _("Move the {tubers} to a place free of frost before {day}.").format(
            tubers=name_of(tray), day=words.day(chitting.frost, today)
        )
        return what, _("Frost is possible in {place} that night, and frozen tubers rot.").format(place=tray.place.name)
    what = _("Plant the {tubers} sprouting in {place}.").format(tubers=name_of(tray), place=tray.place.name)
    if chitting is None or chitting.ready is None or chitting.ready > today:
        return what, _("The planting date has come. The sprouts are still short; that costs a week or so, not the crop.")
    return what, _("The sprouts have been ready since {day}. Cover or earth up the shoots when a frost is forecast.").format(
        day=words.day(chitting.ready, today)
    )


def headline(name: str, chitting: beds.Chitting, planted: date, place: str, units: Units, today: date) -> str:
    """Return when the sprouts are ready, and whether that suits the planting date."""
    if chitting.ready is None:
        return _("{place} is too cold for {name} to sprout. Move them to about {wanted}.").format(
            place=place, name=name, wanted=units.temperature_text(CHITS_AT_C, 0)
        )
    day, name = words.day(chitting.ready, today), words.sentence(name)
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
    if chitting.ready < today:
        return _("{name} have had short, stout sprouts since {day}, ready for planting on {planted}.").format(
            name=name, day=day, planted=words.day(planted, today)
        )
    return _("{name} will have short, stout sprouts about {day}, ready for planting on {planted}.").format(
        name=name, day=day, planted=words.day(planted, today)
    )
