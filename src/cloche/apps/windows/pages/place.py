"""Page of a place: temperature, forecast, how well it is known, and what can be sown."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable
from dataclasses import dataclass, replace
from datetime import date, datetime
from typing import TypeVar

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.weather import selectors as weather_selectors
from cloche.apps.windows.pages.ground import FIGURE_WORDS, TREND_K, Warmth, warmth_at
from cloche.apps.windows.pages.knowledge import Knowledge, knowledge_of
from cloche.apps.windows.pages.limit_words import limit_name
from cloche.apps.windows.pages.picture import GroundPicture, picture_of
from cloche.apps.windows.pages.planting import indoors_by
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units
from cloche.drawing import ribbon
from cloche.drawing.ribbon import Calendar, Ribbon
from cloche_engine.crops.catalogue import Crop
from cloche_engine.places.kinds import BENCHES
from cloche_engine.results import Window
from cloche_engine.windows.limits import lost_at_c

Row = TypeVar("Row")

SPAN_D = 365


@dataclass(frozen=True)
class CropLine:
    """A crop's window in words with its ribbon.

    `planted` marks one raised elsewhere; `follows` marks the second window of the crop above, for summer or overwintering.
    """

    key: str
    name: str
    when: str
    note: str
    open_now: bool
    ribbon: Ribbon
    planted: bool = False
    follows: bool = False


@dataclass(frozen=True)
class GroundPart:
    """Context of windows/_ground.html."""

    headline: str
    sub: str
    picture: GroundPicture | None
    knowledge: Knowledge | None
    stale: bool
    made: str
    sky: str


@dataclass(frozen=True)
class CropPart:
    """Context of windows/_crops.html."""

    lines: list[CropLine]
    later: list[CropLine]
    calendar: Calendar


def ground_part(place: Place, units: Units, now: datetime, also: str = "") -> GroundPart:
    """Build heading, charts and knowledge of a place; `also` is a further depth in cm to draw."""
    timezone = place.garden.timezone
    local = now.astimezone(timezone)
    what = _("{sentence} · probe at {length}").format(
        sentence=words.sentence(place.get_kind_display()), length=units.length_text(place.seed_depth_m)
    )
    ground = selectors.ground_of(place)
    if ground is None:
        headline = _("Working out the first forecast for {name}…").format(name=place.name)
        return GroundPart(headline, what, None, None, True, "", "")
    made = ground.forecast.made_at.astimezone(timezone)
    warmth = warmth_at(ground, now)
    return GroundPart(
        headline=headline_of(warmth, ground, units),
        sub=f"{what} · {words.weekday(local.date())} · {_now_words(warmth, ground, units, now)}",
        picture=picture_of(ground, units, local, also),
        knowledge=knowledge_of(ground, units),
        stale=ground.stale(local.date()),
        sky=weather_selectors.report_words(place.garden, now),
        made=f"{words.clock(made)}, {words.day(made.date(), local.date())}",
    )


def _now_words(warmth: Warmth, ground: Ground, units: Units, now: datetime) -> str:
    return _("{temperature} at this hour · mean: {figure}").format(
        temperature=units.temperature_text(ground.soil_at(now)), figure=FIGURE_WORDS[warmth.figure]
    )


def headline_of(warmth: Warmth, ground: Ground, units: Units) -> str:
    """Describe temperature and trend, as in "North bed is at 8.4°, the daily mean at seed depth, and warming"."""
    mean, later = warmth.day_c, ground.mean_in(7)
    at = _("{name} is at {temperature}, the daily mean at seed depth,").format(
        name=ground.place.name, temperature=units.temperature_text(mean)
    )
    about = _("about {temperature} in a week").format(temperature=units.temperature_text(later, 0))
    if later - mean > TREND_K:
        return _("{at} and is warming: {about}.").format(at=at, about=about)
    if later - mean < -TREND_K:
        return _("{at} and is cooling: {about}.").format(at=at, about=about)
    return _("{at} and stays near it this week.").format(at=at)


def crop_part(place: Place, today: date) -> CropPart:
    """List crops by the method that suits the place, open windows first.

    An overwintered form is listed as the crop's second window.
    """
    rows = sorted(selectors.outlooks_at(place), key=_order)
    families = in_families([row for row in rows if row.windows], lambda row: row.crop_key)
    shown = [
        line
        for first, *others in families
        for line in (crop_line(first, today), *(second(crop_line(o, today)) for o in others))
    ]
    later = [crop_line(row, today) for row in rows if not row.windows]
    return CropPart(shown, later, ribbon.calendar(today, SPAN_D))


def in_families(rows: Iterable[Row], key_of: Callable[[Row], str]) -> list[list[Row]]:
    """Group crops with their overwintered forms, in order of the first of each."""
    by_family: dict[str, list[Row]] = {}
    for row in rows:
        by_family.setdefault(crops.usual_of(key_of(row)), []).append(row)
    return list(by_family.values())


def second(line: CropLine) -> CropLine:
    """Return a crop's second window as a line without its name."""
    name = _("in its usual season") if crops.usual_of(line.key) == line.key else _("to overwinter")
    return replace(line, name=_("plants, {name}").format(name=name) if line.planted else name, follows=True)


