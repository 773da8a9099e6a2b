"""Windows: every crop over the season, where it can go in first, and where it must wait."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date

from cloche.apps.gardens import words
from cloche.apps.gardens.models import Garden, Place
from cloche.apps.windows import selectors
from cloche.apps.windows.models import CropOutlook
from cloche.apps.windows.pages.place import SPAN_D, CropLine, crop_line
from cloche.bridge import crops
from cloche.drawing import ribbon
from cloche.drawing.ribbon import Calendar

NAMED = 3
ANYWHERE = "anywhere now"


@dataclass(frozen=True)
class SeasonLine:
    """A crop in the place where it can go in first, whose row names the others."""

    place: Place
    line: CropLine


@dataclass(frozen=True)
class SeasonPage:
    """Context of windows/season.html."""

    headline: str
    open_now: list[SeasonLine]
    opening: list[SeasonLine]
    waiting: list[str]
    calendar: Calendar


def season_page(garden: Garden, today: date) -> SeasonPage:
    """All crops of the garden that are sown or planted in place."""
    by_crop = selectors.outlooks_by_crop(garden)
    count = len({outlook.place_id for rows in by_crop.values() for outlook in rows})
    direct = {key: rows for key, rows in by_crop.items() if crops.crop(key).sown_direct}
    windows = {key: sorted((row for row in rows if row.windows), key=_opens) for key, rows in direct.items()}
    waiting = [crops.crop(key).name_plural for key, rows in windows.items() if not rows]
    found = sorted((rows for rows in windows.values() if rows), key=lambda rows: (_opens(rows[0]), rows[0].crop_key))
    open_now = [_line(rows, count, today) for rows in found if rows[0].sow_now]
    opening = [_line(rows, count, today) for rows in found if not rows[0].sow_now]
    open_now.sort(key=lambda row: row.line.name)
    return SeasonPage(_headline(open_now, opening), open_now, opening, waiting, ribbon.calendar(today, SPAN_D))


def _opens(row: CropOutlook) -> str:
    return str(row.windows[0]["earliest"])


def _headline(now: list[SeasonLine], opening: list[SeasonLine]) -> str:
    if not now and not opening:
        return "No window is in sight yet: places need readings, or a first forecast."
    first = f"{opening[0].line.name.lower()} {opening[0].line.when}" if opening else ""
    if not now:
        return f"Nothing can go in today; the first is {first}."
    everywhere = sum(row.line.when == ANYWHERE for row in now)
    said = f"{words.count(len(now), 'crop')} can go in today"
    if everywhere:
        said += ", anywhere" if everywhere == len(now) else f", {everywhere} of them anywhere"
    return words.sentence(f"{said}; next, {first}." if first else f"{said}.")


def _line(rows: list[CropOutlook], places: int, today: date) -> SeasonLine:
    """rows: places with a window, the earliest first."""
    drawn = crop_line(rows[0], today)
    now = [row.place.name for row in rows if row.sow_now]
    if now:
        where = _now(now, places)
        note = f"in {rows[0].place.name} {_until(rows[0], today)}"
    else:
        where = f"from {words.day(date.fromisoformat(rows[0].windows[0]['earliest']), today)} in {rows[0].place.name}"
        note = _until(rows[0], today)
    then = [row for row in rows if not row.sow_now][0 if now else 1 :][: NAMED - 1]
    notes = [f"{row.place.name} from {words.day(date.fromisoformat(row.windows[0]['earliest']), today)}" for row in then]
    return SeasonLine(rows[0].place, replace(drawn, when=where, note=" · ".join([note, *notes])))


def _now(names: list[str], places: int) -> str:
    if len(names) == places > 1:
        return ANYWHERE
    return f"now in {words.listed(names)}" if len(names) <= NAMED else f"now in {len(names)} of {places} places"


def _until(row: CropOutlook, today: date) -> str:
    first = row.windows[0]
    return "with no end in sight" if first["open_ended"] else f"to {words.day(date.fromisoformat(first['last']), today)}"


def table(garden: Garden) -> Iterator[list[str]]:
    """Every window of every crop in every place, for a file."""
    yield [
        "crop",
        "place",
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
                days = [window[part] for part in ("earliest", "best_from", "best_to")]
                ends = ["" if window["open_ended"] else window["last"], f"{window['probability']:.2f}"]
                yield [name, row.place.name, *days, *ends, window["opens_after"] or "", window["closes_before"] or "", ""]
            if not row.windows:
                yield [name, row.place.name, *[""] * 7, row.main_limit]
