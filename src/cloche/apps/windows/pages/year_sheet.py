"""Year sheet: what to sow, plant out, cover and harvest month by month, on one printed page."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.windows.pages.limit_words import sentence
from cloche.apps.windows.pages.planting import indoors_by
from cloche.apps.windows.pages.season import frosts_words
from cloche.apps.windows.prospects import prospect_on
from cloche.bridge.services import covers, crops
from cloche.bridge.values.units import Units
from cloche_engine.outlook_days import sure_spans
from cloche_engine.places.kinds import BENCHES

MONTHS, YEAR_D, NEXT_YEAR_D = 12, 365, 270
RAISED_WITHIN_D = 28
"""Plants are raised for the first weeks in which they can go out."""


class Task(StrEnum):
    """Column of the sheet."""

    INDOORS = "indoors"
    SOW = "sow"
    PLANT = "plant"
    COVER = "cover"
    HARVEST = "harvest"


HEADS = {
    Task.INDOORS: lazy("Sow indoors"),
    Task.SOW: lazy("Sow outdoors"),
    Task.PLANT: lazy("Plant out"),
    Task.COVER: lazy("Covers"),
    Task.HARVEST: lazy("Harvest"),
}


@dataclass(frozen=True)
class Month:
    """Row of the sheet with the entries of each column."""

    name: str
    cells: list[tuple[str, list[str]]]


@dataclass(frozen=True)
class YearSheetPage:
    """Context of windows/year_sheet.html.

    `reasons` has a sentence for each crop; `without` lists crops that have no window.
    """

    title: str
    heads: list[str]
    months: list[Month]
    frosts: str
    reasons: list[str]
    without: list[str]


@dataclass(frozen=True)
class Span:
    """A task between two days, both included."""

    task: Task
    what: str
    first: date
    last: date


def year_sheet_page(garden: Garden, today: date, units: Units) -> YearSheetPage:
    """Build the sheet of twelve months from this one on, each crop in the bed that suits it first."""
    rows = _chosen(garden)
    start = today.replace(day=1)
    firsts = [_months_on(start, number) for number in range(MONTHS + 1)]
    spans = [span for row in rows for span in _spans(row, today)] + _covers(garden, firsts[0], firsts[-1])
    by_month: dict[int, dict[Task, list[str]]] = defaultdict(lambda: defaultdict(list))
    for span in sorted(spans, key=lambda item: (item.first, item.what)):
        for number in range(MONTHS):
            first, last = firsts[number], firsts[number + 1] - timedelta(days=1)
            if span.first <= last and span.last >= first:
                by_month[number][span.task].append(_entry(span, first, last))
    months = [
        Month(f"{words.month_name(firsts[n].month)} {firsts[n].year}", [(str(HEADS[task]), by_month[n][task]) for task in Task])
        for n in range(MONTHS)
    ]
    return YearSheetPage(
        title=_("{garden}: what to do when, {first} to {last}").format(
            garden=garden.name, first=months[0].name, last=months[-1].name
        ),
        heads=[str(head) for head in HEADS.values()],
        months=months,
        frosts=frosts_words(garden, units, today),
        reasons=[_reason(row, today) for row in rows if row.windows],
        without=[_name(row) for row in rows if not row.windows],
    )


def _chosen(garden: Garden) -> list[CropOutlook]:
    """Return each crop's outlook in the bed where it can go in first, by name."""
    outlooks = []
    for rows in selectors.outlooks_by_crop(garden).values():
        beds = [row for row in rows if row.place.kind not in BENCHES]
        if beds:
            outlooks.append(min(beds, key=lambda row: row.windows[0].earliest if row.windows else date.max))
    whole = {row.pk: row for row in CropOutlook.objects.filter(pk__in=[row.pk for row in outlooks]).select_related("place")}
    return sorted((whole[row.pk] for row in outlooks), key=_name)


def _months_on(start: date, number: int) -> date:
    month = start.month - 1 + number
    return date(start.year + month // 12, month % 12 + 1, 1)


def _name(row: CropOutlook) -> str:
    return str(crops.crop(row.crop_key).name)


def _spans(row: CropOutlook, today: date) -> list[Span]:
    name, spans = _name(row), []
    for opens, closes in [*((window.earliest, window.last) for window in row.windows), *_next_year(row, today)]:
        spans.append(Span(Task.SOW if row.sown else Task.PLANT, name, opens, closes))
        by = None if row.sown else indoors_by(row.crop_key, opens)
        until = None if row.sown else indoors_by(row.crop_key, min(closes, opens + timedelta(days=RAISED_WITHIN_D)))
        if by is not None and until is not None and until >= today:
            spans.append(Span(Task.INDOORS, name, max(by, today), until))
        harvest = [day.harvest_on for day in (prospect_on(row, on, today) for on in (opens, closes)) if day and day.harvest_on]
        if harvest:
            spans.append(Span(Task.HARVEST, name, min(harvest), max(harvest)))
    return spans


def _next_year(row: CropOutlook, today: date) -> list[tuple[date, date]]:
    """Return spans of sure days repeated next year, no earlier than a window of this year still to open."""
    windows = []
    for first, last in sure_spans(row.days):
        if not row.windows or first < NEXT_YEAR_D:
            continue
        opens, closes = today + timedelta(days=first), today + timedelta(days=last)
        if row.windows[0].earliest > today:
            opens = max(opens, row.windows[0].earliest + timedelta(days=YEAR_D))
        known = any(opens <= window.last and closes >= window.earliest for window in row.windows)
        if opens <= closes and not known:
            windows.append((opens, closes))
    return windows


def _covers(garden: Garden, first: date, end: date) -> list[Span]:
    spans = []
    for period in CoverPeriod.objects.filter(place__garden=garden).select_related("place", "item"):
        name = period.item.name if period.item else covers.with_article(period.cover)
        for on, text in ((period.first, _("{place}: {cover} on")), (period.last, _("{place}: {cover} off"))):
            if on is not None and first <= on < end:
                spans.append(Span(Task.COVER, text.format(place=period.place.name, cover=name), on, on))
    return spans


def _entry(span: Span, first: date, last: date) -> str:
    """Format an entry as "Carrot 3–28", without days for a whole month."""
    begins, ends = max(span.first, first), min(span.last, last)
    if (begins, ends) == (first, last):
        return span.what
    if begins == ends:
        return f"{span.what} {begins.day}"
    return f"{span.what} {begins.day}–{ends.day}"


def _reason(row: CropOutlook, today: date) -> str:
    """Explain a crop's span, as in "Carrot, North bed: 3 March to 20 July; earlier, the soil is too cold"."""
    parts = [words.span(window.earliest, window.last, today) for window in row.windows]
    text = _("{crop}, {place}: {days}").format(crop=_name(row), place=row.place.name, days=words.listed(parts))
    first, last = row.windows[0], row.windows[-1]
    if first.opens_after and first.earliest > today:
        text += _("; earlier: {why}").format(why=sentence(first.opens_after, row.sown))
    if last.closes_before and not last.open_ended:
        text += _("; later: {why}").format(why=sentence(last.closes_before, row.sown))
    return f"{text}."