def _order(outlook: CropOutlook) -> tuple[int, str | date, float, str]:
    """Return where a crop stands in the list: what can be sown now in the order in which growers risk their seed."""
    crop = crops.crop(outlook.crop_key)
    if not outlook.windows:
        return 2, "", 0.0, crop.key
    if outlook.sow_now:
        return 0, "", lost_at_c(crop), crop.key
    return 1, outlook.windows[0].earliest, 0.0, crop.key


def crop_line(outlook: CropOutlook, today: date) -> CropLine:
    """Describe a crop's window, as in "today to 3 July"."""
    crop = crops.crop(outlook.crop_key)
    when, note = window_words(outlook, today)
    if not outlook.sown and outlook.windows:
        note = _bench_words(crop, outlook, today) or note
    data = outlook.ribbon
    days = [day for day in data.day if day <= SPAN_D]
    drawn = ribbon.ribbon(days, data.success[: len(days)], data.soil_c[: len(days)], SPAN_D)
    name = crop.name if outlook.sown else _("{name}, plants").format(name=crop.name)
    return CropLine(crop.key, name, when, note, outlook.sow_now, drawn, planted=not outlook.sown)


def lines_elsewhere(place: Place, crop_key: str, today: date) -> list[tuple[Place, CropLine]]:
    """Return the crop's windows in other places that grow it, with their names."""
    rows = (row for row in selectors.elsewhere(place, crop_key) if row.place.kind not in BENCHES)
    return [(row.place, replace(crop_line(row, today), name=row.place.name)) for row in rows]


def lines_of(place: Place, keys: Collection[str], today: date) -> list[CropLine]:
    """Describe the windows of several crops by the method that suits the place."""
    return [crop_line(row, today) for row in selectors.outlooks_at(place) if row.crop_key in keys] if keys else []


def _bench_words(crop: Crop, outlook: CropOutlook, today: date) -> str:
    """Describe when to sow on the bench for the best days."""
    by = indoors_by(crop.key, outlook.windows[0].best_from)
    if by is None:
        return ""
    return (
        _("sow indoors from {day}").format(day=words.day(by, today))
        if by >= today
        else _("should have been sown indoors by {day}").format(day=words.day(by, today))
    )


def open_span(window: Window, today: date) -> str:
    """Format a window as "9 April to 3 July", or "from 9 April" where its end is out of sight."""
    start, last = window.earliest, window.last
    if window.open_ended:
        return _("from today on") if start == today else _("from {day} on").format(day=words.day(start, today))
    return words.span(start, last, today)


def window_words(outlook: CropOutlook, today: date) -> tuple[str, str]:
    """Describe a window with a note on its best days or on what prevents it."""
    if not outlook.windows:
        return _("no reliable window"), limit_name(outlook.main_limit)
    first = outlook.windows[0]
    when = open_span(first, today)
    best = words.span(first.best_from, first.best_to, today)
    notes = [_("best {best}").format(best=best)] if best != when and not first.open_ended else []
    if len(outlook.windows) > 1:
        again = words.listed([open_span(window, today) for window in outlook.windows[1:]])
        notes.append(_("again {again}").format(again=again))
    return when, "; ".join(notes)
