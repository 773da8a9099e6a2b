"""One tray, or any heated place: its roots between the set-points, what heats and lights it, in which room it stands."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date, datetime, timedelta

from django.utils.translation import gettext as _

from cloche.apps.bench import selectors as climates
from cloche.apps.bench import texts
from cloche.apps.bench.life import Life, lives_in
from cloche.apps.bench.pages import rooms
from cloche.apps.bench.pages.bench import SHOWS, SPOILT, mixed, room_name
from cloche.apps.bench.pages.checks import Checks, checks_of
from cloche.apps.bench.pages.diary import TestLine, test_lines
from cloche.apps.bench.pages.stands import moved_text
from cloche.apps.bench.selectors import has_heater, heat_on, hotbed_below, there
from cloche.apps.bench.worth import worth_text
from cloche.apps.covers.pages.hotbed import hotbed_page
from cloche.apps.forecasts.selectors import Ground, ground_of
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.bridge.services.trays import COLD_TAP_C
from cloche.bridge.values.units import Units
from cloche.drawing.bench import HeaterDay, heater_day
from cloche.drawing.geometry import value_ticks
from cloche_engine.places.kinds import BENCHES

BEHIND_H, AHEAD_H, EVERY_H = 24, 48, 12


@dataclass(frozen=True)
class SourceLine:
    """A heat source or lamp. `on` says whether it is there today, `ruled` whether it can be turned down."""

    pk: int
    what: str
    when: str
    on: bool
    ruled: bool = False


@dataclass(frozen=True)
class TrayPage:
    """Context of bench/tray.html."""

    headline: str
    sub: str
    day: HeaterDay | None
    day_says: str
    heat: list[SourceLine]
    lamps: list[SourceLine]
    light: str
    warnings: list[tuple[str, bool]]
    mixed: list[str]
    bears: list[str] = field(default_factory=list)
    water: str = ""
    growth: list[str] = field(default_factory=list)
    tests: list[TestLine] = field(default_factory=list)
    checks: Checks | None = None
    on_hotbeds: list[SourceLine] = field(default_factory=list)
    hotbed_says: list[str] = field(default_factory=list)
    worth: str = ""


def tray_page(place: Place, units: Units, now: datetime, water_c: float = COLD_TAP_C) -> TrayPage:
    """Return everything that warms and lights a tray, and what a litre of water does to its roots."""
    garden = place.garden
    today = now.astimezone(garden.timezone).date()
    ground = ground_of(place)
    lives = lives_in(garden, today)
    heat = [
        SourceLine(
            heat_period.pk,
            texts.heat_text(heat_period, units),
            _days(heat_period, today),
            there(heat_period, today),
            heat_period.control == heat_period.Control.THERMOSTAT,
        )
        for heat_period in reversed(place.heat_periods.all())
    ]
    lamps = [
        SourceLine(lamp.pk, texts.lamp_text(lamp), _days(lamp, today), there(lamp, today))
        for lamp in reversed(place.lamps.all())
    ]
    stays = list(place.on_hotbeds.filter(hotbed__removed_at__isnull=True).select_related("hotbed"))
    on = [
        SourceLine(stay.pk, _("On {hotbed}").format(hotbed=stay.hotbed.name), _days(stay, today), there(stay, today))
        for stay in reversed(stays)
    ]
    # A heater is tested before anything is known of its place.
    tests = test_lines(place, units, today)
    checks = checks_of(place, today) if has_heater(place) else None
    if ground is None:
        name = _("Working out the forecast for {name}…").format(name=place.name)
        return TrayPage(name, "", None, "", heat, lamps, "", [], [], on_hotbeds=on, tests=tests, checks=checks)
    climate = climates.climate_of(ground)
    mine = [life for life in lives if life.sowing.place_id == place.pk]
    warnings = _warnings(mine, climate, units)
    if warnings:
        warnings += [(text, False) for text in [moved_text(place, mine)] if text]
    return TrayPage(
        headline=_headline(place, climate, units, today),
        sub=_sub(place, climate, units, today),
        day=_day(ground, now, units),
        day_says=texts.heat_does(climate, units, garden.price_kwh),
        heat=heat,
        lamps=lamps,
        light=texts.light_text(climate),
        warnings=warnings,
        mixed=mixed(lives, place, today),
        bears=rooms.bears(ground, climate, units, today),
        water=rooms.water_text(climate, units, water_c) if place.kind in BENCHES else "",
        growth=rooms.growth_lines(ground, climate, mine, garden, units, today),
        tests=tests,
        checks=checks,
        on_hotbeds=on,
        hotbed_says=[text for stay in stays if there(stay, today) for text in hotbed_page(stay.hotbed, units, today).for_trays],
        worth=worth_text(place, units, today),
    )


def _warnings(mine: list[Life], climate: climates.Climate, units: Units) -> list[tuple[str, bool]]:
    """Return the effect of warmth and light on the seedlings, and whether it spoils them."""
    warnings: dict[str, bool] = {}
    for life in mine:
        habit = climates.habit(climate, life.crop)
        text = texts.habit_text(life.crop, climate, habit, units) if life.up >= SHOWS else ""
        if text:
            warnings[text] = habit in SPOILT
    return list(warnings.items())


def _days(span: object, today: date) -> str:
    first, last = span.first, span.last  # type: ignore[attr-defined]
    if last is not None:
        return words.span(first, last, today)
    day = words.day(first, today)
    return _("since {day}").format(day=day) if first <= today else _("from {day}").format(day=day)


def _headline(place: Place, climate: climates.Climate, units: Units, today: date) -> str:
    roots = units.temperature_text(climate.roots_c, 0)
    hotbed = hotbed_below(place, today)
    if hotbed is not None:
        text = _("Roots in {place} will average about {roots} this week, on {hotbed}.")
        return text.format(place=place.name, roots=roots, hotbed=hotbed.name)
    if climate.heat is None:
        return _("Roots in {place} will average about {roots} this week, without heat.").format(place=place.name, roots=roots)
    without = units.temperature_text(sum(climate.heat.without_c[:7]) / 7, 0)
    return _("Roots in {place} will average about {roots} this week; without heat, {without}.").format(
        place=place.name, roots=roots, without=without
    )


def _sub(place: Place, climate: climates.Climate, units: Units, today: date) -> str:
    air = units.temperature_text(climate.air_c, 0)
    period = heat_on(place, today)
    text = _("{room}, air about {air}.").format(room=room_name(place, today), air=air)
    if period is not None and period.control == period.Control.THERMOSTAT and period.probe == period.Probe.AIR:
        text += " " + _(
            "Its probe hangs in the air. While the room is colder than the set-point, it heats without "
            "stopping. Put the probe beside the roots."
        )
    return text


def _day(ground: Ground, now: datetime, units: Units) -> HeaterDay | None:
    data = ground.data
    index = int((now - data.start) / timedelta(hours=1))
    first, last = index - BEHIND_H, index + AHEAD_H
    courses = tuple(side[max(first, 0) : last] for side in (data.near_low_c, data.near_mid_c, data.near_high_c))
    if len(courses[1]) < EVERY_H:
        return None
    zone = ground.place.garden.timezone
    hours = []
    for i in range(len(courses[1])):
        local = (data.start + timedelta(hours=max(first, 0) + i)).astimezone(zone)
        if local.hour % EVERY_H == 0:
            hours.append((float(i), words.weekday_name(local.date()) if local.hour == 0 else words.hour(12)))
    rules = []
    if data.heat and data.heat.ruled:
        start, stop = data.heat.ruled
        on, off = units.temperature_text(start, 0), units.temperature_text(stop, 0)
        rules = [(start, _("heat on below {on}").format(on=on)), (stop, _("heat off above {off}").format(off=off))]
    low, high = min(courses[0]), max(courses[2])
    degrees = [(value, units.temperature_text(value, 0)) for value in value_ticks(low, max(high, low + 2), most=4)]
    return heater_day(courses, rules, hours, degrees, float(index - max(first, 0)))  # type: ignore[arg-type]
