"""What must hold of the life of a sowing, of openings and nights, and of heat."""

from __future__ import annotations

from typing import Any

from bench.agree.listed import Contradictions, holds
from bench.agree.pages import Pages
from cloche.apps.sowings.selectors import State
from cloche_engine.places.kinds import BENCH_KINDS
from cloche_engine.windows.raised_life import Due

# The life of a sowing


@holds("A total in the end is never below what was counted, nor above what was sown", "sowings")
def totals(p: Pages) -> Contradictions:
    for sowing in p.sowings:
        progress = p.progress[sowing.pk]
        if progress.expected and sowing.seeds:
            low, middle, high = progress.expected
            if not (progress.counted or 0) <= low <= middle <= high <= max(sowing.seeds, progress.counted or 0):
                yield f"{sowing.crop_key}: {progress.counted} counted, {progress.expected} of {sowing.seeds}"


@holds("Sowings, Today and a sowing's life know the same state of it", "sowings, today, life")
def same_state(p: Pages) -> Contradictions:
    shown = p.page("sowings")
    lines = {line.sowing.pk: line for line in shown["page"].awaited} if shown else {}
    for sowing in p.sowings:
        state, job = p.progress[sowing.pk].state, p.job_of("overdue", sowing.pk)
        if sowing.pk in lines and lines[sowing.pk].overdue is not (state is State.OVERDUE):
            yield f"{sowing.crop_key}: overdue on Sowings {lines[sowing.pk].overdue}, {state}"
        if (job is not None) is not (state is State.OVERDUE):
            yield f"{sowing.crop_key}: {state}, job {job}"


@holds("Nothing that was counted is asked to be counted as if it had not shown", "today")
def counted_once(p: Pages) -> Contradictions:
    for sowing in p.sowings:
        if p.progress[sowing.pk].counted and (p.job_of("count", sowing.pk) or p.job_of("overdue", sowing.pk)):
            yield sowing.crop_key


@holds("A sowing of which nothing is seen is not to be potted on, hardened off or planted out", "today, bench, life")
def silent_is_not_raised(p: Pages) -> Contradictions:
    for job in p.jobs:
        if str(job.kind) == "raise":
            sowing = job.facts.life.sowing  # type: ignore[union-attr]
            if p.progress[sowing.pk].state in (State.OVERDUE, State.FAILED, State.PLANTED_OUT):
                yield f"{sowing.crop_key}: {p.progress[sowing.pk].state} and {job.key}"


@holds("A step that was taken is not advised again", "today, life")
def steps_once(p: Pages) -> Contradictions:
    for job in p.jobs:
        if str(job.kind) == "raise":
            life = job.facts.life  # type: ignore[union-attr]
            taken = {step.kind for step in life.sowing.steps.all()}
            if (job.facts.due is Due.HEAT_OFF and "heat_off" in taken) or (  # type: ignore[union-attr]
                job.facts.due is Due.HARDEN and "hardening" in taken  # type: ignore[union-attr]
            ):
                yield f"{life.sowing.crop_key}: {job.facts.due}"  # type: ignore[union-attr]


@holds("What was planted out stands in the plan of its bed, linked, and no longer on the bench", "life, bed_plan, bench")
def planted_out(p: Pages) -> Contradictions:
    bench = p.page("bench")
    on_bench = {sowing.pk for room in bench["page"].rooms for tray in room.trays for sowing in tray.sown} if bench else set()
    for sowing in p.sowings:
        if p.progress[sowing.pk].state is not State.PLANTED_OUT:
            continue
        if sowing.pk in on_bench:
            yield f"{sowing.crop_key} still on the bench"
        if not any(each.sowing_id == sowing.pk and each.planted_on for each in p.plantings):
            yield f"{sowing.crop_key} in {sowing.place}: not in the plan"


@holds("Half up is the same day on Sowings and in a sowing's life", "sowings, life")
def same_half(p: Pages) -> Contradictions:
    from cloche.apps.bench.life import life_of

    shown = p.page("sowings")
    for line in [*shown["page"].awaited, *shown["page"].over] if shown else []:
        life = life_of(line.sowing, p.garden, line.sowing.place, p.today, None)
        if line.half_on != life.raised.half_on:
            yield f"{line.name}: {line.half_on} and {life.raised.half_on}"


@holds("A sowing that is not half up by its count is not told as up for weeks", "life, bench")
def counts_first(p: Pages) -> Contradictions:
    for sowing in p.sowings:
        progress = p.progress[sowing.pk]
        if progress.counted == 0 and progress.half_on is not None and progress.half_on < p.today and not sowing.finished:
            yield f"{sowing.crop_key}: 0 counted, half up {progress.half_on}"


@holds("A crop is half up before all of it is", "sowings")
def half_before_most(p: Pages) -> Contradictions:
    for sowing in p.sowings:
        progress = p.progress[sowing.pk]
        if progress.half_on and progress.most_on and progress.half_on > progress.most_on:
            yield f"{sowing.crop_key}: {progress.half_on} and {progress.most_on}"


