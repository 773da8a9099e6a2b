"""How a forecast stands: fresh or stale, being worked out, failed, or left from before."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from django.db.models import Count, Exists, F, OuterRef, Q, QuerySet
from django.utils.translation import gettext as _
from django.utils.translation import ngettext

from cloche.apps.forecasts.models import Forecast, SoilYear
from cloche.apps.forecasts.selectors import kept_soil
from cloche.apps.gardens.models import Garden, zone_of
from cloche.apps.places.flows import WORK_OUT
from cloche.apps.places.models import Place
from cloche.apps.shared import clock, words
from cloche.apps.sowings.models import Sowing, Step
from cloche.apps.weather.models import DailyWeather
from cloche.apps.work import queue, turns
from cloche.apps.work.models import Failure
from cloche_engine.layout import NEAR_PAST_D
from cloche_engine.results import MODEL_VERSION


@dataclass(frozen=True)
class FailedForecast:
    """A place whose last calculation failed. `last_good` is the time of the forecast still shown, None without one."""

    place: Place
    why: str
    retry_at: datetime
    last_good: datetime | None

    @property
    def sentence(self) -> str:
        """Message for everyone who can see the place."""
        timezone = self.place.garden.timezone
        retry = self.retry_at.astimezone(timezone)
        again = _("Cloche tries again at {time} on {day}, and at once if something about the place changes.").format(
            time=words.clock(retry), day=words.day(retry.date())
        )
        if self.last_good is None:
            shown = _("Until then, it has no temperatures or windows.")
        else:
            shown = _("Until then, pages show the forecast of {day}.").format(
                day=words.day(self.last_good.astimezone(timezone).date())
            )
        failed = _("The forecast for {place} could not be calculated.").format(place=self.place.name)
        return f"{failed} {_(self.why)} {again} {shown}"


@dataclass(frozen=True)
class ForecastStatus:
    """Places whose first forecast is still being calculated, and places where it failed."""

    calculating: tuple[Place, ...]
    failed: tuple[FailedForecast, ...]
    places: int

    @property
    def progress(self) -> str:
        """Progress of the first calculations, empty if they are done."""
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
    """Return the status of all or some places of a garden, in two queries."""
    places = garden.places.all() if only is None else garden.places.filter(pk__in=only)
    made = Forecast.objects.filter(place=OuterRef("pk"))
    # What is due again is being calculated, not waiting for its next try.
    waiting = {"task": WORK_OUT, "count__gt": 0, "next_at__gt": turns.database_now()}
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


def stale_places() -> list[int]:
    """Return places whose forecast is due.

    The first place of each garden comes first, then the second of each, so that a large garden does not delay a small one.
    There is one query per time zone.
    """
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
    """Return places whose forecast is missing, of another day or engine version, or older than its evidence."""
    other = (
        Q(forecast__isnull=True)
        | ~Q(forecast__day=today)
        | ~Q(forecast__input_revision=F("input_revision"))
        | ~Q(forecast__model_version=MODEL_VERSION)
    )
    return places.filter(other)


NOON_H = 12
AN_HOUR = timedelta(hours=1)


def keep_left(sowings: list[Sowing]) -> None:
    """Store the soil of places that sowings have left, as far as their forecast still has it."""
    for sowing in sowings:
        since = sowing.sown_on
        for step in sowing.steps.all():
            if step.left_id is None:
                continue
            if step.left_c is None:
                _keep(step, since)
            since = step.on


def _keep(step: Step, since: date) -> None:
    forecast = Forecast.objects.filter(place=step.left).only("ground").first()
    if forecast is None or not forecast.ground:
        return
    ground = forecast.ground
    first, last = (_hour(day, ground.day) for day in (since, step.on))
    hours = ground.near_mid_c[max(first, 0) : max(last, 0)]
    if last > len(ground.near_mid_c):
        return
    if first < 0 and step.left is not None:
        # A move that is entered weeks late: of what the forecast no longer knows by the hour, the kept days tell.
        hours = _from_days(step.left, since, min(last, 0) - first) + list(hours)
    if hours:
        step.left_c = list(hours)
        step.save(update_fields=["left_c"])


def _from_days(place: Place, since: date, count: int) -> list[float]:
    """Return hourly values from midday of a day on by stored daily means, the latest where the first are missing."""
    kept = kept_soil(place, since.year)
    hours: list[float] = []
    for hour in range(count - 1, -1, -1):
        mean_c = kept.get(since + timedelta(days=(hour + NOON_H) // 24))
        if mean_c is None:
            break
        hours.append(mean_c)
    return hours[::-1]


def _hour(day: date, made_on: date) -> int:
    """Return the hours from the start of a forecast to midday of a day, on its clock."""
    return (NEAR_PAST_D + (day - made_on).days) * 24 + NOON_H


WORK_OUT_YEAR = "forecasts.work_out_year"
MOST_YEARS, FEWEST_D = 6, 14
SETTLED_D = 21
"""Days back from which a forecast's own word of its past is not enough."""


def ask_for_earlier(place: Place, today: date) -> bool:
    """Queue years with weather but without soil, and return whether any are pending."""
    earliest = date(today.year - MOST_YEARS + 1, 1, 1)
    days = DailyWeather.objects.filter(garden=place.garden, day__gte=earliest, day__lt=today - timedelta(days=SETTLED_D))
    weather = dict(days.order_by().values_list("day__year").annotate(Count("pk")))
    rows = SoilYear.objects.filter(place=place).only("year", "mean_c")
    known = {row.year: sum(value is not None for value in row.mean_c) for row in rows}
    due = [year for year, number in weather.items() if number >= FEWEST_D and known.get(year, 0) < 0.8 * number]
    for year in due:
        queue.put(WORK_OUT_YEAR, f"year-{place.pk}-{year}", priority=queue.LATER, place_id=place.pk, year=year)
    return bool(due)
