"""What must hold between the pages of any garden. Each invariant yields what contradicts it, with the pages involved.

docs/agreement.md lists them; tests/bench/test_agreement.py holds the list to this file.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import timedelta
from itertools import pairwise
from typing import Any

from bench.agree.pages import Pages
from cloche.apps.forecasts.selectors import frosts_of, open_now
from cloche.apps.forecasts.status import status_in
from cloche.apps.places.standing import roofs_from
from cloche.apps.sowings.progress import State
from cloche.apps.windows.pages.place import crop_line
from cloche.apps.windows.pages.season import frosts_changed
from cloche.apps.windows.verdict import RISKY, verdict_on
from cloche.bridge.services.offered import USUAL_COVER
from cloche.bridge.services.planting import BENCH_KINDS, BENCHES
from cloche.bridge.services.soundness import POSSIBLE_C
from cloche.core.covers.kinds import kind as cover_kind
from cloche.core.windows.raised_life import Due

Found = Iterator[str]


@dataclass(frozen=True)
class Invariant:
    """text: what holds; pages: between which; check: yields contradictions."""

    text: str
    pages: str
    check: Callable[[Pages], Found]


INVARIANTS: list[Invariant] = []


def holds(text: str, pages: str) -> Callable[[Callable[[Pages], Found]], Callable[[Pages], Found]]:
    """Put a check on the list."""

    def listed(check: Callable[[Pages], Found]) -> Callable[[Pages], Found]:
        INVARIANTS.append(Invariant(text, pages, check))
        return check

    return listed


# Every page

_HOLES = re.compile(r"\bnan\b|\binf\b|\bNone([°%;:)]| (d|days|up|W|cm|in|of 100)\b)|\{[a-z_0-9]+\}|%\([a-z_]+\)s")
_PLURALS = re.compile(r"(?<![\d.,−-])1 (days|weeks|seeds|seedlings|plants|hours|places|crops|jobs|sowings|readings|years)\b")
_STOPS = re.compile(r"\.\.(?!\.)| ,|,\.|\?\.")


@holds("No page shows a number that is none, or a placeholder", "all")
def no_holes(p: Pages) -> Found:
    yield from (f"{one.path}: {found.group()}" for one in p.shown if (found := _HOLES.search(one.text)))


@holds("One of a thing is told in the singular", "all")
def plurals(p: Pages) -> Found:
    yield from (f"{one.path}: {found.group()}" for one in p.shown if (found := _PLURALS.search(one.text)))


@holds("Sentences end once", "all")
def stops(p: Pages) -> Found:
    for one in p.shown:
        if found := _STOPS.search(one.text):
            yield f"{one.path}: {one.text[max(found.start() - 40, 0) : found.end() + 10]!r}"


@holds("A page has a heading that says something", "all")
def headings(p: Pages) -> Found:
    for one in p.shown:
        page = one.context.get("page") if one.context else None
        if page is not None and hasattr(page, "headline") and not page.headline and not getattr(page, "waiting", ""):
            yield one.path


# Temperatures of a place


@holds("The soil now is the same number on Today and on Ground", "today, ground")
def soil_now(p: Pages) -> Found:
    today, ground = p.page("today"), p.page("ground")
    if today and ground:
        numbers = {line.place.pk: line.number for line in ground["lines"]}
        for now in today["page"].places:
            if numbers[now.line.place.pk] != now.line.number:
                yield f"{now.line.place}: {now.line.number} and {numbers[now.line.place.pk]}"


@holds("A place's page names the same soil now as Ground", "place, ground")
def soil_at_place(p: Pages) -> Found:
    ground = p.page("ground")
    for line in ground["lines"] if ground else []:
        shown = p.page("place", line.place.pk)
        if shown and line.cut is not None and line.number not in shown["part"].sub:
            yield f"{line.place}: {line.number} not in {shown['part'].sub!r}"


@holds("The day's mean of a place is the same on Today and on its own page", "today, place")
def day_mean(p: Pages) -> Found:
    today = p.page("today")
    for now in today["page"].places if today else []:
        shown = p.page("place", now.line.place.pk)
        number = now.day_figure.rpartition(" ")[2]
        if shown and now.day_figure and number not in shown["part"].headline:
            yield f"{now.line.place}: {now.day_figure} and {shown['part'].headline!r}"


@holds("A tray has the same day's mean at its roots on the bench and on Today", "bench, today")
def tray_roots(p: Pages) -> Found:
    bench, today = p.page("bench"), p.page("today")
    means = {now.line.place.pk: now.day_figure.rpartition(" ")[2] for now in today["page"].places} if today else {}
    for room in bench["page"].rooms if bench else []:
        for tray in room.trays:
            if tray.number and means.get(tray.place.pk, tray.number) != tray.number:
                yield f"{tray.place}: {tray.number} and {means[tray.place.pk]}"


@holds("Numbers are in the reader's scale", "ground")
def scale(p: Pages) -> Found:
    ground = p.page("ground")
    for line in ground["lines"] if ground else []:
        known = p.grounds.get(line.place.pk)
        if known and line.number != p.temperature(known.soil_at(p.world.now)):
            yield f"{line.place}: {line.number}"


@holds("Every stored temperature is finite and possible, and no band crosses", "stored")
def possible(p: Pages) -> Found:
    for place in p.places:
        known = p.grounds.get(place.pk)
        if known:
            for low, mid, high in zip(known.data.far_low_c, known.data.far_mid_c, known.data.far_high_c, strict=True):
                if not POSSIBLE_C[0] <= low <= mid + 0.02 <= high + 0.04 <= POSSIBLE_C[1]:
                    yield f"{place}: {low} {mid} {high}"
                    break


@holds("Every place that the forms accepted has a forecast of today", "stored")
def everybody_has_one(p: Pages) -> Found:
    for place in p.places:
        if place.pk not in p.grounds or p.grounds[place.pk].stale(p.today):
            yield f"{place} ({place.kind})"


@holds("Nothing is said to be calculated or failed once all forecasts are there", "today, ground, plan")
def nothing_waits(p: Pages) -> Found:
    status = status_in(p.garden)
    if not status.calculating and not status.failed:
        for name in ("today", "ground", "plan"):
            shown = p.page(name)
            if shown and ("still being calculated" in shown.text or "could not be calculated" in shown.text):
                yield shown.path


# What stands over a place


@holds("The engine and the pages name the same cover over a place", "opening, place")
def same_cover(p: Pages) -> Found:
    for place in p.outdoors:
        forecast, there = p.forecasts.get(place.pk), p.all_standing(place)
        watch = forecast.watch if forecast else None
        if watch is None:
            continue
        roofed = [one.key for one in there if not cover_kind(one.key).is_planted_through]
        if (watch.cover or None) != (roofed[0] if roofed else None):
            yield f"{place}: {watch.cover!r} and {roofed}"


@holds("What stands over a bed is among what Compare covers offers", "covers")
def offered_there(p: Pages) -> Found:
    for place in p.outdoors:
        there = p.standing(place)
        if there is None or place.pk not in p.grounds:
            continue
        shown = p.page("covers", place=place.pk, crop="", on=p.today.isoformat(), warm=14)
        page = shown["page"] if shown else None
        if page and page.rows and not any("already" in row.busy for row in page.rows):
            yield f"{place}: {there.name} is not among {[row.name for row in page.rows]}"


@holds("Compare covers lists them by what it says it sorts by", "covers")
def sorted_covers(p: Pages) -> Found:
    for place in p.outdoors[:1]:
        shown = p.page("covers", place=place.pk, crop="", on=p.today.isoformat(), warm=14)
        page = shown["page"] if shown else None
        gains = [_kelvin(row.gain) for row in page.rows] if page and page.rows else []
        if any(one < two - 0.15 for one, two in pairwise(gains)):
            yield f"{place}: {gains}"


def _kelvin(text: str) -> float:
    found = re.match(r"(−?[\d.]+)° (warmer|colder)", text)
    return 0.0 if not found else float(found[1].replace("−", "-")) * (1 if found[2] == "warmer" else -1)


@holds("A place with a cover of its kind has the same roof in its plan as in Open and close", "cover_timetable, opening")
def same_roof(p: Pages) -> Found:
    for place in p.outdoors:
        roofs = roofs_from(place, p.today)
        shown = p.page("cover_timetable", place.pk)
        if roofs and shown and shown["page"].rows and shown["page"].tried:
            yield f"{place}: tries {shown['page'].tried}, though {roofs[0].name} stands there"


@holds("A usual cover is told only where no cover was ever noted by date", "place")
def usual_only(p: Pages) -> Found:
    for place in p.outdoors:
        shown = p.page("place", place.pk)
        usual = place.kind in USUAL_COVER and not place.cover_periods.exists()
        if shown and ("Cloche assumes that a" in shown.text) is not usual:
            yield f"{place}: {usual}"


# Frost dates


@holds("Frost dates are in order, and spring's lie before autumn's", "windows")
def frosts_in_order(p: Pages) -> Found:
    frosts = frosts_of(p.garden)
    if frosts and frosts.spring and list(frosts.spring) != sorted(frosts.spring):
        yield str(frosts.spring)
    if frosts and frosts.autumn and list(frosts.autumn) != sorted(frosts.autumn):
        yield str(frosts.autumn)
    if frosts and frosts.spring and frosts.autumn and frosts.spring[1] > frosts.autumn[1]:
        yield f"{frosts.spring} {frosts.autumn}"


@holds("All places of a garden rest on the same source of frost dates", "stored")
def one_source(p: Pages) -> Found:
    sources = {one.frosts.source for one in p.forecasts.values()}
    if len(sources) > 1:
        yield str(sources)


@holds("A change of their source is announced", "windows, today")
def announced(p: Pages) -> Found:
    frosts, shown = frosts_of(p.garden), p.page("windows")
    if frosts and shown:
        told = frosts_changed(frosts, p.today)
        if told and told not in shown.text:
            yield told


# Verdicts


@holds(
    "A crop's line on its place's page tells the same window as its own page and the season", "place, crop_in_place, windows"
)
def same_window(p: Pages) -> Found:
    season = p.page("windows")
    rows = [row for group in season["page"].groups for row in group.rows] if season else []
    for row in rows:
        outlook = next((o for o in p.outlooks if o.better and (o.place_id, o.crop_key) == (row.place.pk, row.line.key)), None)
        if outlook is None:
            yield f"{row.line.name} in {row.place}"
        elif row.line.open_now != crop_line(outlook, p.today).open_now:
            yield f"{row.line.name} in {row.place}: open {row.line.open_now}"


@holds("What Today offers to sow in a bed is open on the bed's own page", "today, place")
def sowable_is_open(p: Pages) -> Found:
    today = p.page("today")
    direct = open_now([o for o in p.outlooks if o.better])  # type: ignore[misc]
    for now in today["page"].places if today else []:
        place = p.page("place", now.line.place.pk)
        if place is None or now.line.place.kind in BENCHES:
            continue
        lines = {line.key for line in place["crops"].lines if line.open_now and not line.planted}
        offered = {one.key for one in now.sow}
        if not offered <= lines or len(offered) + now.more != len(direct.get(now.line.place.pk, {})):
            yield f"{now.line.place}: {offered} and {lines}"


@holds("A crop that hardly ever succeeds in a place is not offered there", "today, windows")
def hopeless_not_offered(p: Pages) -> Found:
    for one in p.outlooks:
        if one.hopeless and (one.sow_now or one.windows):
            yield f"{one.crop_key} in {one.place}"


@holds("Inside a window the slider says that it succeeds at least seven times in ten", "crop_in_place")
def windows_are_sure(p: Pages) -> Found:
    for one in p.outlooks:
        rule = p.garden.sowing_rule
        for window in one.windows if not rule else []:
            middle = window.best_from + (window.best_to - window.best_from) // 2
            verdict = verdict_on(one, middle, p.today)
            if verdict is not None and verdict.chance < 0.7:
                yield f"{one.crop_key} in {one.place} on {middle}: {verdict.chance:.2f}"


@holds("The days of a window follow each other, and windows do not overlap", "windows")
def window_order(p: Pages) -> Found:
    for one in p.outlooks:
        for window in one.windows:
            days = [window.earliest, window.best_from, window.best_to, window.last]
            if days != sorted(days):
                yield f"{one.crop_key} in {one.place}: {days}"
        if any(a.last >= b.earliest for a, b in pairwise(one.windows)):
            yield f"{one.crop_key} in {one.place}: overlap"


@holds("The slider's harvest comes after emergence, and only where at least half of the runs bring one", "crop_in_place")
def harvest_after_emergence(p: Pages) -> Found:
    for one in p.outlooks[::3]:
        for offset in (0, 14, 28):
            verdict = verdict_on(one, p.today + timedelta(days=offset), p.today)
            if verdict is None or verdict.harvest_on is None:
                continue
            late = verdict.half_on is not None and verdict.harvest_on <= verdict.half_on
            if late or (verdict.is_risky and not _winters(one.crop_key)):
                yield f"{one.crop_key} in {one.place} on {verdict.on}"


def _winters(key: str) -> bool:
    from cloche.bridge.services.crops import crop

    return crop(key).winter is not None


@holds("A crop's page tells a harvest exactly where the verdict on that day has one", "crop_in_place")
def harvest_told(p: Pages) -> Found:
    for one in p.outlooks[::4]:
        shown = p.page("crop_in_place", one.place_id, one.crop_key, method=one.method, **{"in": "0"})
        verdict = verdict_on(one, p.today, p.today)
        part = (shown.context.get("sowing") or shown.context.get("planting")) if shown else None
        if part is None or verdict is None or one.place.kind in BENCHES or not part.after:
            continue
        if ("Harvest about" in part.after) is not (verdict.harvest_on is not None) and "for years" not in part.after:
            yield f"{one.crop_key} in {one.place}: {part.after!r}"


@holds("The plan warns of a planting exactly where the slider has it fail more often than not", "bed_plan, crop_in_place")
def plan_warns(p: Pages) -> Found:
    outlooks = {(o.place_id, o.crop_key, o.sown): o for o in p.outlooks}
    for one in p.plantings:
        outlook = outlooks.get((one.place_id, one.crop_key, one.is_seeded))
        if outlook is None or one.planted_on or not one.planned_on:
            continue
        verdict = verdict_on(outlook, max(one.planned_on, p.today), p.today)
        shown = p.page("planting", one.pk)
        if verdict and shown and ("would fail" in " ".join(shown["page"].lines)) is not (verdict.chance < RISKY):
            yield f"{one.crop_key} in {one.place} on {one.planned_on}: {verdict.chance:.2f}"


@holds("Today says to sow what was meant only while its window is open or none opens later", "today, crop_in_place")
def sow_or_wait(p: Pages) -> Found:
    today = p.page("today")
    lines = {line.key: line for line in today["page"].day.jobs} if today else {}
    for job in p.jobs:
        if str(job.kind) == "sow" and job.key in lines:
            waits = job.facts.opens is not None and not job.facts.is_open and job.facts.opens > p.today  # type: ignore[union-attr]
            if lines[job.key].do.startswith("Wait") is not waits:
                yield f"{lines[job.key].do}: {lines[job.key].why}"


@holds("The file of windows has the windows of the pages", "windows_csv, windows")
def same_file(p: Pages) -> Found:
    table = p.page("windows_csv")
    if table:
        for one in p.outlooks:
            if one.better and one.windows and one.windows[0].earliest.isoformat() not in table.text:
                yield f"{one.crop_key} in {one.place}: {one.windows[0].earliest}"


# The life of a sowing


@holds("A total in the end is never below what was counted, nor above what was sown", "sowings")
def totals(p: Pages) -> Found:
    for one in p.sowings:
        progress = p.progress[one.pk]
        if progress.expected and one.seeds:
            low, middle, high = progress.expected
            if not (progress.counted or 0) <= low <= middle <= high <= max(one.seeds, progress.counted or 0):
                yield f"{one.crop_key}: {progress.counted} counted, {progress.expected} of {one.seeds}"


@holds("Sowings, Today and a sowing's life know the same state of it", "sowings, today, life")
def same_state(p: Pages) -> Found:
    shown = p.page("sowings")
    lines = {line.sowing.pk: line for line in shown["page"].awaited} if shown else {}
    for one in p.sowings:
        state, job = p.progress[one.pk].state, p.job_of("overdue", one.pk)
        if one.pk in lines and lines[one.pk].overdue is not (state is State.OVERDUE):
            yield f"{one.crop_key}: overdue on Sowings {lines[one.pk].overdue}, {state}"
        if (job is not None) is not (state is State.OVERDUE):
            yield f"{one.crop_key}: {state}, job {job}"


@holds("Nothing that was counted is asked to be counted as if it had not shown", "today")
def counted_once(p: Pages) -> Found:
    for one in p.sowings:
        if p.progress[one.pk].counted and (p.job_of("count", one.pk) or p.job_of("overdue", one.pk)):
            yield one.crop_key


@holds("A sowing of which nothing is seen is not to be potted on, hardened off or planted out", "today, bench, life")
def silent_is_not_raised(p: Pages) -> Found:
    for job in p.jobs:
        if str(job.kind) == "raise":
            sowing = job.facts.life.sowing  # type: ignore[union-attr]
            if p.progress[sowing.pk].state in (State.OVERDUE, State.FAILED, State.PLANTED_OUT):
                yield f"{sowing.crop_key}: {p.progress[sowing.pk].state} and {job.key}"


@holds("A step that was taken is not advised again", "today, life")
def steps_once(p: Pages) -> Found:
    for job in p.jobs:
        if str(job.kind) == "raise":
            life = job.facts.life  # type: ignore[union-attr]
            taken = {step.kind for step in life.sowing.steps.all()}
            if (job.facts.due is Due.HEAT_OFF and "heat_off" in taken) or (  # type: ignore[union-attr]
                job.facts.due is Due.HARDEN and "hardening" in taken  # type: ignore[union-attr]
            ):
                yield f"{life.sowing.crop_key}: {job.facts.due}"  # type: ignore[union-attr]


@holds("What was planted out stands in the plan of its bed, linked, and no longer on the bench", "life, bed_plan, bench")
def planted_out(p: Pages) -> Found:
    bench = p.page("bench")
    on_bench = {one.pk for room in bench["page"].rooms for tray in room.trays for one in tray.sown} if bench else set()
    for one in p.sowings:
        if p.progress[one.pk].state is not State.PLANTED_OUT:
            continue
        if one.pk in on_bench:
            yield f"{one.crop_key} still on the bench"
        if not any(each.sowing_id == one.pk and each.planted_on for each in p.plantings):
            yield f"{one.crop_key} in {one.place}: not in the plan"


@holds("Half up is the same day on Sowings and in a sowing's life", "sowings, life")
def same_half(p: Pages) -> Found:
    from cloche.apps.bench.life import life_of

    shown = p.page("sowings")
    for line in [*shown["page"].awaited, *shown["page"].over] if shown else []:
        life = life_of(line.sowing, p.garden, line.sowing.place, p.today, None)
        if line.half_on != life.raised.half_on:
            yield f"{line.name}: {line.half_on} and {life.raised.half_on}"


@holds("A sowing that is not half up by its count is not told as up for weeks", "life, bench")
def counts_first(p: Pages) -> Found:
    for one in p.sowings:
        progress = p.progress[one.pk]
        if progress.counted == 0 and progress.half_on is not None and progress.half_on < p.today and not one.finished:
            yield f"{one.crop_key}: 0 counted, half up {progress.half_on}"


@holds("A crop is half up before all of it is", "sowings")
def half_before_most(p: Pages) -> Found:
    for one in p.sowings:
        progress = p.progress[one.pk]
        if progress.half_on and progress.most_on and progress.half_on > progress.most_on:
            yield f"{one.crop_key}: {progress.half_on} and {progress.most_on}"


# Opening, nights


@holds("Today says to open what Open and close says to open, and nothing where nothing grows", "today, opening")
def same_opening(p: Pages) -> Found:
    opening = p.page("opening")
    plans = {plan.place.pk: plan for plan in opening["page"].plans} if opening else {}
    for job in p.jobs:
        if str(job.kind) == "open":
            watched = job.facts.watched  # type: ignore[union-attr]
            if not watched.data.growing:
                yield f"{job.place}: nothing grows there"
            if job.place_pk not in plans:
                yield f"{job.place}: not on the page"


@holds("A job to open is never of an hour that has passed", "today")
def open_in_time(p: Pages) -> Found:
    for job in p.jobs:
        if str(job.kind) in ("open", "doors"):
            facts: Any = job.facts
            plan = facts.watched.days[0].plan if str(job.kind) == "open" else facts.watched.data.doors[0]
            if facts.number == 0 and facts.watched.is_past(0, plan):
                yield f"{job.place}: {job.at}"


@holds("A cover is kept closed only where it stays below the limit, and opened only where it may come near", "opening")
def reason_fits_opening(p: Pages) -> Found:
    for place in p.outdoors:
        watch = p.forecasts[place.pk].watch if place.pk in p.forecasts else None
        for day in watch.covered.days if watch and watch.covered else []:
            plan, limit = day.plan, watch.limits.hot_c  # type: ignore[union-attr]
            if plan.opening == 0 and plan.hottest_shut_c[1] > limit + 0.1:
                yield f"{place}: closed at {plan.hottest_shut_c}, limit {limit}"
            if plan.opening > 0 and plan.hottest_shut_c[1] < limit - 3.0:
                yield f"{place}: open at {plan.hottest_shut_c}, limit {limit}"


@holds("Where no opening is said to be enough, wide open passes the limit", "opening")
def too_hot_is_hot(p: Pages) -> Found:
    for place in p.outdoors:
        watch = p.forecasts[place.pk].watch if place.pk in p.forecasts else None
        for day in watch.covered.days if watch and watch.covered else []:
            if not day.plan.holds and day.plan.risk > 0.25 and day.plan.hottest_c[1] <= watch.limits.hot_c:  # type: ignore[union-attr]
                yield f"{place}: {day.plan.hottest_c}"


@holds("A night that needs nothing is no colder, at worst, than what grows there survives", "opening, today")
def night_fits(p: Pages) -> Found:
    for place in p.outdoors:
        watch = p.forecasts[place.pk].watch if place.pk in p.forecasts else None
        for night in watch.nights if watch else []:
            if night.way is None and night.holds and night.coldest_left_c[1] < (watch.limits.cold_c or -99.0) - 0.1:  # type: ignore[union-attr]
                yield f"{place}: {night.coldest_left_c} and {watch.limits.cold_c}"  # type: ignore[union-attr]


@holds("Only what grows in the open or under a cover is protected at night", "today")
def night_jobs_have_plants(p: Pages) -> Found:
    for job in p.jobs:
        if str(job.kind) == "night" and not job.facts.watched.data.growing:  # type: ignore[union-attr]
            yield job.place


# Heat


@holds("A heater is on for a share of the day between none and all, and uses what its watts say", "tray")
def heat_adds_up(p: Pages) -> Found:
    for place in p.places:
        known = p.grounds.get(place.pk)
        heat = known.data.heat if known else None
        for (low, mid, high), kwh in zip(heat.duty, heat.kwh, strict=False) if heat else []:
            if not 0 <= low <= mid <= high <= 1.001 or abs(kwh - mid * 24 * heat.watts / 1000) > 0.02 + 0.02 * kwh:  # type: ignore[union-attr]
                yield f"{place}: {low, mid, high} {kwh}"
                break


@holds("A heated tray's page tells the heat source that is written down for it", "tray")
def heat_is_listed(p: Pages) -> Found:
    for place in p.places:
        shown = p.page("tray", place.pk)
        if shown and len(shown["page"].heat) != place.heat_periods.count():
            yield f"{place}"


@holds("What heat would do takes every tray that its own link names", "heat_gains, tray")
def heat_link(p: Pages) -> Found:
    for place in p.places:
        if place.kind in BENCH_KINDS:
            shown = p.page("heat_gains", place=place.pk)
            if shown and shown["form"].errors:
                yield f"{place}: {dict(shown['form'].errors)}"


@holds("A hotbed warms trays and roots only before it has faded", "hotbed")
def hotbed_order(p: Pages) -> Found:
    from cloche.apps.places.selectors import filled_on
    from cloche.bridge.services.hotbeds import TRAYS_FROM_C, times_of

    for place in p.places:
        if place.kind == "hotbed" and place.pk in p.grounds:
            times = times_of(p.grounds[place.pk].data, p.today, filled_on(place))
            if times.trays and (times.peak_c < TRAYS_FROM_C or (times.fades and times.trays > times.fades)):
                yield f"{place}: {times}"


@holds("Nothing is offered for sowing where a hotbed has no earth", "place, today")
def no_earth_no_seed(p: Pages) -> Found:
    for place in p.places:
        bed = getattr(place, "hotbed", None) if place.kind == "hotbed" else None
        if bed is not None and bed.soil_m == 0 and any(o.place_id == place.pk for o in p.outlooks):
            yield f"{place}"
