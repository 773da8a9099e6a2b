"""The steps of a forecast; `forecasting` has their order."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, timedelta

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.grown import Grown, crop_of, grown
from cloche_engine.forecast import outlooks
from cloche_engine.forecast.batches import NOON_H, batch_outlook
from cloche_engine.forecast.batches import Learned as Counted
from cloche_engine.forecast.cover_evidence import cover_evidence
from cloche_engine.forecast.frosts import SiteFrosts, frosts_of, last_frost_day
from cloche_engine.forecast.places import Situation, covers_of, local_weather, situation_of
from cloche_engine.forecast.snapshots import AHEAD_D, ModelSnapshot
from cloche_engine.forecast.weather import climate, known_days, own_days, usual_climate
from cloche_engine.germination.steady import field_factors
from cloche_engine.inputs import ForecastInputs, SownBatch
from cloche_engine.layout import MEMBERS, PAST_D, PROFILE_M
from cloche_engine.local_time import midnight_of, standard_offset_h
from cloche_engine.places.kinds import BENCHES
from cloche_engine.results import CoverEvidence, SowingOutlook
from cloche_engine.soil.calibrate import learn
from cloche_engine.soil.learned import Learned
from cloche_engine.soil.physical import Checkpoint, draw, stop, with_drift
from cloche_engine.soil.readings import NOTHING, AuxiliaryObservations, Readings, What
from cloche_engine.soil.simulate import Trajectory
from cloche_engine.weather.frosts import Frosts
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.normals import Normals
from cloche_engine.weather.record import DailyRecord, HourlyWeather, Site
from cloche_engine.weather.scenarios import Known, Past, scenarios
from cloche_engine.windows.season import Bed as WindowBed
from cloche_engine.windows.season import Season

RUN_UP_D = 30
"""Days before today that the members run through, so that their soil no longer remembers how they began."""
SOIL_D, HORIZON_D = 500, 690
"""Soil for the last day to sow that is looked at and a slow crop's emergence; air for the growing time behind it."""
COLDEST_C, HOTTEST_C = -29.0, 59.0
ON_EARTH_C = (-90.0, 60.0)
"""Air: the lowest and the highest that were ever measured, rounded outwards (from memory)."""


@dataclass(frozen=True)
class KnownWeather:
    """Known weather of a site: its days from PAST_D before today on, normals, own past years and frosts."""

    site: Site
    known: Known
    normals: Normals
    past: Past | None
    frosts: SiteFrosts


@dataclass(frozen=True)
class Described:
    """A place as it is described. midnight: first instant of the first day, from which its hours count."""

    situation: Situation
    midnight: datetime


@dataclass(frozen=True)
class Observed:
    """Observations of a place: soil temperatures with the numbers of their readings, and air under covers."""

    readings: Readings
    numbers: list[int]
    seen: AuxiliaryObservations


@dataclass(frozen=True)
class Run:
    """A place simulated in all members from `run_up_d` before today on. weather: daily, for the same members and days."""

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
        return soil_c(self.trajectory, depth_m)

    @property
    def is_sheltered(self) -> bool:
        """Whether there is a cover, a house or a room around the place."""
        return bool(self.situation.place.covers or self.situation.house or self.situation.indoors)


def soil_c(trajectory: Trajectory, depth_m: float) -> NDArray[np.float64]:
    """Hourly soil within what soil can be, (hours, members)."""
    return np.clip(trajectory.at(depth_m).astype(np.float64), COLDEST_C, HOTTEST_C)


def midnight(inputs: ForecastInputs, back_d: int) -> datetime:
    """Return the first instant of a day before today, in the site's standard time."""
    hours = standard_offset_h(inputs.timezone, inputs.today - timedelta(days=PAST_D))
    return midnight_of(inputs.today - timedelta(days=back_d), hours)


def know_weather(inputs: ForecastInputs) -> KnownWeather:
    """Return the known weather: measured, forecast and normal (step 1)."""
    normals, past = climate(inputs)
    day_0 = inputs.today - timedelta(days=PAST_D)
    known = known_days(inputs, day_0, PAST_D + HORIZON_D, past)
    hours = standard_offset_h(inputs.timezone, day_0)
    site = Site(inputs.latitude_deg, inputs.longitude_deg, inputs.elevation_m, hours)
    # A simulated service makes up its years: they say nothing about frost at this site.
    own = None if inputs.record_is_simulated else own_days(inputs)
    frosts = frosts_of(own, usual_climate(inputs), inputs.latitude_deg, inputs.today)
    return KnownWeather(site, known, normals, past, frosts)


