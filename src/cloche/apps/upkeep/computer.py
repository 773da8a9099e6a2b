"""Page of the resources each garden uses, for the operator."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from django.db.models import Count, OuterRef, QuerySet, Subquery, Sum
from django.db.models.functions import Coalesce
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden, Membership
from cloche.apps.loggers.models import Device
from cloche.apps.places.models import Place
from cloche.apps.readings.models import Reading
from cloche.apps.shared import words
from cloche.apps.upkeep import health
from cloche.apps.work.models import Failure, Worked
from cloche.bridge.values.texts import number_text

LOOKED_D, MOST_SHOWN = 7, 50
A_DAY_S = 86_400.0


@dataclass(frozen=True)
class GardenLine:
    """A garden's formatted numbers; `seconds` is processor time a day."""

    name: str
    people: str
    places: str
    readings: str
    loggers: str
    seconds: str
    failing: str


@dataclass(frozen=True)
class ComputerPage:
    """Context of upkeep/computer.html."""

    headline: str
    sub: str
    queue: str
    gardens: list[GardenLine]
    more: int


def computer_page(today: date, cores: int) -> ComputerPage:
    """Build the page of all gardens by resource use over the seven days before today."""
    begin = today - timedelta(days=LOOKED_D)
    spent = Worked.objects.filter(day__gte=begin, day__lt=today)
    total = (spent.aggregate(seconds=Sum("seconds"))["seconds"] or 0.0) / LOOKED_D
    gardens = _with_numbers(spent).order_by("-spent", "pk")
    number = gardens.count()
    share = total / (A_DAY_S * cores)
    facts = {check.name: check.facts for check in health.checks()}
    waiting = facts.get("queue", {"waiting": 0})["waiting"]
    many = words.count(number, "garden", "gardens")
    headline = _("{gardens} use {seconds} of computing time a day here.").format(gardens=many, seconds=_seconds(total))
    sub = _("That is {share}% of what this computer can do. Measured over the last {days}, without page views.").format(
        share=number_text(f"{100 * share:.1f}"), days=words.count(LOOKED_D, "day", "days")
    )
    if not total:
        headline = _("The computing time of each garden is measured from today on.")
        sub = _("The figures will be here tomorrow.")
    jobs = words.sentence(words.count(waiting, "job waits", "jobs wait"))
    return ComputerPage(
        headline=headline,
        sub=sub,
        queue=_("{jobs} waiting.").format(jobs=jobs) if waiting else _("No jobs waiting."),
        gardens=[_line(garden) for garden in gardens[:MOST_SHOWN]],
        more=max(number - MOST_SHOWN, 0),
    )


def _with_numbers(spent: QuerySet[Worked]) -> QuerySet[Any]:
    def many(rows: QuerySet, by: str = "garden") -> Coalesce:  # type: ignore[type-arg]
        counted = rows.filter(**{by: OuterRef("pk")}).order_by().values(by).annotate(n=Count("pk")).values("n")
        return Coalesce(Subquery(counted), 0)

    seconds = spent.filter(garden=OuterRef("pk")).order_by().values("garden").annotate(s=Sum("seconds")).values("s")
    return Garden.objects.annotate(
        spent=Coalesce(Subquery(seconds), 0.0),
        people_n=many(Membership.objects.all()),
        places_n=many(Place.objects.all()),
        readings_n=many(Reading.objects.current(), "place__garden"),
        loggers_n=many(Device.objects.all()),
        failing_n=many(Failure.objects.all()),
    )


def _line(garden: Any) -> GardenLine:
    """Format an annotated garden."""
    return GardenLine(
        name=garden.name,
        people=words.whole(garden.people_n),
        places=words.whole(garden.places_n),
        readings=words.whole(garden.readings_n),
        loggers=words.whole(garden.loggers_n),
        seconds=_seconds(garden.spent / LOOKED_D) if garden.spent else "–",
        failing=words.whole(garden.failing_n) if garden.failing_n else "",
    )


def _seconds(value: float) -> str:
    """Format processor time as 12 seconds, 3.5 seconds or 14 minutes."""
    if value >= 120:
        return words.count(round(value / 60), "minute", "minutes")
    return (
        words.count(round(value), "second", "seconds")
        if value >= 10
        else _("{seconds} seconds").format(seconds=number_text(f"{value:.1f}"))
    )
