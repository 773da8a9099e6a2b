"""What cold each kind was seen to stand or to die of in a garden, and the limit that follows from it."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from datetime import date
from typing import NamedTuple

from cloche.apps.gardens.models import Garden
from cloche.apps.plants.models import PlantEvent
from cloche.apps.plants.selectors import events_in
from cloche.bridge.services.years import LearnedLimit, Seen, limit_of

COLD = (PlantEvent.Kind.STOOD, PlantEvent.Kind.DIED)


class ColdNight(NamedTuple):
    """What so many plants of a planting did in a night's cold."""

    planting_id: int
    place: str
    kind: str
    number: int
    lowest_c: float
    on: date


@dataclass(frozen=True)
class ColdSeen:
    """Nights of a kind, by day, and its limit after them."""

    crop_key: str
    events: list[ColdNight]
    limit: LearnedLimit


def cold_seen(garden: Garden) -> list[ColdSeen]:
    """Of every kind of which anything was seen."""
    seen: dict[str, list[ColdNight]] = defaultdict(list)
    rows = events_in(garden).filter(kind__in=COLD, lowest_c__isnull=False, cause__in=("", PlantEvent.Cause.FROST))
    columns = ("planting__crop_key", "planting_id", "planting__place__name", "kind", "number", "lowest_c", "on")
    for key, planting_id, place, kind, number, lowest_c, on in rows.values_list(*columns):
        seen[key].append(ColdNight(planting_id, place, kind, number or 1, lowest_c, on))
    return [ColdSeen(key, events, limit_of(key, _nights(events))) for key, events in sorted(seen.items())]


def learned_limits(garden: Garden) -> dict[str, float]:
    """Grown plants' limit by crop, of those of which anything was seen [°C]."""
    return {seen.crop_key: round(seen.limit.limit_c, 2) for seen in cold_seen(garden)}


def _nights(events: list[ColdNight]) -> list[Seen]:
    """What stood a night and what died of it beside it are one night's word."""
    by_night: dict[tuple[int, int], list[int]] = defaultdict(lambda: [0, 0])
    for event in events:
        by_night[event.planting_id, round(event.lowest_c)][event.kind == PlantEvent.Kind.DIED] += event.number
    return [Seen(float(low), stood, died) for (_pk, low), (stood, died) in by_night.items()]
