"""One kind of record in the history, and how its values are shown."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from django.db.models import Model
from django.utils.translation import gettext as _

from cloche.apps.places.flows import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.services import crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units

Show = Callable[[Any, Units], str]


@dataclass(frozen=True)
class Kind:
    """One kind of record in the history.

    `key` is used in URLs, `inside` is the lookup from its history to the garden, `what` its noun, `fields` label and format
    by field name, and `changed` is called to recalculate what depends on it.
    """

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
    return _("none") if value in (None, "") else number_text(f"{value:g}") if isinstance(value, float) else str(value)


def day(value: Any, units: Units) -> str:
    return words.day(value) if value else _("none")


def yes(value: Any, units: Units) -> str:
    return _("yes") if value else _("no")


def instant(row: Any, at: Any) -> str:
    local = at.astimezone(row.place.garden.timezone)
    return f"{words.day(local.date())} {words.clock(local)}"


def crop(row: Any) -> str:
    return crops.crop(row.crop_key).name


REMOVED: dict[str, tuple[str, Show]] = {"removed_at": (lazy("removed"), yes)}
