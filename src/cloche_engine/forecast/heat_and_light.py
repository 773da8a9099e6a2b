"""Heat, light and air around a place over the coming weeks."""

from __future__ import annotations

from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

from cloche_engine.forecast.heating import lamp_of, plug_w
from cloche_engine.forecast.steps import Run
from cloche_engine.inputs import ForecastInputs, HeatSpan, LampSpan, OnHotbed
from cloche_engine.layout import BAND, MEMBERS
from cloche_engine.light.window import daily_mol
from cloche_engine.packing import short
from cloche_engine.places.kinds import BENCH_KINDS
from cloche_engine.protection.cover_benefit import daily
from cloche_engine.results import HeatOutlook, LightOutlook, Triple
from cloche_engine.soil.physical import Variant
from cloche_engine.weather.sun import day_length_h

Array = NDArray[np.float64]
AHEAD_D = 14
"""Days for which heat is told; light for twice as many."""
LIGHT_D, TEN_H = 182, 10.0
"""Days for which the window's light is told by the week; day length below which growth pauses (common practice, no source)."""
WITHIN_K = 1.0


def heat_outlook(inputs: ForecastInputs, run: Run) -> HeatOutlook | None:
    """Return what a heat source will do, or None if nothing electric heats the place in the coming days."""
    span = next((span for span in reversed(inputs.heat) if is_on(span, inputs.today)), None)
    heating = [source for source in run.situation.place.bed.heating if not source.fading_d]
    if not heating or (inputs.heat and (span is None or span.source == "house")):
        return None
    span = span or HeatSpan("mat" if inputs.kind == "mat" else "cable")
    first = run.run_up_d * 24
    hours = slice(first, first + AHEAD_D * 24)
    now = max(heating, key=lambda source: source.during[0] if source.during[0] <= first + 12 else -np.inf)
    full = now.power_w_m2 * run.checkpoint.drawn.parameters.heat
    duty = daily(run.trajectory.heat_w_m2[hours]) / np.maximum(full, 1e-6)
    roots = daily(run.soil_c(inputs.seed_depth_m)[hours])
    watts = plug_w(span)
    ruled = (now.start_c, now.stop_c) if now.start_c is not None and now.stop_c is not None else None
    return HeatOutlook(
        duty=triples(np.minimum(duty, 1.0)),
        kwh=short(np.median(duty, axis=1) * 24 * watts / 1000, 3),
        watts=round(watts, 1),
        ruled=ruled,
        holds=1.0 if ruled is None else round(float((roots >= ruled[0] - WITHIN_K).mean()), 2),
        without_c=short(np.median(_without(inputs, run), axis=1)),
    )


def kwh_behind(inputs: ForecastInputs, run: Run) -> list[float]:
    """Return the energy used on each simulated day before today [kWh], oldest first; empty if there was no heat."""
    spans = [span for span in inputs.heat if span.source != "house"]
    used = np.zeros(run.run_up_d)
    warmed = daily(run.trajectory.heat_w_m2[: run.run_up_d * 24])
    for number in range(run.run_up_d):
        day = inputs.today - timedelta(days=run.run_up_d - number)
        there = [i for i, span in enumerate(spans) if is_on(span, day)]
        if there:
            full = run.situation.place.bed.heating[there[-1]].power_w_m2 * run.checkpoint.drawn.parameters.heat
            duty = np.median(np.minimum(warmed[number] / np.maximum(full, 1e-6), 1.0))
            used[number] = float(duty) * 24 * plug_w(spans[there[-1]]) / 1000
    return short(used, 3) if used.any() else []


def _without(inputs: ForecastInputs, run: Run) -> Array:
    checkpoint = run.checkpoint
    bed, covers = checkpoint.place.bed, checkpoint.place.covers
    cold = checkpoint.varied([Variant(bed.with_heat(), covers, checkpoint.ahead)], AHEAD_D)[0]
    return daily(cold.at(inputs.seed_depth_m))


def light_outlook(inputs: ForecastInputs, run: Run) -> LightOutlook | None:
    """Return the light where plants are raised, or None in a room whose window and lamps are unknown."""
    on_hotbed = any(is_on(hotbed, inputs.today) for hotbed in inputs.below)
    known = inputs.pane is not None or inputs.lamps or on_hotbed or not run.situation.indoors
    if inputs.kind not in BENCH_KINDS or not known:
        return None
    days = 2 * AHEAD_D
    sun = _sun_on_plants_w_m2(run)
    mol = np.broadcast_to(daily_mol(sun), (len(sun) // 24, MEMBERS))
    lit = [lamp_mol(inputs.lamps, inputs.today + timedelta(days=day)) for day in range(days)]
    weeks = np.median(mol[: len(mol) // 7 * 7], axis=1).reshape(-1, 7).mean(axis=1)
    hours = day_length_h(inputs.today.timetuple().tm_yday + np.arange(365), inputs.latitude_deg)
    long_enough = np.flatnonzero(hours >= TEN_H)
    return LightOutlook(
        triples(mol[:days]), short(np.array(lit)), short(weeks), int(long_enough[0]) if len(long_enough) else 365
    )


def _sun_on_plants_w_m2(run: Run) -> Array:
    """Return sunlight through window, house, hotbed frame and covers from today on, shape (hours, members) [W/m²].

    A lid over a tray counts for nothing, because it comes off as soon as seedlings are up.
    """
    checkpoint = run.checkpoint
    hours = min(LIGHT_D, len(checkpoint.ahead) // 24) * 24
    sun, hour = checkpoint.ahead.sun_w_m2[:hours], np.arange(hours)[:, None]
    for cover in checkpoint.place.covers:
        if cover.kind.key != "lid":
            sun = np.where((hour >= cover.start_h) & (hour < cover.end_h), cover.kind.solar, 1.0) * sun
    return sun


def lamp_mol(lamps: tuple[LampSpan, ...], day: date) -> float:
    """Return the daily light integral of lamps [mol/m²]."""
    return sum(lamp_of(lamp).mol_a_day for lamp in lamps if is_on(lamp, day))


def around_c(run: Run) -> list[float]:
    """Return daily mean air temperature of the room or house, or under the cover of a hotbed [°C]; empty in the open."""
    if not (run.situation.indoors or run.situation.house or run.situation.below):
        return []
    checkpoint = run.checkpoint
    warmer = checkpoint.drawn.parameters.room_k if run.situation.indoors else 0.0
    air = checkpoint.ahead.air_c[: AHEAD_D * 24] + warmer
    return short(np.median(daily(np.broadcast_to(air, (AHEAD_D * 24, MEMBERS))), axis=1))


def is_on(span: HeatSpan | LampSpan | OnHotbed, day: date) -> bool:
    """Return whether something is there on a day."""
    return (span.first is None or span.first <= day) and (span.last is None or day <= span.last)


def triples(values: Array) -> list[Triple]:
    """Return quantiles over the members for each day."""
    low, middle, high = np.quantile(values, BAND, axis=1)
    return [(round(float(a), 3), round(float(b), 3), round(float(c), 3)) for a, b, c in zip(low, middle, high, strict=True)]
