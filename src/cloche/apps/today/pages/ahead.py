"""The days ahead, windows that moved, and what to look for after a frost."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from django.utils.translation import gettext as _

from cloche.apps.covers import texts as cover_texts
from cloche.apps.covers.watched import Watched, watched_in
from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.forecasts import selectors as windows
from cloche.apps.forecasts.forecast_cache import outlooks_in
from cloche.apps.forecasts.models import WindowChange
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod
from cloche.apps.places.pages import the_cover
from cloche.apps.readings.models import Reading
from cloche.apps.shared import words
from cloche.apps.sowings import selectors as sowings
from cloche.apps.sowings.selectors import State, progress_of
from cloche.apps.today import texts
from cloche.apps.today.after import WORST_FIRST, Frosted, frosted_in
from cloche.apps.today.models import Answer
from cloche.apps.weather import selectors as weather_selectors
from cloche.apps.windows.pages.season import frosts_changed
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units

WEEK_D, LOOKED_D, DAYS_PLANNED = 7, 60, 3


@dataclass(frozen=True)
class Due:
    """Something that falls on a day. kind, subject: which thing."""

    kind: str
    subject: str
    on: date
    text: str
    why: str

    @property
    def uid(self) -> str:
        """The same for the same thing, for calendars."""
        return f"{self.kind}-{self.subject}"


@dataclass(frozen=True)
class WeekDay:
    """A day of the week's page."""

    name: str
    air: str
    plans: list[str]
    due: list[str]


def due_in(garden: Garden, today: date, outlooks: windows.Outlooks | None = None) -> list[Due]:
    """Covers on and off, sowings that are meant or awaited, windows that open, soonest first."""
    openings = windows.next_openings(outlooks_in(garden) if outlooks is None else outlooks)
    all_due = [*_covers(garden, today), *_sowings(garden, today), *_windows(garden, openings, today)]
    return sorted(all_due, key=lambda due: (due.on, due.text))


def next_words(garden: Garden, today: date, outlooks: windows.Outlooks) -> str:
    """Until when there is nothing."""
    coming = next((due for due in due_in(garden, today, outlooks) if due.on > today), None)
    return (
        _("Nothing else is due in the next two months.")
        if coming is None
        else _("Next, {day}: {text}.").format(day=words.day(coming.on, today), text=coming.text)
    )


def week(garden: Garden, units: Units, today: date) -> list[WeekDay]:
    """Seven days from today."""
    due = due_in(garden, today)
    watched = list(watched_in(garden, units, today))
    air = {line.day: (line.low_c, line.high_c) for line in weather_selectors.forecast_days(garden, today)}
    air |= {
        line.day: (line.low_c, line.high_c) for line in weather_selectors.weather_around(garden, today, back=0, ahead=WEEK_D)
    }
    days = []
    for number in range(WEEK_D):
        on = today + timedelta(days=number)
        plans = [text for place_watched in watched if number < DAYS_PLANNED and (text := _asks(place_watched, number))]
        name = _("Today") if number == 0 else words.weekday_this_year(on)
        days.append(WeekDay(name, _air(air.get(on), units), plans, [item.text for item in due if item.on == on]))
    return days


def _asks(watched: Watched, number: int) -> str:
    """What a day and its night ask for there; empty where it may lie as it is."""
    days, nights = watched.days, watched.data.nights
    lines = []
    if number < len(days) and days[number].plan.opening:
        lines.append(cover_texts.opening(watched, number).do)
    if number < len(nights) and nights[number].way and watched.data.growing and (advice := cover_texts.night(watched, number)):
        lines.append(_("For the night: {do}.").format(do=advice.do))
    return f"{watched.place.name}: {' '.join(lines)}" if lines else ""


def _air(ends: tuple[float, float] | None, units: Units) -> str:
    return (
        ""
        if ends is None
        else _("{temperature} to {temperature2}").format(
            temperature=units.temperature_text(ends[0], 0), temperature2=units.temperature_text(ends[1], 0)
        )
    )


def _covers(garden: Garden, today: date) -> Iterator[Due]:
    periods = CoverPeriod.objects.filter(place__garden=garden, place__removed_at__isnull=True).select_related("place", "item")
    for period in periods:
        name = the_cover(period)
        if period.first >= today:
            yield Due(
                "on",
                str(period.pk),
                period.first,
                _("put {name} on {name2}").format(name=name, name2=period.place.name),
                _("As you planned."),
            )
        if period.last is not None and period.last >= today:
            yield Due(
                "off",
                str(period.pk),
                period.last,
                _("take {name} off {name2}").format(name=name, name2=period.place.name),
                _("Its last day, as entered."),
            )


