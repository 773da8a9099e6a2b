"""What this room says of openings, nights, doors, water and weather: facts in, sentences out."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta

from django.utils.translation import gettext as _

from cloche.apps.covers.watched import Watched, is_too_hot
from cloche.apps.shared import words
from cloche.apps.shared.i18n import lazy
from cloche.bridge.services import covers, crops
from cloche.bridge.values.stored import NightWay, Plan, Stage, WeatherWarning
from cloche.bridge.values.units import Units

OPENED = {
    0.0: lazy("shut"),
    0.05: lazy("a crack of 2 cm, ¾ in"),
    0.12: lazy("a hand’s width"),
    0.25: lazy("a quarter"),
    0.5: lazy("half"),
    1.0: lazy("wide"),
}
DOORS = {0.05: lazy("a crack"), 0.12: lazy("a little"), 0.25: lazy("a quarter"), 0.5: lazy("half"), 1.0: lazy("wide")}
WAYS = {
    NightWay.BLANKET: lazy("lay a blanket over it"),
    NightWay.CAP_ENDS: lazy("cap the ends"),
    NightWay.BRING_IN: lazy("bring them in"),
    NightWay.FLEECE: lazy("lay fleece over it"),
    NightWay.FLEECE_AND_BLANKET: lazy("lay fleece and a blanket over it"),
}
WARNS = {
    "gale": lazy("Wind of {value}: tie it down and weigh the edges; one gale destroys a loose tunnel."),
    "snow": lazy("Snow: brush it off before it lies deep, and do not lean over glass."),
    "rain": lazy("{value} of rain: film sags and ponds unless it is domed; tighten it and let water run off."),
}


@dataclass(frozen=True)
class Advice:
    """What to do, and why: two texts that stand together or apart."""

    do: str
    why: str

    def __str__(self) -> str:
        return f"{self.do} {self.why}".strip()


def temperature(one: Watched, value: float) -> str:
    """In whole degrees."""
    return one.units.temperature_text(value, 0)


def clock(one: Watched, number: int, hour: float) -> str:
    """An hour of a coming day, as the garden's clock has it."""
    return words.clock(one.at(number, hour))


def day_name(one: Watched, number: int) -> str:
    """Today, Tomorrow, Friday."""
    return (_("Today"), _("Tomorrow"))[number] if number < 2 else words.weekday_name(one.today + timedelta(days=number))


def cover(one: Watched) -> str:
    """What stands there: one's own by its name."""
    return one.own or _("the {name_of}").format(name_of=covers.name_of(one.data.cover))


def who(one: Watched, number: int | None) -> str:
    """Whose limit it is: lettuce seedlings. number: among what grows there."""
    if number is None:
        return _("seedlings, as nothing is written down there")
    there = one.data.growing[number]
    crop = crops.crop(there.crop_key)
    if there.stage is Stage.GROWN:
        return crop.name_plural
    return f"{crop.name.lower()} {_('seed') if there.stage is Stage.LYING else _('seedlings')}"


def opening(one: Watched, number: int, away: bool = False) -> Advice:
    """How far to open it on a day, and from when to when."""
    day = one.days[number]
    plan = (day.away or day.plan) if away else day.plan
    lies = one.data.cover in covers.SELF_AIRING
    limit = temperature(one, one.data.limits.hot_c)
    hot, hotter = (temperature(one, value) for value in plan.hottest_shut_c)
    if plan.opening == 0:
        kept = (
            _("It can stay on: {hot} beneath it").format(hot=hot) if lies else _("Keep it shut: {hot} inside").format(hot=hot)
        )
        return Advice(_("{kept}, at worst {hotter}; {limit} is the limit.").format(kept=kept, hotter=hotter, limit=limit), "")
    start, end = clock(one, number, plan.from_h), clock(one, number, plan.to_h)
    so = temperature(one, plan.hottest_c[0])
    if is_too_hot(plan):
        lift = _("Lift it off") if lies else _("Take it off, or open it wide and shade it")
        reached = _("Shut it would reach {hot}, at worst {hotter}; wide open and unshaded still {so}.").format(
            hot=hot, hotter=hotter, so=so
        )
        return Advice(
            _("{lift}, from {start} to {end}.").format(lift=lift, start=start, end=end),
            _("{reached} {limit} is the limit, and no opening holds it.").format(reached=reached, limit=limit),
        )
    how = (
        _("Lift it")
        if lies
        else _("Open it wide")
        if plan.opening == 1
        else _("Open it {opened}").format(opened=OPENED[plan.opening])
    )
    do = _("{how} from {start}, {part} by {end}.").format(how=how, start=start, part=_("back") if lies else _("shut"), end=end)
    only = _unless_cool(one, number, plan, "it")
    sure = words.likely(plan.risk)
    shade = "" if plan.holds else _(" Even so it may not hold ({sure} it is passed): shade it as well.").format(sure=sure)
    return Advice(
        do,
        _("{only}Shut it would reach {hot}, at worst {hotter}; so {so}, and {limit} is the limit.{shade}").format(
            only=only, hot=hot, hotter=hotter, so=so, limit=limit, shade=shade
        ),
    )


