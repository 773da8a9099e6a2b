"""A place as the engine takes it: its ground, its covers through time, the house it stands in."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta

import numpy as np

from cloche_engine.covers.bend import is_roof
from cloche_engine.covers.kinds import CoverKind, kind
from cloche_engine.covers.periods import CoverPeriod, Noted, Vent
from cloche_engine.forecast.heating import heatings_of, layered, room_of, window_of
from cloche_engine.hazards import ventilation
from cloche_engine.heat.hotbed import USUAL, heating_of
from cloche_engine.heat.source import Heating
from cloche_engine.inputs import CoverSpan, ForecastInputs, HeatSpan, OnHotbed
from cloche_engine.light.window import Window
from cloche_engine.places.kinds import INDOORS, NEVER_OPENED, OPENED_ABOVE_C, OPENED_BY, usual_cover
from cloche_engine.places.rooms import ROOMS, Room, room
from cloche_engine.places.rooms import USUAL as USUAL_ROOM
from cloche_engine.protection.nested import SHADED_M, inside, upon
from cloche_engine.soil.bed import AIRING, Bed, Event, Parameters, SmallVolume, Work
from cloche_engine.soil.heat_control import filled_again
from cloche_engine.soil.physical import Checkpoint
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import simulate
from cloche_engine.weather.normals import Normals
from cloche_engine.weather.record import HourlyWeather

ALWAYS_H = 1e6
NIGHT = (18.0, 8.0)
TRAY, TUB = SmallVolume(0.06, 10.0), SmallVolume(0.35, 10.0)
"""A tray of 6 cm, 40 cm across; a tub as wide and 35 cm deep (assumption)."""
MAT_HEAT = Heating(110.0, 0.06)
"""A mat under a tray, always on: of its 135 to 160 W/m² so much goes into the tray; 6 to 11 K (10 to 20 °F) over the room, the
lid on (common practice, no source)."""
RAISED = Bed(raised_m=0.3, albedo=0.14, wetness=0.15, moist=0.40)
"""A raised bed drains, is darker and looser, and the sun warms its boards: 0.5 to 1.5 K warmer in spring (common practice, no
source)."""
CABLE_HEAT = Heating(75.0, 0.15, start_c=18.0, stop_c=20.0, probe_m=0.05)
"""Common practice, no source: 75 W/m² of cable."""
BOX = HeatSpan("cable", control="thermostat", over_m=0.06, under_m=0.03)
"""A bench box of which nothing is told: cable between 3 cm of sand below and 6 cm above, held at 18 to 21 °C (common practice,
no source)."""
BENCH_BOX = SmallVolume(0.05, 5.0, bottom_w_m2k=1.0, side_w_m2k=2.0)
"""Mix in trays on a box of boards, some 1.2 by 0.6 m, lined, on an insulating sheet (assumption)."""
MAT_M = 0.05
"""Straw, sacking or old carpet over a hotbed until it is planted (assumption)."""
HEATED_AGO_D = 14
AIRED_UNTIL_H = 18.0
"""A cover that was opened, with no word of its being shut, is shut by then (assumption)."""


@dataclass(frozen=True)
class Below:
    """A hotbed upon which a tray stands between two hours, and factors by which it differs from what is told of it."""

    hotbed: Place
    factors: dict[str, float]
    start_h: float
    end_h: float

    def shifted(self, by_h: float) -> Below:
        """Return the same hotbed on a clock that starts `by_h` later."""
        return replace(self, hotbed=self.hotbed.shifted(by_h), start_h=self.start_h - by_h, end_h=self.end_h - by_h)

    def parameters(self, members: int) -> Parameters:
        """As it is known, the same for every member."""
        typical = Parameters.typical(members)
        return replace(typical, **{name: np.full(members, value) for name, value in self.factors.items()})


@dataclass(frozen=True)
class Situation:
    """A place as the engine simulates it, and its surroundings.

    Attributes
    ----------
    house : CoverPeriod or None
        House over the place, if any.
    room, window : Room, Window or None
        Room it stands in and the window beside it, indoors.
    kept : tuple of tuple
        Minimum air temperature of a heated house or room between two hours [°C].
    below : tuple of Below
        Hotbeds on which it stands for a time.
    """

    place: Place
    house: CoverPeriod | None
    indoors: bool
    room: Room = ROOMS[USUAL_ROOM]
    window: Window | None = None
    kept: tuple[tuple[float, float, float], ...] = ()
    below: tuple[Below, ...] = ()

    def shifted(self, by_h: float) -> Situation:
        """Return the same place on a clock that starts `by_h` later."""
        kept = tuple((least, start - by_h, end - by_h) for least, start, end in self.kept)
        below = tuple(heap.shifted(by_h) for heap in self.below)
        return replace(self, place=self.place.shifted(by_h), kept=kept, below=below)


def situation_of(inputs: ForecastInputs, normals: Normals, midnight: datetime) -> Situation:
    """midnight: of hour 0, in standard time."""
    wave = AnnualWave.of_months(normals.mean_c)
    bed = _bed(inputs, midnight)
    noted = _noted(inputs, midnight)
    covers = tuple(replace(_period(c, inputs, midnight), noted=noted) for c in covers_of(inputs))
    house = None
    if inputs.description.within:
        house = CoverPeriod(kind(inputs.description.within), 0.0, ALWAYS_H, Vent(OPENED_BY, None, None, OPENED_ABOVE_C))
    kept = tuple((span.start_c, *_hours_of(span, inputs, midnight)) for span in inputs.heat if span.source == "house")
    return Situation(
        Place(bed, wave, covers),
        house,
        _is_indoors(inputs),
        room_of(inputs.room),
        window_of(inputs.pane) if _is_indoors(inputs) else None,
        kept,
        tuple(_below(hotbed, normals, inputs, midnight) for hotbed in inputs.below),
    )


def _below(hotbed: OnHotbed, normals: Normals, inputs: ForecastInputs, midnight: datetime) -> Below:
    start = _hours_to(hotbed.first, inputs, midnight)
    end = ALWAYS_H if hotbed.last is None else _hours_to(hotbed.last + timedelta(days=1), inputs, midnight)
    return Below(situation_of(hotbed.hotbed, normals, midnight).place, hotbed.factors, start, end)


def local_weather(situation: Situation, outside: HourlyWeather) -> HourlyWeather:
    """The weather that the place feels: a room's, a house's, or the open sky's."""
    around = _kept_warm(situation, _around(situation, outside))
    for heap in situation.below:
        around = _upon(heap, around, outside)
    return around


