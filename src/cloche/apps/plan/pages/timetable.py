"""The timetable of a bed's cover: for each crop under it, when it goes on, is aired, is opened at its ends, and comes off."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

from django.utils.translation import gettext as _
from django.utils.translation import ngettext

from cloche.apps.covers import flows
from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.forecasts.forecast_cache import outlooks_in
from cloche.apps.places.models import Cover, CoverPeriod, Place
from cloche.apps.places.selectors import covers_of, roofs_from
from cloche.apps.plan import courses, texts
from cloche.apps.plants import selectors as plants
from cloche.apps.plants.models import Planting
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.sowings.selectors import sowings_in
from cloche.bridge.services import covers, crops
from cloche.bridge.services.covers import OffBy, Timetable
from cloche.bridge.values.units import Units
from cloche.drawing import under_cover
from cloche_engine.places.kinds import BENCHES

SOWN_AGO_D, MOST = 150, 12


@dataclass(frozen=True)
class Over:
    """A cover in the timetable.

    `stands` means that it is there or planned rather than being tried; `period` gives its days, None if tried or permanent.
    """

    key: str
    item: Cover | None
    period: CoverPeriod | None
    stands: bool

    @property
    def name(self) -> str:
        """Return the name of one's own cover, or of its kind."""
        return self.item.name if self.item else covers.with_article(self.key)


class Kind(StrEnum):
    """Kinds of step: something done to a cover or beneath it."""

    ON = "on"
    IN = "in"
    UP = "up"
    ENDS = "ends"
    TOUCHES = "touches"
    OFF = "off"


HEADLINES = {
    Kind.ON: lazy("{place}: put the cover on {day}, for {name}."),
    Kind.IN: lazy("{place}: sow or plant {name} {day}."),
    Kind.UP: lazy("{place}: {name} up about {day}. From then on, open the cover when the sun shines."),
    Kind.ENDS: lazy("{place}: leave the ends of the cover open from {day} on."),
    Kind.TOUCHES: lazy("{place}: {name} touch the cover about {day}."),
    Kind.OFF: lazy("{place}: the cover can come off {day}."),
}


@dataclass(frozen=True)
class Step:
    """An event on a day and what to do about it."""

    kind: Kind
    on: date
    when: str
    what: str
    advice: str = ""


@dataclass(frozen=True)
class Row:
    """One crop under the cover.

    `picture` is None for a crop that needs no cover; `caution` describes a conflict.
    """

    name: str
    open_at: Planting | None
    picture: under_cover.UnderCover | None
    steps: list[Step]
    caution: str
    off: date | None
    coming: Step | None


@dataclass(frozen=True)
class TimetablePage:
    """Context of plan/timetable.html.

    `offers` lists covers to try by key, `tried` the one shown, and `waiting` tells whether the windows without a cover are
    still being calculated.
    """

    headline: str
    sub: str
    rows: list[Row]
    offers: list[tuple[str, str]]
    tried: str
    after: str
    waiting: bool


def timetable_page(place: Place, wanted: str, units: Units, today: date) -> TimetablePage:
    """Build the timetable of a bed; `wanted` is the key of a cover to try in place of the current one."""
    offers = flows.offered(place.garden)
    over = _over(place, wanted, dict(offers), today)
    ground = forecasts.ground_of(place)
    nights = _nights(ground, today)
    if over is None or ground is None or nights is None:
        return TimetablePage(_without(place, over), "", [], offers, "", "", False)
    known, shape = courses.known_of(place, today), plants.shape_of(place, units)
    room = courses.room_under(over.key, over.item, shape)
    bare = _bare_up(place, known, today)
    growing = [known.grows(planting) for planting in _covered(place, over, today)][:MOST]
    rows = []
    for plant in growing:
        clear = None if room is None else courses.clear_m(plant.planting, shape, room)
        rows.append(_row(plant, over, clear, None if bare is None else bare.get(plant.planting.crop_key), nights, units, today))
    wants = [row for row in rows if row.picture]
    free = max((row.off for row in wants if row.off), default=None) if all(row.off for row in wants) else None
    return TimetablePage(
        headline=_headline(place, over, rows, today),
        sub=_sub(place, over, today),
        rows=rows,
        offers=offers,
        tried="" if over.stands else wanted or _key(over),
        after=_after(place, free, today) if wants else "",
        waiting=bare is None,
    )


def _nights(ground: forecasts.Ground | None, today: date) -> list[float] | None:
    """Return the forecast lows from today on, or None if the forecast is too short."""
    if ground is None or ground.forecast.nights is None:
        return None
    low_c: list[float] = ground.forecast.nights.even_low_c
    return low_c[max((today - ground.forecast.day).days, 0) :] or None