def _unless_cool(one: Watched, number: int, plan: Plan, what: str) -> str:
    if plan.look_c is None:
        return ""
    cool, start = temperature(one, plan.look_c), clock(one, number, plan.from_h)
    return _("If it is under {cool} inside at {start}, {what} can stay shut. ").format(cool=cool, start=start, what=what)


def doors(one: Watched, number: int) -> Advice | None:
    """The house's own doors and vents on a day; None in the open."""
    if not one.data.doors:
        return None
    plan = one.data.doors[number]
    limit, house = temperature(one, one.data.limits.hot_c), _("the {within}").format(within=one.place.within)
    hot, hotter = (temperature(one, value) for value in plan.hottest_shut_c)
    if plan.opening == 0:
        ends = _("{hot} inside, at worst {hotter}; {limit} is the limit.").format(hot=hot, hotter=hotter, limit=limit)
        return Advice(_("Doors and vents of {house} can stay shut: {ends}").format(house=house, ends=ends), "")
    start, end = clock(one, number, plan.from_h), clock(one, number, plan.to_h)
    so = temperature(one, plan.hottest_c[0])
    shade = "" if plan.holds else _(" Even so it may not hold: shade it as well.")
    only = _unless_cool(one, number, plan, _("they"))
    do = _("Open doors and vents of {house} {doors} from {start}, shut by {end}.").format(
        house=house, doors=DOORS[plan.opening], start=start, end=end
    )
    return Advice(
        do,
        _("{only}Shut it would reach {hot}, at worst {hotter}; so {so}, and {limit} is the limit.{shade}").format(
            only=only, hot=hot, hotter=hotter, so=so, limit=limit, shade=shade
        ),
    )


def picking(one: Watched, number: int) -> str:
    """When to open it for picking, in cold weather."""
    pick = one.days[number].pick
    if not pick:
        return ""
    at, inside = clock(one, number, pick[0]), temperature(one, pick[1])
    return _("For picking open it about {at}, {inside} inside: the sun still warms it again.").format(at=at, inside=inside)


def night(one: Watched, number: int) -> Advice | None:
    """What a night asks for; None where frost can hurt nobody. do: a verb's phrase, empty where it needs nothing."""
    if number >= len(one.data.nights):
        return None
    plan, limits = one.data.nights[number], one.data.limits
    cold, colder = (temperature(one, value) for value in plan.coldest_left_c)
    stand = _("{who} stand {temperature}").format(
        who=who(one, limits.cold_by), temperature=temperature(one, limits.cold_c or 0.0)
    )
    if plan.way is None:
        return Advice(
            "", _("{cold} among the plants, at worst {colder}; {stand}.").format(cold=cold, colder=colder, stand=stand)
        )
    ripe = any(there.stage is Stage.GROWN for there in one.data.growing)
    holds = "" if plan.holds else _(" Even so it may not be enough") + (_(": pick now what is ready.") if ripe else ".")
    return Advice(
        WAYS[plan.way],
        _("{cold} among the plants otherwise, at worst {colder}, and {stand}.{holds}").format(
            cold=cold, colder=colder, stand=stand, holds=holds
        ),
    )


def night_sentence(one: Watched, number: int) -> str:
    """The same as one sentence."""
    advice = night(one, number)
    if advice is None:
        return ""
    return (
        _("For the night {do}: {why}").format(do=advice.do, why=advice.why)
        if advice.do
        else _("The night needs nothing: {why}").format(why=advice.why)
    )


def warning(what: WeatherWarning, units: Units) -> str:
    """Gales, snow, rain: what to do."""
    written = {
        "gale": lambda v: units.wind_text(v, 0),
        "snow": units.length_text,
        "rain": lambda v: units.rain_text(v, rough=True),
    }
    return WARNS[what.what].format(value=written[what.what](what.value))


def water(one: Watched) -> str:
    """When it wants water, for what no rain reaches."""
    days = one.data.water_d
    if days is None:
        return ""
    when = _("now") if days == 0 else _("by {day}").format(day=words.day(one.today + timedelta(days=days), one.today))
    return _(
        "The top is dry {when}: water a little in the morning; do not flood it, for nothing dries off in a closed cover."
    ).format(when=when)
