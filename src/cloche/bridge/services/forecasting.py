"""From a place's evidence to everything the pages draw of its future. Pure: same evidence, same answer to the digit."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cloche.bridge.services import outlooks, own
from cloche.bridge.services.batches import Learned as Counted
from cloche.bridge.services.batches import batch_outlook
from cloche.bridge.services.crops import Grown, grown
from cloche.bridge.services.frosts import frosts_of, last_frost_day, plain
from cloche.bridge.services.places import ALWAYS_H, Situation, cover_over, covers_of, felt, situation_of
from cloche.bridge.services.planting import BENCHES
from cloche.bridge.services.pooling import cover_evidence
from cloche.bridge.services.snapshots import AHEAD_D, ModelSnapshot, pack
from cloche.bridge.services.watching import growing_in, watch
from cloche.bridge.services.weather import climate, known_days
from cloche.bridge.values.clocks import midnight_of, standard_offset_h
from cloche.bridge.values.inputs import CoverSpan, ForecastInputs
from cloche.bridge.values.layout import FIELD_STEP_H, MEMBERS, PROFILE_M
from cloche.bridge.values.packing import short
from cloche.bridge.values.stored import CropDays, PlaceForecast
from cloche.core.covers.felt import felt_c
from cloche.core.soil import verify
from cloche.core.soil.calibrate import Learned, learn
from cloche.core.soil.physical import Checkpoint, draw, stop, with_drift
from cloche.core.soil.readings import NOTHING, Beside, Readings, What
from cloche.core.soil.simulate import Trajectory
from cloche.core.weather.hourly import hours_of
from cloche.core.weather.normals import Normals
from cloche.core.weather.record import DailyRecord, HourlyWeather, Site
from cloche.core.weather.scenarios import Known, Past, scenarios
from cloche.core.windows.season import Bed as WindowBed
from cloche.core.windows.season import Season, field_factors

PAST_D = 60
RUN_UP_D = 30
"""Days before today that the members run through, so that their soil no longer remembers how they began."""
SOIL_D, HORIZON_D = 310, 430
"""Soil for the last day to sow that is looked at and a slow crop's emergence; air for the growing time behind it."""
NEAR_PAST_D, NEAR_D = 21, 14
BAND = (0.1, 0.5, 0.9)
PROBED_M = 0.10
LIGHT = 1.15
"""A reading whose variance is taken larger than this, against an ordinary one, is told to weigh less."""
COLDEST_C, HOTTEST_C = -29.0, 59.0


@dataclass(frozen=True)
class _Outlook:
    """A known place in all its members from run_up_d before today on. weather: daily, the same members and days."""

    situation: Situation
    learned: Learned
    trajectory: Trajectory
    weather: DailyRecord
    outside: HourlyWeather
    run_up_d: int
    checkpoint: Checkpoint
    snapshot: ModelSnapshot

    def soil_c(self, depth_m: float) -> NDArray[np.float64]:
        """Hourly soil, (hours, members)."""
        return _soil_c(self.trajectory, depth_m)


def _soil_c(trajectory: Trajectory, depth_m: float) -> NDArray[np.float64]:
    return np.clip(trajectory.at(depth_m).astype(np.float64), COLDEST_C, HOTTEST_C)


@dataclass(frozen=True)
class ForecastResult:
    """All that is worked out of a place; sown: outlook by the sowing's number (see bridge.services.batches.plain); snapshot:
    what it takes to run the place again (see bridge.services.snapshots); watch: the coming days (see
    bridge.services.watching)."""

    ground: PlaceForecast
    crops: list[CropDays]
    sown: dict[int, dict[str, Any]]
    watch: dict[str, Any]
    snapshot: bytes


@dataclass(frozen=True)
class _Rests:
    """What an outlook rests on, for the pages that show its evidence."""

    normals: Normals
    past: Past | None
    known: Known
    readings: Readings
    numbers: list[int]
    situation: Situation
    seen: Beside


