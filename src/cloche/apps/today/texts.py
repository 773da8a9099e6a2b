"""What this room says: jobs, answers, and what frost did. Facts in, sentences out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from typing import Any, cast
from urllib.parse import urlencode

from django.urls import reverse
from django.utils.translation import gettext as _

from cloche.apps.bench import texts as bench
from cloche.apps.bench import tubers
from cloche.apps.bench.tubers import TuberDue
from cloche.apps.covers import texts as covers
from cloche.apps.covers.watched import Watched
from cloche.apps.gardens.models import Garden
from cloche.apps.places.pages import the_cover
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.today.after import Frosted
from cloche.apps.today.jobs.job import (
    EVENING_H,
    AlarmFacts,
    CoverFacts,
    FrostedFacts,
    HotbedFacts,
    Job,
    JobKind,
    LastDayFacts,
    PeriodFacts,
    PlantFacts,
    RaisedFacts,
    SowFacts,
    TrialFacts,
    TuberFacts,
    UpFacts,
    WarmFacts,
)
from cloche.apps.today.models import Answer
from cloche.apps.windows.pages.limit_words import limit_name
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units
from cloche_engine.results import Harm, Stage
from cloche_engine.windows.limits import SURE

HARM_NAMES = {
    Harm.LOST: lazy("probably lost"),
    Harm.REGROWS: lazy("killed back"),
    Harm.MARKED: lazy("leaves damaged"),
    Harm.UNHURT: lazy("not damaged"),
}
HARM_SENTENCES = {
    Harm.LOST: lazy("Probably lost"),
    Harm.REGROWS: lazy("Killed back by frost; will probably regrow"),
    Harm.MARKED: lazy("Leaves damaged by frost; will probably survive"),
    Harm.UNHURT: lazy("Not damaged"),
}
LOOK = {
    Harm.LOST: lazy(
        "Leaves hang glassy by noon and are black or straw-coloured a day later, and the stem is soft at "
        "soil level. Give it two mild days before you dig: a firm green stem or heart means that it is "
        "alive."
    ),
    Harm.MARKED: lazy(
        "The edges and youngest leaves turn glassy, then pale or brown within two days, but the heart "
        "stays green. Leave the plant alone."
    ),
    Harm.UNHURT: lazy("Leaves may hang until noon; there is nothing to do."),
}
COMES_AGAIN = {
    "below_ground": lazy(
        "The leaves die, but scratch the stem: if it is firm and green below the soil, it will shoot "
        "again within a week or two."
    ),
    "shoots": lazy("The shoots turn black, and new ones come in about twelve days. Leave them in the ground."),
}
ANSWERED = {
    JobKind.OPEN: lazy("open it and close it again"),
    JobKind.DOORS: lazy("open the doors and vents and close them again"),
    JobKind.NIGHT: lazy("prepare it for the night"),
    JobKind.WATER: lazy("water a little"),
    JobKind.WEATHER: lazy("secure it against the weather"),
    JobKind.UNCOVER: lazy("take its cover off"),
    JobKind.COVER: lazy("put a cover over it"),
    JobKind.PUT_ON: lazy("put {cover} on"),
    JobKind.TAKE_OFF: lazy("take {cover} off"),
    JobKind.SOW: lazy("sow {crop}"),
    JobKind.WARM: lazy("warm it for {crop}"),
    JobKind.OVERDUE: lazy("look for the {crop}"),
    JobKind.COUNT: lazy("count the {crop}"),
    JobKind.LAST_DAY: lazy("sow {crop} while there is time"),
    JobKind.AFTER_FROST: lazy("check it after the frost"),
    JobKind.TRIAL: lazy("read both beds of the trial"),
    JobKind.TOP_UP: lazy("top up the hotbed"),
    JobKind.RAISE: lazy("look after the {crop} on the bench"),
    JobKind.HEAT: lazy("check its heater"),
    JobKind.PLANT: lazy("plant {crop}"),
    JobKind.TUBERS: lazy("look after the sprouting {crop}"),
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
    telling = _TEXTS[job.kind](job, cast(Any, job.facts), units, today)
    why, urgent = telling.why, job.urgent and not job.is_guessed
    if job.is_guessed:
        why = f"{why} {_('Estimated: nothing has been read here yet. Look before you act.')}".strip()
    return JobLine(job.key, telling.when, telling.do, why, job.place, job.place_pk, telling.link, urgent)


def answered(answer: Answer) -> str:
    """What was answered."""
    crop = crops.crop(answer.crop_key).name_plural if answer.crop_key else ""
    cover = the_cover(answer.period) if answer.period else _("its cover")
    what = words.sentence(ANSWERED[JobKind(answer.kind)].format(crop=crop, cover=cover))
    return f"{answer.place.name}: {what}." if answer.place else f"{what}."


def _crop(job: Job) -> str:
    return crops.crop(job.crop_key).name_plural


def _new_sowing(job: Job) -> tuple[str, str]:
    query = urlencode({"place": job.place_pk, "crop": job.crop_key})
    return _("Record sowing"), f"{reverse('new_sowing', args=[job.garden_id])}?{query}"


def _opened(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    watched, number = facts.watched, facts.number
    open_it = job.kind is JobKind.OPEN
    advice = covers.opening(watched, number) if open_it else covers.doors(watched, number)
    plan = watched.days[number].plan if open_it else watched.data.doors[number]
    assert advice is not None  # noqa: S101 - such jobs have both
    assert job.at is not None  # noqa: S101
    when = _("now") if watched.is_under_way(number, plan) else ("" if number == 0 else _("tomorrow ")) + words.clock(job.at)
    return Telling(when, advice.do, advice.why)


def _night(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    advice = covers.night(facts.watched, 0)
    assert advice is not None  # noqa: S101 - a job is made only of a night that asks for something
    when = _("before dark") if facts.hour < EVENING_H + 1 else _("now")
    return Telling(when, f"{words.sentence(advice.do)}.", words.sentence(advice.why))


def _water(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    why = _("No rain gets in, and the soil surface is dry. Water a little in the morning: nothing dries in a closed cover.")
    return Telling(_("in the morning"), _("Water a little."), why)


def _weather(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    assert facts.warning is not None  # noqa: S101 - such jobs are made of warnings
    return Telling(_("today") if facts.number == 0 else _("tomorrow"), covers.warning(facts.warning, units), "")


def _uncover(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    watched, cover = facts.watched, covers.cover(facts.watched)
    do = (
        _("Leave {cover} open or off.").format(cover=cover)
        if watched.place.kind == "frame"
        else _("Take {cover} off.").format(cover=cover)
    )
    when, why = _why_off(watched)
    return Telling(when, do, why)


def _why_off(watched: Watched) -> tuple[str, str]:
    assert watched.data.covered is not None  # noqa: S101 - only what is covered comes off
    off, rule = watched.data.covered.off, Garden.UncoverRule
    reasons = {
        rule.HEIGHT: _("The plants there have reached the top."),
        rule.ESTABLISHED: _("Everything sown there has been up for three weeks."),
        rule.HEAT: _("It gets too hot inside however far it is opened."),
    }
    followed = rule(watched.place.garden.uncover_rule)
    if followed is not rule.NIGHTS:
        return _("today"), reasons[followed]
    when = _("in {days}").format(days=words.count(off.nights, "day", "days")) if off.nights else _("today")
    warm = covers.temperature(watched, off.night_c)
    why = _("From then on, nights will probably stay above {warm}, so the plants no longer need it.")
    return when, why.format(warm=warm)


def _cover(job: Job, facts: CoverFacts, units: Units, today: date) -> Telling:
    watched, limits = facts.watched, facts.watched.data.limits
    days, limit = words.count(watched.data.on_d or 0, "day", "days"), covers.temperature(watched, limits.cold_c or 0.0)
    name = crops.crop(watched.data.growing[limits.cold_by or 0].crop_key).name_plural
    why = _("The night in {days} will probably fall below {limit}, the least that {name} tolerate.").format(
        days=days, limit=limit, name=name
    )
    return Telling(
        _("within {days}").format(days=days),
        _("Cover it with {cover}.").format(cover=facts.free[0]) if facts.free else _("Find a cover for it."),
        why,
    )


def _put_on(job: Job, facts: PeriodFacts, units: Units, today: date) -> Telling:
    why = _("You planned it for today, and the forecast has included it since this morning.")
    return Telling(_("in the morning"), _("Put {cover} on.").format(cover=facts.cover), why)


def _take_off(job: Job, facts: PeriodFacts, units: Units, today: date) -> Telling:
    return Telling(
        _("in the evening"), _("Take {cover} off.").format(cover=facts.cover), _("You entered today as its last day.")
    )


def _sow(job: Job, facts: SowFacts, units: Units, today: date) -> Telling:
    when = _("today") if facts.sow_on == today else _("since {day}").format(day=words.day(facts.sow_on, today))
    why = _("You planned it.")
    if facts.half_d is not None:
        up = _("half of the seedlings are up in {half_d} days, {share}% in the end").format(
            half_d=f"{facts.half_d:.0f}", share=f"{facts.share * 100:.0f}"
        )
        why = _("You planned it, {ground_says}: {up}.").format(ground_says=_ground_says(facts, today), up=up)
        if facts.chance is not None and facts.chance < SURE:
            why += " " + _("If sown today, it would fail {likely}.").format(likely=words.likely(1 - facts.chance))
    if facts.opens is not None and not facts.is_open and facts.opens > today:
        # The day that was meant has come and its window has not: the job is to wait, not to sow.
        wait = _("Wait until {day} to sow {crop}.").format(day=words.day(facts.opens, today), crop=_crop(job))
        return Telling(when, wait, why, _new_sowing(job))
    return Telling(when, _("Sow {crop}.").format(crop=_crop(job)), why, _new_sowing(job))


def _planned(job: Job, facts: PlantFacts, units: Units, today: date) -> Telling:
    late = facts.planned_on < today
    when = _("since {day}").format(day=words.day(facts.planned_on, today)) if late else _("today")
    what = _("Sow {what}.") if facts.sown else _("Plant {what}.")
    why = _("It is in your plan.")
    if facts.fails is not None and facts.fails > RISKY:
        why = _("It is in your plan, but if done today, it would {likely} fail.").format(likely=words.likely(facts.fails))
    link = reverse("planting", args=[job.garden_id, facts.planting_id]), _("Open in the plan")
    return Telling(when, what.format(what=facts.what), why, link)


RISKY = 0.4


def _ground_says(facts: SowFacts, today: date) -> str:
    if facts.is_open:
        return _("and the soil temperature agrees")
    if facts.opens is None:
        return _("but no date ahead succeeds eight times in ten ({limit_name})").format(limit_name=limit_name(facts.limit))
    till = _("; until then: {limit_name}").format(limit_name=limit_name(facts.limit)) if facts.limit else ""
    return _("but its window opens {day}{till}").format(day=words.day(facts.opens, today), till=till)


def _warm(job: Job, facts: WarmFacts, units: Units, today: date) -> Telling:
    bare, wants = (units.temperature_text(value, 0) for value in (facts.bare_c, facts.wanted_c))
    why = _("Without a cover it would be {bare} on {day}, when you plan to sow {crop}; they need {wants}.").format(
        bare=bare, day=words.day(facts.sow_on), crop=_crop(job), wants=wants
    )
    query = urlencode({"place": job.place_pk, "crop": job.crop_key, "warm": facts.warm_d})
    link = _("See what a cover would gain"), f"{reverse('covers', args=[job.garden_id])}?{query}"
    return Telling(_("today"), _("Warm it with {listed}.").format(listed=words.listed(list(facts.free), 1)), why, link)


def _overdue(job: Job, facts: UpFacts, units: Units, today: date) -> Telling:
    since = words.day(facts.since, today)
    why = _(
        "They were due by {since}; if there are none, most of the sowing has failed: "
        "cold, old seed, a crust, too deep, or eaten."
    ).format(since=since)
    link = _("Count"), reverse("sowings", args=[job.garden_id])
    return Telling(_("during the day"), _("Uncover a little and look for the {crop}.").format(crop=_crop(job)), why, link)


def _count(job: Job, facts: UpFacts, units: Units, today: date) -> Telling:
    why = _("Half of them should have been visible since {day}. A count helps Cloche learn about your soil.").format(
        day=words.day(facts.since, today)
    )
    return Telling(
        _("during the day"),
        _("Count the {crop}.").format(crop=_crop(job)),
        why,
        (_("Count"), reverse("sowings", args=[job.garden_id])),
    )


def _last_day(job: Job, facts: LastDayFacts, units: Units, today: date) -> Telling:
    on = words.day(facts.day, today)
    wait = _("wait for the next window") if facts.again else _("leave them for this season")
    after = _("; after it, too little season is left or it becomes too hot")
    if facts.again:
        after = _("; the next window starts on {day} in {again}").format(
            day=words.day(facts.again[0], today), again=facts.again[1]
        )
    why = _("{sentence} is the last sensible date anywhere here{after}.").format(sentence=words.sentence(on), after=after)
    return Telling(
        _("by {on}").format(on=on), _("Sow {crop}, or {wait}.").format(crop=_crop(job), wait=wait), why, _new_sowing(job)
    )


def _after_frost(job: Job, facts: FrostedFacts, units: Units, today: date) -> Telling:
    named = words.listed([_("{name} in {name2}").format(name=sowing.name, name2=sowing.place.name) for sowing in facts.hurt], 2)
    link = _("What to look for"), reverse("after_frost", args=[job.garden_id])
    return Telling(
        _("during the day"), _("Check {named} after the frost.").format(named=named), frosted(facts.hurt[0], units), link
    )


def _trial(job: Job, facts: TrialFacts, units: Units, today: date) -> Telling:
    why = _("Read both within a few minutes, at the same depth. One pair a day gives the answer soonest.")
    link = _("Read both"), reverse("trial", args=[job.garden_id, facts.trial_id])
    return Telling(_("morning and evening"), _("Read it together with {bare}.").format(bare=facts.bare), why, link)


def _top_up(job: Job, facts: HotbedFacts, units: Units, today: date) -> Telling:
    why = _("The hotbed has sunk and will be too cool about {day}. It can be topped up once.").format(
        day=words.day(facts.fades, today)
    )
    link = _("Open the diary"), reverse("diary", args=[job.garden_id, job.place_pk])
    return Telling(_("this week"), _("Top up the hotbed."), why, link)


def _raised(job: Job, facts: RaisedFacts, units: Units, today: date) -> Telling:
    # What a tick can write down needs no form.
    link = ("", "") if facts.step else (_("Open its steps"), reverse("life", args=[job.garden_id, facts.life.sowing.pk]))
    do = bench.due_text(facts.life, facts.due, facts.on, today, units)
    when = _("today") if facts.on == today else _("since {day}").format(day=words.day(facts.on, today))
    return Telling(when, do, bench.due_why(facts.due), link)


def _alarm(job: Job, facts: AlarmFacts, units: Units, today: date) -> Telling:
    do, why = bench.alarm_text(facts.alarm, units)
    return Telling(_("now"), do, why, (_("Its heat"), reverse("tray", args=[job.garden_id, job.place_pk])))


def _tubers(job: Job, facts: TuberFacts, units: Units, today: date) -> Telling:
    do, why = tubers.due_text(facts.sprouting, facts.due, today)
    frost = facts.sprouting.chitting.frost if facts.sprouting.chitting else None
    when = _("before {day}").format(day=words.day(frost, today)) if facts.due is TuberDue.FROST and frost else _("today")
    return Telling(when, do, why, (_("Open potatoes"), reverse("potatoes", args=[job.garden_id])))


_TEXTS: dict[JobKind, Callable[[Job, Any, Units, date], Telling]] = {
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
    JobKind.RAISE: _raised,
    JobKind.HEAT: _alarm,
    JobKind.PLANT: _planned,
    JobKind.TUBERS: _tubers,
}


def frosted(sowing: Frosted, units: Units) -> str:
    """What a night did to a sowing."""
    what = sowing.what
    low, middle, high = (units.temperature_text(value) for value in what.felt_c)
    stage = _("seedlings") if what.stage is Stage.SEEDLING else _("full-grown plants")
    stands = (
        _("; {stage} survive {temperature}").format(stage=stage, temperature=units.temperature_text(what.limit_c))
        if what.limit_c is not None
        else ""
    )
    sure = f" ({words.likely(what.chance)})" if what.harm is not Harm.UNHURT and what.chance < 0.95 else ""
    return _("{harm_sentences}{sure}: about {middle} among the plants ({low} to {high}){stands}.").format(
        harm_sentences=HARM_SENTENCES[what.harm], sure=sure, middle=middle, low=low, high=high, stands=stands
    )


def look_for(sowing: Frosted) -> str:
    """What one sees, and what to do."""
    if sowing.what.harm is Harm.REGROWS:
        return COMES_AGAIN[crops.crop(sowing.what.crop_key).life.regrows]
    return LOOK[sowing.what.harm]


def sow_again(sowing: Frosted, today: date) -> str:
    """Until when sowing again is still sensible there; empty where nothing is lost."""
    if sowing.what.harm not in (Harm.LOST, Harm.REGROWS):
        return ""
    ahead = [window for window in sowing.windows if window.open_ended or window.last >= today]
    if not ahead:
        return _("It is too late this season to sow it there again.")
    first, last = ahead[0].earliest, ahead[0].last
    start = "" if first <= today else _(" from {day}").format(day=words.day(first, today))
    until = "" if ahead[0].open_ended else _(" until {day}").format(day=words.day(last, today))
    return _("It makes sense to sow it again{start}{until}.").format(start=start, until=until)
