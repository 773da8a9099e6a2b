"""What must hold of every page, of the temperatures of a place and of what stands over it."""

from __future__ import annotations

import re
from itertools import pairwise

from bench.agree.listed import Contradictions, holds
from bench.agree.pages import Pages
from cloche.apps.forecasts.status import status_in
from cloche.apps.places.selectors import roofs_from
from cloche_engine.covers.kinds import kind as cover_kind
from cloche_engine.forecast.snapshots import POSSIBLE_C
from cloche_engine.places.kinds import usual_cover

# Every page

_HOLES = re.compile(r"\bnan\b|\binf\b|\bNone([°%;:)]| (d|days|up|W|cm|in|of 100)\b)|\{[a-z_0-9]+\}|%\([a-z_]+\)s")
_PLURALS = re.compile(r"(?<![\d.,−-])1 (days|weeks|seeds|seedlings|plants|hours|places|crops|jobs|sowings|readings|years)\b")
_STOPS = re.compile(r"\.\.(?!\.)| ,|,\.|\?\.")


@holds("No page shows a number that is none, or a placeholder", "all")
def no_holes(p: Pages) -> Contradictions:
    yield from (f"{page.path}: {match.group()}" for page in p.shown if (match := _HOLES.search(page.text)))


@holds("One of a thing is told in the singular", "all")
def plurals(p: Pages) -> Contradictions:
    yield from (f"{page.path}: {match.group()}" for page in p.shown if (match := _PLURALS.search(page.text)))


@holds("Sentences end once", "all")
def stops(p: Pages) -> Contradictions:
    for page in p.shown:
        if match := _STOPS.search(page.text):
            yield f"{page.path}: {page.text[max(match.start() - 40, 0) : match.end() + 10]!r}"


@holds("A page has a heading that says something", "all")
def headings(p: Pages) -> Contradictions:
    for shown in p.shown:
        page = shown.context.get("page") if shown.context else None
        if page is not None and hasattr(page, "headline") and not page.headline and not getattr(page, "waiting", ""):
            yield shown.path


# Temperatures of a place


@holds("The soil now is the same number on Today and on Ground", "today, ground")
def soil_now(p: Pages) -> Contradictions:
    today, ground = p.page("today"), p.page("ground")
    if today and ground:
        numbers = {line.place.pk: line.number for line in ground["lines"]}
        for now in today["page"].places:
            if numbers[now.line.place.pk] != now.line.number:
                yield f"{now.line.place}: {now.line.number} and {numbers[now.line.place.pk]}"


@holds("A place's page names the same soil now as Ground", "place, ground")
def soil_at_place(p: Pages) -> Contradictions:
    ground = p.page("ground")
    for line in ground["lines"] if ground else []:
        shown = p.page("place", line.place.pk)
        if shown and line.cut is not None and line.number not in shown["part"].sub:
            yield f"{line.place}: {line.number} not in {shown['part'].sub!r}"


@holds("The day's mean of a place is the same on Today and on its own page", "today, place")
def day_mean(p: Pages) -> Contradictions:
    today = p.page("today")
    for now in today["page"].places if today else []:
        shown = p.page("place", now.line.place.pk)
        number = now.day_figure.rpartition(" ")[2]
        if shown and now.day_figure and number not in shown["part"].headline:
            yield f"{now.line.place}: {now.day_figure} and {shown['part'].headline!r}"


@holds("A tray has the same day's mean at its roots on the bench and on Today", "bench, today")
def tray_roots(p: Pages) -> Contradictions:
    bench, today = p.page("bench"), p.page("today")
    means = {now.line.place.pk: now.day_figure.rpartition(" ")[2] for now in today["page"].places} if today else {}
    for room in bench["page"].rooms if bench else []:
        for tray in room.trays:
            if tray.number and means.get(tray.place.pk, tray.number) != tray.number:
                yield f"{tray.place}: {tray.number} and {means[tray.place.pk]}"


