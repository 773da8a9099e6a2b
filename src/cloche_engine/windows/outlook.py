"""The outlook of a crop in a place: what would come of sowing it, or planting it out, on each of the coming days.

It succeeds in a scenario when no `Limit` acts. The window is where that happens in eight scenarios of ten.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.germination.emergence import hours_to_emergence, share_up, sowing_hour
from cloche_engine.germination.steady import depth_share
from cloche_engine.layout import BAND
from cloche_engine.windows import judging, series
from cloche_engine.windows.limits import FRACTIONS, HALF, SEEDLING_D, Limit
from cloche_engine.windows.season import Bed, Season
from cloche_engine.windows.spans import Failing, Window, best_days, main_limit, quick_and_full, windows
from cloche_engine.windows.stages import counted

Array = NDArray[np.float64]
Days = NDArray[np.intp]

ROOTED = 0.5
"""What is planted to stand the winter needs half of what shoots need to have roots (assumption)."""


@dataclass(frozen=True)
class Outlook:
    """Outlook of one crop in one place over S candidate days.

    Attributes
    ----------
    day : (S,)
        Candidate days, from day 0.
    success : (S,)
        Share of members in which the sowing succeeds.
    failing : Limit to (S,)
        Share of members in which each limit acts.
    succeeds : (S, members)
        Success by member.
    worth : (S,)
        Share of a good harvest, members without one included.
    soil_c, soil_mid_c, soil_sure_c : (S, members), (S,), (S,)
        Mean soil temperature in the following week [°C], its median, and what it exceeds in SURE of the members.
    growth : (S,)
        Growth index in the three weeks after emergence or planting out.
    good : (S,)
        Whether a day is one of the best for the harvest.
    harvest_d : (S,)
        Median days until harvest; inf for none.
    days_to, half_d, share : (fractions, quantiles, S), (S, members), (quantiles, S)
        Days until fractions are up, days until half are up, and share of viable seed; empty for plantings.
    """

    crop: Crop
    day: Days
    success: Array
    failing: Failing
    succeeds: NDArray[np.bool_]
    worth: Array
    soil_c: Array
    soil_mid_c: Array
    soil_sure_c: Array
    growth: Array
    harvest_d: Array
    good: NDArray[np.bool_]
    windows: list[Window]
    days_to: Array
    half_d: Array
    share: Array

    @property
    def main_limit(self) -> Limit:
        """Main limit on the day with the best chance."""
        return main_limit(self.failing, self.success)


def sowing_outlook(crop: Crop, bed: Bed, day: Days, usual_depth_m: float | None = None, on_bench: bool = False) -> Outlook:
    """Return the outlook for sowing in place on every candidate day.

    Parameters
    ----------
    bed : Bed
        The bed: its slope, surface and what was done to it.
    day : Days
        Days, (days,) from day 0.
    usual_depth_m : float | None
        The crop's own depth where it was overruled [m]; None: it was not.
    on_bench : bool
        Whether it is to be planted out elsewhere.
    """
    development = bed.develop(crop)
    sown = day * 24 + sowing_hour(crop)
    hours = hours_to_emergence(development, sown, crop, FRACTIONS, crop.sowing_depth_m)
    half_d = hours[HALF] / 24
    # What stands the winter by its roots has come through once it has them.
    rooted = ROOTED if crop.winter and crop.winter.rooted else 1.0
    share = share_up(bed.seed_bed, development, crop, sown, sown[:, None] + rooted * hours[HALF])
    share = share * depth_share(usual_depth_m or crop.sowing_depth_m, crop.sowing_depth_m)
    if on_bench:
        judged = judging.on_bench(crop, bed, day, half_d, share)
    elif crop.winter:
        judged = judging.wintering(crop, crop.winter, bed, day, rooted * half_d, share)
    else:
        judged = judging.sown(crop, bed, day, half_d, share)
    days_to = np.sort(hours / 24, axis=2)[:, :, _ranks(hours.shape[2])].transpose(0, 2, 1)
    shares = np.sort(share, axis=1)[:, _ranks(share.shape[1])].T
    success, failing, succeeds = _counted(judged.limiting)
    worth = (judged.yields * succeeds).mean(axis=1)
    harvest_d = _harvest_d(bed.season, day, judged.ripe)
    good = best_days(crop, day, success, worth, harvest_d, quick_and_full(days_to[HALF, 1], shares[1], success))
    return Outlook(
        crop=crop,
        day=day,
        success=success,
        failing=failing,
        succeeds=succeeds,
        worth=worth,
        soil_c=bed.week_c[day],
        soil_mid_c=bed.week_mid_c[day],
        soil_sure_c=bed.week_sure_c[day],
        growth=_growth(crop, bed, judging.up_day(bed, day, half_d)),
        harvest_d=harvest_d,
        good=good,
        windows=windows(day, success, failing, good),
        days_to=days_to,
        half_d=half_d,
        share=shares,
    )


def planting_outlook(crop: Crop, bed: Bed, day: Days) -> Outlook:
    """Return the outlook for planting out on every candidate day.

    Parameters
    ----------
    bed : Bed
        The bed at the depth of the roots.
    day : Days
        Days, (days,) from day 0.
    """
    judged = judging.planted_out(crop, bed, day)
    success, failing, succeeds = _counted(judged.limiting)
    members = succeeds.shape[1]
    worth = (judged.yields * succeeds).mean(axis=1)
    harvest_d = _harvest_d(bed.season, day, judged.ripe)
    growth = _growth(crop, bed, np.repeat(day[:, None], members, axis=1))
    thrives = growth >= 0.8 * growth[success >= success.max() - 0.1].max()
    none, nothing = np.empty((0, len(BAND), len(day))), np.empty((0, len(day)))
    good = best_days(crop, day, success, worth, harvest_d, thrives)
    outlook = windows(day, success, failing, good)
    soil = bed.week_c[day], bed.week_mid_c[day], bed.week_sure_c[day]
    return Outlook(
        crop, day, success, failing, succeeds, worth, *soil, growth, harvest_d, good, outlook, none, nothing, nothing
    )


def _counted(limiting: judging.Limiting) -> tuple[Array, Failing, NDArray[np.bool_]]:
    shares, succeeds = counted(np.array(list(limiting.values())))
    failing = dict(zip(limiting, shares, strict=True))
    return series.calm(succeeds.mean(axis=1)), failing, succeeds


def _ranks(members: int) -> Days:
    """Return the ranks of the members that stand for the quantiles; an upper end takes the next higher, because infinity cannot
    be averaged.
    """
    return np.ceil(np.array(BAND) * (members - 1)).astype(np.intp)


def _growth(crop: Crop, bed: Bed, up: Days) -> Array:
    return np.asarray(bed.season.growth(crop, up, up + SEEDLING_D).mean(axis=1))


def _harvest_d(season: Season, day: Days, ripe: Days) -> Array:
    """Return median days from each candidate day to the harvest."""
    middle = np.sort(ripe, axis=1)[:, _ranks(ripe.shape[1])[1]]
    return np.where(middle > season.days, np.inf, middle - day)
