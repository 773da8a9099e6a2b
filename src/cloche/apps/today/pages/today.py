"""Today: the soil now, what to do, and what comes next."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta

from django.urls import reverse
from django.utils.translation import gettext as _

from cloche.apps.covers import texts as cover_texts
from cloche.apps.covers.watched import Watched
from cloche.apps.forecasts import selectors as windows
from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.pages import silence_lines
from cloche.apps.readings.models import Reading
from cloche.apps.seed.selectors import values_in_use
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.today import texts
from cloche.apps.today.models import Answer
from cloche.apps.today.pages import ahead
from cloche.apps.today.pages.ahead import changed_since
from cloche.apps.today.selectors import Day, day_of, known_in
from cloche.apps.today.texts import JobLine
from cloche.apps.weather import selectors as weather_selectors
from cloche.apps.weather.models import DailyWeather
from cloche.apps.windows.pages import ground as ground_pages
from cloche.apps.windows.pages.ground import FIGURE_NAMES, PlaceLine, Warmth, warmth_in
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units
from cloche_engine.crops import catalogue
from cloche_engine.inputs import Day as WeatherDay
from cloche_engine.places.kinds import INDOORS

SETTLED_D = 7


@dataclass(frozen=True)
class Step:
    """Something a newcomer does once: what, what it gives, where, and whether it is done."""

    name: str
    gives: str
    url: str
    done: bool


def next_steps(garden: Garden, today: date) -> list[Step]:
    """All of them with what is done ticked; none once they are over."""
    first = (
        Reading.objects.current().filter(place__garden=garden).order_by("taken_at").values_list("taken_at", flat=True).first()
    )
    read_long_ago = first is not None and first.astimezone(garden.timezone).date() <= today - timedelta(days=SETTLED_D)
    if read_long_ago:
        return []
    steps = [
        Step(
            _("Choose your crops"),
            _("Until then Cloche shows crops that nearly everyone grows."),
            reverse("my_crops", args=[garden.pk]),
            bool(garden.crops),
        ),
        Step(
            _("Read one thermometer"),
            _(
                "Push the thermometer in to seed depth, wait until the number stops changing, and enter it. "
                "Every reading makes the forecast more certain."
            ),
            reverse("round", args=[garden.pk]),
            first is not None,
        ),
        Step(
            _("Enter yesterday’s low and high"),
            _("Or let a weather service do it. Cloche needs it to know what warmed the soil."),
            reverse("weather", args=[garden.pk]),
            DailyWeather.objects.filter(garden=garden).exists(),
        ),
    ]
    return [] if all(step.done for step in steps) else steps


@dataclass(frozen=True)
class AnswerLine:
    """An answer, and what it was to."""

    answer: Answer
    text: str


@dataclass(frozen=True)
class DayLines:
    """Context of today/_jobs.html."""

    jobs: list[JobLine]
    answered: list[AnswerLine]


def day_lines(garden: Garden, units: Units, now: datetime, day: Day | None = None) -> DayLines:
    """Of the garden's today."""
    today = now.astimezone(garden.timezone).date()
    day = day_of(garden, units, now) if day is None else day
    jobs = [texts.job_line(job, units, today) for job in day.jobs]
    return DayLines(jobs, [AnswerLine(answer, texts.answered(answer)) for answer in day.answers])


MOST_SHOWN, CROWD = 5, 7
A_DAY = timedelta(days=1)
_NOT_YET = lazy("The next window will be known once every place has been calculated.")


@dataclass(frozen=True)
class Sowable:
    """A crop that could go into a place now."""

    key: str
    name: str
    words: str


@dataclass(frozen=True)
class Inside:
    """Air under a cover: tonight's low and tomorrow's high, and both in a sentence."""

    low: str
    high: str
    text: str


@dataclass(frozen=True)
class PlaceNow:
    """A slice and what could go into it now; opens: what comes first where nothing can yet. held_back: warm enough, but.
    inside: tonight's low and tomorrow's high under its cover."""

    line: PlaceLine
    inside: Inside | None
    day_figure: str
    figure_rests_on: str
    sow: list[Sowable]
    more: int
    held_back: str
    opens: str


@dataclass(frozen=True)
class TodayPage:
    """Context of the page."""

    headline: str
    sub: str
    sow: str
    places: list[PlaceNow]
    crowd: str
    held_back: list[str]
    to_read: list[PlaceLine]
    read: int
    air: str
    next_up: list[str]
    none_next: str
    silent: list[str]
    day: DayLines
    changed: list[str]
    steps: list[Step]


