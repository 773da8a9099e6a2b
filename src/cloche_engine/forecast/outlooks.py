"""Outlook of each crop in a place whose soil is simulated."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from cloche_engine import results
from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.grown import Grown
from cloche_engine.germination.pooling import stands
from cloche_engine.packing import DAYS, SHARES, TENTHS, short
from cloche_engine.protection.cover_benefit import OPEN_COLDER_K, felt_c
from cloche_engine.results import CandidateDays, CropDays, RibbonDays, RuleChoice
from cloche_engine.soil.simulate import Trajectory
from cloche_engine.weather.record import DailyRecord
from cloche_engine.windows.limits import HALF
from cloche_engine.windows.methods import Method, better_method, is_short
from cloche_engine.windows.outlook import Outlook, planting_outlook, sowing_outlook
from cloche_engine.windows.rules import SowingRule
from cloche_engine.windows.season import Bed
from cloche_engine.windows.sowing_rules import Choice, compare, windows_by
from cloche_engine.windows.spans import Window

SOWING_DEPTHS_M = (0.013, 0.025, 0.045, 0.10)
"""Crops are judged at the nearest of these, so that a place is read four times, not thirty."""
ROOT_DEPTH_M = 0.10
CANDIDATES = np.concatenate([np.arange(0, 30), np.arange(30, 274, 4), np.arange(274, 457, 7)])
"""Days that are judged, fifteen months ahead: next year can be planned in winter, and no autumn window is cut."""
YEAR_D, SAME_SEASON_D = 365, 60
RARE = 0.02
HOPELESS = 0.05
"""A crop that never succeeds more often than this within the days looked at is not grown that way there."""


@dataclass(frozen=True)
class Ground:
    """Soil and surroundings in which the crops are judged.

    Attributes
    ----------
    beds : dict of float to Bed
        Soil by depth.
    last_frost_day : float or None
        Usual last spring frost in days from today, None without frost.
    bench : bool
        Whether plants are only raised there.
    stand : float
        How many more seedlings emerge than in other gardens.
    """

    beds: dict[float, Bed]
    last_frost_day: float | None
    bench: bool
    stand: float = 1.0


def plant_air(trajectory: Trajectory, weather: DailyRecord, covered: bool) -> DailyRecord:
    """Return daily air temperature as plants feel it: at plant height and under their cover at night, and beyond the run as
    at the site.

    weather: (days, members) from the run's first day. Highs are the site's, because covers come off before the summer.
    """
    low = weather.low_c - OPEN_COLDER_K
    if covered:
        days = len(trajectory.air_c) // 24
        low[:days] = felt_c(trajectory, True).reshape(days, 24, -1).min(axis=1)
    return DailyRecord.of(weather.first, low, weather.high_c)


def depth_for(crop: Crop) -> float:
    """Return the depth at which seed or sets of a crop are judged [m]."""
    return nearest_depth(crop.sowing_depth_m)


def nearest_depth(depth_m: float) -> float:
    """Return the simulated depth nearest to a depth [m]."""
    return min(SOWING_DEPTHS_M, key=lambda depth: abs(depth - depth_m))


def depths_for(grown: list[Grown]) -> set[float]:
    """Return all depths that these crops need."""
    return {depth_for(each.crop) for each in grown} | {ROOT_DEPTH_M}


def crop_days(grown: list[Grown], ground: Ground, today: date) -> list[CropDays]:
    """Return the outlook of every crop, sown in place and planted out where either is usual."""
    days = []
    for each in grown:
        methods = _methods(each, ground)
        # A way that this crop or this place does not know cannot be chosen for it.
        wanted = next((method for method in methods if method == each.method), None)
        better = wanted or better_method(methods.get(Method.DIRECT), methods.get(Method.TRANSPLANTED))
        days += [
            _plain(outlook, method, better == method, each.sowing_rule, ground, today) for method, outlook in methods.items()
        ]
    return days


def _methods(each: Grown, ground: Ground) -> dict[Method, Outlook]:
    crop, methods = each.crop, dict[Method, Outlook]()
    if crop.sown_direct or each.method == Method.DIRECT or ground.bench:
        methods[Method.DIRECT] = sowing_outlook(
            crop, ground.beds[depth_for(crop)], CANDIDATES, each.usual_depth_m, ground.bench
        )
    if not crop.planted_out or ground.bench:
        return methods
    # What is sown in place is not worked out twice, unless that leaves hardly a day or the grower wants it otherwise.
    if crop.usual_method != "direct" or each.method == Method.TRANSPLANTED or is_short(methods[Method.DIRECT]):
        methods[Method.TRANSPLANTED] = planting_outlook(crop, ground.beds[ROOT_DEPTH_M], CANDIDATES)
    return methods


def _of_a_year(windows: Sequence[Window]) -> list[Window]:
    """Return the windows that do not repeat: one that opens a year after another is next year's."""
    kept: list[Window] = []
    for window in windows:
        if not any(window.earliest >= other.earliest + YEAR_D - SAME_SEASON_D for other in kept):
            kept.append(window)
    return kept


