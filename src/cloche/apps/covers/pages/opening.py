"""How far to open which cover, from when to when, and what the nights ask for: sentences and the drawing of three days."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any

from cloche.apps.covers.selectors import current_items
from cloche.apps.forecasts import selectors as windows
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.windows.pages.warmth import Grounds
from cloche.bridge.services import covers, crops
from cloche.bridge.values.clocks import midnight_of, standard_offset_h
from cloche.bridge.values.units import Units
from cloche.drawing import days as drawing

OPENED = {0.0: "shut", 0.05: "a finger", 0.12: "a hand’s width", 0.25: "a quarter", 0.5: "half", 1.0: "wide"}
WAYS = {"blanket": "lay a blanket over it", "cap the ends": "cap the ends", "bring in": "bring them in"}
WAYS |= {"fleece": "lay fleece over it", "fleece and blanket": "lay fleece and a blanket over it"}
DOORS = {0.05: "a crack", 0.12: "a little", 0.25: "a quarter", 0.5: "half", 1.0: "wide"}
TOO_HOT_RISK = 0.25
"""Chance of passing the limit wide open from which the cover is to come off (assumption)."""
WARNS = {
    "gale": "Wind of {0:.0f} m/s: tie it down and weigh the edges; one gale destroys a loose tunnel.",
    "snow": "Snow: brush it off before it lies deep, and do not lean over glass.",
    "rain": "{0:.0f} mm of rain: film sags and ponds unless it is domed; tighten it and let water run off.",
}


@dataclass(frozen=True)
class Watched:
    """What is stored of a place's coming days, with its clock. Times are told in the garden's own."""

    place: Place
    data: dict[str, Any]
    start: datetime
    today: date
    units: Units
    own: str = ""

    @property
    def who(self) -> str:
        """Whose limits they are: lettuce seedlings."""
        return self._who(self.data["limits"]["hot_by"])

    @property
    def cover(self) -> str:
        """What stands there: one's own by its name."""
        return self.own or f"the {covers.name_of(self.data['cover'])}"

    def clock(self, number: int, hour: float) -> str:
        """An hour of a coming day, as the garden's clock has it."""
        return words.clock((self.start + timedelta(days=number, hours=hour)).astimezone(self.place.garden.timezone))

    def temperature(self, value: float) -> str:
        return self.units.temperature_text(value, 0)

    def _who(self, number: int | None) -> str:
        if number is None:
            return "seedlings, as nothing is written down there"
        key, stage = self.data["growing"][number]
        crop = crops.crop(key)
        text = {"not up yet": f"{crop.name.lower()} seed", "seedlings": f"{crop.name.lower()} seedlings"}
        return text.get(stage, crop.name_plural)

    def day_words(self, number: int) -> str:
        """Today, tomorrow, Friday."""
        on = self.today + timedelta(days=number)
        return ("Today", "Tomorrow")[number] if number < 2 else f"{on:%A}"

    def plan(self, number: int, away: bool = False) -> str:
        """One day's opening in a sentence."""
        told = self.data["days"][number]
        plan = told["away"] if away else told["plan"]
        limit = self.temperature(self.data["limits"]["hot_c"])
        hot, hotter = (self.temperature(value) for value in plan["hottest_shut_c"])
        if plan["opening"] == 0:
            if self.data["cover"] in covers.SELF_AIRING:
                return f"It may lie: {hot} beneath it, at worst {hotter}; {limit} is the limit."
            return f"Keep it shut: {hot} inside, at worst {hotter}; {limit} is the limit."
        start, end = self.clock(number, plan["from_h"]), self.clock(number, plan["to_h"])
        so = self.temperature(plan["hottest_c"][0])
        if not plan["holds"] and plan["risk"] > TOO_HOT_RISK:
            lift = "Lift it off" if self.data["cover"] in covers.SELF_AIRING else "Take it off, or open it wide and shade it"
            reached = f"Shut it would reach {hot}, at worst {hotter}; wide open and unshaded still {so}."
            return f"{lift}, from {start} to {end}. {reached} {limit} is the limit, and no opening holds it."
        how = OPENED[plan["opening"]]
        opened = "Open it wide" if plan["opening"] == 1 else f"Open it {how}"
        if self.data["cover"] in covers.SELF_AIRING:
            opened = "Lift it"
        shut = f"Shut it would reach {hot}, at worst {hotter}; so {so}, and {limit} is the limit."
        back = "back" if opened == "Lift it" else "shut"
        look = plan.get("look_c")
        only = "" if look is None else f" If it is under {self.temperature(look)} inside at {start}, it may stay shut."
        shade = (
            "" if plan["holds"] else f" Even so it may not hold ({words.likely(plan['risk'])} it is passed): shade it as well."
        )
        return f"{opened} from {start}, {back} by {end}.{only} {shut}{shade}"

    def doors(self, number: int) -> str:
        """The house's own doors and vents on a day, empty in the open."""
        if not self.data.get("doors"):
            return ""
        plan = self.data["doors"][number]
        limit = self.temperature(self.data["limits"]["hot_c"])
        hot, hotter = (self.temperature(value) for value in plan["hottest_shut_c"])
        house = f"the {self.place.within}"
        if plan["opening"] == 0:
            return f"Doors and vents of {house} may stay shut: {hot} inside, at worst {hotter}; {limit} is the limit."
        start, end = self.clock(number, plan["from_h"]), self.clock(number, plan["to_h"])
        how = DOORS[plan["opening"]]
        so = self.temperature(plan["hottest_c"][0])
        look = plan.get("look_c")
        only = "" if look is None else f" If it is under {self.temperature(look)} inside at {start}, they may stay shut."
        shade = "" if plan["holds"] else " Even so it may not hold: shade it as well."
        shut = f"Shut it would reach {hot}, at worst {hotter}; so {so}, and {limit} is the limit."
        return f"Open doors and vents of {house} {how} from {start}, shut by {end}.{only} {shut}{shade}"

    def picking(self, number: int) -> str:
        """When to open it for picking, in cold weather."""
        pick = self.data["days"][number]["pick"]
        if not pick:
            return ""
        inside = self.temperature(pick[1])
        return f"For picking open it about {self.clock(number, pick[0])}, {inside} inside: the sun still warms it again."

    def night(self, number: int) -> str:
        """What a night asks for, empty where frost can hurt nobody."""
        if number >= len(self.data["nights"]):
            return ""
        plan = self.data["nights"][number]
        cold, colder = (self.temperature(value) for value in plan["coldest_left_c"])
        stand = f"{self._who(self.data['limits']['cold_by'])} stand {self.temperature(self.data['limits']['cold_c'])}"
        if not plan["way"]:
            return f"The night needs nothing: {cold} among the plants, at worst {colder}; {stand}."
        ripe = any(stage == "grown" for _, stage in self.data["growing"])
        holds = "" if plan["holds"] else " Even so it may not be enough" + (": pick now what is ready." if ripe else ".")
        return f"For the night {WAYS[plan['way']]}: {cold} among the plants otherwise, at worst {colder}, and {stand}.{holds}"

    def warned(self) -> list[tuple[int, str, str]]:
        """Gales, snow, rain: number of the day, what, and what to do."""
        told = [((date.fromisoformat(day) - self.today).days, what, value) for day, what, value in self.data["warnings"]]
        return [(number, what, WARNS[what].format(value)) for number, what, value in told]

    def water(self) -> str:
        """When it wants water, for what no rain reaches."""
        days = self.data["water_d"]
        if days is None:
            return ""
        when = "now" if days == 0 else f"by {words.day(self.today + timedelta(days=days), self.today)}"
        return (
            f"The top is dry {when}: water a little in the morning, not to flood it, for nothing dries off in a closed cover."
        )


