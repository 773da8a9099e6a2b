"""Jobs with covers: opening and closing, cold nights, watering, gales, putting on and taking off."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import date
from typing import Any

from cloche.apps.covers.selectors import owned_in
from cloche.apps.covers.watched import Watched
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod
from cloche.apps.places.pages import the_cover
from cloche.apps.today.jobs.job import DAY_H, EVENING_H, MORNING_H, UNCOVER, CoverFacts, Job, JobKind, PeriodFacts
from cloche_engine.results import Plan
from cloche_engine.soil.bed import Work

SOON_D = 2
RULE = Garden.UncoverRule


def of_place(watched: Watched, free: list[str], hour: float) -> Iterator[Job]:
    """Yield the jobs of a place for the coming day.

    `free` names unused covers of the garden; `hour` is solar time.
    """
    yield from _opening(watched)
    if watched.tonight is not None:
        yield _job(watched, JobKind.NIGHT, EVENING_H, CoverFacts(watched, hour=hour), urgent=True)
    if watched.data.water_d == 0:
        yield _job(watched, JobKind.WATER, MORNING_H + 1, CoverFacts(watched), works=Work.WATERED)
    yield from _weather(watched)
    yield from _off(watched)
    yield from _on_again(watched, free)


def of_houses(watched_places: list[Watched]) -> Iterator[Job]:
    """Yield one job for the doors of each house, set by the place inside that tolerates least heat."""
    for house in dict.fromkeys(watched.place.within for watched in watched_places if watched.data.doors):
        strictest = min(
            (watched for watched in watched_places if watched.place.within == house),
            key=lambda watched: watched.data.limits.hot_c,
        )
        yield from _opened(strictest, JobKind.DOORS, strictest.data.doors)


def _job(watched: Watched, kind: JobKind, at_h: float, facts: CoverFacts, **more: Any) -> Job:
    place = watched.place
    return Job(kind, str(place.pk), place.garden_id, place.name, place.pk, at_h, facts, **more)


def _opening(watched: Watched) -> Iterator[Job]:
    if watched.data.covered:
        yield from _opened(watched, JobKind.OPEN, [day.plan for day in watched.days])


def _opened(watched: Watched, kind: JobKind, plans: list[Plan]) -> Iterator[Job]:
    """Yield opening jobs of today or, late in the day, of tomorrow; none where nothing could overheat."""
    if not watched.data.growing:
        return
    number = 1 if watched.is_past(0, plans[0]) else 0
    plan = plans[number]
    if plan.opening:
        at, at_h = watched.at(number, plan.from_h), plan.from_h + 24 * number
        done = {"works": Work.OPENED, "amount": plan.opening} if kind is JobKind.OPEN and number == 0 else {}
        yield _job(watched, kind, at_h, CoverFacts(watched, number), at=at, urgent=True, **done)


def _weather(watched: Watched) -> Iterator[Job]:
    """Yield jobs before gales, snow and rain of today and tomorrow."""
    for warning in watched.data.warnings:
        number, place = (warning.day - watched.today).days, watched.place
        if number <= 1:
            subject, facts = f"{place.pk}-{warning.what}-{number}", CoverFacts(watched, number, warning=warning)
            urgent = warning.what == "gale"
            yield Job(JobKind.WEATHER, subject, place.garden_id, place.name, place.pk, MORNING_H, facts, urgent=urgent)


def _off(watched: Watched) -> Iterator[Job]:
    # Not on the day on which it is to be shut against frost.
    if not watched.data.covered or (watched.data.nights and watched.data.nights[0].way):
        return
    off = watched.data.covered.off
    due = {
        RULE.NIGHTS: off.nights is not None and off.nights <= SOON_D,
        RULE.HEIGHT: off.height,
        RULE.ESTABLISHED: off.established,
        RULE.HEAT: off.heat,
    }
    if due[RULE(watched.place.garden.uncover_rule)]:
        yield _job(watched, JobKind.UNCOVER, DAY_H, CoverFacts(watched), works=UNCOVER)


def _on_again(watched: Watched, free: list[str]) -> Iterator[Job]:
    limits = watched.data.limits
    if watched.data.on_d and free and limits.cold_by is not None and limits.cold_c is not None:
        yield _job(watched, JobKind.COVER, DAY_H, CoverFacts(watched, free=tuple(free)))


def dated(periods: Iterable[CoverPeriod], today: date) -> Iterator[Job]:
    """Yield jobs for covers planned to go on or come off today.

    `periods` come from periods_from.
    """
    for period in periods:
        if today not in (period.first, period.last):
            continue
        facts, place = PeriodFacts(period.pk, the_cover(period)), period.place
        where = (str(period.pk), place.garden_id, place.name, place.pk)
        if period.first == today:
            yield Job(JobKind.PUT_ON, *where, MORNING_H + 0.5, facts)
        if period.last == today:
            yield Job(JobKind.TAKE_OFF, *where, EVENING_H, facts)


def free_covers(garden: Garden, today: date, periods: Iterable[CoverPeriod]) -> list[str]:
    """Return names of the garden's unused covers.

    `periods` come from periods_from.
    """
    return [owned.cover.name for owned in owned_in(garden, today, periods) if owned.free_on(today)]
