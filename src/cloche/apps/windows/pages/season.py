"""Page Windows: every crop over the season, in the place where it can go in first."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date, timedelta
from enum import StrEnum

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.seed import selectors as packets
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.windows.pages.limit_words import expected_loss, limit_name
from cloche.apps.windows.pages.place import SPAN_D, CropLine, crop_line, in_families, second
from cloche.apps.windows.pages.planting import indoors_by
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units
from cloche.drawing import ribbon
from cloche.drawing.ribbon import Calendar
from cloche_engine.places.kinds import BENCHES
from cloche_engine.results import FrostDates

NAMED, SOON_D = 3, 21
ANYWHERE = lazy("anywhere now")


@dataclass(frozen=True)
class SeasonLine:
    """A crop in its first place, with the others named."""

    place: Place
    line: CropLine


class Timing(StrEnum):
    """Position of a crop's windows relative to today, most urgent first."""

    CLOSING = "closing"
    BEST = "best"
    LATE = "late"
    EARLY = "early"
    SOON = "soon"
    LATER = "later"


TIMINGS = {
    Timing.CLOSING: lazy("Closes within three weeks"),
    Timing.BEST: lazy("Best now"),
    Timing.LATE: lazy("Open, past its best"),
    Timing.EARLY: lazy("Open, better later"),
    Timing.SOON: lazy("Opens within three weeks"),
    Timing.LATER: lazy("Opens later"),
}


@dataclass(frozen=True)
class SeasonGroup:
    """Crops with the same timing."""

    name: str
    rows: list[SeasonLine]


@dataclass(frozen=True)
class SeasonPage:
    """Context of windows/season.html."""

    headline: str
    groups: list[SeasonGroup]
    waiting: list[str]
    calendar: Calendar
    frosts: str


def season_page(garden: Garden, today: date, units: Units) -> SeasonPage:
    """Build the page of all crops, each by the method that suits its places; places for trays only raise plants."""
    by_crop = {key: _beds(rows) for key, rows in selectors.outlooks_by_crop(garden).items()}
    count = len({outlook.place_id for rows in by_crop.values() for outlook in rows})
    windows = {key: sorted((row for row in rows if row.windows), key=_opens) for key, rows in by_crop.items()}
    ahead = {crops.usual_of(key) for key, rows in windows.items() if rows}
    none = dict.fromkeys(crops.usual_of(key) for key, rows in windows.items() if not rows)
    waiting = [crops.crop(key).name_plural for key in none if key not in ahead]
    crop_rows = sorted((rows for rows in windows.values() if rows), key=lambda rows: (_opens(rows[0]), rows[0].crop_key))
    lines = _by_timing(crop_rows, count, packets.prices_in_use(garden), today)
    is_open = (Timing.CLOSING, Timing.BEST, Timing.LATE, Timing.EARLY)
    now = [drawn[0] for timing in is_open for drawn in lines[timing]]
    opening = [drawn[0] for timing in (Timing.SOON, Timing.LATER) for drawn in lines[timing]]
    groups = [
        SeasonGroup(str(TIMINGS[timing]), [line for drawn in rows_of for line in drawn])
        for timing, rows_of in lines.items()
        if rows_of
    ]
    frosts = frosts_words(garden, units, today)
    return SeasonPage(_headline(now, opening, bool(by_crop)), groups, waiting, ribbon.calendar(today, SPAN_D), frosts)


def timing_of(rows: list[CropOutlook], today: date) -> Timing:
    """Return the timing of a crop from its windows, earliest first.

    It closes only if no window stays open longer or opens again.
    """
    soon = today + timedelta(days=SOON_D)
    if not rows[0].sow_now:
        return Timing.SOON if rows[0].windows[0].earliest <= soon else Timing.LATER
    ahead = [row.windows[0] for row in rows if not row.sow_now] + [window for row in rows for window in row.windows[1:]]
    opened = [row.windows[0] for row in rows if row.sow_now]
    if not ahead and all(not window.open_ended and window.last <= soon for window in opened):
        return Timing.CLOSING
    if any(window.best_from <= today <= window.best_to for window in opened):
        return Timing.BEST
    return Timing.EARLY if any(window.best_from > today for window in opened) else Timing.LATE


