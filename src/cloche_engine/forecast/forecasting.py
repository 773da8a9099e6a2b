"""A forecast from its inputs to the stored record, and the soil of past seasons."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, datetime, timedelta
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from cloche_engine.forecast import outlooks
from cloche_engine.forecast import steps as step
from cloche_engine.forecast.frosts import frost_dates
from cloche_engine.forecast.heat_and_light import around_c, heat_outlook, kwh_behind, light_outlook
from cloche_engine.forecast.heat_watch import alarm_of, without_failed_heat
from cloche_engine.forecast.places import ALWAYS_H, cover_over, local_weather, situation_of
from cloche_engine.forecast.snapshots import check, pack
from cloche_engine.forecast.steps import KnownWeather, Observed, Run, midnight
from cloche_engine.forecast.watching import growing_in, watch
from cloche_engine.forecast.weather import climate, known_days
from cloche_engine.inputs import CoverSpan, ForecastInputs
from cloche_engine.layout import BAND, FIELD_STEP_H, MEMBERS, NEAR_PAST_D, PAST_D, PROFILE_M
from cloche_engine.local_time import midnight_of, standard_offset_h
from cloche_engine.packing import short
from cloche_engine.protection.cover_benefit import daily, even_lows_c, felt_c
from cloche_engine.results import (
    CropDays,
    ForecastResult,
    NightsAhead,
    PlaceForecast,
    Triple,
)
from cloche_engine.soil import verify
from cloche_engine.soil.bed import Parameters
from cloche_engine.soil.learned import Learned
from cloche_engine.soil.simulate import simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, Site
from cloche_engine.weather.scenarios import scenarios

NEAR_D = 14
BAND_AT_D = (1, 3, 7, 14)
PROBED_M = 0.10
LIGHT = 1.15
"""A reading whose variance is taken larger than this, against an ordinary one, is told to weigh less."""


def summary(inputs: ForecastInputs, run: Run, weather: KnownWeather, observed: Observed) -> PlaceForecast:
    """Return the part of a run that is stored and drawn."""
    numbers, learned = observed.numbers, run.learned
    first, last = (run.run_up_d - NEAR_PAST_D) * 24, (run.run_up_d + NEAR_D) * 24
    soil = run.soil_c(inputs.seed_depth_m)
    near = np.quantile(soil[first:last], BAND, axis=1)
    far = np.quantile(daily(soil)[run.run_up_d :], BAND, axis=1)
    width = (far[2] - far[0]) / 2
    # Yesterday's weather is known: where the members differ there, it is the place that is not.
    yesterday = slice((run.run_up_d - 1) * 24, run.run_up_d * 24)
    outside, inside = _air(run, first, last)
    deep = _spread_depths(inputs, run)
    return PlaceForecast(
        day=inputs.today,
        start=midnight(inputs, NEAR_PAST_D),
        depth_m=inputs.seed_depth_m,
        near_low_c=short(near[0]),
        near_mid_c=short(near[1]),
        near_high_c=short(near[2]),
        field_depths_m=_field_depths(run),
        field_c=_field(run, first, last),
        outside_c=outside,
        inside_low_c=inside[0],
        inside_mid_c=inside[1],
        inside_high_c=inside[2],
        far_low_c=short(far[0]),
        far_mid_c=short(far[1]),
        far_high_c=short(far[2]),
        band_k={days: float(width[days]) for days in BAND_AT_D},
        readings_used=len(observed.readings),
        strange={numbers[learned.used[i]]: round(k, 2) for i, k in verify.strange(learned).items()},
        weights={numbers[learned.used[i]]: round(1 / float(s), 2) for i, s in enumerate(learned.drift.scatter) if s > LIGHT},
        checks=[(c.lead_d, c.count, round(c.error_k, 2), round(c.inside, 2)) for c in verify.record(learned)],
        parameters=_parameters(learned),
        weather_days=int(np.isfinite(weather.known.record.low_c[PAST_D - 14 : PAST_D + 1]).sum()),
        normals_source=weather.normals.source,
        normals_years=weather.normals.years,
        replayed_years=len(weather.known.past.years) if weather.known.past else 0,
        spread_start=midnight(inputs, 1),
        spread_depths_m=deep,
        spread_k=[short(run.soil_c(d)[yesterday].std(axis=1)) for d in deep],
        around_c=around_c(run),
        heat=heat_outlook(inputs, run),
        light=light_outlook(inputs, run),
        kwh_behind=kwh_behind(inputs, run),
    )


def _spread_depths(inputs: ForecastInputs, run: Run) -> list[float]:
    """Return seed depth and, where the soil is deep enough, the depth of transplants."""
    volume = run.situation.place.bed.volume
    also = [PROBED_M] if volume is None and inputs.seed_depth_m < PROBED_M else []
    return [inputs.seed_depth_m, *also]


def _parameters(learned: Learned) -> dict[str, Triple]:
    factors = {name: learned.factor(name) for name in learned.names} | {"wetter": learned.lately_wetter()}
    return {name: (round(low, 3), round(middle, 3), round(high, 3)) for name, (low, middle, high) in factors.items()}


def _air(run: Run, first: int, last: int) -> tuple[list[float], list[list[float]]]:
    """Return hourly air temperature outside and, where there is shelter, the quantiles of the air inside."""
    outside = np.broadcast_to(run.outside.air_c[first:last], (last - first, MEMBERS))
    inside: list[list[float]] = [[], [], []]
    if run.is_sheltered:
        inside = [short(side) for side in np.quantile(run.trajectory.air_c[first:last], BAND, axis=1)]
    return short(np.median(outside, axis=1)), inside


def _field_depths(run: Run) -> list[float]:
    """Return the depths of the drawn profile that lie within the soil: a tray is shallow."""
    volume = run.situation.place.bed.volume
    return [depth for depth in PROFILE_M if volume is None or depth <= volume.depth_m]


def _field(run: Run, first: int, last: int) -> list[list[float]]:
    """Return mean soil temperature around today, a row per depth and a value every two hours."""
    rows = []
    for depth_m in _field_depths(run):
        mean_c = run.soil_c(depth_m)[first:last].mean(axis=1)
        rows.append(short(mean_c.reshape(-1, FIELD_STEP_H).mean(axis=1)))
    return rows


def forecast(inputs: ForecastInputs) -> ForecastResult:
    """Return the forecast of a place: learn its parameters, then simulate the coming year.

    Raises Unsound if a result is impossible.
    """
    weather = step.know_weather(inputs)
    members = step.draw_members(inputs, weather)
    described = step.describe_place(inputs, weather)
    observed = step.gather_observations(inputs, described)
    behind = step.behind(inputs, members)
    alarm = alarm_of(inputs, described, observed, behind)
    observed = without_failed_heat(inputs, described, observed, behind)
    learned = step.learn_place(inputs, described, observed, members)
    run = step.run_ahead(inputs, described, learned, members, weather)

    today = run.trajectory.after(run.run_up_d * 24)
    judged = step.judge_crops(inputs, run, today, run.is_sheltered, weather.frosts.frosts)
    sown = step.follow_sowings(inputs, run)
    felt_behind = felt_c(run.trajectory.cut(run.run_up_d * 24 + 12), run.is_sheltered)
    result = ForecastResult(
        ground=replace(summary(inputs, run, weather, observed), alarm=alarm),
        frosts=frost_dates(weather.frosts, inputs.latitude_deg, inputs.today),
        cover_evidence=step.evidence_of_cover(inputs, described, learned, observed),
        crops=outlooks.crop_days(step.crops_of(inputs), judged, inputs.today),
        sown=sown,
        watch=watch(inputs, run.checkpoint, run.situation, growing_in(inputs, sown), run.outside, run.run_up_d, felt_behind),
        snapshot=pack(run.snapshot),
        nights=NightsAhead(short(even_lows_c(run.snapshot.weather.low_c[run.snapshot.run_up_d :]))),
    )
    check(result.ground, result.frosts, result.crops)
    return result


def windows_under(inputs: ForecastInputs, spans: Sequence[CoverSpan | None]) -> list[list[CropDays]]:
    """Return the outlook of every crop under each cover, as if it were on all year; None stands for no cover."""
    weather = step.know_weather(inputs)
    members = step.draw_members(inputs, weather)
    described = step.describe_place(inputs, weather)
    observed = without_failed_heat(inputs, described, step.gather_observations(inputs, described), step.behind(inputs, members))
    learned = step.learn_place(inputs, described, observed, members)
    run = step.run_ahead(inputs, described, learned, members, weather)

    covers = [() if span is None else (cover_over(span, inputs, 0.0, ALWAYS_H),) for span in spans]
    judged = (
        step.judge_crops(inputs, run, trajectory, bool(over), weather.frosts.frosts)
        for over, trajectory in zip(covers, run.checkpoint.simulate_covers(covers, step.SOIL_D), strict=True)
    )
    return [outlooks.crop_days(step.crops_of(inputs), ground, inputs.today) for ground in judged]


Array = NDArray[np.float64]
RUN_UP_D = 40
MEMORY_D = 9.0
"""Days over which a reading still tells of the days about it: how long a bed stays warmer or colder than as described."""
DOUBT = 0.4
"""A day's readings count as so many more of the same kind in doubt: one alone draws the course by seven tenths."""
GAP_D = 3
"""So many days without weather are bridged by what is usual; more are not known."""