@dataclass(frozen=True)
class Choice:
    """One opening for all the hours that nobody is there: words, and how often it cooks or freezes so."""

    opening: str
    hottest: str
    cooks: str
    freezes: str
    chosen: bool


@dataclass(frozen=True)
class DayPlan:
    """A day of a place: sentences, and the choices for those who are away."""

    day: str
    plan: str
    away: str
    choices: list[Choice]
    picking: str
    night: str
    doors: str = ""


@dataclass(frozen=True)
class PlacePlan:
    """A place on the page."""

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


def watched_in(garden: Garden, units: Units, today: date, grounds: Grounds | None = None) -> Iterator[Watched]:
    """Every place outdoors whose coming days are worked out from today, in walking order."""
    own = {period.place_id: period.item.name for period in current_items(garden, today) if period.item}
    midnight = midnight_of(today, standard_offset_h(garden.timezone, today))
    for place, ground in windows.grounds_in(garden) if grounds is None else grounds:
        if ground is not None and ground.forecast.watch and ground.forecast.day == today:
            yield Watched(place, ground.forecast.watch, midnight, today, units, own.get(place.pk, ""))


def opening_page(garden: Garden, units: Units, today: date) -> OpeningPage:
    """Covered places with their plans; open ones with what their nights ask for."""
    grounds = windows.grounds_in(garden)
    found = list(watched_in(garden, units, today, grounds))
    covered = [_covered(one) for one in found if one.data["covered"]]
    lying = [_open(one) for one in found if not one.data["covered"] and _asks(one)]
    away = "" if garden.away_from_h is None else f"{garden.away_from_h}:00 to {garden.away_to_h}:00"
    text = _headline([one for one in found if one.data["covered"]])
    if not found and any(ground is None or ground.forecast.day != today for _, ground in grounds):
        text = "The coming days are being worked out."
    return OpeningPage(text, covered, lying, away)