# Opening, nights


@holds("Today says to open what Open and close says to open, and nothing where nothing grows", "today, opening")
def same_opening(p: Pages) -> Contradictions:
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
def open_in_time(p: Pages) -> Contradictions:
    for job in p.jobs:
        if str(job.kind) in ("open", "doors"):
            facts: Any = job.facts
            plan = facts.watched.days[0].plan if str(job.kind) == "open" else facts.watched.data.doors[0]
            if facts.number == 0 and facts.watched.is_past(0, plan):
                yield f"{job.place}: {job.at}"


@holds("A cover is kept closed only where it stays below the limit, and opened only where it may come near", "opening")
def reason_fits_opening(p: Pages) -> Contradictions:
    for place in p.outdoors:
        watch = p.forecasts[place.pk].watch if place.pk in p.forecasts else None
        for day in watch.covered.days if watch and watch.covered else []:
            plan, limit = day.plan, watch.limits.hot_c  # type: ignore[union-attr]
            if plan.opening == 0 and plan.hottest_shut_c[1] > limit + 0.1:
                yield f"{place}: closed at {plan.hottest_shut_c}, limit {limit}"
            if plan.opening > 0 and plan.hottest_shut_c[1] < limit - 3.0:
                yield f"{place}: open at {plan.hottest_shut_c}, limit {limit}"


@holds("Where no opening is said to be enough, wide open passes the limit", "opening")
def too_hot_is_hot(p: Pages) -> Contradictions:
    for place in p.outdoors:
        watch = p.forecasts[place.pk].watch if place.pk in p.forecasts else None
        for day in watch.covered.days if watch and watch.covered else []:
            if not day.plan.holds and day.plan.risk > 0.25 and day.plan.hottest_c[1] <= watch.limits.hot_c:  # type: ignore[union-attr]
                yield f"{place}: {day.plan.hottest_c}"


@holds("A night that needs nothing is no colder, at worst, than what grows there survives", "opening, today")
def night_fits(p: Pages) -> Contradictions:
    for place in p.outdoors:
        watch = p.forecasts[place.pk].watch if place.pk in p.forecasts else None
        for night in watch.nights if watch else []:
            if night.way is None and night.holds and night.coldest_left_c[1] < (watch.limits.cold_c or -99.0) - 0.1:  # type: ignore[union-attr]
                yield f"{place}: {night.coldest_left_c} and {watch.limits.cold_c}"  # type: ignore[union-attr]


@holds("Only what grows in the open or under a cover is protected at night", "today")
def night_jobs_have_plants(p: Pages) -> Contradictions:
    for job in p.jobs:
        if str(job.kind) == "night" and not job.facts.watched.data.growing:  # type: ignore[union-attr]
            yield job.place


# Heat


@holds("A heater is on for a share of the day between none and all, and uses what its watts say", "tray")
def heat_adds_up(p: Pages) -> Contradictions:
    for place in p.places:
        known = p.grounds.get(place.pk)
        heat = known.data.heat if known else None
        for (low, mid, high), kwh in zip(heat.duty, heat.kwh, strict=False) if heat else []:
            if not 0 <= low <= mid <= high <= 1.001 or abs(kwh - mid * 24 * heat.watts / 1000) > 0.02 + 0.02 * kwh:  # type: ignore[union-attr]
                yield f"{place}: {low, mid, high} {kwh}"
                break


@holds("A heated tray's page tells the heat source that is written down for it", "tray")
def heat_is_listed(p: Pages) -> Contradictions:
    for place in p.places:
        shown = p.page("tray", place.pk)
        if shown and len(shown["page"].heat) != place.heat_periods.count():
            yield f"{place}"


@holds("What heat would do takes every tray that its own link names", "heat_gains, tray")
def heat_link(p: Pages) -> Contradictions:
    for place in p.places:
        if place.kind in BENCH_KINDS:
            shown = p.page("heat_gains", place=place.pk)
            if shown and shown["form"].errors:
                yield f"{place}: {dict(shown['form'].errors)}"


@holds("A hotbed warms trays and roots only before it has faded", "hotbed")
def hotbed_order(p: Pages) -> Contradictions:
    from cloche.apps.places.selectors import filled_on
    from cloche.bridge.services.hotbeds import TRAYS_FROM_C, times_of

    for place in p.places:
        if place.kind == "hotbed" and place.pk in p.grounds:
            times = times_of(p.grounds[place.pk].data, p.today, filled_on(place))
            if times.trays and (times.peak_c < TRAYS_FROM_C or (times.fades and times.trays > times.fades)):
                yield f"{place}: {times}"


@holds("Nothing is offered for sowing where a hotbed has no earth", "place, today")
def no_earth_no_seed(p: Pages) -> Contradictions:
    for place in p.places:
        bed = getattr(place, "hotbed", None) if place.kind == "hotbed" else None
        if bed is not None and bed.soil_m == 0 and any(o.place_id == place.pk for o in p.outlooks):
            yield f"{place}"
