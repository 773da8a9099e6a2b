"""Questions about places and what stands over them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, timedelta

from django.db.models import QuerySet

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, Place

COMING_D = 14
"""Days ahead of which a cover is drawn as coming."""


@dataclass
class Over:
    """Periods of covers over a place: those that stand there on a day, and the next ones within a fortnight."""

    now: list[CoverPeriod] = field(default_factory=list)
    coming: list[CoverPeriod] = field(default_factory=list)


def over_places(garden: Garden, today: date) -> Mapping[int, Over]:
    """By place, what stands over it today and what is about to."""
    found: defaultdict[int, Over] = defaultdict(Over)
    soon = CoverPeriod.objects.filter(place__garden=garden, first__lte=today + timedelta(days=COMING_D))
    for period in soon.exclude(last__lt=today).select_related("item"):
        over = found[period.place_id]
        (over.now if period.first <= today else over.coming).append(period)
    return found


def removed_places(garden: Garden) -> QuerySet[Place]:
    """Places that can be put back, the latest removed first."""
    return Place.everything.filter(garden=garden, removed_at__isnull=False).order_by("-removed_at")


def first_overlap(periods: QuerySet[CoverPeriod], first: date, last: date | None) -> CoverPeriod | None:
    """The first of some periods that shares a day with those from first to last; without a last day, with all to come."""
    meant = CoverPeriod(first=first, last=last)
    return next((other for other in periods.select_related("place") if overlap(meant, other)), None)


def overlap(one: CoverPeriod, other: CoverPeriod) -> bool:
    """Whether two periods share a day."""
    before = other.last is not None and other.last < one.first
    after = one.last is not None and one.last < other.first
    return not (before or after)