@holds("Numbers are in the reader's scale", "ground")
def scale(p: Pages) -> Contradictions:
    ground = p.page("ground")
    for line in ground["lines"] if ground else []:
        known = p.grounds.get(line.place.pk)
        if known and line.number != p.temperature(known.soil_at(p.world.now)):
            yield f"{line.place}: {line.number}"


@holds("Every stored temperature is finite and possible, and no band crosses", "stored")
def possible(p: Pages) -> Contradictions:
    for place in p.places:
        known = p.grounds.get(place.pk)
        if known:
            for low, mid, high in zip(known.data.far_low_c, known.data.far_mid_c, known.data.far_high_c, strict=True):
                if not POSSIBLE_C[0] <= low <= mid + 0.02 <= high + 0.04 <= POSSIBLE_C[1]:
                    yield f"{place}: {low} {mid} {high}"
                    break


@holds("Every place that the forms accepted has a forecast of today", "stored")
def everybody_has_one(p: Pages) -> Contradictions:
    for place in p.places:
        if place.pk not in p.grounds or p.grounds[place.pk].stale(p.today):
            yield f"{place} ({place.kind})"


@holds("Nothing is said to be calculated or failed once all forecasts are there", "today, ground, plan")
def nothing_waits(p: Pages) -> Contradictions:
    status = status_in(p.garden)
    if not status.calculating and not status.failed:
        for name in ("today", "ground", "plan"):
            shown = p.page(name)
            if shown and ("still being calculated" in shown.text or "could not be calculated" in shown.text):
                yield shown.path


# What stands over a place


@holds("The engine and the pages name the same cover over a place", "opening, place")
def same_cover(p: Pages) -> Contradictions:
    for place in p.outdoors:
        forecast, there = p.forecasts.get(place.pk), p.all_covers(place)
        watch = forecast.watch if forecast else None
        if watch is None:
            continue
        roofed = [cover.key for cover in there if not cover_kind(cover.key).is_planted_through]
        if (watch.cover or None) != (roofed[0] if roofed else None):
            yield f"{place}: {watch.cover!r} and {roofed}"


@holds("What stands over a bed is among what Compare covers offers", "covers")
def offered_there(p: Pages) -> Contradictions:
    for place in p.outdoors:
        there = p.cover_on_place(place)
        if there is None or place.pk not in p.grounds:
            continue
        shown = p.page("covers", place=place.pk, crop="", on=p.today.isoformat(), warm=14)
        page = shown["page"] if shown else None
        if page and page.rows and not any("already" in row.busy for row in page.rows):
            yield f"{place}: {there.name} is not among {[row.name for row in page.rows]}"


@holds("Compare covers lists them by what it says it sorts by", "covers")
def sorted_covers(p: Pages) -> Contradictions:
    for place in p.outdoors[:1]:
        shown = p.page("covers", place=place.pk, crop="", on=p.today.isoformat(), warm=14)
        page = shown["page"] if shown else None
        gains = [_kelvin(row.gain) for row in page.rows] if page and page.rows else []
        if any(shorter < longer - 0.15 for shorter, longer in pairwise(gains)):
            yield f"{place}: {gains}"


def _kelvin(text: str) -> float:
    match = re.match(r"(−?[\d.]+)° (warmer|colder)", text)
    return 0.0 if not match else float(match[1].replace("−", "-")) * (1 if match[2] == "warmer" else -1)


@holds("A place with a cover of its kind has the same roof in its plan as in Open and close", "cover_timetable, opening")
def same_roof(p: Pages) -> Contradictions:
    for place in p.outdoors:
        roofs = roofs_from(place, p.today)
        shown = p.page("cover_timetable", place.pk)
        if roofs and shown and shown["page"].rows and shown["page"].tried:
            yield f"{place}: tries {shown['page'].tried}, though {roofs[0].name} stands there"


@holds("A usual cover is told only where no cover was ever noted by date", "place")
def usual_only(p: Pages) -> Contradictions:
    for place in p.outdoors:
        shown = p.page("place", place.pk)
        usual = usual_cover(place.kind, place.within) is not None and not place.cover_periods.exists()
        if shown and ("Cloche assumes that a" in shown.text) is not usual:
            yield f"{place}: {usual}"