def soil_of(inputs: ForecastInputs, first: date, last: date) -> dict[date, float | None]:
    """Return daily mean soil temperature at seed depth [°C]; None where neither weather nor readings are known."""
    start = first - timedelta(days=RUN_UP_D)
    days = (last - start).days + 1
    past = replace(inputs, today=last + timedelta(days=1))
    normals, _ = climate(past)
    known = known_days(past, start, days, None)
    record = DailyRecord(
        start,
        **{k: v.mean(axis=1, keepdims=True) for k, v in scenarios(known, normals, 8, np.random.default_rng(1)).values.items()},
    )
    midnight = midnight_of(start, standard_offset_h(inputs.timezone, start))
    situation = situation_of(past, normals, midnight)
    site = Site(inputs.latitude_deg, inputs.longitude_deg, inputs.elevation_m, standard_offset_h(inputs.timezone, start))
    weather = local_weather(situation, hours_of(record, site))
    (course,) = simulate([situation.place.case(weather, Parameters.typical(1))], [inputs.seed_depth_m])
    hourly = course.soil_c[:, 0, 0].astype(np.float64)
    daily = hourly.reshape(-1, 24).mean(axis=1)
    noted = np.isfinite(known.record.low_c[:days]) & np.isfinite(known.record.high_c[:days])
    drawn, near = _drawn(inputs.readings, midnight, hourly, days, inputs.seed_depth_m)
    sure = _bridged(noted) | near
    return {start + timedelta(days=i): float(daily[i] + drawn[i]) if sure[i] else None for i in range(RUN_UP_D, days)}


