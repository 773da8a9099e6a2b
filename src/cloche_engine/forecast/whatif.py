"""Effect of a cover or of another bed."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.kinds import kind, kinds
from cloche_engine.covers.periods import CoverPeriod, Vent
from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.grown import grown
from cloche_engine.forecast.outlooks import SOWING_DEPTHS_M, nearest_depth
from cloche_engine.forecast.places import ALWAYS_H, cover_over
from cloche_engine.forecast.snapshots import AHEAD_D, NEAR_D, ModelSnapshot, stand, unpack
from cloche_engine.germination.pooling import stands
from cloche_engine.germination.steady import FIELD_FACTOR, field_factors
from cloche_engine.hazards.air_limits import off_night_c
from cloche_engine.inputs import ForecastInputs
from cloche_engine.layout import BAND, MEMBERS, PROFILE_M, SANDBOX_M
from cloche_engine.packing import short
from cloche_engine.protection import cover_benefit
from cloche_engine.protection.cover_benefit import emerging
from cloche_engine.queries import CoverGain, Day, ForCrop, OutdatedSnapshot, Set, WhatIfQuery
from cloche_engine.site.estimate import normals_at
from cloche_engine.soil.bed import Bed, Event, Heating, Parameters, Work
from cloche_engine.soil.physical import Checkpoint
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import Trajectory, simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, Site
from cloche_engine.windows.limits import never_up_d

LOOKED_D = 45
"""Days under the cover that are looked at."""
BARE_D = 75
"""Days that the bare bed is given to come as far."""
FORTNIGHT_D = 14
KEPT_PLACES = 6


@lru_cache(maxsize=KEPT_PLACES)
def _snapshot(packed: bytes) -> ModelSnapshot:
    return unpack(packed)


@lru_cache(maxsize=KEPT_PLACES)
def _today(packed: bytes, inputs_key: _Described, ahead_d: int) -> Checkpoint:
    depths = sorted({*PROFILE_M, *SOWING_DEPTHS_M, inputs_key.inputs.seed_depth_m})
    return stand(_snapshot(packed), inputs_key.inputs, depths, ahead_d)[2]


@lru_cache(maxsize=KEPT_PLACES)
def _later(packed: bytes, inputs_key: _Described, on_d: int) -> Checkpoint:
    """Return the place on that day, counted from that of the snapshot."""
    if _snapshot(packed).ahead_d < on_d + LOOKED_D:
        raise OutdatedSnapshot
    return _today(packed, inputs_key, NEAR_D if on_d + BARE_D < NEAR_D else AHEAD_D).later(on_d)


class _Described:
    """The description of a place as a cache key."""

    def __init__(self, inputs: ForecastInputs) -> None:
        self.inputs = inputs
        described = (
            inputs.kind,
            inputs.seed_depth_m,
            inputs.description,
            inputs.covers,
            inputs.operations,
            inputs.today,
        )
        self.words = repr((*described, inputs.latitude_deg, inputs.longitude_deg, inputs.elevation_m, inputs.seed))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Described) and other.words == self.words

    def __hash__(self) -> int:
        return hash(self.words)


def what_if(packed: bytes, inputs: ForecastInputs, query: WhatIfQuery) -> list[CoverGain]:
    """Return the effect of each cover from the same day on, the bed without a cover first.

    inputs: readings and weather are not used. Raises OutdatedSnapshot if the stored forecast does not reach so far or another
    version stored it.
    """
    # A forecast of yesterday stands a day back.
    on_d = query.on_d + (inputs.today - _snapshot(packed).today).days
    snapshot, checkpoint = _snapshot(packed), _later(packed, _Described(inputs), on_d)
    periods = [cover_over(span, inputs, 0.0, ALWAYS_H) for span in query.covers]
    # Whatever stands there now goes when another comes.
    bare = checkpoint.simulate_covers([()], BARE_D)[0]
    under = checkpoint.simulate_covers([(period,) for period in periods], LOOKED_D) if periods else []
    shut = checkpoint.simulate_covers([(replace(period, vent=Vent()),) for period in periods], FORTNIGHT_D) if periods else []
    nights = snapshot.weather.low_c[snapshot.run_up_d + on_d :]
    judged = _Judged(inputs, query, bare, nights)
    return [judged.cover_gain(bare, bare), *(judged.cover_gain(*pair) for pair in zip(under, shut, strict=True))]


class _Judged:
    """What each course is compared with: the bed without a cover, the crops, the nights outside."""

    def __init__(self, inputs: ForecastInputs, query: WhatIfQuery, bare: Trajectory, night_c: NDArray[np.float64]) -> None:
        self.query, self.bare, self.night_c = query, bare, night_c
        self.depth_m = inputs.seed_depth_m
        self.crops = (
            [row.crop for row in grown(query.crops, inputs.values, inputs.methods, own=inputs.own)] if query.crops else []
        )
        self.factor = field_factors(*inputs.field_factor, MEMBERS, inputs.seed)

    def cover_gain(self, trajectory: Trajectory, shut: Trajectory) -> CoverGain:
        """Return the effect of one cover from two trajectories: opened as planned, and closed throughout."""
        soil = cover_benefit.daily(trajectory.at(self.depth_m))[:LOOKED_D]
        gain = (soil - cover_benefit.daily(self.bare.at(self.depth_m))[: len(soil)])[:FORTNIGHT_D].mean(axis=0)
        week = slice(7 * 24, 14 * 24)
        return CoverGain(
            soil_c=[short(row) for row in np.quantile(soil, BAND, axis=1)],
            gain_k=short(np.quantile(gain, BAND)),
            profile_c=short(np.array([trajectory.at(depth)[week].mean() for depth in PROFILE_M])),
            hottest_c=short(cover_benefit.hottest_c(shut, FORTNIGHT_D)),
            coldest_c=short(cover_benefit.coldest_c(shut, FORTNIGHT_D)),
            open_h=round(cover_benefit.opening_h(trajectory, FORTNIGHT_D), 1),
            crops=[self._for(crop, trajectory) for crop in self.crops],
        )

    def _for(self, crop: Crop, trajectory: Trajectory) -> ForCrop:
        depth = nearest_depth(crop.sowing_depth_m)
        wanted = cover_benefit.wanted_c(crop, self.query.comfortable)
        ready, bare = (cover_benefit.ready_day(cover_benefit.daily(run.at(depth)), wanted) for run in (trajectory, self.bare))
        up = cover_benefit.emerging(
            np.clip(trajectory.at(depth).astype(np.float64), -29.0, 59.0), crop, self.factor, self.query.warm_d
        )
        half = [day if day <= never_up_d(crop) else float("inf") for day in up.half_d]
        return ForCrop(
            crop_key=crop.key,
            ready_d=self._from_today(ready),
            gained_d=round(bare - ready) if np.isfinite(ready) and np.isfinite(bare) else None,
            half_d=short(np.array(half), 1),
            share=round(up.share * stands(crop), 3),
            off_d=self._from_today(cover_benefit.off_day(self.night_c, off_night_c(crop))),
        )

    def _from_today(self, day: float) -> int | None:
        return self.query.on_d + round(day) if np.isfinite(day) else None


TAKEN_IN_D, EMERGES_WITHIN_D = 16, 150
"""Days that the weather is repeated, and days over which seed is followed in the last of them."""
HEAP = Heating(70.0, 0.35)
"""A bed over or against a working compost heap (assumption)."""


def day_of(setting: Set, site: Site, crop: Crop) -> Day:
    """Return a day of the sandbox, with and without the cover."""
    columns = [np.full((TAKEN_IN_D, 1), value) for value in (setting.low_c, setting.high_c, setting.sun)]
    dry = [np.zeros((TAKEN_IN_D, 1)), np.full((TAKEN_IN_D, 1), setting.wind_m_s), np.zeros((TAKEN_IN_D, 1))]
    weather = hours_of(DailyRecord(setting.on - timedelta(days=TAKEN_IN_D - 1), *columns, *dry), site)
    wave = AnnualWave.of_months(normals_at(site.latitude_deg, site.longitude_deg, site.elevation_m).mean_c)
    vent = Vent(setting.opening, 9.0, 17.0) if setting.opening else Vent()
    covers = (CoverPeriod(kind(setting.cover), 0.0, ALWAYS_H, vent),) if setting.cover else ()
    films = tuple(CoverPeriod(kind(key), 0.0, ALWAYS_H) for key in setting.grounds if key in kinds())
    places = [Place(_bed(setting.grounds), wave, covers + films), Place(Bed(), wave)]
    depths = sorted({*SANDBOX_M, *PROFILE_M, crop.sowing_depth_m})
    covered, bare = simulate([place.case(weather, Parameters.typical(1)) for place in places], depths)
    last = slice(-24, None)
    half, share = _up(covered.at(crop.sowing_depth_m)[last], crop)
    return Day(
        outside_c=short(weather.air_c[last, 0], 1),
        inside_c=short(covered.air_c[last, 0], 1),
        soil_c=[short(covered.at(depth)[last, 0], 1) for depth in SANDBOX_M],
        bare_c=short(bare.at(0.05)[last, 0], 1),
        profile_c=_profile(covered),
        bare_profile_c=_profile(bare),
        half_d=half,
        bare_half_d=_up(bare.at(crop.sowing_depth_m)[last], crop)[0],
        share=share,
    )


def _profile(trajectory: Trajectory) -> list[list[float]]:
    last = np.stack([trajectory.at(depth)[-24:, 0] for depth in PROFILE_M], axis=1)
    return [short(row, 1) for row in last]


def _bed(grounds: tuple[str, ...]) -> Bed:
    bed = Bed(mulch_m=0.06 if "mulch" in grounds else 0.0, heating=(HEAP,) if "heap" in grounds else ())
    return bed.with_events(Event(Work.STONES, 0.0)) if "stones" in grounds else bed


def _up(day_c: np.ndarray, crop: Crop) -> tuple[float | None, float]:
    """Return days until half are up, and the share, if every day were like this one."""
    emergence = emerging(np.tile(day_c.astype(np.float64), (EMERGES_WITHIN_D, 1)), crop, FIELD_FACTOR, 0)
    half = float(emergence.half_d[1])
    return (round(half, 1) if np.isfinite(half) else None), emergence.share
