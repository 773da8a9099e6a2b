"""A bed under a day of weather that one sets oneself, repeated until the ground has taken it in. Loads the engine."""

from __future__ import annotations

from datetime import timedelta

import numpy as np

from cloche.bridge.services.places import ALWAYS_H
from cloche.bridge.values.heavy import Day, Set
from cloche.bridge.values.layout import PROFILE_M, SANDBOX_M
from cloche.bridge.values.packing import short
from cloche.core.covers.kinds import kind, kinds
from cloche.core.covers.periods import CoverPeriod, Vent
from cloche.core.crops.catalogue import Crop
from cloche.core.germination.steady import FIELD_FACTOR
from cloche.core.protection.cover_benefit import emerging
from cloche.core.site.estimate import normals_at
from cloche.core.soil.annual import AnnualWave
from cloche.core.soil.bed import Bed, Event, Heating, Parameters, Work
from cloche.core.soil.place import Place
from cloche.core.soil.simulate import Trajectory, simulate
from cloche.core.weather.hourly import hours_of
from cloche.core.weather.record import DailyRecord, Site

TAKEN_IN_D, LOOKED_D = 16, 150
"""Days that the weather is repeated, and days over which seed is followed in the last of them."""
HEAP = Heating(70.0, 0.35)
"""A bed over or against a working compost heap (assumption)."""


def day_of(setting: Set, site: Site, crop: Crop) -> Day:
    """Run it with the cover and without."""
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
    """Days until half are up and the share, if every day were like this one."""
    emergence = emerging(np.tile(day_c.astype(np.float64), (LOOKED_D, 1)), crop, FIELD_FACTOR, 0)
    half = float(emergence.half_d[1])
    return (round(half, 1) if np.isfinite(half) else None), emergence.share
