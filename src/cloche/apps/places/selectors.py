"""Questions about places and what stands over them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import date, timedelta
from itertools import combinations

from django.db.models import Q, QuerySet

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, Hotbed, Place
from cloche.bridge.services import offered

COMING_D = 14
"""Days ahead of which a cover is drawn as coming."""


@dataclass
class Over:
    """Periods of covers over a place: those that stand there on a day, and the next ones within a fortnight."""

    now: list[CoverPeriod] = field(default_factory=list)
    coming: list[CoverPeriod] = field(default_factory=list)


def periods_from(garden: Garden, today: date) -> list[CoverPeriod]:
    """Covers that stand over the garden's places today or will, each with its place and what it is, the first to come first."""
    lasting = Q(last__isnull=True) | Q(last__gte=today)
    rows = CoverPeriod.objects.filter(lasting, place__garden=garden, place__removed_at__isnull=True)
    return list(rows.select_related("place", "item").order_by("first", "id"))


def over_places(periods: Iterable[CoverPeriod], today: date) -> Mapping[int, Over]:
    """By place, what stands over it today and what is about to; periods from periods_from."""
    over: defaultdict[int, Over] = defaultdict(Over)
    for period in periods:
        if period.first <= today:
            over[period.place_id].now.append(period)
        elif period.first <= today + timedelta(days=COMING_D):
            over[period.place_id].coming.append(period)
    return over


def filled_on(place: Place) -> date | None:
    """When a hotbed was filled, the last time of several; None where nobody said."""
    built = Hotbed.objects.filter(place=place).first()
    fills = place.hotbed_fills.values_list("on", flat=True)
    return max([built.filled_on, *fills]) if built else None


def removed_places(garden: Garden) -> QuerySet[Place]:
    """Places that can be put back, the latest removed first."""
    return Place.everything.filter(garden=garden, removed_at__isnull=False).order_by("-removed_at")


def first_overlap(periods: QuerySet[CoverPeriod], first: date, last: date | None) -> CoverPeriod | None:
    """The first of some periods that shares a day with those from first to last; without a last day, with all to come."""
    meant = CoverPeriod(first=first, last=last)
    return next((other for other in periods.select_related("place") if overlap(meant, other)), None)


def in_the_way(meant: CoverPeriod, others: Iterable[CoverPeriod]) -> CoverPeriod | None:
    """What has to come off a bed before a cover can go on, None: nothing. One film lies on its soil; above it stand two covers
    at most, one over the other, and no cover stands over itself."""
    films, layered = offered.films(), offered.layered()
    is_film = meant.cover in films
    there = [other for other in others if (other.cover in films) == is_film and overlap(meant, other)]
    for period in there:
        if (
            is_film
            or {meant.cover, period.cover} & set(layered)
            or (period.item_id is not None and period.item_id == meant.item_id)
        ):
            return period
    return next((period for period, other in combinations(there, 2) if overlap(period, other)), None)


def overlap(period: CoverPeriod, other: CoverPeriod) -> bool:
    """Whether two periods share a day."""
    before = other.last is not None and other.last < period.first
    after = period.last is not None and period.last < other.first
    return not (before or after)
