"""Effect of heat: the same tray without heat, under a lid, on a mat, and in a warmer room."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.grown import crop_of, with_values
from cloche_engine.forecast.batches import Learned, batch_outlook
from cloche_engine.forecast.heat_and_light import is_on
from cloche_engine.forecast.heating import INTO_TRAY, ROOTS_M, USUAL_W_M2, plug_w
from cloche_engine.forecast.outlooks import SOWING_DEPTHS_M, nearest_depth
from cloche_engine.forecast.places import ALWAYS_H, Situation, local_weather
from cloche_engine.forecast.snapshots import ModelSnapshot, stand, unpack
from cloche_engine.germination.pooling import stands
from cloche_engine.germination.steady import field_factors
from cloche_engine.heat.source import AFTER_ALL_D, ALWAYS, CORNER_W_K, ROOM_W_K, SELF_REGULATED, Heating, kwh_a_day
from cloche_engine.inputs import ForecastInputs, SownBatch
from cloche_engine.layout import MEMBERS
from cloche_engine.packing import short
from cloche_engine.protection import cover_benefit
from cloche_engine.protection.cover_benefit import daily
from cloche_engine.queries import HeatGain, HeatQuery, OutdatedSnapshot
from cloche_engine.soil.physical import Variant
from cloche_engine.soil.simulate import Trajectory
from cloche_engine.weather.record import HourlyWeather
from cloche_engine.windows.limits import never_up_d

Array = NDArray[np.float64]
LOOKED_D = 60
RULED_BY_K = 2.0
WARM_ROOM_C = 21.1
"""70 °F, which the schools of warming reach for."""
STRETCHES_HALF_D = 24.0


@dataclass(frozen=True)
class _Way:
    """One way of heating, before it is simulated.

    kwh_d: energy a day for warming the air [kWh]; plug_w: power that a heater below the tray draws while it is on [W].
    """

    way: str
    set_c: float | None
    heating: tuple[Heating, ...]
    lid: bool
    warmer_c: float | None = None
    kwh_d: float = 0.0
    plug_w: float = 0.0


def set_points(crop: Crop) -> tuple[float, float]:
    """Return two set-points worth comparing: the start of the ideal range, and one well within it [°C]."""
    low = max(crop.optimum_from_c, 16.0)
    return low, max((crop.optimum_from_c + crop.optimum_to_c) / 2, low + 4.0)


def heat_gains(packed: bytes, inputs: ForecastInputs, query: HeatQuery) -> list[HeatGain]:
    """Return the effect of each way of heating, no heat first.

    Raises OutdatedSnapshot if another version or another day stored the forecast.
    """
    snapshot = unpack(packed)
    if snapshot.today != inputs.today:
        raise OutdatedSnapshot
    depths = sorted({*SOWING_DEPTHS_M, inputs.seed_depth_m})
    situation, outside, checkpoint = stand(snapshot, inputs, depths, LOOKED_D + 2)
    crop = with_values(crop_of(inputs.own, query.crop_key), inputs.values.get(query.crop_key))
    depth = nearest_depth(query.sown.depth_m if query.sown else crop.sowing_depth_m)
    air_c = float(checkpoint.ahead.air_c[: 14 * 24].mean())
    ways = _ways(crop, situation, air_c, *_heater(inputs, situation, query.area_m2))
    lid = (CoverPeriod(kind("lid"), 0.0, ALWAYS_H),)
    bed = checkpoint.place.bed
    variants = [
        Variant(bed.with_heat(*way.heating), lid if way.lid else (), _air_of(way, situation, outside, checkpoint.ahead))
        for way in ways
    ]
    courses = checkpoint.varied(variants, LOOKED_D)
    heat = checkpoint.drawn.parameters.heat
    seen = _lying(query.sown, inputs, snapshot, checkpoint.behind, depth) if query.sown else _fresh(crop, inputs, depth)
    return [_gain(way, course, depth, seen(course), heat) for way, course in zip(ways, courses, strict=True)]


def _heater(inputs: ForecastInputs, situation: Situation, area_m2: float) -> tuple[Heating, float, bool]:
    """Return the heater to compare, always there, what it draws [W], and whether it is the grower's own."""
    spans = [span for span in inputs.heat if span.source != "house"]
    there = [i for i, span in enumerate(spans) if is_on(span, inputs.today)]
    if there:
        own = situation.place.bed.heating[there[-1]]
        return replace(own, during=ALWAYS), plug_w(spans[there[-1]]), True
    bottom = situation.place.bed.volume.depth_m if situation.place.bed.volume else 0.06
    mat = Heating(USUAL_W_M2["mat"] * INTO_TRAY["mat"], bottom, probe_m=ROOTS_M)
    return mat, USUAL_W_M2["mat"] * area_m2, False