def draw_members(inputs: ForecastInputs, weather: KnownWeather) -> DailyRecord:
    """Return scenarios of the weather, (days, members), within the extremes ever observed on earth (step 2)."""
    drawn = scenarios(weather.known, weather.normals, MEMBERS, np.random.default_rng(inputs.seed))
    within = {name: np.clip(drawn.values[name], *ON_EARTH_C) for name in ("low_c", "high_c")}
    return DailyRecord(drawn.first, **(drawn.values | within))


def describe_place(inputs: ForecastInputs, weather: KnownWeather) -> Described:
    """Return the place as described: bed, covers, house (step 3)."""
    start = midnight(inputs, PAST_D)
    return Described(situation_of(inputs, weather.normals, start), start)


def gather_observations(inputs: ForecastInputs, described: Described) -> Observed:
    """Return the observations on the clock of the fit."""
    rows = [row for row in inputs.readings if row[1] >= described.midnight]
    hour = np.array([(at - described.midnight) / timedelta(hours=1) for _, at, _, _ in rows])
    depth, value = np.array([row[2] for row in rows]), np.array([row[3] for row in rows])
    return Observed(Readings(hour, depth, value), [row[0] for row in rows], _seen_under(inputs, described))


def _seen_under(inputs: ForecastInputs, described: Described) -> AuxiliaryObservations:
    """Return the observations made under covers while they were on."""
    situation = described.situation
    if situation.house:
        return NOTHING
    rows, guessed = [], []
    for cover in inputs.under:
        at, since = ((when - described.midnight) / timedelta(hours=1) for when in (cover.at, cover.since))
        over = [p for p in situation.place.covers if p.start_h <= since and at < p.end_h]
        if since >= 0 and (over or situation.indoors):
            rows.append((What[cover.what.upper()], at, since, cover.depth_m, cover.value))
            guessed.append(any(p.vent.above_c is not None for p in over))
    return AuxiliaryObservations.of(rows, guessed)


def learn_place(inputs: ForecastInputs, described: Described, observed: Observed, members: DailyRecord) -> Learned:
    """Return the parameters that the readings teach under the weather that was (step 4)."""
    weather = local_weather(described.situation, behind(inputs, members))
    return learn(described.situation.place, weather, observed.readings, observed.seen)


def behind(inputs: ForecastInputs, members: DailyRecord) -> HourlyWeather:
    """Return the weather of the past PAST_D days and today, as the mean of the members."""
    hours = standard_offset_h(inputs.timezone, inputs.today - timedelta(days=PAST_D))
    site = Site(inputs.latitude_deg, inputs.longitude_deg, inputs.elevation_m, hours)
    return hours_of(_mean_of(members.cut(0, PAST_D + 1)), site)


def _mean_of(members: DailyRecord) -> DailyRecord:
    """Return the mean of the members; where all are the same, it is what was measured."""
    means = {name: values.mean(axis=1, keepdims=True) for name, values in members.values.items()}
    return DailyRecord(members.first, **means)


def run_ahead(
    inputs: ForecastInputs, described: Described, learned: Learned, members: DailyRecord, weather: KnownWeather
) -> Run:
    """Return the place simulated in every member, from before today into next year (step 5)."""
    run_up_d = _run_up_d(inputs)
    start = PAST_D - run_up_d
    outside = hours_of(members.cut(start, PAST_D + SOIL_D), weather.site)
    situation = described.situation
    later = situation.shifted(start * 24)
    depths = sorted({*PROFILE_M, *outlooks.SOWING_DEPTHS_M, inputs.seed_depth_m})
    since = learned.since(start * 24)
    drawn = draw(since, len(outside), MEMBERS, inputs.seed)
    checkpoint = stop(later.place, drawn, local_weather(later, outside), depths, run_up_d)
    trajectory = with_drift(checkpoint.whole(), drawn.level, drawn.gain)
    snapshot = ModelSnapshot(since, members.cut(start, PAST_D + AHEAD_D), run_up_d, weather.normals, weather.site.utc_h)
    return Run(later, learned, trajectory, members.cut(start), outside, run_up_d, checkpoint, snapshot)


