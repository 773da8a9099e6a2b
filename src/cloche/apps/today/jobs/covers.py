"""Opening and shutting, nights, water, gales; covers on and off."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date

from django.db.models import Q

from cloche.apps.covers.pages.opening import Watched
from cloche.apps.covers.selectors import owned_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod
from cloche.apps.places.pages.place_log import the_cover
from cloche.apps.shared import words
from cloche.apps.today.jobs.job import DAY_H, EVENING_H, MORNING_H, Job
from cloche.bridge.services import crops

SOON_D, OVER_H = 2, 16
EITHER = Garden.UncoverRule


def of_place(one: Watched, free: list[str], hour: float) -> Iterator[Job]:
    """Everything that one place's coming day asks for. free: names of the garden's covers that stand nowhere; hour: of the day
    by the sun's clock."""
    yield from _opening(one, hour)
    yield from _night(one, hour)
    yield from _water(one)
    for number, what, do in one.warned():
        if number <= 1:
            yield _job(one, f"{what}-{number}", one.day_words(number).lower(), MORNING_H, do, "", urgent=what == "gale")
    yield from _off(one)
    yield from _on_again(one, free)


def of_houses(found: list[Watched], hour: float) -> Iterator[Job]:
    """The doors of each house once, by the place in it that bears least heat."""
    for house in dict.fromkeys(one.place.within for one in found if one.data.get("doors")):
        one = min((one for one in found if one.place.within == house), key=lambda one: one.data["limits"]["hot_c"])
        number = 0 if hour < max(one.data["doors"][0]["to_h"], OVER_H) else 1
        plan = one.data["doors"][number]
        if plan["opening"]:
            do, _, why = one.doors(number).partition(". ")
            when = ("" if number == 0 else "tomorrow ") + one.clock(number, plan["from_h"])
            at_h = plan["from_h"] + 24 * number
            yield _job(one, "doors", when, at_h, f"{do}.", f"{why} For {one.who}.", urgent=bool(one.data["growing"]))


def _job(one: Watched, kind: str, when: str, at_h: float, do: str, why: str, urgent: bool = False, works: str = "") -> Job:
    return Job(f"{kind}:{one.place.pk}", when, at_h, do, why, one.place.name, one.place.pk, works=works, urgent=urgent)


def _opening(one: Watched, hour: float) -> Iterator[Job]:
    """Of today; once its hour to shut has come, of tomorrow."""
    if not one.data["covered"]:
        return
    number = 0 if hour < max(one.data["days"][0]["plan"]["to_h"], OVER_H) else 1
    plan = one.data["days"][number]["plan"]
    if plan["opening"]:
        do, _, why = one.plan(number).partition(". ")
        when = ("" if number == 0 else "tomorrow ") + one.clock(number, plan["from_h"])
        at_h = plan["from_h"] + 24 * number
        yield _job(one, "open", when, at_h, f"{do}.", f"{why} For {one.who}.", urgent=bool(one.data["growing"]))


def _night(one: Watched, hour: float) -> Iterator[Job]:
    """Where something is known to stand there; what is told for the rest stands with the plans."""
    if one.data["nights"] and one.data["growing"] and one.data["nights"][0]["way"]:
        do, _, why = one.night(0).removeprefix("For the night ").partition(": ")
        when = "before dark" if hour < EVENING_H + 1 else "now"
        yield _job(one, "night", when, EVENING_H, f"{words.sentence(do)}.", words.sentence(why), urgent=True)


def _water(one: Watched) -> Iterator[Job]:
    if one.data["water_d"] == 0:
        why = "No rain comes in, and the top is dry. A little, in the morning: nothing dries off in a closed cover."
        yield _job(one, "water", "in the morning", MORNING_H + 1, "Water a little.", why, works="watered")


def _off(one: Watched) -> Iterator[Job]:
    if not one.data["covered"]:
        return
    off, sowing_rule = one.data["off"], one.place.garden.uncover_rule
    if one.data["nights"] and one.data["nights"][0]["way"]:
        return  # not on the day on which it is to be shut against frost
    do = f"Leave {one.cover} open or off." if one.place.kind == "frame" else f"Take {one.cover} off."
    if sowing_rule == EITHER.NIGHTS and off["nights"] is not None and off["nights"] <= SOON_D:
        when = "today" if off["nights"] == 0 else f"in {words.count(off['nights'], 'day')}"
        warm = one.temperature(off["night_c"])
        why = f"Nights stay above {warm} {when}, as likely as not, and on: what grows there needs it no longer."
        yield _job(one, "off", when, DAY_H, do, why, works="off")
    reasons = {
        EITHER.HEIGHT: (off["height"], "What grows there has reached its roof."),
        EITHER.ESTABLISHED: (off["established"], "All that was sown there has been up for three weeks."),
        EITHER.HEAT: (off["heat"], "It gets too hot inside however far it is opened."),
    }
    due, why = reasons.get(EITHER(sowing_rule), (False, ""))
    if due:
        yield _job(one, "off", "today", DAY_H, do, why, works="off")


def _on_again(one: Watched, free: list[str]) -> Iterator[Job]:
    days = one.data["on_d"]
    if days is None or days == 0 or not free or not one.data["growing"]:
        return
    key = one.data["growing"][one.data["limits"]["cold_by"]][0]
    limit = one.temperature(one.data["limits"]["cold_c"])
    night, name = words.count(days, "day"), crops.crop(key).name_plural
    why = f"The night {night} from now is likelier than not below the {limit} that {name} stand."
    yield _job(one, "cover", f"within {words.count(days, 'day')}", DAY_H, f"Put {words.listed(free, 1)} over it.", why)


def dated(garden: Garden, today: date) -> Iterator[Job]:
    """Covers that were said to go on or come off today."""
    periods = CoverPeriod.objects.filter(place__garden=garden, place__removed_at__isnull=True).select_related("place", "item")
    for period in periods.filter(Q(first=today) | Q(last=today)):
        name, place = the_cover(period), period.place
        if period.first == today:
            why = "You planned it for today; the forecast reckons with it from this morning."
            yield Job(f"put_on:{period.pk}", "in the morning", MORNING_H + 0.5, f"Put {name} on.", why, place.name, place.pk)
        if period.last == today:
            why = "You wrote down today as its last day."
            yield Job(f"take_off:{period.pk}", "in the evening", EVENING_H, f"Take {name} off.", why, place.name, place.pk)


def free_covers(garden: Garden, today: date) -> list[str]:
    """Names of one's own that stand nowhere."""
    return [owned.cover.name for owned in owned_in(garden, today) if owned.free_on(today)]