def _upon(heap: Below, around: HourlyWeather, outside: HourlyWeather) -> HourlyWeather:
    hour = np.arange(len(outside)) + 0.5
    there = (hour >= heap.start_h) & (hour < heap.end_h)
    if not there.any():
        return around
    trajectory = simulate([heap.hotbed.case(outside, heap.parameters(outside.members))], [SHADED_M])[0]
    return upon(heap.hotbed.covers, trajectory, around, outside, there)


def _around(situation: Situation, outside: HourlyWeather) -> HourlyWeather:
    if situation.indoors:
        return room(outside, situation.room, situation.window)
    if situation.house is None:
        return outside
    ground = Place(Bed(), situation.place.wave, (situation.house,))
    trajectory = simulate([ground.case(outside, Parameters.typical(outside.members))], [0.05])[0]
    return inside(situation.house, trajectory, outside)


def _kept_warm(situation: Situation, around: HourlyWeather) -> HourlyWeather:
    """A heater keeps the air of its room or house from falling lower; its walls are as warm as before."""
    hour, air = np.arange(len(around))[:, None] + 0.5, around.air_c
    for least, start, end in situation.kept:
        air = np.where((hour >= start) & (hour < end), np.maximum(air, least), air)
    return replace(around, air_c=air) if situation.kept else around


def _hours_of(span: HeatSpan, inputs: ForecastInputs, midnight: datetime) -> tuple[float, float]:
    start = -ALWAYS_H if span.first is None else _hours_to(span.first, inputs, midnight)
    return start, ALWAYS_H if span.last is None else _hours_to(span.last + timedelta(days=1), inputs, midnight)


def covers_of(inputs: ForecastInputs) -> list[CoverSpan]:
    """Dated covers if any are noted, else what a place of its kind usually has, aired on sunny days."""
    if inputs.covers:
        return inputs.covers
    usual = usual_cover(inputs.kind, inputs.description.within)
    if usual is None:
        return []
    opens = "closed" if usual in NEVER_OPENED else "above"
    return [CoverSpan(usual, opens=opens, above_c=OPENED_ABOVE_C, opening=OPENED_BY)]


