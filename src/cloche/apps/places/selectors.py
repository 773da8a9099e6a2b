"""Read places, and what stands over them on a day."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import date, timedelta
from itertools import combinations

from django.db.models import Q, QuerySet
from django.http import Http404

from cloche.apps.gardens.access import GardenRequest
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Cover, CoverPeriod, Hotbed, HotbedNote, Place
from cloche.bridge.services import offered
from cloche_engine.places.kinds import OPENED_ABOVE_C, OPENED_BY, usual_cover

COMING_D = 14
"""Days ahead of which a cover is drawn as coming."""


@dataclass
class Over:
    """Cover periods of a place: on a day, and those that begin within two weeks."""

    now: list[CoverPeriod] = field(default_factory=list)
    coming: list[CoverPeriod] = field(default_factory=list)


def periods_from(garden: Garden, today: date) -> list[CoverPeriod]:
    """Return present and future cover periods of a garden with place and kind, earliest first."""
    lasting = Q(last__isnull=True) | Q(last__gte=today)
    rows = CoverPeriod.objects.filter(lasting, place__garden=garden, place__removed_at__isnull=True)
    return list(rows.select_related("place", "item").order_by("first", "id"))


def over_places(periods: Iterable[CoverPeriod], today: date) -> Mapping[int, Over]:
    """Return by place the present and coming covers; `periods` come from periods_from."""
    over: defaultdict[int, Over] = defaultdict(Over)
    for period in periods:
        if period.first <= today:
            over[period.place_id].now.append(period)
        elif period.first <= today + timedelta(days=COMING_D):
            over[period.place_id].coming.append(period)
    return over


FLUSH_C, FLUSH_D, CORE_AGO_D = 45.0, 10, 6
"""A core that hot is in its first flush, which is over after so many days; a core read so long ago says nothing of now (common
practice, no source)."""


def hot_core(place: Place, today: date) -> HotbedNote | None:
    """Return the latest core temperature of a hotbed if it shows that the first flush is not over."""
    since = today - timedelta(days=CORE_AGO_D)
    note = place.hotbed_notes.filter(core_c__isnull=False, on__range=(since, today)).order_by("-on", "-id").first()
    return note if note is not None and (note.core_c or 0.0) >= FLUSH_C else None


def filled_on(place: Place) -> date | None:
    """Return the date of the last filling of a hotbed, None if unknown."""
    built = Hotbed.objects.filter(place=place).first()
    fills = place.hotbed_fills.values_list("on", flat=True)
    return max([built.filled_on, *fills]) if built else None


def removed_places(garden: Garden) -> QuerySet[Place]:
    """Return places that can be restored, the latest first."""
    return Place.everything.filter(garden=garden, removed_at__isnull=False).order_by("-removed_at")


def first_overlap(periods: QuerySet[CoverPeriod], first: date, last: date | None) -> CoverPeriod | None:
    """Return the first period that overlaps the days from first to last (None: open-ended)."""
    meant = CoverPeriod(first=first, last=last)
    return next((other for other in periods.select_related("place") if overlap(meant, other)), None)


def in_the_way(meant: CoverPeriod, others: Iterable[CoverPeriod]) -> CoverPeriod | None:
    """Return the cover that has to be removed before another can go on, None if there is none.

    A bed has room for one film on its soil and two different covers above it.
    """
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
    """Return whether two periods overlap."""
    before = other.last is not None and other.last < period.first
    after = period.last is not None and period.last < other.first
    return not (before or after)


@dataclass(frozen=True)
class PlaceCover:
    """A cover over a place.

    `item` is the garden's own cover if known. `period` is its record, None for the usual cover of that kind of place.
    `first` and `last` are None for an open beginning or end.
    """

    key: str
    item: Cover | None = None
    period: CoverPeriod | None = None

    @property
    def first(self) -> date | None:
        """First day."""
        return self.period.first if self.period else None

    @property
    def last(self) -> date | None:
        """Last day."""
        return self.period.last if self.period else None

    @property
    def covered_m(self) -> float | None:
        """Length of the bed that it covers, as recorded or by its own length, None if unknown [m]."""
        written = None if self.period is None else self.period.covered_m
        return written or (self.item.length_m if self.item else None)

    def stands_on(self, day: date) -> bool:
        """Return whether it is there on a day."""
        return (self.first is None or self.first <= day) and (self.last is None or day <= self.last)

    def lies_under(self, other: PlaceCover) -> bool:
        """Return whether another stands over it on any day."""
        heights = offered.cover_heights_m()
        lower = (heights.get(self.key, 0.0), self.first or date.min) < (heights.get(other.key, 0.0), other.first or date.min)
        apart = (self.last and other.first and self.last < other.first) or (
            other.last and self.first and other.last < self.first
        )
        return lower and not apart

    @property
    def name(self) -> str:
        """The garden's own name for it, or that of its kind."""
        return self.item.name if self.item else dict(offered.cover_names()).get(self.key, self.key)


def covers_of(place: Place) -> list[PlaceCover]:
    """Return all covers of a place, past and planned, earliest first."""
    periods = sorted(place.cover_periods.all(), key=lambda period: (period.first, period.pk or 0))
    if periods:
        return [PlaceCover(period.cover, period.item, period) for period in periods]
    usual = usual_cover(place.kind, place.within)
    return [PlaceCover(usual)] if usual else []


def usual_period(place: Place, today: date) -> CoverPeriod | None:
    """Return the usual cover of a place as an unsaved period of a year, None if there is none or others are recorded."""
    usual = next((cover.key for cover in covers_of(place) if cover.period is None), None)
    if usual is None:
        return None
    above = {"opens": CoverPeriod.Opens.ABOVE, "above_c": OPENED_ABOVE_C, "opening": OPENED_BY}
    return CoverPeriod(place=place, cover=usual, first=today - timedelta(days=365), **above)


def covers_on(place: Place, day: date) -> list[PlaceCover]:
    """Return the covers on a day, the highest first and films on the soil last."""
    heights = offered.cover_heights_m()
    there = [cover for cover in covers_of(place) if cover.stands_on(day)]
    return sorted(there, key=lambda cover: -heights.get(cover.key, 0.0))


def cover_on(place: Place, day: date) -> PlaceCover | None:
    """Return the highest cover on a day."""
    return next(iter(covers_on(place, day)), None)


def covers_below(place: Place, day: date) -> list[PlaceCover]:
    """Return covers with space beneath them under the highest one."""
    films = offered.films()
    return [cover for cover in covers_on(place, day)[1:] if cover.key not in films]


def roofs_from(place: Place, today: date) -> list[PlaceCover]:
    """Return present and future covers with space beneath them, earliest first."""
    films = offered.films()
    return [cover for cover in covers_of(place) if (cover.last is None or cover.last >= today) and cover.key not in films]


def place_or_404(request: GardenRequest, place_id: int) -> Place:
    """Return a place of this garden or raise Http404."""
    place = request.garden.places.filter(pk=place_id).first()
    if place is None:
        raise Http404
    return place
