"""What must hold of frost dates, windows and what would come of a day."""

from __future__ import annotations

from datetime import timedelta
from itertools import pairwise

from bench.agree.listed import Contradictions, holds
from bench.agree.pages import Pages
from cloche.apps.forecasts.selectors import frosts_of, open_now
from cloche.apps.windows.pages.place import crop_line
from cloche.apps.windows.pages.season import frosts_changed
from cloche.apps.windows.prospects import RISKY, prospect_on
from cloche_engine.places.kinds import BENCHES

# Frost dates


@holds("Frost dates are in order, and spring's lie before autumn's", "windows")
def frosts_in_order(p: Pages) -> Contradictions:
    frosts = frosts_of(p.garden)
    if frosts and frosts.spring and list(frosts.spring) != sorted(frosts.spring):
        yield str(frosts.spring)
    if frosts and frosts.autumn and list(frosts.autumn) != sorted(frosts.autumn):
        yield str(frosts.autumn)
    if frosts and frosts.spring and frosts.autumn and frosts.spring[1] > frosts.autumn[1]:
        yield f"{frosts.spring} {frosts.autumn}"


@holds("All places of a garden rest on the same source of frost dates", "stored")
def one_source(p: Pages) -> Contradictions:
    sources = {forecast.frosts.source for forecast in p.forecasts.values()}
    if len(sources) > 1:
        yield str(sources)


@holds("A change of their source is announced", "windows, today")
def announced(p: Pages) -> Contradictions:
    frosts, shown = frosts_of(p.garden), p.page("windows")
    if frosts and shown:
        change = frosts_changed(frosts, p.today)
        if change and change not in shown.text:
            yield change


# What would come of a day


@holds(
    "A crop's line on its place's page tells the same window as its own page and the season", "place, crop_in_place, windows"
)
def same_window(p: Pages) -> Contradictions:
    season = p.page("windows")
    rows = [row for group in season["page"].groups for row in group.rows] if season else []
    for row in rows:
        outlook = next((o for o in p.outlooks if o.better and (o.place_id, o.crop_key) == (row.place.pk, row.line.key)), None)
        if outlook is None:
            yield f"{row.line.name} in {row.place}"
        elif row.line.open_now != crop_line(outlook, p.today).open_now:
            yield f"{row.line.name} in {row.place}: open {row.line.open_now}"


@holds("What Today offers to sow in a bed is open on the bed's own page", "today, place")
def sowable_is_open(p: Pages) -> Contradictions:
    today = p.page("today")
    direct = open_now([o for o in p.outlooks if o.better])  # type: ignore[misc]
    for now in today["page"].places if today else []:
        place = p.page("place", now.line.place.pk)
        if place is None or now.line.place.kind in BENCHES:
            continue
        lines = {line.key for line in place["crops"].lines if line.open_now and not line.planted}
        offered = {offer.key for offer in now.sow}
        if not offered <= lines or len(offered) + now.more != len(direct.get(now.line.place.pk, {})):
            yield f"{now.line.place}: {offered} and {lines}"


@holds("A crop that hardly ever succeeds in a place is not offered there", "today, windows")
def hopeless_not_offered(p: Pages) -> Contradictions:
    for outlook in p.outlooks:
        if outlook.hopeless and (outlook.sow_now or outlook.windows):
            yield f"{outlook.crop_key} in {outlook.place}"


@holds("Inside a window the slider says that it succeeds at least seven times in ten", "crop_in_place")
def windows_are_sure(p: Pages) -> Contradictions:
    for outlook in p.outlooks:
        rule = p.garden.sowing_rule
        for window in outlook.windows if not rule else []:
            middle = window.best_from + (window.best_to - window.best_from) // 2
            prospect = prospect_on(outlook, middle, p.today)
            if prospect is not None and prospect.chance < 0.7:
                yield f"{outlook.crop_key} in {outlook.place} on {middle}: {prospect.chance:.2f}"


