"""The coming days: what is due on which, for the week's page, the calendar, and for saying until when there is nothing."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta

from django.utils.translation import gettext as _

from cloche.apps.covers import texts
from cloche.apps.covers.watched import Watched, watched_in
from cloche.apps.forecasts import selectors as windows
from cloche.apps.forecasts.remembered import outlooks_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod
from cloche.apps.places.pages.place_log import the_cover
from cloche.apps.shared import words
from cloche.apps.sowings import selectors as sowings
from cloche.apps.sowings.progress import State, progress_of
from cloche.apps.weather import selectors as weather_selectors
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
        lines.append(texts.opening(watched, number).do)
    if number < len(nights) and nights[number].way and watched.data.growing and (advice := texts.night(watched, number)):
        lines.append(_("For the night {do}.").format(do=advice.do))
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
                _("Its last day, as you wrote down."),
            )


def _sowings(garden: Garden, today: date) -> Iterator[Due]:
    for meant in sowings.intended_in(garden):
        name = crops.crop(meant.crop_key).name_plural
        yield Due(
            "sow",
            str(meant.pk),
            max(meant.sow_on, today),
            _("sow {name} in {name2}").format(name=name, name2=meant.place.name),
            _("As you meant to."),
        )
    for sowing in sowings.sowings_in(garden).filter(finished=False):
        progress = progress_of(sowing, today)
        half = progress.half_on
        if half and half >= today and progress.state is State.AWAITED:
            name = crops.crop(sowing.crop_key).name_plural
            text = _("half of the {name} in {name2} should be up").format(name=name, name2=sowing.place.name)
            yield Due("up", str(sowing.pk), half, text, _("As far as the soil goes."))


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
            _("{text} may go into {names}").format(text=text, names=names[place]),
            _("The window opens."),
        )
