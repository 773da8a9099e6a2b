"""Where one of the garden's covers would buy most, bed by bed, per season and per coin."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.covers.flows import bed_answers
from cloche.apps.covers.models import BedAnswer
from cloche.apps.places.models import Cover, Place
from cloche.apps.places.place_covers import cover_on
from cloche.apps.shared import words
from cloche.bridge.services import covers, crops
from cloche.bridge.values.cover_answers import BedGain
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
    answers = bed_answers.answers_for(cover, today)
    places = list(bed_answers.beds_for(cover).prefetch_related("cover_periods"))
    lines = [_line(cover, place, answers[place.pk], units, today) for place in places if place.pk in answers]
    lines.sort(key=lambda line: -line.days)
    waiting = [place.name for place in places if place.pk not in answers]
    return Compared(cover, _headline(cover, lines, waiting), _sub(cover, lines), lines, waiting)


def _line(cover: Cover, place: Place, answered: BedAnswer, units: Units, today: date) -> BedLine:
    bed_gain: BedGain = answered.answer
    gained = sorted(((crops.crop(key).name, days) for key, days in bed_gain.gained), key=lambda g: -g[1])
    text = ", ".join(f"{name} {words.count(days, 'day', 'days')}" for name, days in gained)
    taken = _("something stands there now") if _is_taken(place, cover, today) else ""
    gain = _("{difference} warmer over a fortnight").format(difference=units.difference_text(bed_gain.gain_k))
    return BedLine(place.pk, place.name, gain, text, sum(days for _unused, days in gained), taken)


def _is_taken(place: Place, cover: Cover, today: date) -> bool:
    """Whether another cover stands there: by date, or because one always does where none is noted."""
    there = cover_on(place, today)
    return there is not None and there.item != cover


def _headline(cover: Cover, lines: list[BedLine], waiting: list[str]) -> str:
    if waiting:
        beds = words.count(len(waiting), "bed is", "beds are")
        return _("Trying {name} on every bed: {beds} still to come.").format(name=cover.name, beds=beds)
    best = next((line for line in lines if not line.taken), None)
    if best is None:
        return _("No bed is free for {name}, or none is worked out yet.").format(name=cover.name)
    if not best.days:
        return _("{name} makes no sowing possible sooner anywhere now.").format(name=cover.name)
    return _("{name} gains most on {name2} now: {count}.").format(
        name=cover.name, name2=best.name, count=words.count(best.days, "crop day", "crop days")
    )


def _sub(cover: Cover, lines: list[BedLine]) -> str:
    text = _("A crop day: one of your crops can be sown one day sooner than in the bare bed, if the cover goes on today.")
    best = next((line.days for line in lines if not line.taken), 0)
    if cover.price and best:
        season = cover.price / covers.lasts_y(cover.kind)
        text += _(" A season of it costs {season}, so there a crop day costs {season2}.").format(
            season=f"{season:.2f}", season2=f"{season / best:.2f}"
        )
    return text
