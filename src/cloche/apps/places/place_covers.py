"""What stands over a place on a day: covers noted by date, or the one that a place of its kind always has.

The engine follows the same rule (`bridge.services.places.covers_of`): the usual cover is taken to be there until the first
dated one is noted. Every page that names, draws or offers a cover asks here.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from cloche.apps.places.models import Cover, CoverPeriod, Place
from cloche.bridge.services import offered


@dataclass(frozen=True)
class PlaceCover:
    """A cover over a place. item: which of the garden's own, None: not told; period: its dated record, None: the usual cover of
    the place's kind; first, last: its days, None: always there, still there."""

    key: str
    item: Cover | None = None
    period: CoverPeriod | None = None

    @property
    def first(self) -> date | None:
        """Its first day."""
        return self.period.first if self.period else None

    @property
    def last(self) -> date | None:
        """Its last day."""
        return self.period.last if self.period else None

    @property
    def covered_m(self) -> float | None:
        """How much of the bed's length lies beneath it: as it is told, or as long as one's own is; None: not told."""
        written = None if self.period is None else self.period.covered_m
        return written or (self.item.length_m if self.item else None)

    def stands_on(self, day: date) -> bool:
        """Whether it is there on a day."""
        return (self.first is None or self.first <= day) and (self.last is None or day <= self.last)

    def lies_under(self, other: PlaceCover) -> bool:
        """Whether the other one stands over it on any day."""
        heights = offered.cover_heights_m()
        lower = (heights.get(self.key, 0.0), self.first or date.min) < (heights.get(other.key, 0.0), other.first or date.min)
        apart = (self.last and other.first and self.last < other.first) or (
            other.last and self.first and other.last < self.first
        )
        return lower and not apart

    @property
    def name(self) -> str:
        """What its people call it, or the name of its kind."""
        return self.item.name if self.item else dict(offered.cover_names()).get(self.key, self.key)


def covers_of(place: Place) -> list[PlaceCover]:
    """All that ever stood over it or will, the first to come first."""
    periods = sorted(place.cover_periods.all(), key=lambda period: (period.first, period.pk or 0))
    if periods:
        return [PlaceCover(period.cover, period.item, period) for period in periods]
    usual = offered.USUAL_COVER.get(place.kind)
    return [PlaceCover(usual)] if usual else []


def usual_period(place: Place, today: date) -> CoverPeriod | None:
    """The cover that a place of its kind always has as a dated one, unsaved: it has stood there for a year. None: there is
    none, or dated ones are noted."""
    usual = next((cover.key for cover in covers_of(place) if cover.period is None), None)
    if usual is None:
        return None
    above = {"opens": CoverPeriod.Opens.ABOVE, "above_c": offered.OPENED_ABOVE_C, "opening": offered.OPENED_BY}
    return CoverPeriod(place=place, cover=usual, first=today - timedelta(days=365), **above)


def covers_on(place: Place, day: date) -> list[PlaceCover]:
    """What is over it on a day, the highest first, films on the soil last."""
    heights = offered.cover_heights_m()
    there = [cover for cover in covers_of(place) if cover.stands_on(day)]
    return sorted(there, key=lambda cover: -heights.get(cover.key, 0.0))


def cover_on(place: Place, day: date) -> PlaceCover | None:
    """The uppermost of them."""
    return next(iter(covers_on(place, day)), None)


def covers_below(place: Place, day: date) -> list[PlaceCover]:
    """Covers with room beneath them that stand under the uppermost one."""
    films = offered.films()
    return [cover for cover in covers_on(place, day)[1:] if cover.key not in films]


def roofs_from(place: Place, today: date) -> list[PlaceCover]:
    """Covers with room beneath them that are on or will come, the first to come first."""
    films = offered.films()
    return [cover for cover in covers_of(place) if (cover.last is None or cover.last >= today) and cover.key not in films]