def kind_of(cover: CoverSpan) -> CoverKind:
    """The kind with this one's years, dirt and shape worked in."""
    aged = kind(cover.key).aged(cover.age_y, cover.dirty)
    # A shape that cannot stand, from an archive of an earlier release, is taken to be the usual one.
    if aged.bends and cover.sheet_m and cover.spread_m and is_roof(cover.sheet_m, cover.spread_m):
        return aged.bent(cover.sheet_m, cover.spread_m)
    if aged.is_box and cover.sheet_m and cover.low_m and cover.high_m:
        return aged.boxed(cover.sheet_m, cover.low_m, cover.high_m)
    return replace(aged, width_m=cover.sheet_m) if aged.is_round and cover.sheet_m else aged


def vent_of(cover: CoverSpan) -> Vent:
    """How it is opened."""
    if cover.opens == "above":
        return Vent(cover.opening, None, None, cover.above_c)
    return Vent(cover.opening, cover.from_h, cover.to_h) if cover.opens == "hours" else Vent()


def _period(cover: CoverSpan, inputs: ForecastInputs, midnight: datetime) -> CoverPeriod:
    start = 0.0 if cover.first is None else _hours_to(cover.first, inputs, midnight)
    end = ALWAYS_H if cover.last is None else _hours_to(cover.last + timedelta(days=1), inputs, midnight)
    return cover_over(cover, inputs, start, end)


def _noted(inputs: ForecastInputs, midnight: datetime) -> tuple[Noted, ...]:
    """When the cover was seen open or shut: until it was seen otherwise, or the day's airing was over."""
    seen = sorted(((d.at - midnight) / timedelta(hours=1), d) for d in inputs.operations if d.work in AIRING)
    spans = []
    for number, (hour, operation) in enumerate(seen):
        of_day, opened = hour % 24, operation.work == Work.OPENED
        over = hour - of_day + (AIRED_UNTIL_H if opened and of_day < AIRED_UNTIL_H else 24.0)
        following = seen[number + 1][0] if number + 1 < len(seen) else over
        spans.append(Noted(hour, min(over, following), (operation.amount or OPENED_BY) if opened else 0.0))
    return tuple(span for span in spans if span.start_h < span.end_h)


def cover_over(cover: CoverSpan, inputs: ForecastInputs, start_h: float, end_h: float) -> CoverPeriod:
    """A cover over a place between two hours, no wider than the bed."""
    stood = kind_of(cover)
    width = stood.width_m if stood.is_house else min(stood.width_m, inputs.description.width_m)
    return CoverPeriod(
        stood,
        start_h,
        end_h,
        vent_of(cover),
        cover.ends_capped,
        NIGHT if cover.blanket else None,
        width,
        None if stood.is_house else cover.length_m,
        cover.known,
    )


def _hours_to(day: date, inputs: ForecastInputs, midnight: datetime) -> float:
    # Nobody puts a cover on at midnight: the day begins with the clock that the engine keeps, summer time or not.
    noon = datetime(day.year, day.month, day.day, 12, tzinfo=inputs.timezone)
    return (noon - midnight) // timedelta(days=1) * 24.0


def _bed(inputs: ForecastInputs, midnight: datetime) -> Bed:
    description = inputs.description
    bed = Bed(
        texture=description.texture,
        slope_deg=description.slope_deg,
        aspect_deg=description.aspect_deg,
        width_m=description.width_m,
    )
    if description.shaded is not None:
        start, end = description.shaded
        bed = replace(bed, shade=tuple(float(start <= hour + 0.5 < end) for hour in range(24)))
    bed = _heated(_by_kind(bed, inputs, midnight), inputs, midnight)
    done = [d for d in inputs.operations if d.work not in AIRING]
    events = [Event(Work(d.work), (d.at - midnight) / timedelta(hours=1), d.amount) for d in done]
    return bed.with_events(*events, *_matted(inputs, midnight))


def _matted(inputs: ForecastInputs, midnight: datetime) -> tuple[Event, ...]:
    """A mat over a hotbed from its filling on: it holds the heat in as straw of its thickness does."""
    if inputs.hotbed is None or inputs.matted_until is None:
        return ()
    filled, until = (_hours_to(day, inputs, midnight) for day in (inputs.hotbed[1], inputs.matted_until))
    return Event(Work.MULCHED, filled, MAT_M), Event(Work.MULCH_OFF, until)


