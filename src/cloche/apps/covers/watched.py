"""A place's coming days, as they were worked out: facts with a clock. `texts` turns them into sentences."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.places.selectors import periods_from
from cloche.apps.shared import clock
from cloche.apps.windows.pages.ground import Grounds
from cloche.bridge.values.units import Units
from cloche_engine.local_time import midnight_of, standard_offset_h
from cloche_engine.results import NightPlan, OpeningDay, Plan, Watch

LEAST_OPEN_H = 1.0
"""Hours before it is to be closed from which opening it is no longer advised."""
TOO_HOT_RISK = 0.25
"""Chance of passing the limit wide open from which the cover is to come off (assumption)."""


@dataclass(frozen=True)
class Watched:
    """The coming days of a place from its forecast.

    Attributes
    ----------
    start : datetime
        Today's first midnight of standard time.
    own : str
        Name of the garden's own cover there, empty for none.
    guessed : bool
        Whether there are no readings, so that everything is an estimate.
    """

    place: Place
    data: Watch
    start: datetime
    today: date
    units: Units
    own: str = ""
    guessed: bool = False

    @property
    def days(self) -> list[OpeningDay]:
        """The coming days under its cover, none without one."""
        return self.data.covered.days if self.data.covered else []

    @property
    def tonight(self) -> NightPlan | None:
        """The coming night if something is growing there and needs protection."""
        nights = self.data.nights
        return nights[0] if nights and nights[0].way and self.data.growing else None

    @property
    def hour(self) -> float:
        """Hours since today's first midnight of standard time."""
        return (clock.now() - self.start) / timedelta(hours=1)

    def is_under_way(self, number: int, plan: Plan) -> bool:
        """Return whether the time to open has passed on that day and the time to close has not."""
        return number == 0 and plan.from_h <= self.hour < plan.to_h - LEAST_OPEN_H

    def is_past(self, number: int, plan: Plan) -> bool:
        """Return whether opening is hardly worthwhile on that day any more."""
        return number == 0 and self.hour >= plan.to_h - LEAST_OPEN_H

    def at(self, number: int, hour: float) -> datetime:
        """Return an hour of a coming day on the garden's clock."""
        return (self.start + timedelta(days=number, hours=hour)).astimezone(self.place.garden.timezone)


def is_too_hot(plan: Plan) -> bool:
    """Return whether no opening is enough, so that the cover has to come off."""
    return not plan.holds and plan.risk > TOO_HOT_RISK


def watched_in(
    garden: Garden,
    units: Units,
    today: date,
    grounds: Grounds | None = None,
    periods: Iterable[CoverPeriod] | None = None,
) -> Iterator[Watched]:
    """Yield every place outdoors with a forecast of today, in walking order.

    `grounds` and `periods` (from periods_from) are those of the garden, if already loaded.
    """
    current = periods_from(garden, today) if periods is None else periods
    own = {period.place_id: period.item.name for period in current if period.item and period.first <= today}
    midnight = midnight_of(today, standard_offset_h(garden.timezone, today))
    for place, ground in forecasts.grounds_in(garden) if grounds is None else grounds:
        if ground is not None and ground.forecast.watch and ground.forecast.day == today:
            guessed = ground.data.readings_used == 0
            yield Watched(place, ground.forecast.watch, midnight, today, units, own.get(place.pk, ""), guessed)