def _key(over: Over) -> str:
    return f"{flows.OWN}{over.item.pk}" if over.item else over.key


def _over(place: Place, wanted: str, offered: dict[str, str], today: date) -> Over | None:
    """Return the cover requested, else the current or next one, else the first that can be tried."""
    if wanted not in offered:
        there = next(iter(roofs_from(place, today)), None)
        if there is not None:
            return Over(there.key, there.item, there.period, stands=True)
        wanted = next(iter(offered), "")
    span = flows.span_for(place.garden, wanted, today)
    if span is None:
        return None
    return Over(span.key, place.garden.covers.get(pk=span.item) if span.item else None, None, stands=False)


def _covered(place: Place, over: Over, today: date) -> list[Planting]:
    """Return plantings in the bed or planned for it under the cover, and sowings that are not on the plan."""
    rows = [row for row in plants.current_in(place.garden, today).filter(place=place) if row.crop_key]
    known = set(plants.plantings_in(place.garden).filter(place=place).values_list("sowing_id", flat=True))
    sown = sowings_in(place.garden).filter(place=place, sown_on__gte=today - timedelta(days=SOWN_AGO_D))
    rows += [
        Planting(place=place, crop_key=sowing.crop_key, sowing=sowing, planted_on=sowing.sown_on)
        for sowing in sown
        if sowing.pk not in known and not (sowing.finished and not any(count.up for count in sowing.counts.all()))
    ]
    last = over.period.last if over.period else None
    there = [row for row in rows if last is None or courses.begins_on(row, today) <= last]
    return sorted(there, key=lambda row: (courses.begins_on(row, today), texts.name_of(row)))


def _bare_up(place: Place, known: courses.Known, today: date) -> dict[str, date] | None:
    """Return by crop when it would emerge if sown uncovered on the first safe day; None while that is calculated."""
    if covers_of(place):
        seasons = flows.seasons_at(place, [], today).get(flows.BARE)
        if seasons is None:
            return None
        firsts = [
            (bare_season.crop_key, bare_season.sown, opens)
            for bare_season in seasons
            if (opens := bare_season.opens) is not None and bare_season.windows
        ]
    else:
        rows = forecasts.outlooks_at(place)
        firsts = [(row.crop_key, row.sown, row.windows[0].earliest) for row in rows if row.windows]
    return {key: first + timedelta(days=round(crops.crop(key).coming_up_d) if sown else 0) for key, sown, first in firsts}


def _row(
    plant: courses.Grows, over: Over, clear_m: float | None, bare: date | None, nights: list[float], units: Units, today: date
) -> Row:
    garden = plant.planting.place.garden
    touches = None if clear_m is None else plant.course.touches(clear_m)
    up = max(plant.up, today)
    days = covers.covered_timetable(
        plant.planting.crop_key,
        (plant.up - today).days,
        None if touches is None else max((touches - today).days, 0),
        None if bare is None else max((bare - today).days, 0),
        nights,
        garden.uncover_rule,
    )
    ends, off = (None if each is None else today + timedelta(days=each) for each in (days.ends_d, days.off_d))
    if not over.stands and off is not None and off <= up:
        text = _("It needs no cover: by the time it is up, nights are mild enough, or an uncovered sowing would be up as well.")
        return Row(texts.name_of(plant.planting), plant.planting if plant.planting.pk else None, None, [], text, None, None)
    if over.period is not None:
        on = over.period.first
    else:
        on = min(plant.begins, today) if over.stands else max(plant.begins - timedelta(days=covers.WARMED_D), today)
    steps = _steps(plant, over, days, (on, ends, touches, off), units, today)
    picture = under_cover.under_cover(
        clear_m, (on, ends, off), (plant.up, plant.course.height_m), [step.on for step in steps], today
    )
    return Row(
        name=texts.name_of(plant.planting),
        open_at=plant.planting if plant.planting.pk else None,
        picture=picture,
        steps=steps,
        caution=_caution(days, touches, clear_m, plant, off, units),
        off=off,
        coming=next((step for step in steps if step.on > today), None),
    )