def _by_timing(
    crop_rows: list[list[CropOutlook]], places: int, prices: dict[str, float], today: date
) -> dict[Timing, list[list[SeasonLine]]]:
    """Group each crop's row, with its second window below, by timing."""
    timed: dict[Timing, list[tuple[float, list[SeasonLine]]]] = {timing: [] for timing in Timing}
    for family in in_families(crop_rows, lambda rows: rows[0].crop_key):
        first, *others = _by_urgency(family, today)
        timing = timing_of(first, today)
        follow = [_line(rows, places, today) for rows in others]
        drawn = [_line(first, places, today), *(replace(follower, line=second(follower.line)) for follower in follow)]
        timed[timing].append((_rank(timing, first, prices.get(first[0].crop_key), today), drawn))
    for rows_of in timed.values():
        rows_of.sort(key=lambda pair: (round(pair[0], 1), pair[1][0].line.key))
    return {timing: [drawn for _rank, drawn in rows_of] for timing, rows_of in timed.items()}


BEFORE_THE_OTHER = (Timing.BEST, Timing.EARLY, Timing.LATE, Timing.CLOSING, Timing.SOON, Timing.LATER)


def _by_urgency(family: list[list[CropOutlook]], today: date) -> list[list[CropOutlook]]:
    """Order a crop's usual and overwintering windows.

    One that closes does not make the crop urgent while the other is open.
    """
    usual_first = sorted(family, key=lambda rows: crops.usual_of(rows[0].crop_key) != rows[0].crop_key)
    return sorted(usual_first, key=lambda rows: BEFORE_THE_OTHER.index(timing_of(rows, today)))


def _rank(timing: Timing, rows: list[CropOutlook], price: float | None, today: date) -> float:
    """Rank a crop within its group by the day that matters there.

    Among open windows, hardy and cheap crops come first.
    """
    if timing is Timing.CLOSING:
        return float(max((row.windows[0].last - today).days for row in rows if row.sow_now))
    if timing in (Timing.SOON, Timing.LATER):
        return float((rows[0].windows[0].earliest - today).days)
    return expected_loss(rows[0], price)


def _beds(rows: list[CropOutlook]) -> list[CropOutlook]:
    return [row for row in rows if row.place.kind not in BENCHES]


ANNOUNCED_D = 60


def frosts_words(garden: Garden, units: Units, today: date) -> str:
    """Describe the garden's last and first frost and what the dates rest on; empty before the first forecast."""
    frosts = selectors.frosts_of(garden)
    if not frosts:
        return ""
    rests = frosts_source(frosts)
    parts = [
        _frost_part(_("The last spring frost"), frosts.spring, today),
        _frost_part(_("the first autumn frost"), frosts.autumn, today),
    ]
    text = "; ".join(part for part in parts if part) or _("Frost occurs less often than every other year here")
    low = f"{units.temperature_text(frosts.lowest_c, 0)}"
    text = _("{sentence}. The coldest night of a usual year is about {low}. Source: {rests}.").format(
        sentence=words.sentence(text), low=low, rests=rests
    )
    return " ".join(part for part in (text, _weighed(frosts), frosts_changed(frosts, today)) if part)


def frosts_source(frosts: FrostDates) -> str:
    """Describe what the frost dates rest on."""
    typical = (
        _("the monthly temperatures you entered")
        if "typed" in (frosts.source, frosts.typical_source)
        else _("the usual climate of the region")
    )
    if not frosts.years:
        return typical
    years = words.count(frosts.years, "year", "years")
    return _("{count} of this site’s own days and {typical}").format(count=years, typical=typical)


def _weighed(frosts: FrostDates) -> str:
    """Describe by how much weighted sources differ; empty for a single source."""
    if not frosts.own_usual or not frosts.typical_usual or not frosts.own_usual[0] or not frosts.typical_usual[0]:
        return ""
    return _(
        "By this site’s own days alone, the last spring frost would be about {own}; without them, about {typical}."
    ).format(own=words.day(frosts.own_usual[0]), typical=words.day(frosts.typical_usual[0]))


def frosts_changed(frosts: FrostDates, today: date) -> str:
    """Announce a changed source of the frost dates for two months, with old and new dates."""
    before = frosts.before
    if before is None or frosts.since is None or (today - frosts.since).days > ANNOUNCED_D:
        return ""
    if frosts.years and not before.years:
        text = _(
            "Since {day} the frost dates are based mostly on {years} of this site’s own days. The last "
            "spring frost moved from {before} to {now}."
        )
    else:
        text = _(
            "Since {day} the frost dates come from {source} instead of {source_before}. The last spring "
            "frost moved from {before} to {now}."
        )
    return text.format(
        day=words.day(frosts.since, today),
        years=words.count(frosts.years, "year", "years"),
        source=frosts_source(frosts),
        source_before=frosts_source(before),
        before=_usual(before),
        now=_usual(frosts),
    )