def _asks(one: Watched) -> bool:
    """Whether a place without a cover of its own asks for anything: its nights, or the doors of the house that it stands in."""
    return bool(one.data.get("doors")) or bool(one.data["nights"] and one.data["growing"])


def _headline(found: list[Watched]) -> str:
    if not found:
        return "Nothing is covered now, so there is nothing to open or shut."
    opened = [one for one in found if one.data["days"][0]["plan"]["opening"] > 0]
    nights = [one.place.name for one in found if one.data["nights"] and one.data["nights"][0]["way"]]
    night = f" Tonight {words.listed(nights, 3)} {'needs' if len(nights) == 1 else 'need'} cover." if nights else ""
    if not opened:
        return f"Everything may stay shut today.{night}"
    first = min(opened, key=lambda one: one.data["days"][0]["plan"]["from_h"])
    plan = first.data["days"][0]["plan"]
    if not plan["holds"] and plan["risk"] > TOO_HOT_RISK:
        return f"{first.place.name} gets too hot today however far it is opened: take its cover off, or shade it.{night}"
    rest = f", and {words.count(len(opened) - 1, 'more', 'more')} later" if len(opened) > 1 else ""
    return f"Open {first.place.name} {OPENED[plan['opening']]} from {first.clock(0, plan['from_h'])}{rest}.{night}"


def _covered(one: Watched) -> PlacePlan:
    days = [_day(one, number) for number in range(len(one.data["days"]))]
    warnings = [f"{one.day_words(number)}: {do}" for number, _, do in one.warned()]
    return PlacePlan(one.place, f"{one.cover} over {one.who}", days, _drawn(one), warnings, one.water())


def _open(one: Watched) -> PlacePlan:
    count = max(len(one.data["nights"]), len(one.data.get("doors", [])))
    days = [DayPlan(one.day_words(n), "", "", [], "", one.night(n), one.doors(n)) for n in range(count)]
    return PlacePlan(one.place, one.place.get_kind_display(), days, None, [], "")


def _day(one: Watched, number: int) -> DayPlan:
    told = one.data["days"][number]
    matters = "away" in told and (told["away"]["opening"] > 0 or told["away"]["risk_shut"] > 0)
    away = one.plan(number, away=True) if matters else ""
    choices = [_choice(one, choice, told["away"]["opening"]) for choice in told["choices"]] if matters else []
    return DayPlan(
        one.day_words(number), one.plan(number), away, choices, one.picking(number), one.night(number), one.doors(number)
    )


def _choice(one: Watched, told: dict[str, Any], chosen: float) -> Choice:
    hot = one.temperature(told["hottest_c"][0])
    freezes = words.likely(told["freezes"]) if one.data["limits"]["cold_c"] is not None else ""
    return Choice(OPENED[told["opening"]], hot, words.likely(told["risk"]), freezes, told["opening"] == chosen)


def _drawn(one: Watched) -> drawing.Days:
    data = one.data
    plans = [(n, day["plan"]["from_h"], day["plan"]["to_h"], day["plan"]["opening"]) for n, day in enumerate(data["days"])]
    limits = [limit for limit in (data["limits"]["hot_c"], data["limits"]["cold_c"]) if limit is not None]
    labels = [one.day_words(n) for n in range(len(data["days"]))]
    lines = drawing.Lines(data["outside_c"], data["shut_c"], data["planned_c"])
    return drawing.days(lines, plans, limits, labels, one.temperature)
