"""Which limit bites on which day in which scenario: for seed sown in place, plants set out, and kinds that stand the winter.

Every array is (days to judge, members).
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche.core.crops.catalogue import Crop, Wintering
from cloche.core.windows.limits import DARK_GRACE_D, LEAST_SHARE, SEASON_END_C, SEEDLING_D, Limit, longest_lie_d
from cloche.core.windows.season import Bed, Season

Array = NDArray[np.float64]
Days = NDArray[np.intp]
Bites = dict[Limit, NDArray[np.bool_]]
HARDENED_D = 14
"""Days after planting out in which frost is still judged by the hardened plant's limit, not the grown one's."""
TOLD_K = 1.5
"""Growers tell nights as the weather report does; among the plants it is colder by this much [K] (assumption)."""
REST_D = 120
"""How long winter's cold is looked at after the light has gone."""


def sown(crop: Crop, bed: Bed, sow_day: Days, half_d: Array, share: Array) -> Bites:
    """Seed, sets or tubers put in place to be harvested in the same season. half_d: days until half are up, inf: never."""
    poor = (half_d > longest_lie_d(crop)) | (share < LEAST_SHARE)
    up = up_day(bed, sow_day, half_d)
    bites = _soil(crop, bed, sow_day, poor)
    column = np.arange(up.shape[1])[None, :]
    bites[Limit.FROST] = ~poor & (bed.season.coldest(SEEDLING_D)[up, column] < crop.frost_limit_c)
    in_the_dark = ~poor & (bed.season.until_light[up] > DARK_GRACE_D)
    harvest = _harvest(crop, bed.season, up, round(crop.maturity_d), SEEDLING_D)
    for limit, bite in harvest.items():
        bites[limit] = ~poor & bite
    bites[Limit.LIGHT] |= in_the_dark
    return bites


def on_bench(crop: Crop, bed: Bed, sow_day: Days, half_d: Array, share: Array) -> Bites:
    """Seed in a tray: it has to come up; what stands outdoors later is not its place's affair."""
    bites = _soil(crop, bed, sow_day, (half_d > longest_lie_d(crop)) | (share < LEAST_SHARE))
    del bites[Limit.WET]
    return bites


def planted_out(crop: Crop, bed: Bed, day: Days) -> Bites:
    """Raised plants, hardened and set out; the bed is at the roots' depth."""
    season = bed.season
    members = season.air.low_c.shape[1]
    out = np.repeat(day[:, None], members, axis=1)
    coldest = season.coldest(HARDENED_D)[day]
    bites: Bites = {
        Limit.COLD: bed.week_c[day] < crop.plant_soil_c,
        Limit.WET: bed.unworkable[day],
        Limit.NIGHTS: season.nights_c[day] < crop.plant_night_c - TOLD_K,
        Limit.FROST: coldest < crop.frost_planted_c,
        Limit.HOT: season.hot_spell_c[day] > (crop.heat_limit_c or np.inf) + 3,
    }
    harvest = _harvest(crop, season, out, round(crop.maturity_planted_d), HARDENED_D)
    harvest[Limit.LIGHT] |= np.repeat(season.until_light[day][:, None] > DARK_GRACE_D, members, axis=1)
    return bites | harvest


def wintering(crop: Crop, how: Wintering, bed: Bed, sow_day: Days, half_d: Array, share: Array) -> Bites:
    """Kinds put in to stand the winter: far enough along when the light goes, not too far, and hardy enough."""
    season, column = bed.season, np.arange(half_d.shape[1])[None, :]
    poor = (half_d > longest_lie_d(crop)) | (share < LEAST_SHARE)
    up = up_day(bed, sow_day, half_d)
    dark = np.minimum(sow_day + season.until_dark[sow_day], season.days - 1)[:, None]
    grown = season.grown_d(crop)
    full_d = np.where(up < dark, grown[dark, column] - grown[np.minimum(up, dark), column], 0.0)
    winter_low = season.coldest(REST_D)[np.maximum(up, sow_day[:, None]), column]
    # Put in while days are short or with no winter ahead it has nothing to stand.
    astray = np.repeat((season.until_dark[sow_day] > season.days)[:, None], half_d.shape[1], axis=1)
    bites = _soil(crop, bed, sow_day, poor)
    if how.plant_below_c is not None:
        bites[Limit.HOT] |= bed.week_c[sow_day] > how.plant_below_c
    bites[Limit.LIGHT] = ~poor & (full_d < how.grown_from_d)
    bites[Limit.FORWARD] = ~poor & (full_d > how.grown_to_d)
    bites[Limit.WINTER] = ~poor & (winter_low < how.winter_limit_c)
    bites[Limit.SEASON] = astray
    return bites


def up_day(bed: Bed, sow_day: Days, half_d: Array) -> Days:
    """The day on which half are up; the last one where they never are."""
    last = len(bed.soil_c) - 1
    up = np.where(np.isfinite(half_d), sow_day[:, None] + half_d, last)
    return np.clip(np.ceil(up), 0, last).astype(np.intp)


def _soil(crop: Crop, bed: Bed, sow_day: Days, poor: NDArray[np.bool_]) -> Bites:
    hot = poor & (bed.ten_days_c[sow_day] > crop.optimum_c)
    return {Limit.COLD: poor & ~hot, Limit.HOT: hot, Limit.WET: bed.unworkable[sow_day]}


def _harvest(crop: Crop, season: Season, up: Days, maturity_d: int, young_d: int) -> Bites:
    """Whether the days to harvest fit before frost, the dark, the season's end or the heat."""
    column, last = np.arange(up.shape[1])[None, :], season.days - 1
    beyond = up + maturity_d > last
    ripe = np.minimum(up + maturity_d, last)
    old = np.minimum(up + young_d, last)
    coldest = season.coldest(max(maturity_d - young_d, 1))[old, column]
    bites: Bites = {
        Limit.LATE_FROST: coldest < crop.frost_grown_c,
        Limit.LIGHT: maturity_d - season.until_dark[up] > DARK_GRACE_D,
        Limit.SEASON: (season.fortnight_c[ripe, column] < SEASON_END_C[crop.hardiness]) | beyond,
    }
    if crop.heat_limit_c is not None:
        bites[Limit.HEAT] = ~beyond & (season.hot_spell_c[ripe, column] > crop.heat_limit_c)
    return bites
