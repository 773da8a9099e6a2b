"""Which limit bites on which day in which scenario: for seed sown in place, plants set out, and kinds that stand the winter.

Every array is (days to judge, members).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop, Wintering
from cloche_engine.windows.growth import full_growth_d
from cloche_engine.windows.harvest import WHOLE, Limiting, harvest
from cloche_engine.windows.limits import (
    DARK_GRACE_D,
    LEAST_SHARE,
    SEEDLING_D,
    SET_OUT_LEAD,
    TOLD_K,
    YOUNG_NIGHT,
    Limit,
    among_plants_c,
    longest_in_soil_d,
    lost_at_c,
)
from cloche_engine.windows.season import Bed, Season
from cloche_engine.windows.stages import on, reached

Array = NDArray[np.float64]
Days = NDArray[np.intp]
HARDENED_D = 14
"""Days after planting out in which frost is still judged by the hardened plant's limit, not the grown one's."""
ROOTS_HOT_C = {"cool": 29.0, "warm": 33.0}
"""Soil at the roots that hurts what is planted into it, as over a hotbed (assumption)."""
TALL_SHOOTS_C, FORWARD_WHERE_MILD = -6.0, 3.0
"""A winter night that takes the tall shoots of cloves, beans and peas; and how many times as far they may grow before a winter
without one (common practice, no source: garlic is planted in early autumn there)."""
REST_D = 120
"""How long winter's cold is looked at after the light has gone."""
SPRING_GROWTH = 0.75
"""Of a spring's days, those of full growth, by which the weeks to harvest of what stood the winter are told."""


@dataclass(frozen=True)
class Judged:
    """Judgement of the candidate days.

    Attributes
    ----------
    limiting : Limiting
        What prevents success.
    yields : ndarray
        Fraction of a good harvest, 0-1.
    ripe : ndarray
        Days from day 0, the last of the season + 1 for never.
    """

    limiting: Limiting
    yields: Array
    ripe: Days


def sown(crop: Crop, bed: Bed, sow_day: Days, half_d: Array, share: Array) -> Judged:
    """Judge seed, sets or tubers sown in place for a harvest in the same season.

    Parameters
    ----------
    bed : Bed
        The bed: its slope, surface and what was done to it.
    sow_day : Days
        Days of sowing, (days,).
    half_d : ndarray
        Days until half are up, inf: never.
    share : ndarray
        Share of live seed that comes up, (days, members), 0-1.
    """
    season = bed.season
    poor = (half_d > longest_in_soil_d(crop)) | (share < LEAST_SHARE)
    up = up_day(bed, sow_day, half_d)
    limiting = _soil(crop, bed, sow_day, poor)
    if crop.life.regrows != "shoots":
        limit_c = among_plants_c(crop, lost_at_c(crop))
        limiting[Limit.FROST] = ~poor & (on(season.coldest(SEEDLING_D), up) < limit_c)
    if crop.hardiness == "tender" and crop.start != "seed":
        limiting[Limit.NIGHTS] = bed.season.nights_c[sow_day] < crop.plant_night_c - TOLD_K
    elif crop.hardiness == "tender":
        limiting[Limit.NIGHTS] = ~poor & (on(season.nights_c, up) < YOUNG_NIGHT * crop.plant_night_c - TOLD_K)
    judged = harvest(crop, season, up, crop.maturity_d, SEEDLING_D)
    limiting |= {limit: ~poor & failed for limit, failed in judged.limiting.items()}
    return Judged(limiting, np.where(poor, 0.0, judged.yields), np.where(poor, season.days + 1, judged.ripe))


def on_bench(crop: Crop, bed: Bed, sow_day: Days, half_d: Array, share: Array) -> Judged:
    """Judge seed in a tray: it has to come up; later growth outdoors is judged elsewhere.

    Parameters
    ----------
    bed : Bed
        The bed: its slope, surface and what was done to it.
    sow_day : Days
        Days of sowing, (days,).
    half_d : ndarray
        Days until half are up, (days, members) [d]; inf: never.
    share : ndarray
        Share of live seed that comes up, 0-1.
    """
    limiting = _soil(crop, bed, sow_day, (half_d > longest_in_soil_d(crop)) | (share < LEAST_SHARE))
    del limiting[Limit.WET], limiting[Limit.FROZEN]
    return Judged(limiting, np.ones(half_d.shape), np.full(half_d.shape, bed.season.days + 1))


def planted_out(crop: Crop, bed: Bed, day: Days) -> Judged:
    """Judge raised and hardened plants when planted out; the bed is at root depth.

    Parameters
    ----------
    bed : Bed
        The bed: its slope, surface and what was done to it.
    day : Days
        Days, (days,) from day 0.
    """
    season = bed.season
    members = season.air.low_c.shape[1]
    out = np.repeat(day[:, None], members, axis=1)
    coldest = season.coldest(HARDENED_D)[day]
    limiting: Limiting = {
        Limit.COLD: bed.week_c[day] < crop.plant_soil_c,
        Limit.HOT: bed.week_c[day] > ROOTS_HOT_C[crop.season],
        Limit.WET: bed.too_wet[day],
        Limit.FROZEN: bed.frozen[day],
        Limit.NIGHTS: season.nights_c[day] < crop.plant_night_c - TOLD_K,
        Limit.FROST: coldest < among_plants_c(crop, crop.frost_planted_c),
        Limit.LIGHT: np.repeat(season.until_light[day][:, None] > DARK_GRACE_D, members, axis=1),
    }
    judged = harvest(crop, season, out, crop.maturity_planted_d, HARDENED_D, SET_OUT_LEAD)
    for limit, failed in judged.limiting.items():
        limiting[limit] = limiting[limit] | failed if limit in limiting else failed
    return Judged(limiting, judged.yields, judged.ripe)


