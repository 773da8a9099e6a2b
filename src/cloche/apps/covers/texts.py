"""What this room says of openings, nights, doors, water and weather: facts in, sentences out."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta

from django.utils.translation import gettext as _

from cloche.apps.covers.watched import Watched, is_too_hot
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.services import covers, crops
from cloche.bridge.values.units import Units
from cloche_engine.results import NightWay, Plan, Stage, WeatherWarning

OPENED = {
    0.0: lazy("closed"),
    0.05: lazy("a finger’s width"),
    0.12: lazy("a hand’s width"),
    0.25: lazy("a quarter of the way"),
    0.5: lazy("half way"),
    1.0: lazy("wide"),
}
DOORS = {
    0.05: lazy("a crack"),
    0.12: lazy("a little way"),
    0.25: lazy("a quarter of the way"),
    0.5: lazy("half way"),
    1.0: lazy("wide"),
}
WAYS = {
    NightWay.BLANKET: lazy("lay a blanket over it"),
    NightWay.CAP_ENDS: lazy("cap the ends"),
    NightWay.BRING_IN: lazy("bring them in"),
    NightWay.FLEECE: lazy("lay fleece over it"),
    NightWay.FLEECE_AND_BLANKET: lazy("lay fleece and a blanket over it"),
}
WARNS = {
    "gale": lazy("Wind of {value}: tie it down and weigh down the edges. One gale destroys a loose tunnel."),
    "snow": lazy("Snow: brush it off before it lies deep, and do not lean over glass."),
    "rain": lazy(
        "{value} of rain: film sags and water collects on it unless it is domed. Tighten it and let the water run off."
    ),
}


@dataclass(frozen=True)
class Advice:
    """What to do and why, two texts that can stand together or alone."""

    do: str
    why: str

    def __str__(self) -> str:
        return f"{self.do} {self.why}".strip()


def temperature(watched: Watched, value: float) -> str:
    """Return a temperature in whole degrees."""
    return watched.units.temperature_text(value, 0)


def clock(watched: Watched, number: int, hour: float) -> str:
    """Return an hour of a coming day on the garden's clock."""
    return words.clock(watched.at(number, hour))


def day_name(watched: Watched, number: int) -> str:
    """Return Today, Tomorrow, Friday."""
    return (_("Today"), _("Tomorrow"))[number] if number < 2 else words.weekday_name(watched.today + timedelta(days=number))


def cover(watched: Watched) -> str:
    """Return the name of the cover, the garden's own name if it has one."""
    return watched.own or _("the {name_of}").format(name_of=covers.name_of(watched.data.cover))


def who(watched: Watched, number: int | None) -> str:
    """Return whose limit it is, such as lettuce seedlings, by its number among the crops there."""
    if number is None:
        return _("seedlings (no plants are recorded there)")
    there = watched.data.growing[number]
    crop = crops.crop(there.crop_key)
    if there.stage is Stage.GROWN:
        return crop.name_plural
    return f"{crop.name.lower()} {_('seed') if there.stage is Stage.LYING else _('seedlings')}"


