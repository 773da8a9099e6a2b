"""How far to open which cover, from when to when, and what the nights ask for: the page, and the drawing of three days."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.covers import texts
from cloche.apps.covers.watched import Watched, is_too_hot, watched_in
from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.bridge.values.units import Units
from cloche.drawing import days as drawing
from cloche_engine.results import AwayChoice


@dataclass(frozen=True)
class Choice:
    """One opening for all hours away, and the probability of heat or frost damage."""

    opening: str
    hottest: str
    cooks: str
    freezes: str
    chosen: bool


@dataclass(frozen=True)
class DayPlan:
    """One day of a place, with the choices for a day away."""

    day: str
    plan: str
    away: str
    choices: list[Choice]
    picking: str
    night: str
    doors: str = ""


@dataclass(frozen=True)
class PlacePlan:
    """One place on the page."""

    place: Place
    what: str
    days: list[DayPlan]
    drawing: drawing.Days | None
    warnings: list[str]
    water: str


@dataclass(frozen=True)
class OpeningPage:
    """Context of covers/opening.html."""

    headline: str
    plans: list[PlacePlan]
    open_ground: list[PlacePlan]
    away: str


def opening_page(garden: Garden, units: Units, today: date) -> OpeningPage:
    """Return covered places with their plans, and open ones that need protection at night."""
    grounds = forecasts.grounds_in(garden)
    watched_places = list(watched_in(garden, units, today, grounds))
    covered = [_covered(watched) for watched in watched_places if watched.data.covered]
    lying = [_open(watched) for watched in watched_places if not watched.data.covered and _asks(watched)]
    away = (
        ""
        if garden.away_from_h is None
        else _("{start} to {end}").format(start=words.hour(garden.away_from_h), end=words.hour(garden.away_to_h or 0))
    )
    text = _headline([watched for watched in watched_places if watched.data.covered])
    if not watched_places and any(ground is None or ground.forecast.day != today for _unused, ground in grounds):
        text = _("Working out the coming days…")
    return OpeningPage(text, covered, lying, away)


def _asks(watched: Watched) -> bool:
    """Return whether a place without its own cover needs anything, for its nights or the doors of its house."""
    return bool(watched.data.doors) or bool(watched.data.nights and watched.data.growing)


def _headline(watched_places: list[Watched]) -> str:
    if not watched_places:
        return _("No bed is covered now, so there is nothing to open or close.")
    opened = [
        watched
        for watched in watched_places
        if watched.days[0].plan.opening > 0 and watched.data.growing and not watched.is_past(0, watched.days[0].plan)
    ]
    nights = [watched.place.name for watched in watched_places if watched.data.nights and watched.data.nights[0].way]
    night = (
        _(" Tonight {listed} {part} a cover.").format(
            listed=words.listed(nights, 3), part=_("needs") if len(nights) == 1 else _("need")
        )
        if nights
        else ""
    )
    if not opened:
        return _("Everything can stay closed today.{night}").format(night=night)
    first = min(opened, key=lambda watched: watched.days[0].plan.from_h)
    plan = first.days[0].plan
    if is_too_hot(plan):
        return _("{name} will be too hot today however far you open it. Take the cover off, or shade it.{night}").format(
            name=first.place.name, night=night
        )
    rest = _(", and {count} later").format(count=words.count(len(opened) - 1, "more", "more")) if len(opened) > 1 else ""
    at = texts.clock(first, 0, plan.from_h)
    when = _("now") if first.is_under_way(0, plan) else _("from {at}").format(at=at)
    return _("{name}: open {opened} {when}{rest}.{night}").format(
        name=first.place.name, opened=texts.OPENED[plan.opening], when=when, rest=rest, night=night
    )


def _covered(watched: Watched) -> PlacePlan:
    days = [_day(watched, number) for number in range(len(watched.days))]
    warnings = [
        f"{texts.day_name(watched, (each.day - watched.today).days)}: {texts.warning(each, watched.units)}"
        for each in watched.data.warnings
    ]
    what = _("{cover} over {who}").format(cover=texts.cover(watched), who=texts.who(watched, watched.data.limits.hot_by))
    return PlacePlan(watched.place, what, days, _drawn(watched), warnings, texts.water(watched))


def _open(watched: Watched) -> PlacePlan:
    count = max(len(watched.data.nights), len(watched.data.doors))
    days = [
        DayPlan(texts.day_name(watched, n), "", "", [], "", texts.night_sentence(watched, n), _doors(watched, n))
        for n in range(count)
    ]
    return PlacePlan(watched.place, watched.place.get_kind_display(), days, None, [], "")


def _doors(watched: Watched, number: int) -> str:
    return str(texts.doors(watched, number) or "")


def _day(watched: Watched, number: int) -> DayPlan:
    day = watched.days[number]
    matters = day.away is not None and (day.away.opening > 0 or day.away.risk_shut > 0)
    return DayPlan(
        day=texts.day_name(watched, number),
        plan=str(texts.opening(watched, number)),
        away=str(texts.opening(watched, number, away=True)) if matters else "",
        choices=[_choice(watched, choice, day.away.opening) for choice in day.choices] if matters and day.away else [],
        picking=texts.picking(watched, number),
        night=texts.night_sentence(watched, number),
        doors=_doors(watched, number),
    )


def _choice(watched: Watched, choice: AwayChoice, chosen: float) -> Choice:
    plan, hot = choice.plan, texts.temperature(watched, choice.plan.hottest_c[0])
    freezes = words.likely(choice.freezes) if watched.data.limits.cold_c is not None else ""
    return Choice(texts.OPENED[plan.opening], hot, words.likely(plan.risk), freezes, plan.opening == chosen)


def _drawn(watched: Watched) -> drawing.Days | None:
    there = watched.data.covered
    if there is None:
        return None
    plans = [(n, day.plan.from_h, day.plan.to_h, day.plan.opening) for n, day in enumerate(watched.days)]
    limits = [limit for limit in (watched.data.limits.hot_c, watched.data.limits.cold_c) if limit is not None]
    labels = [texts.day_name(watched, n) for n in range(len(watched.days))]
    lines = drawing.Lines(there.outside_c, there.shut_c, there.planned_c)
    return drawing.days(lines, plans, limits, labels, lambda value: texts.temperature(watched, value))