def today_page(garden: Garden, units: Units, now: datetime) -> TodayPage:
    """Everything Today says."""
    local = now.astimezone(garden.timezone)
    today = local.date()
    known = known_in(garden, units, today)
    grounds, outlooks = known.grounds, known.outlooks
    warmth = warmth_in(garden, grounds, now)
    lines = ground_pages.lines(garden, grounds, warmth, units, now, known.periods)
    open_now = windows.open_now(outlooks)
    openings = windows.next_openings(outlooks)
    first = {place: (on, key) for on, place, key in reversed(openings)}
    closed = windows.held_now(outlooks)
    by_place = {current.place.pk: current for current in warmth}
    grown = crops.of_garden(garden.crops, values_in_use(garden))
    inside = {watched.place.pk: _inside(watched) for watched in known.watched if watched.data.covered}
    crowded = len(lines) > CROWD

    def now_in(line: PlaceLine) -> PlaceNow:
        held = _closed(grown, closed, line)
        place_now = _place_now(line, by_place.get(line.place.pk), open_now, first.get(line.place.pk), units, today, held)
        return replace(
            place_now, inside=inside.get(line.place.pk), figure_rests_on="" if crowded else place_now.figure_rests_on
        )

    places = [now_in(line) for line in lines]
    to_read = [line for line in lines if not line.read_today]
    sow = _headline(lines, warmth, open_now, openings, today)
    day = day_of(garden, units, now, known)
    return TodayPage(
        headline=_work(day, units, len(to_read), garden, today, outlooks) if warmth else sow,
        sow=sow if warmth else "",
        day=day_lines(garden, units, now, day),
        changed=changed_since(garden, now - A_DAY, today),
        sub=_("{weekday}, {clock} · soil temperature now at each place’s seed depth ({degree})").format(
            weekday=words.weekday(today), clock=words.clock(local), degree=units.degree
        ),
        places=places,
        crowd="few" if len(lines) <= 4 else "some" if not crowded else "many",
        held_back=[f"{p.line.place.name}: {p.held_back}" for p in places if p.held_back],
        to_read=to_read,
        read=len(lines) - len(to_read),
        air=_air(garden, units, today),
        next_up=_next_up(warmth, openings, today),
        none_next=_("No window opens within three weeks.") if len(warmth) == len(lines) else _NOT_YET,
        silent=silence_lines(garden, now),
        steps=next_steps(garden, today),
    )


def _work(day: Day, units: Units, to_read: int, garden: Garden, today: date, outlooks: windows.Outlooks) -> str:
    """The day in a sentence: the first of what must be done, and how much else; or that nothing is, and until when."""
    if not day.jobs:
        only = _("Only the probes need reading today.") if to_read else _("Nothing needs doing today.")
        return f"{only} {ahead.next_words(garden, today, outlooks)}"
    first = next((job for job in day.jobs if job.urgent), day.jobs[0])
    more = len(day.jobs) - 1
    rest = "" if not more else _(" {things} below.").format(things=words.sentence(words.count(more, "more job", "more jobs")))
    when = _(", tomorrow") if first.is_tomorrow else ""
    when += _(", estimated") if first.is_guessed else ""
    return f"{first.place}{when}: {words.within(texts.job_line(first, units, today).do)}{rest}"


def _inside(watched: Watched) -> Inside:
    """Tonight's low and tomorrow's high inside, opened as told."""
    middle = watched.data.covered.planned_c[1] if watched.data.covered else []
    low, high = (cover_texts.temperature(watched, value) for value in (min(middle[18:33]), max(middle[24:48])))
    return Inside(low, high, _("inside tonight {low}, tomorrow {high}").format(low=low, high=high))


def _crops(keys: Iterable[str]) -> list[catalogue.Crop]:
    return [crops.crop(key) for key in keys]