def opening(watched: Watched, number: int, away: bool = False) -> Advice:
    """Return how far to open it and when. During those hours, what to do now."""
    day = watched.days[number]
    plan = (day.away or day.plan) if away else day.plan
    lies = watched.data.cover in covers.SELF_AIRING
    if not watched.data.growing:
        hotter = temperature(watched, plan.hottest_shut_c[1])
        return Advice(
            _("Nothing is recorded as growing here, so leave it closed to warm the soil."),
            _("If something does grow there, record it: if closed, the air inside may reach {hotter}.").format(hotter=hotter),
        )
    if plan.opening == 0:
        do = _("It can stay on.") if lies else _("Keep it closed.")
        return Advice(do, _hottest_closed(watched, plan, watched.data.limits.hot_by))
    start, end = clock(watched, number, plan.from_h), clock(watched, number, plan.to_h)
    if watched.is_past(number, plan):
        return Advice(_("Close it for the night: today’s hours for opening are over."), "")
    late = watched.is_under_way(number, plan)
    if is_too_hot(plan):
        lift = _("Lift it off") if lies else _("Take it off, or open it wide and shade it")
        when = _("now, until {end}").format(end=end) if late else _("from {start} to {end}").format(start=start, end=end)
        return Advice(f"{lift} {when}.", f"{_closed(watched, plan)} {_too_hot(watched, plan)}")
    if lies:
        how = _("Lift it")
    elif plan.opening == 1:
        how = _("Open it wide")
    else:
        how = _("Open it {opened}").format(opened=OPENED[plan.opening])
    back = _("put it back by {end}").format(end=end) if lies else _("close it by {end}").format(end=end)
    when = _("now") if late else _("from {start}").format(start=start)
    only = "" if late else _unless_cool(watched, number, plan, _("it"))
    return Advice(f"{how} {when}, {back}.", f"{only}{_closed(watched, plan)} {_opened(watched, plan)}")


def _closed(watched: Watched, plan: Plan) -> str:
    """Return the temperature if left closed, with the limit."""
    hot, hotter = (temperature(watched, value) for value in plan.hottest_shut_c)
    limit = temperature(watched, watched.data.limits.hot_c)
    text = _("If left closed, it would reach {hot} ({hotter} at worst). The limit for {who} is {limit}.")
    if plan.hottest_shut_c[1] <= watched.data.limits.hot_c:
        text = _("If left closed, it would reach {hot} ({hotter} at worst), too close to the {limit} that {who} can take.")
    return text.format(hot=hot, hotter=hotter, who=who(watched, watched.data.limits.hot_by), limit=limit)


def _opened(watched: Watched, plan: Plan) -> str:
    """Return the temperature when opened as advised, and what to do if that may not be enough."""
    so, sure = temperature(watched, plan.hottest_c[0]), words.likely(plan.risk)
    text = _("Opened like this, it reaches {so}.").format(so=so)
    return (
        text
        if plan.holds
        else text + " " + _("It may still pass the limit (chance: {sure}), so shade it as well.").format(sure=sure)
    )


def _too_hot(watched: Watched, plan: Plan) -> str:
    """Return why no opening is enough, by the worst temperature, because the usual one may be below the limit."""
    return _("Even wide open and unshaded, it may reach {worst}.").format(worst=temperature(watched, plan.hottest_c[1]))


def _hottest_closed(watched: Watched, plan: Plan, by: int | None) -> str:
    hot, hotter = (temperature(watched, value) for value in plan.hottest_shut_c)
    return _("It reaches {hot} ({hotter} at worst). The limit for {who} is {limit}.").format(
        hot=hot, hotter=hotter, who=who(watched, by), limit=temperature(watched, watched.data.limits.hot_c)
    )


def _unless_cool(watched: Watched, number: int, plan: Plan, what: str) -> str:
    if plan.look_c is None:
        return ""
    cool, start = temperature(watched, plan.look_c), clock(watched, number, plan.from_h)
    return _("If it is under {cool} inside at {start}, {what} can stay closed. ").format(cool=cool, start=start, what=what)


def doors(watched: Watched, number: int) -> Advice | None:
    """Return the opening of the house's own doors and vents, None in the open."""
    if not watched.data.doors:
        return None
    plan, house = watched.data.doors[number], _("the {within}").format(within=watched.place.within)
    if not watched.data.growing:
        return Advice(
            _("Nothing is recorded as growing in {house}, so its doors and vents can stay closed.").format(house=house), ""
        )
    if plan.opening == 0:
        do = _("Doors and vents of {house} can stay closed.").format(house=house)
        return Advice(do, _hottest_closed(watched, plan, watched.data.limits.hot_by))
    start, end = clock(watched, number, plan.from_h), clock(watched, number, plan.to_h)
    if watched.is_past(number, plan):
        return Advice(_("Close the doors and vents of {house} for the night.").format(house=house), "")
    late = watched.is_under_way(number, plan)
    when = _("now") if late else _("from {start}").format(start=start)
    do = _("Open doors and vents of {house} {doors} {when}, and close them by {end}.").format(
        house=house, doors=DOORS[plan.opening], when=when, end=end
    )
    only = "" if late else _unless_cool(watched, number, plan, _("they"))
    return Advice(do, f"{only}{_closed(watched, plan)} {_opened(watched, plan)}")