def forecast(inputs: ForecastInputs) -> ForecastResult:
    """Learn the place and run it over the coming year."""
    found, rests = _looked_ahead(inputs)
    frosts, counted = frosts_of(rests.past, rests.normals, inputs.latitude_deg, inputs.today)
    ground = _place_forecast(inputs, found, rests)
    ground = replace(
        ground,
        frosts=plain(frosts, counted, inputs.latitude_deg, inputs.today),
        cover_evidence=_cover_evidence(inputs, rests.situation, found.learned, rests.seen),
    )
    last_frost = last_frost_day(frosts, inputs.latitude_deg, inputs.today)
    place = found.situation.place
    covered = bool(place.covers or found.situation.house or found.situation.indoors)
    judged = _judged(inputs, found.trajectory.after(found.run_up_d * 24), found, covered, last_frost)
    crops = outlooks.crop_days(_crops(inputs), judged, inputs.today)
    sown = _sown(inputs, found)
    growing = growing_in(inputs, sown)
    felt_behind = felt_c(found.trajectory.cut(found.run_up_d * 24 + 12), covered)
    watched = watch(inputs, found.checkpoint, found.situation, growing, found.outside, found.run_up_d, felt_behind)
    return ForecastResult(ground, crops, sown, watched, pack(found.snapshot))


def windows_under(inputs: ForecastInputs, spans: Sequence[CoverSpan | None]) -> list[list[CropDays]]:
    """Every crop's outlook with each cover in turn standing there all year, as it is aired, and bare where it is None."""
    found, rests = _looked_ahead(inputs)
    frosts, _ = frosts_of(rests.past, rests.normals, inputs.latitude_deg, inputs.today)
    last_frost = last_frost_day(frosts, inputs.latitude_deg, inputs.today)
    ways = [() if span is None else (cover_over(span, inputs, 0.0, ALWAYS_H),) for span in spans]
    trajectories = found.checkpoint.on(ways, SOIL_D)
    return [
        outlooks.crop_days(_crops(inputs), _judged(inputs, trajectory, found, bool(way), last_frost), inputs.today)
        for way, trajectory in zip(ways, trajectories, strict=True)
    ]


def _looked_ahead(inputs: ForecastInputs) -> tuple[_Outlook, _Rests]:
    own.use(inputs.own)
    normals, past = climate(inputs)
    day_0 = inputs.today - timedelta(days=PAST_D)
    known = known_days(inputs, day_0, PAST_D + HORIZON_D, past)
    rng = np.random.default_rng(inputs.seed)
    members = scenarios(known, normals, MEMBERS, rng)
    midnight = _midnight(inputs, PAST_D)
    site = Site(inputs.latitude_deg, inputs.longitude_deg, inputs.elevation_m, standard_offset_h(inputs.timezone, day_0))
    situation = situation_of(inputs, normals, midnight)
    readings, numbers = _readings(inputs, midnight)
    behind = felt(situation, hours_of(_one(members.cut(0, PAST_D + 1)), site))
    seen = _under(inputs, situation, midnight)
    learned = learn(situation.place, behind, readings, seen)
    found = _run(inputs, situation, learned, members, site, normals)
    return found, _Rests(normals, past, known, readings, numbers, situation, seen)


def _run_up_d(inputs: ForecastInputs) -> int:
    """Far enough back for the oldest sowing that is still followed."""
    ages = [(inputs.today - sown.sown_on).days + 1 for sown in inputs.sown if not sown.over]
    return max([RUN_UP_D, *(age for age in ages if age <= PAST_D)])


def _sown(inputs: ForecastInputs, found: _Outlook) -> dict[int, dict[str, Any]]:
    """Outlooks of the sowings that lie within the run; what is older keeps what was last said of it."""
    first = inputs.today - timedelta(days=found.run_up_d)
    moist = None if inputs.watered else found.trajectory.moist.astype(np.float64)
    learned = Counted(inputs.field_factor, inputs.stand, inputs.kind in BENCHES)
    return {
        sown.number: batch_outlook(sown, found.soil_c(outlooks.nearest_depth(sown.depth_m)), first, learned, moist)
        for sown in inputs.sown
        if first <= sown.sown_on <= inputs.today and not sown.over
    }


def _crops(inputs: ForecastInputs) -> list[Grown]:
    return grown(inputs.crops, inputs.values, inputs.methods, inputs.sowing_rule, inputs.sowing_rules)


