"""From a grower's description of a place to the core's: kinds of ground, covers, what was done there."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta

from cloche.bridge.services.offered import NEVER_OPENED, OPENED_ABOVE_C, OPENED_BY, USUAL_COVER
from cloche.bridge.values.inputs import CoverSpan, ForecastInputs
from cloche.core.covers.kinds import CoverKind, CoverPeriod, Noted, Vent, kind
from cloche.core.covers.nested import inside
from cloche.core.heat.hotbed import USUAL, heating_of
from cloche.core.soil.annual import AnnualWave
from cloche.core.soil.bed import AIRING, Bed, Event, Heating, Parameters, SmallVolume, Work
from cloche.core.soil.place import Place
from cloche.core.soil.simulate import simulate
from cloche.core.weather.indoors import room
from cloche.core.weather.normals import Normals
from cloche.core.weather.record import HourlyWeather

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
HEATED_AGO_D = 14
AIRED_UNTIL_H = 18.0
"""A cover that was opened, with no word of its being shut, is shut by then (assumption)."""


@dataclass(frozen=True)
class Situation:
    """A place as the core takes it, and the house it stands in, if any."""

    place: Place
    house: CoverPeriod | None
    indoors: bool


def situation_of(inputs: ForecastInputs, normals: Normals, midnight: datetime) -> Situation:
    """midnight: of hour 0, in standard time."""
    wave = AnnualWave.of_months(normals.mean_c)
    bed = _bed(inputs, midnight)
    noted = _noted(inputs, midnight)
    covers = tuple(replace(_period(c, inputs, midnight), noted=noted) for c in covers_of(inputs))
    house = None
    if inputs.description.within:
        house = CoverPeriod(kind(inputs.description.within), 0.0, ALWAYS_H, Vent(OPENED_BY, None, None, OPENED_ABOVE_C))
    return Situation(Place(bed, wave, covers), house, bed.indoors)


def felt(situation: Situation, outside: HourlyWeather) -> HourlyWeather:
    """The weather that the place feels: a room's, a house's, or the open sky's."""
    if situation.indoors:
        return room(outside)
    if situation.house is None:
        return outside
    ground = Place(Bed(), situation.place.wave, (situation.house,))
    trajectory = simulate([ground.case(outside, Parameters.typical(outside.members))], [0.05])[0]
    return inside(situation.house, trajectory, outside)


def covers_of(inputs: ForecastInputs) -> list[CoverSpan]:
    """Dated covers if any are noted, else what a place of its kind usually has, aired on sunny days."""
    if inputs.covers:
        return inputs.covers
    usual = USUAL_COVER.get(inputs.kind)
    if usual is None:
        return []
    opens = "closed" if usual in NEVER_OPENED else "above"
    return [CoverSpan(usual, opens=opens, above_c=OPENED_ABOVE_C, opening=OPENED_BY)]


def kind_of(cover: CoverSpan) -> CoverKind:
    """The kind with this one's years, dirt and bend worked in."""
    one = kind(cover.key).aged(cover.age_y, cover.dirty)
    return one.bent(cover.sheet_m, cover.spread_m) if one.bends and cover.sheet_m and cover.spread_m else one


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
    found = []
    for number, (hour, operation) in enumerate(seen):
        of_day, opened = hour % 24, operation.work == Work.OPENED
        over = hour - of_day + (AIRED_UNTIL_H if opened and of_day < AIRED_UNTIL_H else 24.0)
        following = seen[number + 1][0] if number + 1 < len(seen) else over
        found.append(Noted(hour, min(over, following), (operation.amount or OPENED_BY) if opened else 0.0))
    return tuple(one for one in found if one.start_h < one.end_h)


def cover_over(cover: CoverSpan, inputs: ForecastInputs, start_h: float, end_h: float) -> CoverPeriod:
    """A cover over a place between two hours, no wider than the bed."""
    one = kind_of(cover)
    width = one.width_m if one.is_house else min(one.width_m, inputs.description.width_m)
    return CoverPeriod(
        one, start_h, end_h, vent_of(cover), cover.ends_capped, NIGHT if cover.blanket else None, width, cover.known
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
    bed = _by_kind(bed, inputs, midnight)
    done = [d for d in inputs.operations if d.work not in AIRING]
    events = [Event(Work(d.work), (d.at - midnight) / timedelta(hours=1), d.amount) for d in done]
    return bed.with_events(*events)


def _small(bed: Bed, kind: str) -> Bed:
    small = replace(bed, texture="potting", volume=TUB if kind == "tub" else TRAY, wetness=0.4)
    if kind in ("tub", "cells"):
        return small
    return replace(small, indoors=True, heating=MAT_HEAT if kind == "mat" else None)


def _by_kind(bed: Bed, inputs: ForecastInputs, midnight: datetime) -> Bed:
    if inputs.kind == "raised":
        drained = {name: getattr(RAISED, name) for name in ("raised_m", "albedo", "wetness", "moist")}
        return replace(bed, **drained)
    if inputs.kind == "mulched":
        return replace(bed, mulch_m=0.06)
    if inputs.kind in ("tub", "cells", "tray", "mat"):
        return _small(bed, inputs.kind)
    if inputs.kind == "cable":
        return replace(bed, heating=CABLE_HEAT)
    if inputs.kind == "hotbed" and inputs.hotbed:
        build, filled_on, topped_on = inputs.hotbed
        topped_h = None if topped_on is None else _hours_to(topped_on, inputs, midnight)
        return replace(bed, heating=heating_of(build, _hours_to(filled_on, inputs, midnight), topped_h))
    if inputs.kind == "hotbed":
        fills = [d.at for d in inputs.operations if d.work == Work.FILLED]
        now = datetime(inputs.today.year, inputs.today.month, inputs.today.day, tzinfo=inputs.timezone)
        filled = max(fills) if fills else now - timedelta(days=HEATED_AGO_D)
        return replace(bed, heating=heating_of(USUAL, (filled - midnight) / timedelta(hours=1)))
    return bed