def _heated(bed: Bed, inputs: ForecastInputs, midnight: datetime) -> Bed:
    """With its dated heat sources, or with what its kind has where none is told."""
    spans = inputs.heat or ((BOX,) if inputs.kind == "box" else ())
    if not spans:
        return bed
    if bed.volume is not None:
        bed = replace(bed, volume=layered(bed.volume, spans))
    hours = [_hours_of(span, inputs, midnight) for span in spans]
    return replace(bed, heating=heatings_of(spans, bed, inputs.room, hours, bool(covers_of(inputs))))


def _small(bed: Bed, inputs: ForecastInputs) -> Bed:
    volume = {"tub": TUB, "box": BENCH_BOX}.get(inputs.kind, TRAY)
    small = replace(bed, texture="potting", volume=volume, wetness=0.4)
    if inputs.kind in ("tub", "cells"):
        return small
    usual = (MAT_HEAT,) if inputs.kind == "mat" and not inputs.heat else ()
    out = any(hotbed.first <= inputs.today and (hotbed.last is None or inputs.today <= hotbed.last) for hotbed in inputs.below)
    return replace(small, indoors=_is_indoors(inputs) and not out, heating=usual)


def _is_indoors(inputs: ForecastInputs) -> bool:
    return inputs.kind in INDOORS and not inputs.description.within


def _by_kind(bed: Bed, inputs: ForecastInputs, midnight: datetime) -> Bed:
    if inputs.kind == "raised":
        drained = {name: getattr(RAISED, name) for name in ("raised_m", "albedo", "wetness", "moist")}
        return replace(bed, **drained)
    if inputs.kind == "mulched":
        return replace(bed, mulch_m=0.06)
    if inputs.kind in ("tub", "cells", "tray", "mat", "box"):
        return _small(bed, inputs)
    if inputs.kind == "cable":
        return replace(bed, heating=(CABLE_HEAT,))
    if inputs.kind == "hotbed" and inputs.hotbed:
        build, filled_on, topped_on = inputs.hotbed
        topped_h = None if topped_on is None else _hours_to(topped_on, inputs, midnight)
        heaps = [heating_of(build, _hours_to(filled_on, inputs, midnight), topped_h)]
        heaps += [heating_of(fill, _hours_to(on, inputs, midnight)) for fill, on in inputs.fills]
        return replace(bed, heating=filled_again(heaps))
    if inputs.kind == "hotbed":
        fills = [d.at for d in inputs.operations if d.work == Work.FILLED]
        now = datetime(inputs.today.year, inputs.today.month, inputs.today.day, tzinfo=inputs.timezone)
        filled = max(fills) if fills else now - timedelta(days=HEATED_AGO_D)
        return replace(bed, heating=(heating_of(USUAL, (filled - midnight) / timedelta(hours=1)),))
    return bed


RUN_UP_D = 10
"""Days that a house's ground is run before today; its air follows within hours."""


def door_plans(
    situation: Situation, checkpoint: Checkpoint, outside: HourlyWeather, today_d: int, days: int, hot_c: float
) -> list[ventilation.Plan]:
    """One plan a day for the house that a place stands in; empty in the open. outside: open sky's weather, today_d days into
    it."""
    if situation.house is None:
        return []
    behind = min(RUN_UP_D, today_d)
    weather = outside.cut(today_d - behind, min(today_d + days, len(outside) // 24))
    members, begins_h = len(checkpoint.drawn.elsewhere.sun), behind * 24.0
    parameters = replace(
        Parameters.typical(members),
        **{name: getattr(checkpoint.drawn.elsewhere, name) for name in ("light", "exchange", "loss")},
    )
    usual = replace(situation.house, start_h=0.0, end_h=begins_h)
    case = Place(Bed(), situation.place.wave).case(weather, parameters)
    ways = [
        (usual, replace(situation.house, start_h=begins_h, end_h=ALWAYS_H, vent=Vent(o) if o else Vent()))
        for o in ventilation.OPENINGS
    ]
    inside = np.stack([c.air_c.astype(np.float64) for c in simulate([replace(case, covers=way) for way in ways], [0.05])])
    air = np.broadcast_to(weather.air_c, inside.shape[1:])
    plans = []
    for number in range(days):
        hours = slice(int(begins_h) + number * 24, int(begins_h) + number * 24 + 24)
        plans.append(ventilation.plan_day(ventilation.Tried(ventilation.OPENINGS, inside[:, hours], air[hours]), hot_c))
    return plans