def _sowings(garden: Garden, today: date) -> Iterator[Due]:
    for meant in sowings.intended_in(garden):
        name = crops.crop(meant.crop_key).name_plural
        yield Due(
            "sow",
            str(meant.pk),
            max(meant.sow_on, today),
            _("sow {name} in {name2}").format(name=name, name2=meant.place.name),
            _("As planned."),
        )
    for sowing in sowings.sowings_in(garden).filter(finished=False):
        progress = progress_of(sowing, today)
        half = progress.half_on
        if half and half >= today and progress.state is State.AWAITED:
            name = crops.crop(sowing.crop_key).name_plural
            text = _("half of the {name} in {name2} should be up").format(name=name, name2=sowing.place.name)
            yield Due("up", str(sowing.pk), half, text, _("Soil forecast ends."))


def _windows(garden: Garden, openings: list[tuple[date, int, str]], today: date) -> Iterator[Due]:
    names = {place.pk: place.name for place in garden.places.all()}
    by_day: dict[tuple[date, int], list[str]] = {}
    for on, place, key in openings:
        if place in names and today < on <= today + timedelta(days=LOOKED_D):
            by_day.setdefault((on, place), []).append(key)
    for (on, place), keys in by_day.items():
        text = words.listed([crops.crop(key).name_plural for key in keys], 3)
        yield Due(
            "window",
            f"{place}-{keys[0]}",
            on,
            _("{text} can be sown or planted in {names}").format(text=text, names=names[place]),
            _("The window opens."),
        )


MOST = 5


def changed_since(garden: Garden, since: datetime, today: date) -> list[str]:
    """Sentences: frost dates that come from another source, then windows."""
    frosts = windows.frosts_of(garden)
    announced = frosts_changed(frosts, today) if frosts else ""
    moved = [announced] if announced else []
    moved += [_moved(change, today) for change in windows.moved_since(garden, since)]
    text, rest = moved[:MOST], len(moved) - MOST
    if rest > 0:
        text.append(_("{windows} moved.").format(windows=words.count(rest, "more window", "more windows")))
    read = Reading.objects.current().filter(place__garden=garden, taken_at__gte=since).values("place").distinct().count()
    if read:
        text.append(_("{sentence} read.").format(sentence=words.sentence(words.count(read, "place", "places"))))
    done = Answer.objects.filter(garden=garden, choice=Answer.Choice.DONE, undone_at__isnull=True, at__gte=since).count()
    if done:
        text.append(_("{sentence} done.").format(sentence=words.sentence(words.count(done, "job", "jobs"))))
    return text


def _moved(change: WindowChange, today: date) -> str:
    name = _("{sentence} in {name}").format(
        sentence=words.sentence(crops.crop(change.crop_key).name_plural), name=change.place.name
    )
    if change.before is None and change.after is not None:
        return _("{name}: a window opens {when}.").format(name=name, when=_when(change.after, today))
    if change.after is None:
        return _("{name}: the window has gone.").format(name=name)
    if change.before is None:
        return _("{name}: forecast ready.").format(name=name)
    days = abs((change.after - change.before).days)
    way = _("sooner") if change.after < change.before else _("later")
    return f"{name}: {_when(change.after, today)}, {words.count(days, 'day', 'days')} {way}."


def _when(on: date, today: date) -> str:
    return _("now") if on <= today else _("from {day}").format(day=words.day(on, today))


@dataclass(frozen=True)
class AfterLine:
    """One sowing. harm: a code; text: what happened; look: for what; again: until when sowing again is sensible."""

    place: str
    place_pk: int
    name: str
    harm: str
    text: str
    look: str
    again: str


@dataclass(frozen=True)
class AfterPage:
    """Context of today/after.html."""

    headline: str
    sub: str
    lines: list[AfterLine]


def after_page(garden: Garden, units: Units, today: date) -> AfterPage:
    """All sowings that were up in a night that was cold enough, the worst hurt first."""
    frosted = frosted_in(forecasts.grounds_in(garden), today)
    lines = [
        AfterLine(
            row.place.name,
            row.place.pk,
            row.name,
            str(row.what.harm),
            texts.frosted(row, units),
            texts.look_for(row),
            texts.sow_again(row, today),
        )
        for row in frosted
    ]
    return AfterPage(_headline(frosted), _sub(lines), lines)


def _headline(frosted: Sequence[Frosted]) -> str:
    """How it went, in a sentence."""
    if not frosted:
        return _("No seedlings or plants were reached by frost in the last nights.")
    counts = [(harm, sum(row.what.harm is harm for row in frosted)) for harm in WORST_FIRST]
    parts = [f"{words.count(count, 'sowing', 'sowings')} {texts.HARM_NAMES[harm]}" for harm, count in counts if count]
    return _("After the frost: {listed}.").format(listed=words.listed(parts, 4))


def _sub(lines: list[AfterLine]) -> str:
    if not lines:
        return _("What frost does to a crop depends on its stage. After a cold night, each sowing is listed here.")
    return _(
        "Based on the cold that plants felt where they grow, at their stage. Check before you act: what you see counts more."
    )
