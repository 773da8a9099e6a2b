"""What this room says: jobs, answers, and what frost did. Facts in, sentences out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from typing import Any, cast
from urllib.parse import urlencode

from django.urls import reverse

from cloche.apps.covers import texts as covers
from cloche.apps.covers.watched import Watched
from cloche.apps.gardens.models import Garden
from cloche.apps.shared import words
from cloche.apps.today.after import Frosted
from cloche.apps.today.jobs.job import (
    EVENING_H,
    CoverFacts,
    FrostedFacts,
    HotbedFacts,
    Job,
    JobKind,
    LastDayFacts,
    PeriodFacts,
    SowFacts,
    TrialFacts,
    UpFacts,
    WarmFacts,
)
from cloche.apps.today.models import Answer
from cloche.apps.windows.pages.limit_words import limit_name
from cloche.bridge.services import crops
from cloche.bridge.values.stored import Harm, Stage
from cloche.bridge.values.units import Units

HARM_NAMES = {
    Harm.LOST: "most likely lost",
    Harm.REGROWS: "cut down",
    Harm.MARKED: "marked",
    Harm.UNHURT: "unhurt",
}
HARM_SENTENCES = {
    Harm.LOST: "Most likely lost",
    Harm.REGROWS: "Cut down, and most likely comes again",
    Harm.MARKED: "Marked, and most likely lives",
    Harm.UNHURT: "Unhurt",
}
LOOK = {
    Harm.LOST: "Leaves hang glassy by noon and are black or straw-coloured a day later; the stem is soft at the soil. Give it "
    "two mild days before you dig: a firm green stem or heart means that it lives.",
    Harm.MARKED: "Edges and the youngest leaves go glassy, then pale or brown within two days; the heart stays green. "
    "Leave it be.",
    Harm.UNHURT: "Leaves may hang until noon; there is nothing to do.",
}
COMES_AGAIN = {
    "growing point below ground": "The leaves go; scratch at the stem: where it is firm and green below the soil it shoots "
    "again within a week or two.",
    "shoots again": "The shoots turn black; new ones come in some twelve days. Leave them in the ground.",
}
ANSWERED = {
    JobKind.OPEN: "open it, and shut it again",
    JobKind.DOORS: "open the doors and vents, and shut them again",
    JobKind.NIGHT: "see to it for the night",
    JobKind.WATER: "water a little",
    JobKind.WEATHER: "make it fast against the weather",
    JobKind.UNCOVER: "take its cover off",
    JobKind.COVER: "put a cover over it",
    JobKind.PUT_ON: "put its cover on",
    JobKind.TAKE_OFF: "take its cover off",
    JobKind.SOW: "sow {crop}",
    JobKind.WARM: "warm it for {crop}",
    JobKind.OVERDUE: "look for the {crop}",
    JobKind.COUNT: "count the {crop}",
    JobKind.LAST_DAY: "sow {crop} while it is sensible",
    JobKind.AFTER_FROST: "look it over after the frost",
    JobKind.TRIAL: "read both beds of the trial",
    JobKind.TOP_UP: "top the hotbed up",
}


@dataclass(frozen=True)
class JobLine:
    """A job as it is shown. link: (words, address) of where it is done, empty where a tick is enough."""

    key: str
    when: str
    do: str
    why: str
    place: str
    place_pk: int
    link: tuple[str, str] = ("", "")
    urgent: bool = False


@dataclass(frozen=True)
class Telling:
    """When, what to do, why, and where it is done."""

    when: str
    do: str
    why: str
    link: tuple[str, str] = ("", "")


def job_line(job: Job, units: Units, today: date) -> JobLine:
    """A job in words."""
    told = _TELLERS[job.kind](job, cast(Any, job.facts), units, today)
    return JobLine(job.key, told.when, told.do, told.why, job.place, job.place_pk, told.link, job.urgent)


def answered(answer: Answer) -> str:
    """What was answered."""
    crop = crops.crop(answer.crop_key).name_plural if answer.crop_key else ""
    what = words.sentence(ANSWERED[JobKind(answer.kind)].format(crop=crop))
    return f"{answer.place.name}: {what}." if answer.place else f"{what}."


def _crop(job: Job) -> str:
    return crops.crop(job.crop_key).name_plural


def _new_sowing(job: Job) -> tuple[str, str]:
    query = urlencode({"place": job.place_pk, "crop": job.crop_key})
    return "Write it down", f"{reverse('new_sowing', args=[job.garden_id])}?{query}"


def _opened(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    one, number = facts.watched, facts.number
    advice = covers.opening(one, number) if job.kind is JobKind.OPEN else covers.doors(one, number)
    assert advice is not None  # noqa: S101 - such jobs have both
    assert job.at is not None  # noqa: S101
    when = ("" if number == 0 else "tomorrow ") + words.clock(job.at)
    return Telling(when, advice.do, f"{advice.why} For {covers.who(one, one.data.limits.hot_by)}.")


def _night(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    advice = covers.night(facts.watched, 0)
    assert advice is not None  # noqa: S101 - a job is made only of a night that asks for something
    when = "before dark" if facts.hour < EVENING_H + 1 else "now"
    return Telling(when, f"{words.sentence(advice.do)}.", words.sentence(advice.why))


def _water(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    why = "No rain comes in, and the top is dry. A little, in the morning: nothing dries off in a closed cover."
    return Telling("in the morning", "Water a little.", why)


def _weather(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    assert facts.warning is not None  # noqa: S101 - such jobs are made of warnings
    return Telling("today" if facts.number == 0 else "tomorrow", covers.warning(facts.warning), "")


def _uncover(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    one, cover = facts.watched, covers.cover(facts.watched)
    do = f"Leave {cover} open or off." if one.place.kind == "frame" else f"Take {cover} off."
    when, why = _why_off(one)
    return Telling(when, do, why)


def _why_off(one: Watched) -> tuple[str, str]:
    assert one.data.covered is not None  # noqa: S101 - only what is covered comes off
    off, rule = one.data.covered.off, Garden.UncoverRule
    reasons = {
        rule.HEIGHT: "What grows there has reached its roof.",
        rule.ESTABLISHED: "All that was sown there has been up for three weeks.",
        rule.HEAT: "It gets too hot inside however far it is opened.",
    }
    followed = rule(one.place.garden.uncover_rule)
    if followed is not rule.NIGHTS:
        return "today", reasons[followed]
    when = "in " + words.count(off.nights, "day") if off.nights else "today"
    warm = covers.temperature(one, off.night_c)
    return when, f"Nights stay above {warm} {when}, as likely as not, and on: what grows there needs it no longer."


def _cover(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    one, limits = facts.watched, facts.watched.data.limits
    days, limit = words.count(one.data.on_d or 0, "day"), covers.temperature(one, limits.cold_c or 0.0)
    name = crops.crop(one.data.growing[limits.cold_by or 0].crop_key).name_plural
    why = f"The night {days} from now is likelier than not below the {limit} that {name} stand."
    return Telling(f"within {days}", f"Put {words.listed(list(facts.free), 1)} over it.", why)


def _put_on(job: Job, facts: PeriodFacts, units: Units, today: date) -> Telling:
    why = "You planned it for today; the forecast reckons with it from this morning."
    return Telling("in the morning", f"Put {facts.cover} on.", why)


def _take_off(job: Job, facts: PeriodFacts, units: Units, today: date) -> Telling:
    return Telling("in the evening", f"Take {facts.cover} off.", "You wrote down today as its last day.")


def _sow(job: Job, facts: SowFacts, units: Units, today: date) -> Telling:
    when = "today" if facts.sow_on == today else f"since {words.day(facts.sow_on, today)}"
    why = "You meant to."
    if facts.half_d is not None:
        up = f"half up in {facts.half_d:.0f} days, {facts.share * 100:.0f} of 100"
        why = f"You meant to, {_ground_says(facts, today)}: {up}."
    return Telling(when, f"Sow {_crop(job)}.", why, _new_sowing(job))


def _ground_says(facts: SowFacts, today: date) -> str:
    if facts.is_open:
        return "and the ground agrees"
    if facts.opens is None:
        return f"but no window is in sight ({limit_name(facts.limit)})"
    till = f", till then {limit_name(facts.limit)}" if facts.limit else ""
    return f"but its window opens {words.day(facts.opens, today)}{till}"


def _warm(job: Job, facts: WarmFacts, units: Units, today: date) -> Telling:
    told, wants = (units.temperature_text(value, 0) for value in (facts.bare_c, facts.wanted_c))
    why = f"Bare it would lie at {told} on {words.day(facts.sow_on)}, when {_crop(job)} are meant; they want {wants}."
    query = urlencode({"place": job.place_pk, "crop": job.crop_key, "warm": facts.warm_d})
    link = "See what it buys", f"{reverse('covers', args=[job.garden_id])}?{query}"
    return Telling("today", f"Warm it with {words.listed(list(facts.free), 1)}.", why, link)


def _overdue(job: Job, facts: UpFacts, units: Units, today: date) -> Telling:
    since = words.day(facts.since, today)
    why = f"Silence after {since} means that most of it failed: cold, old seed, a crust, too deep, or eaten."
    link = "Count", reverse("sowings", args=[job.garden_id])
    return Telling("by day", f"Scratch a little free and look for the {_crop(job)}.", why, link)


def _count(job: Job, facts: UpFacts, units: Units, today: date) -> Telling:
    why = f"Half of them should show since {words.day(facts.since, today)}; a count teaches Cloche your ground."
    return Telling("by day", f"Count the {_crop(job)}.", why, ("Count", reverse("sowings", args=[job.garden_id])))


def _last_day(job: Job, facts: LastDayFacts, units: Units, today: date) -> Telling:
    on = words.day(facts.day, today)
    wait = "wait for the next window" if facts.again else "leave them for this season"
    after = "; after it too little season is left or heat comes"
    if facts.again:
        after = f"; the next window is from {words.day(facts.again[0], today)} in {facts.again[1]}"
    why = f"{words.sentence(on)} is the last sensible day anywhere here{after}."
    return Telling(f"by {on}", f"Sow {_crop(job)}, or {wait}.", why, _new_sowing(job))


def _after_frost(job: Job, facts: FrostedFacts, units: Units, today: date) -> Telling:
    named = words.listed([f"{one.name} in {one.place.name}" for one in facts.hurt], 2)
    link = "What to look for", reverse("after_frost", args=[job.garden_id])
    return Telling("by day", f"Look over {named} after the frost.", frosted(facts.hurt[0], units), link)


def _trial(job: Job, facts: TrialFacts, units: Units, today: date) -> Telling:
    why = "Both within a few minutes, at the same depth: a pair a day settles it soonest."
    link = "Read both", reverse("trial", args=[job.garden_id, facts.trial_id])
    return Telling("morning and evening", f"Read it and {facts.bare} together.", why, link)


def _top_up(job: Job, facts: HotbedFacts, units: Units, today: date) -> Telling:
    why = f"It has sunk and will fall too cool about {words.day(facts.fades, today)}; it is topped up once."
    link = "Write it down", reverse("hotbed", args=[job.garden_id, job.place_pk])
    return Telling("this week", "Top the hotbed up.", why, link)


_TELLERS: dict[JobKind, Callable[[Job, Any, Units, date], Telling]] = {
    JobKind.OPEN: _opened,
    JobKind.DOORS: _opened,
    JobKind.NIGHT: _night,
    JobKind.WATER: _water,
    JobKind.WEATHER: _weather,
    JobKind.UNCOVER: _uncover,
    JobKind.COVER: _cover,
    JobKind.PUT_ON: _put_on,
    JobKind.TAKE_OFF: _take_off,
    JobKind.SOW: _sow,
    JobKind.WARM: _warm,
    JobKind.OVERDUE: _overdue,
    JobKind.COUNT: _count,
    JobKind.LAST_DAY: _last_day,
    JobKind.AFTER_FROST: _after_frost,
    JobKind.TRIAL: _trial,
    JobKind.TOP_UP: _top_up,
}


def frosted(one: Frosted, units: Units) -> str:
    """What a night did to a sowing."""
    what = one.what
    low, middle, high = (units.temperature_text(value) for value in what.felt_c)
    stage = "seedlings" if what.stage is Stage.SEEDLING else "grown plants"
    stands = f"; {stage} stand {units.temperature_text(what.limit_c)}" if what.limit_c is not None else ""
    sure = f" ({words.likely(what.chance)})" if what.harm is not Harm.UNHURT and what.chance < 0.95 else ""
    return f"{HARM_SENTENCES[what.harm]}{sure}: about {middle} among them ({low} to {high}){stands}."


def look_for(one: Frosted) -> str:
    """What one sees, and what to do."""
    if one.what.harm is Harm.REGROWS:
        return COMES_AGAIN[crops.crop(one.what.crop_key).life.regrows]
    return LOOK[one.what.harm]


def sow_again(one: Frosted, today: date) -> str:
    """Until when sowing again is still sensible there; empty where nothing is lost."""
    if one.what.harm not in (Harm.LOST, Harm.REGROWS):
        return ""
    ahead = [window for window in one.windows if window.open_ended or window.last >= today]
    if not ahead:
        return "No sensible day to sow it again is left there this season."
    first, last = ahead[0].earliest, ahead[0].last
    start = "" if first <= today else f" from {words.day(first, today)}"
    until = "" if ahead[0].open_ended else f" until {words.day(last, today)}"
    return f"Sowing it again is sensible{start}{until}."
