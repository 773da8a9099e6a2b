"""One cover for each bed, and how long a season each cover makes."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.covers import flows
from cloche.apps.covers.flows import BARE, offered, seasons_at
from cloche.apps.covers.models import BedAnswer
from cloche.apps.places.models import Cover, Place
from cloche.apps.places.selectors import cover_on
from cloche.apps.shared import words
from cloche.apps.windows.pages.limit_words import sentence
from cloche.apps.windows.pages.place import SPAN_D, open_span
from cloche.bridge.services import covers, crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing import ribbon
from cloche.drawing.ribbon import Bar, Calendar
from cloche_engine import results
from cloche_engine.results import BedGain


@dataclass(frozen=True)
class BedLine:
    """A bed and the effect of the cover there; `days` are the days gained by all crops together."""

    pk: int
    name: str
    gain: str
    crops: str
    days: int
    taken: str


@dataclass(frozen=True)
class Compared:
    """Context of covers/compare.html; `waiting` names beds still being calculated."""

    cover: Cover
    headline: str
    sub: str
    beds: list[BedLine]
    waiting: list[str]


def where_most(cover: Cover, units: Units, today: date) -> Compared:
    """Compare the cover on each bed from the answers so far, and request the others."""
    answers = flows.bed_answers(cover, today)
    places = list(flows.beds_for(cover).prefetch_related("cover_periods"))
    lines = [_line(cover, place, answers[place.pk], units, today) for place in places if place.pk in answers]
    lines.sort(key=lambda line: -line.days)
    waiting = [place.name for place in places if place.pk not in answers]
    return Compared(cover, _headline(cover, lines, waiting), _sub(cover, lines), lines, waiting)


def _line(cover: Cover, place: Place, answered: BedAnswer, units: Units, today: date) -> BedLine:
    bed_gain: BedGain = answered.answer
    gained = sorted(((crops.crop(key).name, days) for key, days in bed_gain.gained), key=lambda g: -g[1])
    text = ", ".join(f"{name} {words.count(days, 'day', 'days')}" for name, days in gained)
    taken = _("another cover is on it now") if _is_taken(place, cover, today) else ""
    gain = _("{difference} warmer over two weeks").format(difference=units.difference_text(bed_gain.gain_k))
    return BedLine(place.pk, place.name, gain, text, sum(days for _unused, days in gained), taken)


def _is_taken(place: Place, cover: Cover, today: date) -> bool:
    """Return whether another cover is there, by date or because the place always has one."""
    there = cover_on(place, today)
    return there is not None and there.item != cover


def _headline(cover: Cover, lines: list[BedLine], waiting: list[str]) -> str:
    if waiting:
        beds = words.count(len(waiting), "bed is", "beds are")
        return _("Trying {name} on every bed; {beds} left.").format(name=cover.name, beds=beds)
    best = next((line for line in lines if not line.taken), None)
    if best is None:
        return _("No bed is free for {name}, or no forecast is ready yet.").format(name=cover.name)
    if not best.days:
        return _("{name} brings no sowing forward anywhere now.").format(name=cover.name)
    return _("{name} helps {name2} most now: {count}.").format(
        name=cover.name, name2=best.name, count=words.count(best.days, "crop day", "crop days")
    )


def _sub(cover: Cover, lines: list[BedLine]) -> str:
    text = _(
        "Crop days: the days by which your crops can be sown sooner than in the bare bed, added up, if the cover goes on today."
    )
    best = next((line.days for line in lines if not line.taken), 0)
    if cover.price and best:
        season = cover.price / covers.lasts_y(cover.kind)
        text += _(" A season of it costs {season}, so each crop day costs {season2}.").format(
            season=number_text(f"{season:.2f}"), season2=number_text(f"{season / best:.2f}")
        )
    return text


MOST_CROPS, MOST_COVERS = 8, 4
EDGES = ("earliest", "best_from", "best_to", "last")


@dataclass(frozen=True)
class Row:
    """One crop without or under one cover: its windows, and the difference to no cover."""

    name: str
    bars: list[Bar]
    when: str
    moved: str


@dataclass(frozen=True)
class CropSeason:
    """One crop, first without a cover."""

    key: str
    name: str
    rows: list[Row]


@dataclass(frozen=True)
class SeasonMoved:
    """Context of covers/_season.html; `waiting` says whether anything is still being calculated."""

    headline: str
    crops: list[CropSeason]
    calendar: Calendar
    waiting: bool


def season_moved(place: Place, crop_keys: list[str], cover_keys: list[str], today: date) -> SeasonMoved:
    """Compare windows from the answers so far, and request the others."""
    names = dict(offered(place.garden))
    wanted = [key for key in cover_keys if key in names][:MOST_COVERS]
    answers = seasons_at(place, wanted, today)
    seasons = {key: {row.crop_key: row for row in rows} for key, rows in answers.items()}
    blocks = [_crop(key, seasons, wanted, names, today) for key in crop_keys[:MOST_CROPS]] if BARE in seasons else []
    waiting = not {BARE, *wanted} <= set(seasons)
    return SeasonMoved(
        _season_headline(place, seasons, wanted, names, crop_keys, waiting), blocks, ribbon.calendar(today, SPAN_D), waiting
    )


def _crop(
    key: str, seasons: dict[str, dict[str, results.CropSeason]], wanted: list[str], names: dict[str, str], today: date
) -> CropSeason:
    bare = seasons[BARE].get(key)
    rows = [_row(_("No cover"), bare, None, today)]
    rows += [_row(names[cover], seasons[cover].get(key), bare, today) for cover in wanted if cover in seasons]
    return CropSeason(key, crops.crop(key).name, rows)


def _row(name: str, season: results.CropSeason | None, bare: results.CropSeason | None, today: date) -> Row:
    if season is None or not season.windows:
        why = (
            _("no reliable date: {sentence}").format(sentence=sentence(season.limit, season.sown))
            if season and season.limit
            else _("no reliable date")
        )
        return Row(name, [], why, "")
    windows = season.windows
    drawn = ribbon.bars([tuple(getattr(w, edge) for edge in EDGES) for w in windows], today, SPAN_D)  # type: ignore[misc]
    when = words.listed([open_span(window, today) for window in windows])
    return Row(
        name,
        drawn,
        when if season.sown else _("planting out: {when}").format(when=when),
        "" if bare is None else moved_words(season, bare),
    )


def moved_words(season: results.CropSeason, bare: results.CropSeason) -> str:
    """Return how many days earlier the first reliable day is, and how many later the last."""
    if not bare.windows:
        return _("only with a cover")
    sooner = _days(bare.windows[0].earliest, season.windows[0].earliest)
    later = _days(season.windows[-1].last, bare.windows[-1].last)
    endless = season.windows[-1].open_ended or bare.windows[-1].open_ended
    parts = [_moved(sooner, _("starts {days} earlier"), _("starts {days} later"))]
    if not endless:
        parts.append(_moved(later, _("ends {days} later"), _("ends {days} earlier")))
    return ", ".join(part for part in parts if part) or _("same as without cover")


def _moved(days: int, more: str, less: str) -> str:
    return (more if days > 0 else less).format(days=words.count(abs(days), "day", "days")) if days else ""


def _days(later: date, sooner: date) -> int:
    return (later - sooner).days


def _season_headline(
    place: Place,
    seasons: dict[str, dict[str, results.CropSeason]],
    wanted: list[str],
    names: dict[str, str],
    crop_keys: list[str],
    waiting: bool,
) -> str:
    """Return the cover that adds the most days to the crops shown."""
    if waiting:
        return _("Working out the season of {name} under each cover. This takes a few seconds per cover.").format(
            name=place.name
        )
    added = {cover: sum(_added(seasons[cover].get(key), seasons[BARE].get(key)) for key in crop_keys) for cover in wanted}
    best = max(added, key=lambda cover: added[cover], default="")
    if not best or added[best] <= 0:
        return _("None of these covers lengthens the season of {name} for these crops.").format(name=place.name)
    more = words.count(added[best], "more day", "more days")
    return _("All year, {names} adds most to {name}: {more} over {count}.").format(
        names=names[best], name=place.name, more=more, count=words.count(len(crop_keys), "crop", "crops")
    )


def _added(season: results.CropSeason | None, bare: results.CropSeason | None) -> int:
    return _sure(season) - _sure(bare)


def _sure(season: results.CropSeason | None) -> int:
    return sum(_days(window.last, window.earliest) + 1 for window in season.windows) if season else 0
