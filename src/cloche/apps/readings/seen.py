"""What was seen at a place on rounds besides the soil's temperature, in words."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from django.db.models import Q

from cloche.apps.gardens import words
from cloche.apps.gardens.models import Place
from cloche.apps.readings.models import Visit
from cloche.bridge.units import Units

SHOWN = 6
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
    said: str
    photo: UUID | None


def seen_at(place: Place, units: Units) -> list[Seen]:
    """The newest visits that saw something."""
    visits = place.visits.filter(SOMETHING, removed_at__isnull=True).defer("photo").annotate(pictured=Q(photo__isnull=False))
    return [_seen(visit, place, units) for visit in visits[:SHOWN]]


def _seen(visit: Visit, place: Place, units: Units) -> Seen:
    local = visit.at.astimezone(place.garden.timezone)
    parts = [f"soil {visit.moisture}" if visit.moisture else "", _air(visit, units)]
    parts += [f"{units.length_text(visit.snow_m)} of snow" if visit.snow_m else "", visit.losses, visit.note]
    said = words.sentence("; ".join(part for part in parts if part)) or "A picture."
    pictured = visit.pictured  # type: ignore[attr-defined]
    return Seen(f"{words.day(local.date())} {words.clock(local)}", said, visit.key if pictured else None)


def _air(visit: Visit, units: Units) -> str:
    told = [f"air {units.temperature_text(visit.air_c)}"] if visit.air_c is not None else []
    told += [f"lowest {units.temperature_text(visit.air_low_c)}"] if visit.air_low_c is not None else []
    told += [f"highest {units.temperature_text(visit.air_high_c)}"] if visit.air_high_c is not None else []
    return ", ".join(told)
