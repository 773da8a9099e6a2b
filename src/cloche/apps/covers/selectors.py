"""Questions about covers."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from django.db.models import Q, QuerySet

from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Cover, CoverPeriod, Place
from cloche.apps.places.selectors import periods_from
from cloche.apps.readings.models import Reading
from cloche.bridge.services.pairing import Pair, paired_up
from cloche_engine.places.kinds import INDOORS

SAME_DEPTH_M, BEFORE_D = 0.006, 60

"""Kinds of place that no cover goes over."""


@dataclass(frozen=True)
class Owned:
    """One of the garden's covers, and where it stands or will stand next."""

    cover: Cover
    period: CoverPeriod | None

    def free_on(self, day: date) -> bool:
        """Return whether it could go on a bed from that day on."""
        return self.period is None or (self.period.last is not None and self.period.last < day)


def owned_in(garden: Garden, today: date, periods: Iterable[CoverPeriod] | None = None) -> list[Owned]:
    """Return all covers in their order. `periods` come from periods_from, if already loaded."""
    current: dict[int, CoverPeriod] = {}
    for period in periods_from(garden, today) if periods is None else periods:
        current.setdefault(period.item_id or 0, period)
    return [Owned(cover, current.get(cover.pk)) for cover in garden.covers.filter(removed_at__isnull=True)]


def coverable(garden: Garden) -> QuerySet[Place]:
    """Return the places that can be covered, in walking order."""
    return garden.places.exclude(kind__in=INDOORS)


def trials_in(garden: Garden) -> list[CoverTrial]:
    """Return the trials, running ones first."""
    rows = list(CoverTrial.objects.filter(covered__garden=garden, bare__garden=garden).select_related("covered", "bare"))
    for trial in rows:
        trial.covered.garden = trial.bare.garden = garden
    return sorted(rows, key=lambda trial: trial.ended_on is not None)


def pairs_of(trial: CoverTrial, since: date | None = None) -> list[Pair]:
    """Return valid readings of both places at the trial's depth, paired within half an hour.

    Only days from `since` on are included.
    """
    covered, bare = (_readings(trial, place, since or trial.begun_on) for place in (trial.covered, trial.bare))
    return paired_up(covered, bare)


def pairs_before(trial: CoverTrial) -> list[Pair]:
    """Return pairs from the weeks before a trial, of days on which both beds were bare.

    None are returned if it is not recorded when the cover was put on.
    """
    since, zone = trial.begun_on - timedelta(days=BEFORE_D), trial.covered.garden.timezone
    covers = list(CoverPeriod.objects.filter(place__in=(trial.covered_id, trial.bare_id)))
    if not any(cover.place_id == trial.covered_id for cover in covers):
        return []
    spans = [(cover.first, cover.last or date.max) for cover in covers]
    early = [(pair, pair.at.astimezone(zone).date()) for pair in pairs_of(trial, since)]
    return [pair for pair, on in early if on < trial.begun_on and not any(first <= on <= last for first, last in spans)]


def _readings(trial: CoverTrial, place: Place, since: date) -> list[tuple[datetime, float]]:
    zone = place.garden.timezone
    begin = datetime.combine(since, datetime.min.time(), tzinfo=zone)
    depth = Q(depth_m__gte=trial.depth_m - SAME_DEPTH_M, depth_m__lte=trial.depth_m + SAME_DEPTH_M)
    rows = Reading.objects.current().filter(depth, place=place, taken_at__gte=begin)
    rows = rows.exclude(review=Reading.Review.LEFT_OUT)
    if trial.ended_on:
        rows = rows.filter(taken_at__lt=datetime.combine(trial.ended_on, datetime.max.time(), tzinfo=zone))
    return list(rows.order_by("taken_at").values_list("taken_at", "temperature_c"))
