"""What was seen at a place on rounds besides the soil's temperature, in words."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from django.db.models import Q
from django.utils.translation import gettext as _

from cloche.apps.places.models import Place
from cloche.apps.readings.models import Visit
from cloche.apps.shared import words
from cloche.bridge.values.inputs import Under
from cloche.bridge.values.units import Units

SHOWN = 6
LONGEST_SPAN = timedelta(days=14)
"""A lowest and highest of more days than this tell too little of any of them."""
SOMETHING = (
    ~Q(moisture="")
    | ~Q(note="")
    | ~Q(losses="")
    | Q(snow_m__isnull=False)
    | Q(air_c__isnull=False)
    | Q(air_low_c__isnull=False)
    | Q(air_high_c__isnull=False)
    | Q(photo__isnull=False)
)


@dataclass(frozen=True)
class Seen:
    """A visit's line; photo: its key where there is a picture."""

    when: str
    text: str
    photo: UUID | None


def seen_at(place: Place, units: Units) -> list[Seen]:
    """The newest visits that saw something."""
    visits = place.visits.filter(SOMETHING, removed_at__isnull=True).defer("photo").annotate(pictured=Q(photo__isnull=False))
    return [_seen(visit, place, units) for visit in visits[:SHOWN]]


def air_under(place: Place, since: datetime) -> Iterator[Under]:
    """Air that rounds noted at a place since a moment, oldest first. An extreme is of the time since the one before it; of
    none where that is not known or long ago."""
    noted = Q(air_c__isnull=False) | Q(air_low_c__isnull=False) | Q(air_high_c__isnull=False)
    visits = place.visits.filter(noted, removed_at__isnull=True, at__gte=since).order_by("at")
    set_back: datetime | None = None
    for at, air_c, low_c, high_c in visits.values_list("at", "air_c", "air_low_c", "air_high_c"):
        if air_c is not None:
            yield Under("air", at, at, air_c)
        extremes = [(what, value) for what, value in (("lowest", low_c), ("highest", high_c)) if value is not None]
        if set_back is not None and at - set_back <= LONGEST_SPAN:
            yield from (Under(what, at, set_back, value) for what, value in extremes)
        if extremes:
            set_back = at


def _seen(visit: Visit, place: Place, units: Units) -> Seen:
    local = visit.at.astimezone(place.garden.timezone)
    parts = [_("soil {moisture}").format(moisture=visit.moisture) if visit.moisture else "", _air(visit, units)]
    parts += [
        _("{length} of snow").format(length=units.length_text(visit.snow_m)) if visit.snow_m else "",
        visit.losses,
        visit.note,
    ]
    text = words.sentence("; ".join(part for part in parts if part)) or "A picture."
    pictured = visit.pictured  # type: ignore[attr-defined]
    return Seen(f"{words.day(local.date())} {words.clock(local)}", text, visit.key if pictured else None)


def _air(visit: Visit, units: Units) -> str:
    parts = [_("air {temperature}").format(temperature=units.temperature_text(visit.air_c))] if visit.air_c is not None else []
    parts += (
        [_("lowest {temperature}").format(temperature=units.temperature_text(visit.air_low_c))]
        if visit.air_low_c is not None
        else []
    )
    parts += (
        [_("highest {temperature}").format(temperature=units.temperature_text(visit.air_high_c))]
        if visit.air_high_c is not None
        else []
    )
    return ", ".join(parts)
