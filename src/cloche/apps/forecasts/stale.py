"""Which forecasts are due. Asked by pages as well, so nothing here loads the engine."""

from __future__ import annotations

from collections import Counter
from datetime import date

from django.db.models import F, Q, QuerySet

from cloche.apps.gardens.models import Garden, zone_of
from cloche.apps.places.models import Place
from cloche.apps.shared import clock
from cloche.bridge.services import crops


def stale_places() -> list[int]:
    """Places whose forecast is due: the first of each garden in walking order, then the second of each, so that a large garden
    keeps no small one waiting. One question a time zone, however many gardens."""
    zones = Garden.objects.order_by("timezone_name").values_list("timezone_name", flat=True).distinct()
    turns: Counter[int] = Counter()
    due = []
    for garden, _order, pk in sorted(row for zone in zones for row in _stale_in(zone)):
        due.append((turns[garden], garden, pk))
        turns[garden] += 1
    return [pk for *_, pk in sorted(due)]


def _stale_in(timezone_name: str) -> list[tuple[int, int, int]]:
    outdated = stale(Place.objects.filter(garden__timezone_name=timezone_name), clock.today(zone_of(timezone_name)))
    return list(outdated.values_list("garden_id", "walking_order", "pk"))


def stale(places: QuerySet[Place], today: date) -> QuerySet[Place]:
    """Those whose forecast is missing, of another day, of another engine, or overtaken by evidence."""
    other = (
        Q(forecast__isnull=True)
        | ~Q(forecast__day=today)
        | ~Q(forecast__input_revision=F("input_revision"))
        | ~Q(forecast__model_version=crops.MODEL_VERSION)
    )
    return places.filter(other)