def wintering(crop: Crop, how: Wintering, bed: Bed, sow_day: Days, half_d: Array, share: Array) -> Judged:
    """Judge crops that overwinter: advanced enough when the light fades, not too far, and hardy enough.

    Parameters
    ----------
    how : Wintering
        What wintering asks of the crop.
    bed : Bed
        The bed: its slope, surface and what was done to it.
    sow_day : Days
        Days of sowing, (days,).
    half_d : ndarray
        Days until half are up, (days, members) [d]; inf: never.
    share : ndarray
        Share of live seed that comes up, 0-1.
    """
    season = bed.season
    poor = (half_d > longest_in_soil_d(crop)) | (share < LEAST_SHARE)
    up = up_day(bed, sow_day, half_d)
    last = season.days - 1
    dark_day = np.minimum(sow_day + season.until_winter[sow_day], last)
    dark = dark_day[:, None]
    grown = season.grown_d(crop)
    full_d = np.where(up < dark, grown[dark_day] - on(grown, np.minimum(up, dark)), 0.0)
    # Put in while days are short or with no winter ahead it has nothing to stand.
    astray = np.repeat((season.until_winter[sow_day] > season.days)[:, None], half_d.shape[1], axis=1)
    limiting = _soil(crop, bed, sow_day, poor)
    if how.plant_below_c is not None:
        limiting[Limit.HOT] |= bed.week_c[sow_day] > how.plant_below_c
    limiting[Limit.LIGHT] = ~poor & (full_d < how.grown_from_d)
    limiting[Limit.FORWARD] = ~poor & (full_d > _grown_to_d(crop, how, season, dark_day))
    coldest_c = _winter_low(how, bed, np.maximum(up, sow_day[:, None]))
    stands_c = how.winter_limit_c if how.rooted else among_plants_c(crop, how.winter_limit_c)
    limiting[Limit.WINTER] = ~poor & (coldest_c < stands_c)
    limiting[Limit.SEASON] = astray
    light_day = np.minimum(dark_day + season.until_spring[dark_day], last)
    light = np.repeat(light_day[:, None], half_d.shape[1], axis=1)
    need = np.full(half_d.shape, full_growth_d(crop, 7 * how.ripe_weeks * SPRING_GROWTH))
    (ripe,) = reached(grown, np.maximum(light, np.minimum(up, last)), need, WHOLE)
    return Judged(limiting, np.where(poor, 0.0, 1.0), ripe)


def _grown_to_d(crop: Crop, how: Wintering, season: Season, dark_day: Days) -> Array:
    """Return the growth before winter beyond which it does harm [d]: sets and leafy plants bolt in spring, and frost takes tall
    shoots of plants that survive by their roots.
    """
    if crop.start == "set" or not how.rooted:
        return np.full((1, 1), how.grown_to_d)
    hurt = season.coldest(REST_D)[dark_day] < TALL_SHOOTS_C - TOLD_K
    return np.where(hurt, how.grown_to_d, FORWARD_WHERE_MILD * how.grown_to_d)


def _winter_low(how: Wintering, bed: Bed, start: Days) -> Array:
    """Return the lowest temperature that a crop feels in the winter months [°C]: of the soil, under its snow, if it survives by
    its roots, else of the air.
    """
    if how.rooted:
        return on(bed.coldest_soil_c(REST_D), np.minimum(start, len(bed.soil_c) - 1))
    return on(bed.season.coldest(REST_D), start)


def up_day(bed: Bed, sow_day: Days, half_d: Array) -> Days:
    """Return the day on which half are up; the last one if they never are.

    Parameters
    ----------
    bed : Bed
        The bed: its slope, surface and what was done to it.
    sow_day : Days
        Days of sowing, (days,).
    half_d : ndarray
        Days until half are up, (days, members) [d]; inf: never.
    """
    last = len(bed.soil_c) - 1
    up = np.where(np.isfinite(half_d), sow_day[:, None] + half_d, last)
    return np.clip(np.ceil(up), 0, last).astype(np.intp)


def _soil(crop: Crop, bed: Bed, sow_day: Days, poor: NDArray[np.bool_]) -> Limiting:
    hot = poor & (bed.ten_days_c[sow_day] > crop.optimum_c)
    workable = {Limit.WET: bed.too_wet[sow_day], Limit.FROZEN: bed.frozen[sow_day]}
    return {Limit.COLD: poor & ~hot, Limit.HOT: hot} | workable