def _judged(
    inputs: ForecastInputs, trajectory: Trajectory, found: _Outlook, covered: bool, last_frost_day: float | None
) -> outlooks.Ground:
    """The place from today on, as its crops are judged in it. trajectory: from today's first hour."""
    weather = found.weather.cut(found.run_up_d)
    air = outlooks.plant_air(trajectory, weather, covered)
    # Cold among the plants on clear nights is a frost's matter; they grow by the air of the day, or the warmer one inside.
    mean = np.maximum(weather.mean_c, air.mean_c)
    moist = trajectory.moist.astype(np.float64)
    season = Season.of(air, inputs.latitude_deg, None if covered or found.situation.place.bed.volume else moist, mean)
    factor = field_factors(*inputs.field_factor, MEMBERS, inputs.seed)
    beds = {
        depth: WindowBed.of(_soil_c(trajectory, depth), season, factor, None if inputs.watered else moist)
        for depth in outlooks.depths_for(_crops(inputs))
    }
    return outlooks.Ground(beds, last_frost_day, bench=inputs.kind in BENCHES, stand=inputs.stand[0])


def _run(
    inputs: ForecastInputs, situation: Situation, learned: Learned, members: DailyRecord, site: Site, normals: Normals
) -> _Outlook:
    run_up_d = _run_up_d(inputs)
    start = PAST_D - run_up_d
    weather = members.cut(start)
    outside = hours_of(members.cut(start, PAST_D + SOIL_D), site)
    later = Situation(situation.place.shifted(start * 24), situation.house, situation.indoors)
    weather_there = felt(later, outside)
    depths = sorted({*PROFILE_M, *outlooks.SOWING_DEPTHS_M, inputs.seed_depth_m})
    since = learned.since(start * 24)
    drawn = draw(since, len(outside), MEMBERS, inputs.seed)
    checkpoint = stop(later.place, drawn, weather_there, depths, run_up_d)
    trajectory = with_drift(checkpoint.whole(), drawn.level, drawn.gain)
    snapshot = ModelSnapshot(since, members.cut(start, PAST_D + AHEAD_D), run_up_d, normals, site.utc_h)
    return _Outlook(later, learned, trajectory, weather, outside, run_up_d, checkpoint, snapshot)


def _one(members: DailyRecord) -> DailyRecord:
    """The members' mean: where all are the same, what was measured."""
    means = {name: values.mean(axis=1, keepdims=True) for name, values in members.values.items()}
    return DailyRecord(members.first, **means)


def _midnight(inputs: ForecastInputs, back_d: int) -> datetime:
    hours = standard_offset_h(inputs.timezone, inputs.today - timedelta(days=PAST_D))
    return midnight_of(inputs.today - timedelta(days=back_d), hours)


def _under(inputs: ForecastInputs, situation: Situation, midnight: datetime) -> Beside:
    """What was seen under the covers while they stood, on the clock of the fit."""
    if situation.indoors or situation.house:
        return NOTHING
    rows, guessed = [], []
    for one in inputs.under:
        at, since = ((when - midnight) / timedelta(hours=1) for when in (one.at, one.since))
        over = [p for p in situation.place.covers if p.start_h <= since and at < p.end_h]
        if since >= 0 and over:
            rows.append((What[one.what.upper()], at, since, one.depth_m, one.value))
            guessed.append(any(p.vent.above_c is not None for p in over))
    return Beside.of(rows, guessed)


def _cover_evidence(inputs: ForecastInputs, situation: Situation, learned: Learned, seen: Beside) -> dict[str, Any]:
    """Of the cover under which most was read, what was found of it."""
    hours = np.concatenate([learned.drift.hour, seen.hour])
    counts = [int(((hours >= p.start_h) & (hours < p.end_h)).sum()) for p in situation.place.covers]
    if not counts or situation.indoors:
        return {}
    most = int(np.argmax(counts))
    return cover_evidence(learned, covers_of(inputs)[most], situation.place.covers[most], counts[most])


def _readings(inputs: ForecastInputs, midnight: datetime) -> tuple[Readings, list[int]]:
    rows = [row for row in inputs.readings if row[1] >= midnight]
    hour = np.array([(at - midnight) / timedelta(hours=1) for _, at, _, _ in rows])
    depth, value = np.array([row[2] for row in rows]), np.array([row[3] for row in rows])
    return Readings(hour, depth, value), [row[0] for row in rows]