def _usual(frosts: FrostDates) -> str:
    return words.day(frosts.spring[1]) if frosts.spring else _("none")


def _frost_part(what: str, dates: tuple[date, date, date] | None, today: date) -> str:
    if dates is None:
        return ""
    early, middle, late = dates
    return _("{what} comes about {day} (between {day2} and {day3} in eight years of ten)").format(
        what=what, day=words.day(middle, today), day2=words.day(early), day3=words.day(late)
    )


def _opens(row: CropOutlook) -> str:
    return row.windows[0].earliest.isoformat()


def _headline(now: list[SeasonLine], opening: list[SeasonLine], calculated: bool) -> str:
    if not calculated:
        return _("Windows appear here as soon as the first place has a forecast.")
    if not now and not opening:
        return _("No crop in this garden has a window in the months ahead.")
    first = f"{words.within(opening[0].line.name).replace(',', '')} {opening[0].line.when}" if opening else ""
    if not now:
        return _("Nothing can be sown or planted today. The first is {first}.").format(first=first)
    everywhere = sum(row.line.when == ANYWHERE for row in now)
    text = _("{count} can be sown or planted today").format(count=words.count(len(now), "crop", "crops"))
    if everywhere:
        text += (
            _(", anywhere") if everywhere == len(now) else _(", {everywhere} of them anywhere").format(everywhere=everywhere)
        )
    return words.sentence(_("{text}. Next: {first}.").format(text=text, first=first) if first else f"{text}.")


def _line(rows: list[CropOutlook], places: int, today: date) -> SeasonLine:
    """Describe a crop from its places with a window, earliest first."""
    drawn = crop_line(rows[0], today)
    now = [row.place.name for row in rows if row.sow_now]
    if now:
        where = _now(now, places)
        note = _("in {name} {until}").format(name=rows[0].place.name, until=_until(rows[0], today))
    else:
        where = _("from {day} in {name}").format(day=words.day(rows[0].windows[0].earliest, today), name=rows[0].place.name)
        note = _until(rows[0], today)
    if not rows[0].sown:
        by = indoors_by(rows[0].crop_key, rows[0].windows[0].best_from)
        note += (
            ""
            if by is None
            else _(", sow indoors from {day}").format(day=words.day(by, today))
            if by >= today
            else _(", should have been sown indoors by {day}").format(day=words.day(by, today))
        )
    then = [row for row in rows if not row.sow_now][0 if now else 1 :][: NAMED - 1]
    notes = [_("{name} from {day}").format(name=row.place.name, day=words.day(row.windows[0].earliest, today)) for row in then]
    return SeasonLine(rows[0].place, replace(drawn, when=where, note=" · ".join([note, *notes])))


def _now(names: list[str], places: int) -> str:
    if len(names) == places > 1:
        return ANYWHERE
    return (
        _("now in {listed}").format(listed=words.listed(names))
        if len(names) <= NAMED
        else _("now in {len} of {places} places").format(len=len(names), places=places)
    )


def _until(row: CropOutlook, today: date) -> str:
    first = row.windows[0]
    return _("with no end in sight") if first.open_ended else _("until {day}").format(day=words.day(first.last, today))


def table(garden: Garden) -> Iterator[list[str]]:
    """Yield every window of every crop in every place for CSV."""
    yield [
        "crop",
        "place",
        "method",
        "earliest",
        "best_from",
        "best_to",
        "last",
        "holds",
        "opens_after",
        "closes_before",
        "no_window_for",
    ]
    for key, rows in selectors.outlooks_by_crop(garden).items():
        name = crops.crop(key).name
        for row in rows:
            for window in row.windows:
                days = [day.isoformat() for day in (window.earliest, window.best_from, window.best_to)]
                ends = ["" if window.open_ended else window.last.isoformat(), f"{window.probability:.2f}"]
                yield [
                    name,
                    row.place.name,
                    row.method,
                    *days,
                    *ends,
                    limit_name(window.opens_after),
                    limit_name(window.closes_before),
                    "",
                ]
            if not row.windows:
                yield [name, row.place.name, row.method, *[""] * 7, limit_name(row.main_limit)]
