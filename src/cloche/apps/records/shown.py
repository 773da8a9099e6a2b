"""How a kind of record is told in the history: its name, its fields, what a change of it makes stale."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from django.db.models import Model
from django.utils.translation import gettext as _

from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units

Show = Callable[[Any, Units], str]


@dataclass(frozen=True)
class Kind:
    """key: in addresses. inside: the way from its history to the garden. what: its name in words. fields: fields by name, with
    their words and how a value is written. changed: what has to be worked out again."""

    key: str
    model: type[Model]
    inside: str
    what: Callable[[Any, Units], str]
    fields: Mapping[str, tuple[str, Show]]
    changed: Callable[[Any], None]


def at_place(row: Any) -> None:
    place = Place.everything.filter(pk=row.place_id).first()
    if place is not None:
        note_change_at(place)


def temperature(value: float | None, units: Units) -> str:
    return _("none") if value is None else units.temperature_text(value)


def length(value: float | None, units: Units) -> str:
    return _("none") if value is None else units.length_text(value)


def plain(value: Any, units: Units) -> str:
    return _("none") if value in (None, "") else f"{value:g}" if isinstance(value, float) else str(value)


def day(value: Any, units: Units) -> str:
    return words.day(value) if value else _("none")


def yes(value: Any, units: Units) -> str:
    return _("yes") if value else _("no")


def instant(row: Any, at: Any) -> str:
    local = at.astimezone(row.place.garden.timezone)
    return f"{words.day(local.date())} {words.clock(local)}"


def crop(row: Any) -> str:
    return crops.crop(row.crop_key).name


REMOVED: dict[str, tuple[str, Show]] = {"removed_at": ("removed", yes)}