def _headline(
    lines: list[PlaceLine],
    warmth: list[Warmth],
    open_now: dict[int, dict[str, float]],
    openings: list[tuple[date, int, str]],
    today: date,
) -> str:
    if not lines:
        return _("Add your first place, and Cloche will show what you can sow there.")
    if not warmth:
        return _("The first forecast of this garden is being calculated.")
    # A tray indoors is nearly always warm enough: the question of the day is asked of the ground outdoors.
    outdoors = [s for s in warmth if s.place.kind not in INDOORS] or warmth
    sowable = {s.place.pk: _crops(open_now.get(s.place.pk, {})) for s in outdoors}
    best = max(outdoors, key=lambda s: len(sowable[s.place.pk]))
    here = sowable[best.place.pk]
    if not here:
        return _("Nothing can be sown or planted yet. {first_opening}").format(
            first_opening=_first_opening(outdoors, openings, today, len(warmth) < len(lines))
        )
    waiting = [s.place.name for s in outdoors if not sowable[s.place.pk]]
    rest = f"; {words.listed(waiting, 2)} {_('waits') if len(waiting) == 1 else _('wait')}." if waiting else "."
    everywhere = [crop for crop in here if all(crop in sowable[s.place.pk] for s in outdoors)]
    if len(outdoors) > 1 and everywhere:
        more = len(here) - len(everywhere)
        extra = _(", and {more} more crops in {name}").format(more=more, name=best.place.name) if more else ""
        return _("{sentence} can be sown or planted anywhere now{extra}.").format(
            sentence=words.sentence(_plurals(everywhere)), extra=extra
        )
    return _("{sentence} can be sown or planted in {name} now{rest}").format(
        sentence=words.sentence(_plurals(here)), name=best.place.name, rest=rest
    )


def _plurals(some: list[catalogue.Crop]) -> str:
    return words.listed([crop.name_plural for crop in some], 3)


def _first_opening(warmth: list[Warmth], openings: list[tuple[date, int, str]], today: date, waits: bool) -> str:
    """waits: whether places are still being calculated, so that nothing can be said of what they will bring."""
    names = {s.place.pk: s.place.name for s in warmth}
    direct = [(on, place, key) for on, place, key in openings if place in names]
    if not direct:
        return "" if waits else _("No window opens in the months ahead.")
    on, place, key = direct[0]
    return _("The first will be {name_plural} in {names}, from {day}.").format(
        name_plural=crops.crop(key).name_plural, names=names[place], day=words.day(on, today)
    )


def _closed(grown: list[catalogue.Crop], closed: dict[int, set[str]], line: PlaceLine) -> list[catalogue.Crop]:
    return [crop for crop in grown if crop.key in closed.get(line.place.pk, ())]


def _place_now(
    line: PlaceLine,
    current: Warmth | None,
    open_now: dict[int, dict[str, float]],
    opening: tuple[date, str] | None,
    units: Units,
    today: date,
    closed: list[catalogue.Crop],
) -> PlaceNow:
    if current is None:
        return PlaceNow(line, None, "", "", [], 0, "", "")
    days = open_now.get(line.place.pk, {})
    sow = [Sowable(crop.key, crop.name, f"{days[crop.key]:.0f} d") for crop in _crops(days)]
    held = [crop.name_plural for crop in closed if crop.comfortable_at(current.day_c)]
    opens = ""
    if opening is not None:
        on, key = opening
        opens = _("{name_plural} from {day}").format(name_plural=crops.crop(key).name_plural, day=words.day(on, today))
    figure, rests_on = (
        _("mean {temperature}").format(temperature=units.temperature_text(current.day_c)),
        FIGURE_NAMES[current.figure],
    )
    return PlaceNow(line, None, figure, rests_on, sow[:MOST_SHOWN], max(0, len(sow) - MOST_SHOWN), words.listed(held, 3), opens)


def _air(garden: Garden, units: Units, today: date) -> str:
    rows: dict[date, DailyWeather | WeatherDay] = {line.day: line for line in weather_selectors.forecast_days(garden, today)}
    rows |= {line.day: line for line in weather_selectors.weather_around(garden, today, back=1, ahead=1)}
    text = []
    for offset, name in ((-1, _("yesterday")), (0, _("today")), (1, _("tomorrow"))):
        line = rows.get(date.fromordinal(today.toordinal() + offset))
        if line:
            low, high = units.temperature_text(line.low_c, 0), units.temperature_text(line.high_c, 0)
            text.append(_("{name} {low} to {high}").format(name=name, low=low, high=high))
    return words.sentence(", ".join(text)) + "." if text else ""


def _next_up(warmth: list[Warmth], openings: list[tuple[date, int, str]], today: date) -> list[str]:
    names = {s.place.pk: s.place.name for s in warmth}
    by_day: dict[tuple[date, int], list[str]] = {}
    for on, place, key in openings:
        if place in names and (on - today).days <= 21:
            by_day.setdefault((on, place), []).append(crops.crop(key).name_plural)
    return [f"{words.day(on, today)}, {names[place]}: {words.listed(c, 3)}" for (on, place), c in list(by_day.items())[:6]]
