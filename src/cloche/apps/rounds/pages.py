"""Page of the round: places in walking order, what each probe should show, and where a reading helps most."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as windows
from cloche.apps.forecasts.forecast_cache import outlooks_in
from cloche.apps.forecasts.models import WindowChange
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.readings import selectors as measured
from cloche.apps.shared import words
from cloche.apps.windows.pages.ground import lines, warmth_in
from cloche.bridge.services import crops, readings
from cloche.bridge.services.readings import TRANSPLANT_DEPTH_M
from cloche.bridge.values.units import Units
from cloche.drawing.slice import Slice
from cloche_engine.places.kinds import usual_cover

HOURS_KEPT = 96
LEAN_D = 28
AFTERNOON_H = 12


@dataclass(frozen=True)
class Stop:
    """A place on the round: drawing, depths, latest reading, and whether it has a logger."""

    place: Place
    cut: Slice | None
    depth: str
    deeper: str
    last: str
    read_now: bool
    covered: bool


@dataclass(frozen=True)
class Advice:
    """Where to read next, in a sentence, and the places that need no reading today."""

    text: str
    none_needed: str
    next_pk: int | None


@dataclass(frozen=True)
class RoundPage:
    """Context of the page; `kept` is what the device stores for hours without signal."""

    name: str
    sub: str
    stops: list[Stop]
    advice: Advice
    kept: dict[str, Any]


def round_page(garden: Garden, person: User, units: Units, now: datetime) -> RoundPage:
    """Build the round for paper and for the device."""
    local = now.astimezone(garden.timezone)
    grounds = windows.grounds_in(garden)
    read = measured.read_since(garden, half_began(local))
    drawn = lines(garden, grounds, warmth_in(garden, grounds, now), units, now)
    dated = set(CoverPeriod.objects.filter(place__garden=garden).values_list("place_id", flat=True))
    stops = [_stop(line, units, line.place.pk in read, line.place.pk in dated) for line in drawn]
    kept = {
        "garden": garden.pk,
        "person": person.username,
        "zone": garden.timezone_name,
        "daysAhead": settings.CLOCHE_DAY_OFFSET,
        "degree": units.temperature,
        "length": units.length,
        "places": [_expected(place, ground, units, now) for place, ground in grounds],
    }
    return RoundPage(
        name=_("Morning round") if local.hour < AFTERNOON_H else _("Evening round"),
        sub=f"{words.weekday(local.date())} · {garden.name} · {units.degree}",
        stops=stops,
        advice=advice(garden, grounds, units, local, read),
        kept=kept,
    )


def half_began(local: datetime) -> datetime:
    """Return when this morning or this evening began."""
    hour = 0 if local.hour < AFTERNOON_H else AFTERNOON_H
    return local.replace(hour=hour, minute=0, second=0, microsecond=0)


def _stop(line: Any, units: Units, read_now: bool, dated: bool) -> Stop:
    place = line.place
    deeper = _depth(TRANSPLANT_DEPTH_M, units) if place.seed_depth_m < TRANSPLANT_DEPTH_M else ""
    covered = usual_cover(place.kind, place.within) is not None or bool(place.within) or dated
    depth = units.length_text(place.seed_depth_m)
    return Stop(place, line.cut, depth, deeper, line.last_read, read_now, covered)


def _depth(depth_m: float, units: Units) -> str:
    """Format a depth as 10 cm or 4 in, without a meaningless decimal."""
    whole = depth_m == TRANSPLANT_DEPTH_M
    return f"{units.length_from_m(depth_m):.0f} {units.length}" if whole else units.length_text(depth_m)


def _expected(place: Place, ground: Ground | None, units: Units, now: datetime) -> dict[str, Any]:
    facts = {"id": place.pk, "name": place.name}
    for name, depth_m in (("temperature", None), ("deeper", TRANSPLANT_DEPTH_M)):
        hours = ground and readings.hours_from(ground.data, now, HOURS_KEPT, depth_m)
        if hours:
            in_units = {key: units.temperatures_from_c(values) for key, values in hours.values_c().items()}
            facts[name] = in_units | {"start": hours.start.isoformat()}
    return facts


def advice(garden: Garden, grounds: list[tuple[Place, Ground | None]], units: Units, local: datetime, read: set[int]) -> Advice:
    """Return the reading that would narrow the most windows, and places whose reading would add almost nothing."""
    lean = windows.leaning(outlooks_in(garden), local.date() + timedelta(days=LEAN_D))
    offers: list[tuple[float, Place, readings.Worth]] = []
    quiet = []
    for place, ground in grounds:
        worth = ground and readings.most_telling(ground.data, local)
        if not worth:
            continue
        if place.pk in read or not worth.worth_it:
            quiet.append(place.name)
        else:
            offers.append((worth.days * lean.get(place.pk, 0), place, worth))
    if not offers:
        unknown = _("Once the forecasts are ready, this line says what to read first.")
        return Advice(_("No place needs another reading now.") if quiet else unknown, "", None)
    _unused, place, worth = max(offers, key=lambda offer: offer[0])
    return Advice(_telling(place, worth, lean.get(place.pk, 0), units, local), words.listed(quiet, 6), place.pk)


def _telling(place: Place, worth: readings.Worth, leaning: int, units: Units, local: datetime) -> str:
    where = _("{name} at {depth}, {when}").format(
        name=place.name, depth=_depth(worth.depth_m, units), when=_when(worth.at.astimezone(local.tzinfo), local)
    )
    text = _("A reading in {where} would help most: its soil temperature would be known {difference} better").format(
        where=where, difference=units.difference_text(worth.narrowed_k)
    )
    if leaning:
        edge = _("half a day") if worth.days < 0.75 else words.count(round(worth.days), "day", "days")
        text += _(", and {count} of the coming four weeks by about {edge}").format(
            count=words.count(leaning, "window", "windows"), edge=edge
        )
    return text + "."


def _when(at: datetime, local: datetime) -> str:
    if at - local < timedelta(hours=1):
        return _("now")
    return _("{part}about {clock}").format(part="" if at.date() == local.date() else _("tomorrow "), clock=words.clock(at))


@dataclass(frozen=True)
class Summary:
    """Result of a round: places read, windows moved, and whether it is still being calculated."""

    text: str
    working: bool
    moved: list[str]


def summary(garden: Garden, since: datetime, now: datetime) -> Summary:
    """Summarise the places read and windows moved since a time."""
    today = now.astimezone(garden.timezone).date()
    read = measured.read_since(garden, since)
    grounds = windows.grounds_in(garden)
    working = any(ground is None or ground.stale(today) for place, ground in grounds if place.pk in read)
    moved = [_moved(change, today) for change in windows.moved_since(garden, since)]
    return Summary(
        _("{len} of {count} read.").format(len=len(read), count=words.count(len(grounds), "place", "places")), working, moved
    )


def _moved(change: WindowChange, today: Any) -> str:
    crop = crops.crop(change.crop_key).name_plural
    what = (
        _("{crop} in {name}").format(crop=crop, name=change.place.name)
        if change.method == "direct"
        else _("{crop}, planted out in {name}").format(crop=crop, name=change.place.name)
    )
    if change.before is None and change.after is not None:
        return _("{sentence}: a window opens on {day}.").format(
            sentence=words.sentence(what), day=words.day(change.after, today)
        )
    if change.after is None or change.before is None:
        return _("{sentence}: no reliable window any more.").format(sentence=words.sentence(what))
    days = (change.after - change.before).days
    by = f"{words.count(abs(days), 'day', 'days')} {_('later') if days > 0 else _('earlier')}"
    return _("{sentence}: from {day}, {by}.").format(sentence=words.sentence(what), day=words.day(change.after, today), by=by)