def _place_forecast(inputs: ForecastInputs, found: _Outlook, rests: _Rests) -> PlaceForecast:
    normals, known, readings, numbers = rests.normals, rests.known, rests.readings, rests.numbers
    first, last = (found.run_up_d - NEAR_PAST_D) * 24, (found.run_up_d + NEAR_D) * 24
    soil = found.soil_c(inputs.seed_depth_m)
    near = np.quantile(soil[first:last], BAND, axis=1)
    daily = soil.reshape(-1, 24, soil.shape[1]).mean(axis=1)
    far = np.quantile(daily[found.run_up_d :], BAND, axis=1)
    width = (far[2] - far[0]) / 2
    learned = found.learned
    # Yesterday's weather is known: where the courses differ there, it is the place that is not.
    yesterday = slice((found.run_up_d - 1) * 24, found.run_up_d * 24)
    return PlaceForecast(
        day=inputs.today.isoformat(),
        start=_midnight(inputs, NEAR_PAST_D).isoformat(),
        depth_m=inputs.seed_depth_m,
        near_low_c=short(near[0]),
        near_mid_c=short(near[1]),
        near_high_c=short(near[2]),
        field_depths_m=_field_depths(found),
        field_c=_field(found, first, last),
        **_air(found, first, last),
        far_low_c=short(far[0]),
        far_mid_c=short(far[1]),
        far_high_c=short(far[2]),
        band_k={"1": float(width[1]), "3": float(width[3]), "7": float(width[7]), "14": float(width[14])},
        readings_used=len(readings),
        strange={str(numbers[learned.used[i]]): round(k, 2) for i, k in verify.strange(learned).items()},
        weights={
            str(numbers[learned.used[i]]): round(1 / float(s), 2) for i, s in enumerate(learned.drift.scatter) if s > LIGHT
        },
        checks=[[c.lead_d, c.count, round(c.error_k, 2), round(c.inside, 2)] for c in verify.record(learned)],
        parameters=_parameters(learned),
        weather_days=int(np.isfinite(known.record.low_c[PAST_D - 14 : PAST_D + 1]).sum()),
        normals_source=normals.source,
        normals_years=normals.years,
        replayed_years=len(known.past.years) if known.past else 0,
        frosts={},
        cover_evidence={},
        spread_start=_midnight(inputs, 1).isoformat(),
        spread_depths_m=(deep := _spread_depths(inputs, found)),
        spread_k=[short(found.soil_c(d)[yesterday].std(axis=1)) for d in deep],
    )


def _spread_depths(inputs: ForecastInputs, found: _Outlook) -> list[float]:
    """Where a probe goes: to seed depth, and a bit deeper for transplants, as far as there is soil."""
    volume = found.situation.place.bed.volume
    also = [PROBED_M] if volume is None and inputs.seed_depth_m < PROBED_M else []
    return [inputs.seed_depth_m, *also]


def _parameters(learned: Learned) -> dict[str, list[float]]:
    found = {name: learned.factor(name) for name in learned.names} | {"wetter": learned.lately_wetter()}
    return {name: [round(v, 3) for v in ends] for name, ends in found.items()}


def _air(found: _Outlook, first: int, last: int) -> dict[str, list[float]]:
    """Hourly air outside, and where something stands over the place the air inside with its band."""
    outside = np.broadcast_to(found.outside.air_c[first:last], (last - first, MEMBERS))
    parts = {"outside_c": short(np.median(outside, axis=1))}
    sides = ("inside_low_c", "inside_mid_c", "inside_high_c")
    if not (found.situation.place.covers or found.situation.house or found.situation.indoors):
        return parts | {side: [] for side in sides}
    band = np.quantile(found.trajectory.air_c[first:last], BAND, axis=1)
    return parts | {side: short(values) for side, values in zip(sides, band, strict=True)}


def _field_depths(found: _Outlook) -> list[float]:
    """As deep as there is soil: a tray ends where it ends."""
    volume = found.situation.place.bed.volume
    return [depth for depth in PROFILE_M if volume is None or depth <= volume.depth_m]


def _field(found: _Outlook, first: int, last: int) -> list[list[float]]:
    """Mean soil by depth and every two hours around today: rows are depths."""
    rows = []
    for depth_m in _field_depths(found):
        trajectory = found.soil_c(depth_m)[first:last].mean(axis=1)
        rows.append(short(trajectory.reshape(-1, FIELD_STEP_H).mean(axis=1)))
    return rows
