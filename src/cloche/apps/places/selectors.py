"""Questions about places and what stands over them."""

from __future__ import annotations

from datetime import date

from django.db.models import QuerySet

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, Place


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
