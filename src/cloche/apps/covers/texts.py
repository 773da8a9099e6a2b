"""What this room says of openings, nights, doors, water and weather: facts in, sentences out."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta

from cloche.apps.covers.watched import Watched, is_too_hot
from cloche.apps.shared import words
from cloche.bridge.services import covers, crops
from cloche.bridge.values.stored import NightWay, Plan, Stage, WeatherWarning

OPENED = {0.0: "shut", 0.05: "a finger", 0.12: "a hand’s width", 0.25: "a quarter", 0.5: "half", 1.0: "wide"}
DOORS = {0.05: "a crack", 0.12: "a little", 0.25: "a quarter", 0.5: "half", 1.0: "wide"}
WAYS = {
    NightWay.BLANKET: "lay a blanket over it",
    NightWay.CAP_ENDS: "cap the ends",
    NightWay.BRING_IN: "bring them in",
    NightWay.FLEECE: "lay fleece over it",
    NightWay.FLEECE_AND_BLANKET: "lay fleece and a blanket over it",
}
WARNS = {
    "gale": "Wind of {0:.0f} m/s: tie it down and weigh the edges; one gale destroys a loose tunnel.",
    "snow": "Snow: brush it off before it lies deep, and do not lean over glass.",
    "rain": "{0:.0f} mm of rain: film sags and ponds unless it is domed; tighten it and let water run off.",
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
    return ("Today", "Tomorrow")[number] if number < 2 else words.weekday_name(one.today + timedelta(days=number))


def cover(one: Watched) -> str:
    """What stands there: one's own by its name."""
    return one.own or f"the {covers.name_of(one.data.cover)}"


def who(one: Watched, number: int | None) -> str:
    """Whose limit it is: lettuce seedlings. number: among what grows there."""
    if number is None:
        return "seedlings, as nothing is written down there"
    there = one.data.growing[number]
    crop = crops.crop(there.crop_key)
    if there.stage is Stage.GROWN:
        return crop.name_plural
    return f"{crop.name.lower()} {'seed' if there.stage is Stage.LYING else 'seedlings'}"


def opening(one: Watched, number: int, away: bool = False) -> Advice:
    """How far to open it on a day, and from when to when."""
    day = one.days[number]
    plan = (day.away or day.plan) if away else day.plan
    lies = one.data.cover in covers.SELF_AIRING
    limit = temperature(one, one.data.limits.hot_c)
    hot, hotter = (temperature(one, value) for value in plan.hottest_shut_c)
    if plan.opening == 0:
        kept = f"It may lie: {hot} beneath it" if lies else f"Keep it shut: {hot} inside"
        return Advice(f"{kept}, at worst {hotter}; {limit} is the limit.", "")
    start, end = clock(one, number, plan.from_h), clock(one, number, plan.to_h)
    so = temperature(one, plan.hottest_c[0])
    if is_too_hot(plan):
        lift = "Lift it off" if lies else "Take it off, or open it wide and shade it"
        reached = f"Shut it would reach {hot}, at worst {hotter}; wide open and unshaded still {so}."
        return Advice(f"{lift}, from {start} to {end}.", f"{reached} {limit} is the limit, and no opening holds it.")
    how = "Lift it" if lies else "Open it wide" if plan.opening == 1 else f"Open it {OPENED[plan.opening]}"
    do = f"{how} from {start}, {'back' if lies else 'shut'} by {end}."
    only = _unless_cool(one, number, plan, "it")
    sure = words.likely(plan.risk)
    shade = "" if plan.holds else f" Even so it may not hold ({sure} it is passed): shade it as well."
    return Advice(do, f"{only}Shut it would reach {hot}, at worst {hotter}; so {so}, and {limit} is the limit.{shade}")


def _unless_cool(one: Watched, number: int, plan: Plan, what: str) -> str:
    if plan.look_c is None:
        return ""
    cool, start = temperature(one, plan.look_c), clock(one, number, plan.from_h)
    return f"If it is under {cool} inside at {start}, {what} may stay shut. "


def doors(one: Watched, number: int) -> Advice | None:
    """The house's own doors and vents on a day; None in the open."""
    if not one.data.doors:
        return None
    plan = one.data.doors[number]
    limit, house = temperature(one, one.data.limits.hot_c), f"the {one.place.within}"
    hot, hotter = (temperature(one, value) for value in plan.hottest_shut_c)
    if plan.opening == 0:
        ends = f"{hot} inside, at worst {hotter}; {limit} is the limit."
        return Advice(f"Doors and vents of {house} may stay shut: {ends}", "")
    start, end = clock(one, number, plan.from_h), clock(one, number, plan.to_h)
    so = temperature(one, plan.hottest_c[0])
    shade = "" if plan.holds else " Even so it may not hold: shade it as well."
    only = _unless_cool(one, number, plan, "they")
    do = f"Open doors and vents of {house} {DOORS[plan.opening]} from {start}, shut by {end}."
    return Advice(do, f"{only}Shut it would reach {hot}, at worst {hotter}; so {so}, and {limit} is the limit.{shade}")


def picking(one: Watched, number: int) -> str:
    """When to open it for picking, in cold weather."""
    pick = one.days[number].pick
    if not pick:
        return ""
    at, inside = clock(one, number, pick[0]), temperature(one, pick[1])
    return f"For picking open it about {at}, {inside} inside: the sun still warms it again."


def night(one: Watched, number: int) -> Advice | None:
    """What a night asks for; None where frost can hurt nobody. do: a verb's phrase, empty where it needs nothing."""
    if number >= len(one.data.nights):
        return None
    plan, limits = one.data.nights[number], one.data.limits
    cold, colder = (temperature(one, value) for value in plan.coldest_left_c)
    stand = f"{who(one, limits.cold_by)} stand {temperature(one, limits.cold_c or 0.0)}"
    if plan.way is None:
        return Advice("", f"{cold} among the plants, at worst {colder}; {stand}.")
    ripe = any(there.stage is Stage.GROWN for there in one.data.growing)
    holds = "" if plan.holds else " Even so it may not be enough" + (": pick now what is ready." if ripe else ".")
    return Advice(WAYS[plan.way], f"{cold} among the plants otherwise, at worst {colder}, and {stand}.{holds}")


def night_sentence(one: Watched, number: int) -> str:
    """The same as one sentence."""
    advice = night(one, number)
    if advice is None:
        return ""
    return f"For the night {advice.do}: {advice.why}" if advice.do else f"The night needs nothing: {advice.why}"


def warning(what: WeatherWarning) -> str:
    """Gales, snow, rain: what to do."""
    return WARNS[what.what].format(what.value)


def water(one: Watched) -> str:
    """When it wants water, for what no rain reaches."""
    days = one.data.water_d
    if days is None:
        return ""
    when = "now" if days == 0 else f"by {words.day(one.today + timedelta(days=days), one.today)}"
    return f"The top is dry {when}: water a little in the morning, not to flood it, for nothing dries off in a closed cover."