def _drawn(
    readings: Sequence[tuple[int, datetime, float, float]], midnight: datetime, hourly: Array, days: int, depth_m: float
) -> tuple[Array, NDArray[np.bool_]]:
    """Return the daily correction by nearby readings [K], and whether there were any."""
    misses: dict[int, list[float]] = {}
    for _, at, depth, value in readings:
        hour = int((at - midnight) / timedelta(hours=1))
        if 0 <= hour < days * 24 and abs(depth - depth_m) <= max(0.03, 0.5 * depth_m):
            misses.setdefault(hour // 24, []).append(value - float(hourly[hour]))
    if not misses:
        return np.zeros(days), np.zeros(days, dtype=bool)
    when, miss = np.array(list(misses)), np.array([float(np.median(values)) for values in misses.values()])
    weight = np.exp(-np.abs(np.arange(days)[:, None] - when[None, :]) / MEMORY_D)
    return (weight * miss).sum(axis=1) / (weight.sum(axis=1) + DOUBT), weight.max(axis=1) > np.exp(-GAP_D / MEMORY_D)


def _bridged(noted: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Return known days together with short gaps between them."""
    sure = noted.copy()
    at = np.flatnonzero(noted)
    for before, after in pairwise(at):
        if after - before <= GAP_D + 1:
            sure[before:after] = True
    return sure