def _plain(outlook: Outlook, method: Method, better: bool, sowing_rule: str, ground: Ground, today: date) -> CropDays:
    by_rule = {} if ground.bench else windows_by(outlook, ground.last_frost_day)
    ruled = by_rule[SowingRule(sowing_rule)] if sowing_rule and by_rule else outlook.windows
    windows = [_dated(window, today) for window in _of_a_year(ruled)]
    thin = np.arange(0, len(outlook.day), 2)
    soil = outlook.soil_mid_c
    sown = method is Method.DIRECT
    through = min(stands(outlook.crop, ground.bench) * ground.stand, 1.0)
    limits = [limit for limit, values in outlook.failing.items() if values.max() > RARE]
    days = CandidateDays(
        day=outlook.day.tolist(),
        success=short(outlook.success, 3),
        soil_c=short(soil),
        growth=SHARES.pack(outlook.growth),
        worth=SHARES.pack(outlook.worth),
        harvest_d=TENTHS.pack(outlook.harvest_d),
        limits=limits,
        failing=SHARES.pack(np.array([outlook.failing[limit] for limit in limits])),
        days_to=TENTHS.pack(outlook.days_to) if sown else "",
        share=SHARES.pack(outlook.share * through) if sown else "",
    )
    return CropDays(
        crop_key=outlook.crop.key,
        method=str(method),
        better=better,
        windows=windows,
        sow_now=any(window.earliest == 0 for window in ruled),
        main_limit=None if windows else outlook.main_limit,
        half_d=short(outlook.days_to[HALF, 1, :1])[0] if sown else None,
        share=float(outlook.share[1, 0]) * through if sown else 0.0,
        fails_now=round(1 - float(outlook.success[0]), 3),
        hopeless=bool(outlook.success.max() < HOPELESS),
        ribbon=RibbonDays(outlook.day[thin].tolist(), short(outlook.success[thin]), short(soil[thin])),
        days=days,
        members=DAYS.pack(np.where(outlook.succeeds, outlook.half_d if sown else 0.0, np.inf)),
        sowing_rules=[_dated_choice(choice, today) for choice in compare(outlook, by_rule)],
    )


def _dated_choice(choice: Choice, today: date) -> RuleChoice:
    if choice.day is None:
        return RuleChoice(choice.sowing_rule, None)
    soil, half, lost = short(np.array([choice.soil_c, choice.half_d, choice.lost_d]))
    fails, share = round(choice.fails, 3), round(choice.share, 3)
    on = today + timedelta(days=choice.day)
    return RuleChoice(choice.sowing_rule, on, fails, soil, half, share, lost, choice.limit)


def _dated(window: Window, today: date) -> results.Window:
    earliest, best_from, best_to, last = (
        today + timedelta(days=d) for d in (window.earliest, window.best_from, window.best_to, window.last)
    )
    why = (window.opens_after, window.closes_before)
    return results.Window(earliest, best_from, best_to, last, *why, window.probability, window.open_ended)
