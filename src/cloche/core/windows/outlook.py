"""The outlook of a crop in a place: what would come of sowing it, or planting it out, on each of the coming days.

It succeeds in a scenario when none of the `Limit`s bites. The window is where that happens in eight scenarios of ten.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche.core.crops.catalogue import Crop
from cloche.core.germination.emergence import hours_to_emergence, share_by
from cloche.core.germination.steady import depth_share
from cloche.core.windows import judging, series
from cloche.core.windows.limits import BAND, FRACTIONS, HALF, SEEDLING_D, Limit
from cloche.core.windows.season import Bed
from cloche.core.windows.spans import Failing, Window, main_limit, quick_and_full, windows

Array = NDArray[np.float64]
Days = NDArray[np.intp]

ROOTED = 0.5
"""What is planted to stand the winter needs half of what shoots need to have roots (assumption)."""


@dataclass(frozen=True)
class Outlook:
    """day (S,); success (S,); failing: Limit -> (S,), all 0-1; succeeds (S, members). soil_c (S, members), mean over the week
    after [°C], and soil_mid_c (S,). growth (S,): index over the three weeks after half are up, or after planting out.
    harvest_d (S,), days until the middle scenario's harvest, inf: none. days_to (fractions, band, S) [d], inf: never; half_d
    (S, members); share (band, S) of live seed: of sowings in place; empty of plantings."""

    crop: Crop
    day: Days
    success: Array
    failing: Failing
    succeeds: NDArray[np.bool_]
    soil_c: Array
    soil_mid_c: Array
    growth: Array
    harvest_d: Array
    windows: list[Window]
    days_to: Array
    half_d: Array
    share: Array

    @property
    def main_limit(self) -> Limit:
        """What stands in the way most, over all candidate days."""
        return main_limit(self.failing)


def sowing_outlook(crop: Crop, bed: Bed, day: Days, usual_depth_m: float | None = None, on_bench: bool = False) -> Outlook:
    """Judge every candidate day for sowing in place at midday. usual_depth_m: where the crop's own depth was overruled;
    on_bench: to be planted out elsewhere."""
    development = bed.develop(crop)
    sown = day * 24 + 12
    hours = hours_to_emergence(development, sown, crop, FRACTIONS, crop.sowing_depth_m)
    half_d = hours[HALF] / 24
    share = share_by(development, sown, sown[:, None] + hours[HALF])
    share = share * depth_share(usual_depth_m or crop.sowing_depth_m, crop.sowing_depth_m)
    if on_bench:
        bites = judging.on_bench(crop, bed, day, half_d, share)
    elif crop.winter:
        rooted_d = half_d * ROOTED if crop.winter.rooted else half_d
        bites = judging.wintering(crop, crop.winter, bed, day, rooted_d, share)
    else:
        bites = judging.sown(crop, bed, day, half_d, share)
    days_to = np.sort(hours / 24, axis=2)[:, :, _ranks(hours.shape[2])].transpose(0, 2, 1)
    shares = np.sort(share, axis=1)[:, _ranks(share.shape[1])].T
    up = judging.up_day(bed, day, half_d)
    success, failing, succeeds = _counted(bites)
    good = quick_and_full(days_to[HALF, 1], shares[1], success)
    return Outlook(
        crop=crop,
        day=day,
        success=success,
        failing=failing,
        succeeds=succeeds,
        soil_c=bed.week_c[day],
        soil_mid_c=bed.week_mid_c[day],
        growth=_growth(crop, bed, up),
        harvest_d=_harvest_d(crop, bed, day, days_to[HALF, 1]),
        windows=windows(day, success, failing, good),
        days_to=days_to,
        half_d=half_d,
        share=shares,
    )


def planting_outlook(crop: Crop, bed: Bed, day: Days) -> Outlook:
    """Judge every candidate day for planting out; bed: at the depth of the roots."""
    success, failing, succeeds = _counted(judging.planted_out(crop, bed, day))
    members = succeeds.shape[1]
    growth = _growth(crop, bed, np.repeat(day[:, None], members, axis=1))
    good = growth >= 0.8 * growth[success >= success.max() - 0.1].max()
    none, nothing = np.empty((0, len(BAND), len(day))), np.empty((0, len(day)))
    harvest_d = np.full(len(day), float(crop.maturity_planted_d))
    found = windows(day, success, failing, good)
    soil = bed.week_c[day], bed.week_mid_c[day]
    return Outlook(crop, day, success, failing, succeeds, *soil, growth, harvest_d, found, none, nothing, nothing)


def _counted(bites: judging.Bites) -> tuple[Array, Failing, NDArray[np.bool_]]:
    failed = np.zeros_like(next(iter(bites.values())))
    for bite in bites.values():
        failed |= bite
    failing = {limit: bite.mean(axis=1) for limit, bite in bites.items()}
    return series.calm(1 - failed.mean(axis=1)), failing, ~failed


def _ranks(members: int) -> Days:
    """Which of the members in order stand for the band: for an upper end the next higher, as infinity cannot be averaged."""
    return np.ceil(np.array(BAND) * (members - 1)).astype(np.intp)


def _growth(crop: Crop, bed: Bed, up: Days) -> Array:
    grown, column = bed.season.grown_d(crop), np.arange(up.shape[1])[None, :]
    end = np.minimum(up + SEEDLING_D, bed.season.days)
    return np.asarray(((grown[end, column] - grown[up, column]) / np.maximum(end - up, 1)).mean(axis=1))


def _harvest_d(crop: Crop, bed: Bed, day: Days, half_d: Array) -> Array:
    if crop.winter is None:
        return half_d + crop.maturity_d
    season = bed.season
    dark = np.minimum(day + season.until_dark[day], season.days - 1)
    light = season.until_dark[day] + season.until_light[dark]
    return np.where(np.isfinite(half_d), light + 7 * crop.winter.ripe_weeks, np.inf)
