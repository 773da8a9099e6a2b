"""Warmth and light of a propagation bench, built or planned."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date

import numpy as np

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.errors import OutOfRange
from cloche_engine.forecast.places import BENCH_BOX
from cloche_engine.heat.build import Cable, Laid, bags, fits, lay, litres
from cloche_engine.heat.source import Heating
from cloche_engine.packing import short
from cloche_engine.places.rooms import ROOMS, room
from cloche_engine.soil.bed import Bed, Layer, Parameters
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, Site

RUN_D, ROOTS_M, NEAR = 10, 0.03, 0.9


@dataclass(frozen=True)
class PlannedBench:
    """Design of a bench before it is built.

    `under_m` and `over_m` are the filling below and above the cable and `mix_m` the mix in the trays on top; `lid` tells
    whether they are covered, `room_c` is the air temperature and `hold_c` the thermostat's set-point.
    """

    under_m: float
    over_m: float
    mix_m: float
    filling: str
    wet: bool
    lid: bool
    room_c: float
    hold_c: float


@dataclass(frozen=True)
class Warmth:
    """Steady-state result for a planned bench.

    `lift_k` is root minus room temperature with the heat always on and `hours` the time to nine tenths of it; `holds_c` is
    the highest set-point it can hold; `duty` is the share of time on at the wanted set-point, None if out of reach;
    `course_c` gives root temperatures every six hours.
    """

    lift_k: float
    hours: float
    duty: float | None
    course_c: list[float]


def warmth_of(planned: PlannedBench, laid: Laid) -> Warmth:
    """Simulate a planned bench from cold in a room of constant temperature."""
    calm = DailyRecord.of(date(2001, 2, 1), np.full((RUN_D, 1), 2.0), np.full((RUN_D, 1), 8.0))
    steady = replace(ROOMS["shed"], mean_c=planned.room_c, swing_k=0.0, follows=0.0)
    weather = room(hours_of(calm, Site(50.0, 0.0)), steady)
    lid = (CoverPeriod(kind("lid"), 0.0, 1e6),) if planned.lid else ()
    moist = None if planned.wet else 0.05
    layers = (Layer(planned.mix_m, "potting"), Layer(planned.over_m + planned.under_m, planned.filling, moist))
    depth = planned.mix_m + planned.over_m + planned.under_m
    volume = replace(BENCH_BOX, depth_m=depth, layers=layers)
    wave = AnnualWave.of_months(np.full(12, planned.room_c))
    always = Heating(laid.watts_m2, planned.mix_m + planned.over_m)
    held = replace(always, start_c=planned.hold_c - 1.0, stop_c=planned.hold_c + 1.0, probe_m=ROOTS_M)
    cases = []
    for heating in (always, held):
        bed = Bed(texture="potting", volume=volume, wetness=0.4, indoors=True, heating=(heating,))
        cases.append(Place(bed, wave, lid).case(weather, Parameters.typical(1)))
    free, ruled = simulate(cases, [ROOTS_M])
    roots = free.at(ROOTS_M)[:, 0].astype(np.float64)
    lift = float(roots[-24:].mean() - planned.room_c)
    reached = np.flatnonzero(roots - roots[0] >= NEAR * (roots[-1] - roots[0]))
    duty = float(ruled.heat_w_m2[-72:].mean() / laid.watts_m2)
    return Warmth(
        lift_k=round(lift, 1),
        hours=float(reached[0]) if len(reached) else float(len(roots)),
        duty=round(duty, 2) if planned.room_c + lift >= planned.hold_c else None,
        course_c=short(roots[::6]),
    )


__all__ = ["Cable", "Laid", "OutOfRange", "PlannedBench", "Warmth", "bags", "fits", "lay", "litres", "warmth_of"]
