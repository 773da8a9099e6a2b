"""Whether each place has a forecast that can be relied on: what every page says while one is calculated or has failed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from django.db.models import Exists, OuterRef, Q
from django.utils.translation import gettext as _
from django.utils.translation import ngettext

from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows.revision import WORK_OUT
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.work import moments
from cloche.apps.work.models import Failure


@dataclass(frozen=True)
class FailedForecast:
    """A place whose last calculation failed. retry_at: aware; last_good: when the forecast that pages still show was made, None
    where there never was one."""

    place: Place
    why: str
    retry_at: datetime
    last_good: datetime | None

    @property
    def sentence(self) -> str:
        """What everybody who can see the place is told."""
        timezone = self.place.garden.timezone
        retry = self.retry_at.astimezone(timezone)
        again = _("It is tried again at {time} on {day}, and at once when something about the place changes.").format(
            time=words.clock(retry), day=words.day(retry.date())
        )
        if self.last_good is None:
            shown = _("Until then there are no temperatures or windows for it.")
        else:
            shown = _("Until then the pages show the forecast of {day}.").format(
                day=words.day(self.last_good.astimezone(timezone).date())
            )
        failed = _("The forecast for {place} could not be calculated.").format(place=self.place.name)
        return f"{failed} {_(self.why)} {again} {shown}"


@dataclass(frozen=True)
class ForecastStatus:
    """What is not ready in a garden: places whose first forecast is still being calculated, and places where it failed."""

    calculating: tuple[Place, ...]
    failed: tuple[FailedForecast, ...]
    places: int

    @property
    def progress(self) -> str:
        """How far the first calculation has come; empty when nothing is left to do."""
        left = len(self.calculating)
        if not left:
            return ""
        text = ngettext(
            "The forecast for {names} is still being calculated.",
            "The forecasts for {names} are still being calculated: {done} of {places} places are ready.",
            left,
        )
        names = words.listed([place.name for place in self.calculating], 3)
        return text.format(names=names, done=self.places - left, places=self.places)


def status_in(garden: Garden, only: Iterable[int] | None = None) -> ForecastStatus:
    """Of a garden's places, or of some of them: two queries."""
    places = garden.places.all() if only is None else garden.places.filter(pk__in=only)
    made = Forecast.objects.filter(place=OuterRef("pk"))
    # What is due again is being calculated, not waiting for its next try.
    waiting = {"task": WORK_OUT, "count__gt": 0, "next_at__gt": moments.database_now()}
    failures = Failure.objects.filter(place=OuterRef("pk"), **waiting)
    rows = list(places.annotate(has=Exists(made), fails=Exists(failures)).filter(Q(has=False) | Q(fails=True)))
    calculating = tuple(place for place in rows if not place.fails)
    failing = {place.pk: place for place in rows if place.fails}
    count = places.count() if calculating else 0
    if not failing:
        return ForecastStatus(calculating, (), count)
    good = dict(Forecast.objects.filter(place__in=failing).values_list("place_id", "made_at"))
    faults = Failure.objects.filter(place__in=failing, **waiting).order_by("place__walking_order", "place_id")
    failed = []
    for fault in faults:
        place = failing[fault.place_id or 0]
        place.garden = garden
        failed.append(FailedForecast(place, fault.text, fault.next_at, good.get(place.pk)))
    return ForecastStatus(calculating, tuple(failed), count)
