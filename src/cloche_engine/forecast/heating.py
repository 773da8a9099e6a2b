"""Heat sources as they are entered, converted for the simulation."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from math import ceil

import numpy as np

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.heat.source import ALWAYS, MOST_W_M2, SELF_REGULATED, Heating, Span
from cloche_engine.inputs import HeatSpan, LampSpan, RoomAir, WindowPane
from cloche_engine.light.lamp import Lamp
from cloche_engine.light.window import Window
from cloche_engine.places.rooms import ROOMS, USUAL, Room, room
from cloche_engine.soil.bed import Bed, Layer, Parameters, SmallVolume
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, Site

INTO_TRAY = {"mat": 0.75, "base": 0.75, "cable": 1.0, "wire": 1.0}
"""Share of a source's watts that goes into what stands on it, the rest into the shelf below (assumption)."""
USUAL_W_M2 = {"mat": 145.0, "base": 110.0, "cable": 90.0, "wire": 90.0}
"""Where no watts are told: a mat's 135 to 160 W/m², a propagator's base, cable at 10 to 12 cm (common practice, no source)."""
BURIED_M = {"cable": 0.15, "wire": 0.15}
ROOTS_M = 0.03
Hours = Sequence[Span]
LIFT_D, TRIED_W_M2 = 6, 100.0
SPREADS_M2_D = 0.02
"""How fast warmth spreads through moist mix or sand [m²/d]: a deep layer takes weeks to warm (0.2 to 0.3 mm²/s)."""
LEAST_LIFT_K = 0.05
"""A lift below this cannot be told from none."""


def room_of(air: RoomAir | None) -> Room:
    """Return the room; a range of temperatures that was entered is maintained."""
    described = ROOMS[air.kind if air else USUAL]
    if air is None or air.night_c is None or air.day_c is None:
        return described
    return described.between(air.night_c, air.day_c)


def window_of(pane: WindowPane | None) -> Window | None:
    """Return the window."""
    return Window(pane.aspect_deg, pane.shade, pane.away_m) if pane else None


def lamp_of(span: LampSpan) -> Lamp:
    """Return the lamp."""
    return Lamp(span.spans, span.watts, span.kind, span.area_m2, span.away_m, span.ppfd)


def layered(volume: SmallVolume, spans: tuple[HeatSpan, ...]) -> SmallVolume:
    """Return a tray or box with the layer around its latest cable below its mix."""
    span = next((span for span in reversed(spans) if span.over_m + span.under_m > 0), None)
    if span is None:
        return volume
    moist = None if span.filling_wet else 0.05
    layers = (Layer(volume.depth_m, "potting"), Layer(span.over_m + span.under_m, span.filling, moist))
    return replace(volume, depth_m=sum(layer.thickness_m for layer in layers), layers=layers)


def heatings_of(
    spans: tuple[HeatSpan, ...], bed: Bed, air: RoomAir | None, hours: Hours, lidded: bool = True
) -> tuple[Heating, ...]:
    """Return all heat sources below a bed.

    hours: first and last hour of the run for each source; lidded: whether a lid was on when a lift was measured.
    """
    below = ((span, during) for span, during in zip(spans, hours, strict=True) if span.source != "house")
    return tuple(_heating(span, bed, room_of(air), during, lidded) for span, during in below)


def _heating(span: HeatSpan, bed: Bed, around: Room, during: Span, lidded: bool) -> Heating:
    depth = _depth_m(span, bed)
    heating = Heating(_power_w_m2(span), depth, probe_m=depth if span.probe == "bottom" else ROOTS_M, during=during)
    if span.control == "self":
        heating = replace(heating, eases_c=SELF_REGULATED)
    if span.lift_k is not None:
        heating = replace(heating, power_w_m2=power_for_lift(bed, heating, around, span.lift_k, lidded))
    if span.control == "timer":
        return replace(heating, spans=span.spans)
    if span.control != "thermostat":
        return heating
    if span.probe == "air":
        # It looks at the room: below its set-point it heats without end, above it never.
        return heating if around.mean_c < span.start_c else replace(heating, power_w_m2=0.0)
    return replace(heating, start_c=span.start_c, stop_c=span.stop_c)


def _power_w_m2(span: HeatSpan) -> float:
    plug = USUAL_W_M2[span.source] if span.watts is None else span.watts / span.area_m2
    return min(plug, MOST_W_M2) * INTO_TRAY[span.source]


def plug_w(span: HeatSpan) -> float:
    """Return the power of a source while it is on [W]."""
    return USUAL_W_M2.get(span.source, 0.0) * span.area_m2 if span.watts is None else span.watts


def _depth_m(span: HeatSpan, bed: Bed) -> float:
    if bed.volume is None:
        return span.over_m or BURIED_M.get(span.source, 0.06)
    return bed.volume.depth_m - span.under_m


def power_for_lift(bed: Bed, heating: Heating, around: Room, lift_k: float, lidded: bool = True) -> float:
    """Return the power that lifts a bed by `lift_k` over a room, with its lid on if it has one [W/m²].

    No source gives more than MOST_W_M2: a lift that would need more was not measured at the roots.
    """
    days = LIFT_D + ceil(heating.depth_m**2 / SPREADS_M2_D)
    calm = DailyRecord.of(date(2001, 3, 1), np.full((days, 1), 5.0), np.full((days, 1), 12.0))
    steady = room(hours_of(calm, Site(50.0, 0.0)), replace(around, swing_k=0.0, follows=0.0))
    lid = (CoverPeriod(kind("lid"), 0.0, 1e6),) if bed.indoors and lidded else ()

    def lift(power: float) -> float:
        source = replace(heating, power_w_m2=power, during=ALWAYS)
        place = Place(replace(bed, heating=(source,), events=()), AnnualWave.of_months(np.full(12, around.mean_c)), lid)
        course = simulate([place.case(steady, Parameters.typical(1))], [ROOTS_M])[0]
        return float(course.soil_c[-24:].mean() - steady.air_c[-24:].mean())

    def along(power: float, lifted: float) -> float:
        """Return where the chord through a tried power meets the lift."""
        return float(np.clip(power * (lift_k - bare) / max(lifted - bare, LEAST_LIFT_K), 0.0, MOST_W_M2))

    bare = lift(0.0)
    power = along(TRIED_W_M2, lift(TRIED_W_M2))
    # Loss grows with the lift itself: once more along the chord.
    return along(power, lift(power)) if power else 0.0
