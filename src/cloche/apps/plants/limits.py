"""What cold each kind was seen to stand or to die of in a garden, and the limit that follows from it."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

from cloche.apps.gardens.models import Garden
from cloche.apps.plants.models import PlantEvent, Planting
from cloche.apps.plants.selectors import events_in
from cloche.bridge.services.years import LearnedLimit, Seen, limit_of

COLD = (PlantEvent.Kind.STOOD, PlantEvent.Kind.DIED)


@dataclass(frozen=True)
class ColdSeen:
    """Events of a kind with a night's cold, by day, and its limit after them."""

    crop_key: str
    events: list[tuple[PlantEvent, Planting]]
    limit: LearnedLimit


def cold_seen(garden: Garden) -> list[ColdSeen]:
    """Of every kind of which anything was seen."""
    seen: dict[str, list[tuple[PlantEvent, Planting]]] = defaultdict(list)
    rows = events_in(garden).filter(kind__in=COLD, lowest_c__isnull=False, cause__in=("", PlantEvent.Cause.FROST))
    for event in rows:
        seen[event.planting.crop_key].append((event, event.planting))
    return [ColdSeen(key, events, limit_of(key, _nights(events))) for key, events in sorted(seen.items())]


def learned_limits(garden: Garden) -> dict[str, float]:
    """Grown plants' limit by crop, of those of which anything was seen [°C]."""
    return {one.crop_key: round(one.limit.limit_c, 2) for one in cold_seen(garden)}


def _nights(events: list[tuple[PlantEvent, Planting]]) -> list[Seen]:
    """What stood a night and what died of it beside it are one night's word."""
    by_night: dict[tuple[int, int], list[int]] = defaultdict(lambda: [0, 0])
    for event, planting in events:
        by_night[planting.pk, round(event.lowest_c or 0.0)][event.kind == PlantEvent.Kind.DIED] += event.number or 1
    return [Seen(float(low), stood, died) for (_pk, low), (stood, died) in by_night.items()]