def picking(watched: Watched, number: int) -> str:
    """Return when to open it for picking in cold weather."""
    pick = watched.days[number].pick
    if not pick:
        return ""
    at, inside = clock(watched, number, pick[0]), temperature(watched, pick[1])
    return _("To harvest, open it about {at}, when it is {inside} inside: the sun will warm it again.").format(
        at=at, inside=inside
    )


def night(watched: Watched, number: int) -> Advice | None:
    """Return what a night needs, None where frost can harm nothing; `do` is empty where nothing is needed."""
    if number >= len(watched.data.nights):
        return None
    plan, limits = watched.data.nights[number], watched.data.limits
    limit_c = limits.cold_c or 0.0
    cold, colder = (_apart(watched, value, limit_c) for value in plan.coldest_left_c)
    survive = _("{who} survive {temperature}").format(
        who=words.sentence(who(watched, limits.cold_by)), temperature=_apart(watched, limit_c, plan.coldest_left_c[1])
    )
    if plan.way is None:
        return Advice(
            "",
            _("{cold} is expected among the plants, {colder} at worst. {survive}.").format(
                cold=cold, colder=colder, survive=survive
            ),
        )
    ripe = any(there.stage is Stage.GROWN for there in watched.data.growing)
    holds = "" if plan.holds else _(" Even so, it may not be enough") + (_(". Pick what is ready now.") if ripe else ".")
    bring_in_c = watched.place.garden.bring_in_c
    if plan.way is NightWay.BRING_IN and limit_c < bring_in_c:
        return Advice(
            WAYS[plan.way],
            _(
                "Otherwise {cold} is expected among the plants, {colder} at worst. Their leaves survive that, "
                "but a root ball so small freezes through below {limit}, and the plant dries out."
            ).format(cold=cold, colder=colder, limit=temperature(watched, bring_in_c)),
        )
    return Advice(
        WAYS[plan.way],
        _("Otherwise {cold} is expected among the plants, {colder} at worst. {survive}.{holds}").format(
            cold=cold, colder=colder, survive=survive, holds=holds
        ),
    )


def _apart(watched: Watched, value: float, other: float) -> str:
    """Return whole degrees, or a decimal where two different temperatures would look equal."""
    whole, same = temperature(watched, value), temperature(watched, other)
    return watched.units.temperature_text(value, 1) if whole == same and value != other else whole


def night_sentence(watched: Watched, number: int) -> str:
    """Return the night as one sentence."""
    advice = night(watched, number)
    if advice is None:
        return ""
    return (
        _("For the night, {do}. {why}").format(do=advice.do, why=advice.why)
        if advice.do
        else _("Nothing needs doing for the night. {why}").format(why=advice.why)
    )


def warning(what: WeatherWarning, units: Units) -> str:
    """Return what to do about gales, snow or rain."""
    written = {
        "gale": lambda v: units.wind_text(v, 0),
        "snow": units.length_text,
        "rain": lambda v: units.rain_text(v, rough=True),
    }
    return WARNS[what.what].format(value=written[what.what](what.value))


def water(watched: Watched) -> str:
    """Return when a place without rain needs water."""
    days = watched.data.water_d
    if days is None:
        return ""
    when = _("now") if days == 0 else _("by {day}").format(day=words.day(watched.today + timedelta(days=days), watched.today))
    return _(
        "The soil surface is dry {when}. Water a little in the morning. Do not flood it, because nothing "
        "dries in a closed cover."
    ).format(when=when)
