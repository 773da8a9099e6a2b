"""Opening and shutting, nights, water, gales; covers on and off."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import date
from typing import Any

from cloche.apps.covers.selectors import owned_in
from cloche.apps.covers.watched import Watched
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod
from cloche.apps.places.pages.place_log import the_cover
from cloche.apps.today.jobs.job import DAY_H, EVENING_H, MORNING_H, UNCOVER, CoverFacts, Job, JobKind, PeriodFacts
from cloche.bridge.values.stored import Plan
from cloche.core.soil.bed import Work

SOON_D = 2
RULE = Garden.UncoverRule


def of_place(one: Watched, free: list[str], hour: float) -> Iterator[Job]:
    """Everything that one place's coming day asks for. free: names of the garden's covers that stand nowhere; hour: of the day
    by the sun's clock."""
    yield from _opening(one)
    if one.tonight is not None:
        yield _job(one, JobKind.NIGHT, EVENING_H, CoverFacts(one, hour=hour), urgent=True)
    if one.data.water_d == 0:
        yield _job(one, JobKind.WATER, MORNING_H + 1, CoverFacts(one), works=Work.WATERED)
    yield from _weather(one)
    yield from _off(one)
    yield from _on_again(one, free)


def of_houses(found: list[Watched]) -> Iterator[Job]:
    """The doors of each house once, by the place in it that bears least heat."""
    for house in dict.fromkeys(one.place.within for one in found if one.data.doors):
        one = min((one for one in found if one.place.within == house), key=lambda one: one.data.limits.hot_c)
        yield from _opened(one, JobKind.DOORS, one.data.doors)


def _job(one: Watched, kind: JobKind, at_h: float, facts: CoverFacts, **more: Any) -> Job:
    place = one.place
    return Job(kind, str(place.pk), place.garden_id, place.name, place.pk, at_h, facts, **more)


def _opening(one: Watched) -> Iterator[Job]:
    if one.data.covered:
        yield from _opened(one, JobKind.OPEN, [day.plan for day in one.days])


def _opened(one: Watched, kind: JobKind, plans: list[Plan]) -> Iterator[Job]:
    """Of today; once it is hardly worth opening any more, of tomorrow. Nothing where nothing grows that could get too hot."""
    if not one.data.growing:
        return
    number = 1 if one.is_past(0, plans[0]) else 0
    plan = plans[number]
    if plan.opening:
        at, at_h = one.at(number, plan.from_h), plan.from_h + 24 * number
        done = {"works": Work.OPENED, "amount": plan.opening} if kind is JobKind.OPEN and number == 0 else {}
        yield _job(one, kind, at_h, CoverFacts(one, number), at=at, urgent=True, **done)


def _weather(one: Watched) -> Iterator[Job]:
    """Gales, snow and rain of today and tomorrow."""
    for warning in one.data.warnings:
        number, place = (warning.day - one.today).days, one.place
        if number <= 1:
            subject, facts = f"{place.pk}-{warning.what}-{number}", CoverFacts(one, number, warning=warning)
            urgent = warning.what == "gale"
            yield Job(JobKind.WEATHER, subject, place.garden_id, place.name, place.pk, MORNING_H, facts, urgent=urgent)


def _off(one: Watched) -> Iterator[Job]:
    # Not on the day on which it is to be shut against frost.
    if not one.data.covered or (one.data.nights and one.data.nights[0].way):
        return
    off = one.data.covered.off
    due = {
        RULE.NIGHTS: off.nights is not None and off.nights <= SOON_D,
        RULE.HEIGHT: off.height,
        RULE.ESTABLISHED: off.established,
        RULE.HEAT: off.heat,
    }
    if due[RULE(one.place.garden.uncover_rule)]:
        yield _job(one, JobKind.UNCOVER, DAY_H, CoverFacts(one), works=UNCOVER)


def _on_again(one: Watched, free: list[str]) -> Iterator[Job]:
    limits = one.data.limits
    if one.data.on_d and free and limits.cold_by is not None and limits.cold_c is not None:
        yield _job(one, JobKind.COVER, DAY_H, CoverFacts(one, free=tuple(free)))


def dated(periods: Iterable[CoverPeriod], today: date) -> Iterator[Job]:
    """Covers that were said to go on or come off today; periods from periods_from."""
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
    """Names of one's own that stand nowhere; periods from periods_from."""
    return [owned.cover.name for owned in owned_in(garden, today, periods) if owned.free_on(today)]