def _run_up_d(inputs: ForecastInputs) -> int:
    """Return the days before today that reach back to the oldest sowing still followed."""
    ages = [(inputs.today - sown.sown_on).days + 1 for sown in inputs.sown if not sown.over]
    return max([RUN_UP_D, *(age for age in ages if age <= PAST_D)])


def crops_of(inputs: ForecastInputs) -> list[Grown]:
    """Return what is grown in the place; nothing on a hotbed without soil, because only trays are set on it."""
    if inputs.hotbed is not None and inputs.hotbed[0].soil_m == 0:
        return []
    return grown(inputs.crops, inputs.values, inputs.methods, inputs.sowing_rule, inputs.sowing_rules, inputs.own)


def judge_crops(inputs: ForecastInputs, run: Run, trajectory: Trajectory, covered: bool, frosts: Frosts) -> outlooks.Ground:
    """Return the place as crops are judged in it from today on (step 6).

    trajectory: from today's first hour.
    """
    weather = run.weather.cut(run.run_up_d)
    air = outlooks.plant_air(trajectory, weather, covered)
    # Cold among the plants on clear nights is a frost's matter; they grow by the air of the day, or the warmer one inside.
    mean = np.maximum(weather.mean_c, air.mean_c)
    moist = trajectory.moist.astype(np.float64)
    season = Season.of(air, inputs.latitude_deg, None if covered or run.situation.place.bed.volume else moist, mean)
    factor = field_factors(*inputs.field_factor, MEMBERS, inputs.seed)
    beds = {
        depth: WindowBed.of(soil_c(trajectory, depth), season, factor, None if inputs.watered else moist)
        for depth in outlooks.depths_for(crops_of(inputs))
    }
    last_frost = last_frost_day(frosts, inputs.latitude_deg, inputs.today)
    return outlooks.Ground(beds, last_frost, bench=inputs.kind in BENCHES, stand=inputs.stand[0])


def follow_sowings(inputs: ForecastInputs, run: Run) -> dict[int, SowingOutlook]:
    """Return the outlook of sowings within the run; older ones keep their last outlook."""
    first = inputs.today - timedelta(days=run.run_up_d)
    moist = None if inputs.watered else run.trajectory.moist.astype(np.float64)
    learned = Counted(inputs.field_factor, inputs.stand, inputs.kind in BENCHES)
    return {
        sown.number: batch_outlook(sown, crop_of(inputs.own, sown.crop_key), _soil_of(sown, run, first), first, learned, moist)
        for sown in inputs.sown
        if first <= sown.sown_on <= inputs.today and not sown.over
    }


def _soil_of(sown: SownBatch, run: Run, first: date) -> NDArray[np.float64]:
    """Return hourly soil temperature of a sowing from midnight of `first`, here and where it was before [°C]."""
    soil = run.soil_c(outlooks.nearest_depth(sown.depth_m))
    for until, hourly in sown.before:
        end = (until - first).days * 24 + NOON_H
        left = np.array(hourly)[max(len(hourly) - max(end, 0), 0) :]
        soil[max(end, 0) - len(left) : max(end, 0)] = left[:, None]
    return soil


def evidence_of_cover(
    inputs: ForecastInputs, described: Described, learned: Learned, observed: Observed
) -> CoverEvidence | None:
    """Return what was found of the cover under which most readings were taken."""
    place, hours = described.situation.place, np.concatenate([learned.drift.hour, observed.seen.hour])
    over = np.array([(hours >= p.start_h) & (hours < p.end_h) for p in place.covers])
    # Under two at once neither is seen for itself; a film beneath a cover takes nothing from what is seen of that.
    roofs = np.array([not p.kind.lies_on_soil for p in place.covers])
    counts = (over & (over[roofs].sum(axis=0) <= 1)).sum(axis=1).tolist() if place.covers else []
    if not counts or described.situation.indoors:
        return None
    most = int(np.argmax(counts))
    return cover_evidence(learned, covers_of(inputs)[most], place.covers[most], counts[most])