@holds("The days of a window follow each other, and windows do not overlap", "windows")
def window_order(p: Pages) -> Contradictions:
    for outlook in p.outlooks:
        for window in outlook.windows:
            days = [window.earliest, window.best_from, window.best_to, window.last]
            if days != sorted(days):
                yield f"{outlook.crop_key} in {outlook.place}: {days}"
        if any(a.last >= b.earliest for a, b in pairwise(outlook.windows)):
            yield f"{outlook.crop_key} in {outlook.place}: overlap"


@holds("The slider's harvest comes after emergence, and only where at least half of the runs bring one", "crop_in_place")
def harvest_after_emergence(p: Pages) -> Contradictions:
    for outlook in p.outlooks[::3]:
        for offset in (0, 14, 28):
            prospect = prospect_on(outlook, p.today + timedelta(days=offset), p.today)
            if prospect is None or prospect.harvest_on is None:
                continue
            late = prospect.half_on is not None and prospect.harvest_on <= prospect.half_on
            if late or (prospect.is_risky and not _winters(outlook.crop_key)):
                yield f"{outlook.crop_key} in {outlook.place} on {prospect.on}"


def _winters(key: str) -> bool:
    from cloche.bridge.services.crops import crop

    return crop(key).winter is not None


@holds("A crop's page tells a harvest exactly where the slider has one", "crop_in_place")
def harvest_told(p: Pages) -> Contradictions:
    for outlook in p.outlooks[::4]:
        shown = p.page("crop_in_place", outlook.place_id, outlook.crop_key, method=outlook.method, **{"in": "0"})
        prospect = prospect_on(outlook, p.today, p.today)
        part = (shown.context.get("sowing") or shown.context.get("planting")) if shown else None
        if part is None or prospect is None or outlook.place.kind in BENCHES or not part.after:
            continue
        if ("Harvest about" in part.after) is not (prospect.harvest_on is not None) and "for years" not in part.after:
            yield f"{outlook.crop_key} in {outlook.place}: {part.after!r}"


@holds("The plan warns of a planting exactly where the slider has it fail more often than not", "bed_plan, crop_in_place")
def plan_warns(p: Pages) -> Contradictions:
    outlooks = {(o.place_id, o.crop_key, o.sown): o for o in p.outlooks}
    for planting in p.plantings:
        outlook = outlooks.get((planting.place_id, planting.crop_key, planting.is_seeded))
        if outlook is None or planting.planted_on or not planting.planned_on:
            continue
        prospect = prospect_on(outlook, max(planting.planned_on, p.today), p.today)
        shown = p.page("planting", planting.pk)
        if prospect and shown and ("would fail" in " ".join(shown["page"].lines)) is not (prospect.chance < RISKY):
            yield f"{planting.crop_key} in {planting.place} on {planting.planned_on}: {prospect.chance:.2f}"


@holds("Today says to sow what was meant only while its window is open or none opens later", "today, crop_in_place")
def sow_or_wait(p: Pages) -> Contradictions:
    today = p.page("today")
    lines = {line.key: line for line in today["page"].day.jobs} if today else {}
    for job in p.jobs:
        if str(job.kind) == "sow" and job.key in lines:
            waits = job.facts.opens is not None and not job.facts.is_open and job.facts.opens > p.today  # type: ignore[union-attr]
            if lines[job.key].do.startswith("Wait") is not waits:
                yield f"{lines[job.key].do}: {lines[job.key].why}"


@holds("The file of windows has the windows of the pages", "windows_csv, windows")
def same_file(p: Pages) -> Contradictions:
    table = p.page("windows_csv")
    if table:
        for outlook in p.outlooks:
            if outlook.better and outlook.windows and outlook.windows[0].earliest.isoformat() not in table.text:
                yield f"{outlook.crop_key} in {outlook.place}: {outlook.windows[0].earliest}"
