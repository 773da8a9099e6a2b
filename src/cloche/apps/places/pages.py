"""What was done in a place and what stood over it, in words."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.places.selectors import covers_of
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.services import offered
from cloche.bridge.values.units import Units
from cloche_engine.places.kinds import NEVER_OPENED, OPENED_ABOVE_C, usual_cover
from cloche_engine.soil.bed import Work

WORK_NAMES = {
    Work.WATERED: lazy("watered"),
    Work.MULCHED: lazy("mulched"),
    Work.MULCH_OFF: lazy("mulch removed"),
    Work.COMPOST: lazy("compost spread"),
    Work.STONES: lazy("stones laid"),
    Work.DUG: lazy("bed dug"),
    Work.CANOPY: lazy("canopy closed"),
    Work.THINNED: lazy("thinned"),
    Work.HARVESTED: lazy("harvested"),
    Work.FILLED: lazy("hotbed filled"),
    Work.OPENED: lazy("cover opened"),
    Work.SHUT: lazy("cover closed"),
}
ON_ROUNDS = (
    Work.OPENED,
    Work.SHUT,
    Work.WATERED,
    Work.MULCHED,
    Work.COMPOST,
    Work.DUG,
    Work.STONES,
    Work.THINNED,
    Work.HARVESTED,
)
"""What is done to a place on a round, in the order of how often."""


def work_choices() -> list[tuple[str, str]]:
    """What growers do to a place, for choosing."""
    return [(str(work), name) for work, name in WORK_NAMES.items()]


def round_choices() -> list[tuple[str, str]]:
    """What is done to a place on a round, for choosing."""
    return [(str(work), WORK_NAMES[work]) for work in ON_ROUNDS]


def work_name(work: str) -> str:
    """Of something that was done."""
    return WORK_NAMES[Work(work)]


SHOWN_OPERATIONS = 6


@dataclass(frozen=True)
class Line:
    """A cover period or an operation: its number, what, when, how."""

    pk: int
    what: str
    when: str
    how: str
    on: bool = False


@dataclass(frozen=True)
class PlaceLog:
    """Context of places/_place_log.html. usual: what is taken to stand there while no cover is noted; opens: whether something
    stands there that is opened and shut."""

    covers: list[Line]
    operations: list[Line]
    usual: str
    opens: bool


def place_log_of(place: Place, units: Units, today: date) -> PlaceLog:
    """Covers, the latest first, and the latest operations."""
    covers = [cover_line(period, units, today) for period in reversed(place.cover_periods.select_related("item"))]
    zone = place.garden.timezone
    operations = [
        Line(
            operation.pk, words.sentence(work_name(operation.work)), words.day(operation.at.astimezone(zone).date(), today), ""
        )
        for operation in place.operations.all()[:SHOWN_OPERATIONS]
    ]
    there = [line.on for line in covers] if covers else [usual_cover(place.kind, place.within) is not None]
    return PlaceLog(covers, operations, "" if covers else _usual(place, units), any(there))


def cover_line(period: CoverPeriod, units: Units, today: date) -> Line:
    """One cover period."""
    name = period.item.name if period.item else words.sentence(cover_name(period.cover))
    if period.last is None:
        when = (
            _("since {day}").format(day=words.day(period.first, today))
            if period.first <= today
            else _("from {day}").format(day=words.day(period.first, today))
        )
    else:
        when = words.span(period.first, period.last, today)
    on = period.first <= today and (period.last is None or today <= period.last)
    return Line(period.pk, name, when, airing(period, units), on)


def the_cover(period: CoverPeriod) -> str:
    """One's own by its name, else “the” and its kind."""
    return period.item.name if period.item else _("the {cover_name}").format(cover_name=cover_name(period.cover))


def airing(period: CoverPeriod, units: Units) -> str:
    """How it is aired: closed; opened to stay below 26°; opened from 10 to 16."""
    parts = {
        CoverPeriod.Opens.CLOSED: _("kept closed"),
        CoverPeriod.Opens.ABOVE: _("opened to stay below {temperature}").format(
            temperature=units.temperature_text(period.above_c, 0)
        ),
        CoverPeriod.Opens.HOURS: _("opened from {start} to {end}").format(
            start=words.short_hour(period.from_h), end=words.short_hour(period.to_h)
        ),
    }
    text = parts[CoverPeriod.Opens(period.opens)]
    text += "" if period.ends_capped else _(", ends open")
    text += (
        "" if period.covered_m is None else _(", over {length} of the bed").format(length=units.length_text(period.covered_m))
    )
    return text + (_(", blanket at night") if period.blanket else "")


def cover_name(key: str) -> str:
    """A cover's name by its key."""
    return dict(offered.cover_names()).get(key, key)


def _usual(place: Place, units: Units) -> str:
    there = next(iter(covers_of(place)), None)
    if there is None or there.period is not None:
        return _("No cover entered.")
    key = there.key
    aired = (
        ""
        if key in NEVER_OPENED
        else _(", opened on sunny days to stay below {temperature}").format(
            temperature=units.temperature_text(OPENED_ABOVE_C, 0)
        )
    )
    return _("No cover has been entered, so Cloche assumes that a {cover_name} is always on{aired}.").format(
        cover_name=there.name, aired=aired
    )