def _steps(
    plant: courses.Grows,
    over: Over,
    days: Timetable,
    dates: tuple[date, date | None, date | None, date | None],
    units: Units,
    today: date,
) -> list[Step]:
    on, ends, touches, off = dates
    ends_c, off_c = (units.temperature_text(value, 0) for value in covers.nights_wanted(plant.planting.crop_key))
    seeded = plant.planting.is_seeded

    def step(kind: Kind, day: date, what: str, advice: str = "") -> Step:
        return Step(kind, day, words.day(day, today), what, advice)

    always = over.stands and over.period is None
    steps = [] if always else [step(Kind.ON, on, _("cover on"), "" if over.stands else _("for the soil to warm and dry"))]
    steps.append(step(Kind.IN, plant.begins, _("sown") if seeded else _("planting out")))
    if seeded:
        steps.append(step(Kind.UP, plant.up, _("up"), _("from now on, open it on every sunny day and close it for the night")))
    if ends is not None and (off is None or ends < off):
        steps.append(step(Kind.ENDS, ends, _("ends open"), _("nights stay above {low}").format(low=ends_c)))
    if touches is not None and (off is None or touches <= off):
        steps.append(step(Kind.TOUCHES, touches, _("touches the cover")))
    if off is not None and days.off_by is not None:
        steps.append(step(Kind.OFF, off, _("cover off"), _off_words(days.off_by, off_c)))
    return sorted(steps, key=lambda each: each.on)


def _off_words(by: OffBy, night: str) -> str:
    return {
        OffBy.NIGHTS: _("nights stay above {night}").format(night=night),
        OffBy.HEIGHT: _("the crop is as tall as the cover"),
        OffBy.ESTABLISHED: _("seedlings are established"),
        OffBy.BARE: _("an uncovered sowing would be up by now"),
    }[by]


def _caution(
    days: Timetable, touches: date | None, clear_m: float | None, plant: courses.Grows, off: date | None, units: Units
) -> str:
    """Warn where the cover is too low for as long as it is needed."""
    if touches is None or clear_m is None or (off is not None and not days.too_low_d):
        return ""
    if off is None:
        return _(
            "The crop touches the cover while nights are still too cold without one. Raise the cover, or "
            "open it at the top during the day."
        )
    tall = units.length_text(round(plant.course.height_on(off), 2))
    text = ngettext(
        "The cover is too low for its last {number} day: it is {clear} high there, and the crop will be {tall}.",
        "The cover is too low for its last {number} days: it is {clear} high there, and the crop will be {tall}.",
        days.too_low_d,
    )
    return text.format(number=days.too_low_d, clear=units.length_text(round(clear_m, 2)), tall=tall)


def _without(place: Place, over: Over | None) -> str:
    if over is None:
        return _("There is no cover over {place}.").format(place=place.name)
    return _("{place} has no forecast yet. The dates for its cover will appear with it.").format(place=place.name)


def _headline(place: Place, over: Over, rows: list[Row], today: date) -> str:
    if not rows:
        return _("Nothing is growing in {place} or planned for it yet.").format(place=place.name)
    ahead = [(row.coming.on, row.name, row.coming) for row in rows if row.coming]
    if not ahead:
        return _("{place}: nothing more to do for the cover.").format(place=place.name)
    _on, name, step = min(ahead, key=lambda each: each[:2])
    return str(HEADLINES[step.kind]).format(place=place.name, day=step.when, name=name)


def _sub(place: Place, over: Over, today: date) -> str:
    if over.stands and over.period is None:
        return _("Under {cover}, which is always there.").format(cover=over.name)
    if over.period is None:
        return _(
            "As if {cover} were put over it. The picture shows the crop in soil as it is now; under the "
            "cover it would be sooner."
        ).format(cover=over.name)
    if over.period.first > today:
        return _("Under {cover} from {day} on.").format(cover=over.name, day=words.day(over.period.first, today))
    return _("Under {cover} since {day}.").format(cover=over.name, day=words.day(over.period.first, today))


def _after(place: Place, free: date | None, today: date) -> str:
    """Suggest where the cover could go next."""
    if free is None:
        return _("Nights stay too cold to take it off for as far as the forecast goes.")
    windows = forecasts.sown_windows(place.garden.places.all(), outlooks_in(place.garden))
    meant = plants.current_in(place.garden, today).filter(planted_on=None, planned_on__gte=free).exclude(place=place)
    for planting in meant.exclude(crop_key="").exclude(place__kind__in=BENCHES).order_by("planned_on", "pk"):
        sure = next((row.windows for row in windows.get(planting.crop_key, []) if row.place.pk == planting.place_id), None)
        then = planting.planned_on or free
        if sure is not None and (not sure or sure[0].earliest > then):
            return _("From {day} it is free: {place} needs a cover for its {crop}, planned for {then}.").format(
                day=words.day(free, today),
                place=planting.place.name,
                crop=texts.plants_of(planting),
                then=words.day(then, today),
            )
    return _("From {day} it is free for another bed.").format(day=words.day(free, today))
