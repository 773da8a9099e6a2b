"""Where one of the garden's covers would buy most, bed by bed, per season and per coin."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from cloche.apps.covers.flows import bed_answers
from cloche.apps.covers.models import BedAnswer
from cloche.apps.covers.selectors import now_over
from cloche.apps.places.models import Cover, Place
from cloche.apps.shared import words
from cloche.bridge.services import covers, crops, offered
from cloche.bridge.values.stored import BedGain
from cloche.bridge.values.units import Units


@dataclass(frozen=True)
class BedLine:
    """A bed: its name and what the cover would do there; days: of all the crops together, gained."""

    pk: int
    name: str
    gain: str
    crops: str
    days: int
    taken: str


@dataclass(frozen=True)
class Compared:
    """Context of covers/compare.html. waiting: names of the beds that are still being worked
    out."""

    cover: Cover
    headline: str
    sub: str
    beds: list[BedLine]
    waiting: list[str]


def where_most(cover: Cover, units: Units, today: date) -> Compared:
    """Put on today in each bed in turn: what the queue has answered so far. What it has not is asked for."""
    answers = bed_answers.ask(cover, today)
    places = list(bed_answers.beds_for(cover).prefetch_related("cover_periods"))
    lines = [_line(cover, place, answers[place.pk], units, today) for place in places if place.pk in answers]
    lines.sort(key=lambda line: -line.days)
    waiting = [place.name for place in places if place.pk not in answers]
    return Compared(cover, _headline(cover, lines, waiting), _sub(cover, lines), lines, waiting)


def _line(cover: Cover, place: Place, answered: BedAnswer, units: Units, today: date) -> BedLine:
    found: BedGain = answered.answer
    gained = sorted(((crops.crop(key).name, days) for key, days in found.gained), key=lambda g: -g[1])
    text = ", ".join(f"{name} {words.count(days, 'day')}" for name, days in gained)
    taken = "something stands there now" if _is_taken(place, cover, today) else ""
    gain = f"{units.difference_text(found.gain_k)} warmer over a fortnight"
    return BedLine(place.pk, place.name, gain, text, sum(days for _, days in gained), taken)


def _is_taken(place: Place, cover: Cover, today: date) -> bool:
    """Whether another cover stands there: by date, or because one always does where none is noted."""
    period = now_over(place, today)
    if period is not None:
        return period.item_id != cover.pk
    return place.kind in offered.USUAL_COVER and not place.cover_periods.all()


def _headline(cover: Cover, lines: list[BedLine], waiting: list[str]) -> str:
    if waiting:
        beds = words.count(len(waiting), "bed is", "beds are")
        return f"Trying {cover.name} on every bed: {beds} still to come."
    best = next((line for line in lines if not line.taken), None)
    if best is None:
        return f"No bed is free for {cover.name}, or none is worked out yet."
    if not best.days:
        return f"{cover.name} makes no sowing possible sooner anywhere now."
    return f"{cover.name} buys most on {best.name} now: {words.count(best.days, 'crop day')}."


def _sub(cover: Cover, lines: list[BedLine]) -> str:
    text = "A crop day is a day by which one of your crops could be sown sooner than in the bare bed, put on today."
    best = next((line.days for line in lines if not line.taken), 0)
    if cover.price and best:
        season = cover.price / covers.lasts_y(cover.kind)
        text += f" A season of it costs {season:.2f}, so there a crop day costs {season / best:.2f}."
    return text
