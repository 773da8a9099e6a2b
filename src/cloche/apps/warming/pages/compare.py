"""Where one of the garden's covers would buy most, bed by bed, per season and per coin."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from cloche.apps.gardens import words
from cloche.apps.gardens.models import Cover, Place
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.warming.pages.whatif import aired, usual_crops
from cloche.apps.warming.selectors import coverable, now_over
from cloche.apps.windows.models import Basis
from cloche.apps.windows.told import described, item_told
from cloche.bridge import covers, crops, offered
from cloche.bridge.evidence import CoverSpan
from cloche.bridge.units import Units

MOST_BEDS = 12


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
    """Context of warming/compare.html."""

    cover: Cover
    headline: str
    sub: str
    beds: list[BedLine]


def where_most(cover: Cover, units: Units, today: date) -> Compared:
    """Put on today in each bed in turn. Asks the engine once a bed."""
    from cloche.bridge.whatif import Asked, what_if

    garden = cover.garden
    span = CoverSpan(cover.kind, **aired(cover.kind), **item_told(cover, today))  # type: ignore[arg-type]
    asked = Asked(0, 14, (span,), usual_crops(garden), garden.school != garden.School.MINIMUM)
    sowings, lines = list(sowings_in(garden)), list[BedLine]()
    bases = {basis.place_id: basis for basis in Basis.objects.filter(place__garden=garden)}
    for place in coverable(garden).prefetch_related("cover_periods"):
        if place.pk in bases and len(lines) < MOST_BEDS:
            _, under = what_if(bytes(bases[place.pk].kept), described(place, sowings), asked)
            gained = [(crops.crop(one.crop_key).name, one.gained_d) for one in under.crops if one.gained_d]
            said = ", ".join(f"{name} {words.count(days, 'day')}" for name, days in sorted(gained, key=lambda g: -g[1]))
            taken = "something stands there now" if _is_taken(place, cover, today) else ""
            gain = f"{units.difference_text(under.gain_k[1])} warmer over a fortnight"
            lines.append(BedLine(place.pk, place.name, gain, said, sum(days for _, days in gained), taken))
    lines.sort(key=lambda line: -line.days)
    return Compared(cover, _headline(cover, lines), _sub(cover, lines), lines)


def _is_taken(place: Place, cover: Cover, today: date) -> bool:
    """Whether another cover stands there: by date, or because one always does where none is noted."""
    period = now_over(place, today)
    if period is not None:
        return period.item_id != cover.pk
    return place.kind in offered.USUAL_COVER and not place.cover_periods.all()


def _headline(cover: Cover, lines: list[BedLine]) -> str:
    best = next((line for line in lines if not line.taken), None)
    if best is None:
        return f"No bed is free for {cover.name}, or none is worked out yet."
    if not best.days:
        return f"{cover.name} makes no sowing possible sooner anywhere now."
    return f"{cover.name} buys most on {best.name} now: {words.count(best.days, 'crop day')}."


def _sub(cover: Cover, lines: list[BedLine]) -> str:
    said = "A crop day is a day by which one of your crops could be sown sooner than in the bare bed, put on today."
    best = next((line.days for line in lines if not line.taken), 0)
    if cover.price and best:
        season = cover.price / covers.lasts_y(cover.kind)
        said += f" A season of it costs {season:.2f}, so there a crop day costs {season / best:.2f}."
    return said