def _ways(crop: Crop, situation: Situation, air_c: float, heater: Heating, plug: float, own: bool) -> list[_Way]:
    ways = [_Way("nothing", None, (), lid=False), _Way("lid", None, (), lid=True)]
    for way, lid in (("own", True), ("own_open", False)) if own else (("mat", True), ("open", False)):
        ways.append(_Way(way, None, (heater,), lid=lid, plug_w=plug))
    if not own:
        eases = replace(heater, eases_c=SELF_REGULATED)
        ways.append(_Way("self", None, (eases,), lid=True, plug_w=plug))
    for way, set_c in zip(("low", "high"), set_points(crop), strict=True):
        ruled = replace(heater, start_c=set_c - RULED_BY_K / 2, stop_c=set_c + RULED_BY_K / 2, probe_m=ROOTS_M, spans=())
        ways.append(_Way(way, set_c, (ruled,), lid=True, plug_w=plug))
    if situation.indoors and air_c < WARM_ROOM_C:
        warmer_k = WARM_ROOM_C - air_c
        for way, loss in (("corner", CORNER_W_K), ("room", ROOM_W_K)):
            ways.append(_Way(way, WARM_ROOM_C, (), lid=True, warmer_c=WARM_ROOM_C, kwh_d=kwh_a_day(loss, warmer_k)))
    return ways


def _air_of(way: _Way, situation: Situation, outside: HourlyWeather, now: HourlyWeather) -> HourlyWeather:
    if way.warmer_c is None:
        return now
    kept = replace(situation, kept=(*situation.kept, (way.warmer_c, -ALWAYS_H, ALWAYS_H)))
    return local_weather(kept, outside)


Seen = Callable[[Trajectory], tuple[list[float | None], float | None, float]]


def _fresh(crop: Crop, inputs: ForecastInputs, depth: float) -> Seen:
    """Return days to half, days to most and share of a sowing made today."""
    factor = field_factors(*inputs.field_factor, MEMBERS, inputs.seed)
    longest = never_up_d(crop)

    def seen(course: Trajectory) -> tuple[list[float | None], float | None, float]:
        up = cover_benefit.emerging(np.clip(course.at(depth).astype(np.float64), -29.0, 59.0), crop, factor, 0)
        half = [float(day) if day <= longest else None for day in up.half_d]
        most = round(up.most_d, 1) if half[1] is not None and np.isfinite(up.most_d) else None
        return [None if day is None else round(day, 1) for day in half], most, round(up.share * stands(crop, bench=True), 3)

    return seen


def _lying(sown: SownBatch, inputs: ForecastInputs, snapshot: ModelSnapshot, behind: Trajectory, depth: float) -> Seen:
    """Return the same for a sowing that was already made, counted from its own day."""
    learned = Learned(inputs.field_factor, inputs.stand, bench=True)
    usual = crop_of(inputs.own, sown.crop_key)

    def seen(course: Trajectory) -> tuple[list[float | None], float | None, float]:
        soil = np.concatenate([behind.at(depth), course.at(depth)]).astype(np.float64)
        outlook = batch_outlook(sown, usual, np.clip(soil, -29.0, 59.0), snapshot.weather.first, learned, None)
        half = [None if day is None else float((day - sown.sown_on).days) for day in outlook.half]
        most = None if outlook.most[1] is None else float((outlook.most[1] - sown.sown_on).days)
        return half, most, outlook.share

    return seen


def _gain(
    way: _Way,
    course: Trajectory,
    depth: float,
    seen: tuple[list[float | None], float | None, float],
    factor: Array,
) -> HeatGain:
    half, most, share = seen
    roots = daily(course.at(depth))[:14].mean(axis=0)
    duty, kwh_d = None, way.kwh_d
    if way.heating:
        power = way.heating[0].power_w_m2
        duty = round(float(np.median(daily(course.heat_w_m2)[:14] / (power * factor))), 3)
        kwh_d = duty * 24 * way.plug_w / 1000
    heated = bool(way.heating) or way.kwh_d > 0
    low, middle, high = (round(float(v), 1) for v in np.quantile(roots, (0.1, 0.5, 0.9)))
    return HeatGain(
        way=way.way,
        set_c=way.set_c,
        roots_c=(low, middle, high),
        half_d=short(np.array([np.inf if d is None else d for d in half]), 1),
        most_d=most,
        share=share,
        kwh_half=round(kwh_d * half[1], 2) if heated and half[1] is not None else None if heated else 0.0,
        kwh_all=round(kwh_d * (most + AFTER_ALL_D), 2) if heated and most is not None else None if heated else 0.0,
        duty=duty,
    )
