"""The coming three days at a place: how hot and cold among its plants, how far to open, what the nights ask for, water, gales.

Worked out with the forecast from where the place stands today, stored beside it and read by the pages.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.bend import ARCH_OVER_MEAN
from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod, Vent, as_one
from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.grown import crop_of
from cloche_engine.forecast.places import ALWAYS_H, NIGHT, Situation, door_plans
from cloche_engine.hazards import frost as nights
from cloche_engine.hazards import ventilation
from cloche_engine.hazards.air_limits import Limits, Stage, cold_c, limits_of, off_night_c
from cloche_engine.hazards.frost import NightWay, likeliest
from cloche_engine.inputs import Day, ForecastInputs, SetOut
from cloche_engine.layout import BAND
from cloche_engine.local_time import standard_offset_h
from cloche_engine.packing import short
from cloche_engine.places.kinds import INDOORS, place_kinds
from cloche_engine.plants.stature import height_share
from cloche_engine.protection.cover_benefit import OPEN_COLDER_K, felt_c, off_day
from cloche_engine.results import (
    AwayChoice,
    CoveredDays,
    CropStage,
    FrostedSowing,
    NightPlan,
    OpeningDay,
    SowingOutlook,
    Uncovering,
    Watch,
    WeatherWarning,
)
from cloche_engine.soil.physical import Checkpoint, Covers
from cloche_engine.weather.record import HourlyWeather
from cloche_engine.windows.limits import SEEDLING_D

DAYS = 3
HOURS = DAYS * 24 + 9
"""Three days and the night after them."""
GALE_M_S, POOLS_MM, SNOW_WET_MM, SNOW_HIGH_C = 8.0, 12.0, 2.0, 1.5
"""Wind at two metres that moves a loose cover, a day's rain that stands in slack film, a day that brings snow (assumptions)."""
DRY, LOOKED_DRY_D = 0.5, 4
"""Water in the top, as a share of what it holds, at which what grows under a cover wants some: vegetables bear that a third to
a half of it is gone [FAO56 table 22, from memory]."""
PICKED_BELOW_C, PICKED_FROM_H, PICKED_TO_H, SUN_AFTER_W_M2 = 6.0, 10, 14, 100.0
"""In cold weather a cover is opened for picking only while two hours of sun are still to come (common practice, no source)."""
FROZEN_C, FROZEN_BALL_K = -0.1, 0.1
"""Soil in which all water is ice [°C]; a ball that freezes through counts as just past the limit."""
OFF_LOOKED_D = 10
"""Days ahead in which a cover's coming off or on is seen."""
NIGHTS_BACK, FROST_BELOW_C = 3, 1.0
"""Nights whose harm is still told, and the cold below which a night may have hurt something [°C]."""


@dataclass(frozen=True)
class Growing:
    """A crop in a place and its stage.

    Attributes
    ----------
    up_d : int
        Days since emergence, 0 before.
    number : int
        Number of its sowing, 0 for plants that were set out.
    height_m : float or None
        Height as measured or estimated from a measurement; None to use its days [m].
    """

    crop_key: str
    stage: Stage
    up_d: int = 0
    number: int = 0
    height_m: float | None = None


def growing_in(inputs: ForecastInputs, outlooks: dict[int, SowingOutlook]) -> list[Growing]:
    """Sowings of the place with their stage; outlooks: of them by number, as stored."""
    growing = []
    for sown in inputs.sown:
        outlook = outlooks.get(sown.number) or sown.outlook
        if sown.over and not any(up for _, up in sown.counts):
            # Nothing came of it: nothing stands there.
            continue
        up_d = _up_d(sown.counts, outlook, inputs.today)
        stage = Stage.LYING if up_d is None else Stage.GROWN if up_d >= SEEDLING_D else Stage.SEEDLING
        growing.append(Growing(sown.crop_key, stage, up_d or 0, sown.number))
    return growing + [_set_out(inputs, set_out) for set_out in inputs.set_out if set_out.planted_on <= inputs.today]


def _set_out(inputs: ForecastInputs, set_out: SetOut) -> Growing:
    """Plants that were set out: seedlings until they have taken hold."""
    crop, today = crop_of(inputs.own, set_out.crop_key), inputs.today
    since = set_out.measured_on or set_out.planted_on
    stood_d = (today - set_out.planted_on).days
    stage = Stage.GROWN if set_out.grown or stood_d >= SEEDLING_D else Stage.SEEDLING
    height = min(set_out.height_m + _height_m(crop, max(0, (today - since).days)), max(crop.height_m, set_out.height_m))
    return Growing(set_out.crop_key, stage, stood_d, height_m=height)


def crop_here(inputs: ForecastInputs, key: str) -> Crop:
    """A crop with what cold it was seen to stand in this garden."""
    crop, seen_c = crop_of(inputs.own, key), inputs.limits.get(key)
    return crop if seen_c is None else replace(crop, frost_grown_c=seen_c)


def _up_d(counts: tuple[tuple[date, int], ...], outlook: SowingOutlook | None, today: date) -> int | None:
    """Days since it came up, by the counts or else as foretold; None: it has not."""
    seen = [on for on, up in counts if up]
    if not seen and outlook and outlook.overdue and outlook.overdue < today:
        # Nobody has seen any of it when silence means failure: it is not taken to stand there.
        return None
    half = outlook.half[1] if outlook else None
    if not seen and (half is None or half > today):
        return None
    return max(0, (today - min(seen + ([half] if half else []))).days)


def _height_m(crop: Crop, up_d: int) -> float:
    """As tall as it has become by its printed days, on the curve by which plans let it grow."""
    return crop.height_m * float(height_share(up_d / crop.maturity_d))


def watch(
    inputs: ForecastInputs,
    checkpoint: Checkpoint,
    situation: Situation,
    growing: list[Growing],
    outside: HourlyWeather,
    today_d: int,
    felt_behind: NDArray[np.float64],
) -> Watch | None:
    """None for places indoors. Hours are counted from today's first midnight of standard time. outside: weather
    under the open sky, today_d days into it; felt_behind: what plants felt, (hours, members), of the same days."""
    if situation.indoors or inputs.kind in INDOORS:
        return None
    limits = limits_of([(crop_here(inputs, plant.crop_key), plant.stage) for plant in growing])
    there = [c for c in checkpoint.place.covers if c.start_h <= 12.0 < c.end_h and not c.kind.is_planted_through]
    # Openings are tried: what is kept shut now can be opened as well, cloth cannot.
    roofs = (replace(c, vent=Vent(float(c.kind.opened))) for c in there if not c.kind.lies_on_soil)
    cover = as_one(roofs) or next(iter(there), None)
    watched = _Watched(inputs, checkpoint, growing, limits, cover, housed=situation.house is not None)
    return Watch(
        cover="" if cover is None else cover.kind.key,
        growing=[CropStage(plant.crop_key, plant.stage) for plant in growing],
        limits=limits,
        nights=watched.nights(),
        water_d=watched.water_d(),
        warnings=_warnings(inputs, cover is not None),
        on_d=watched.on_d(),
        frosted=_after_frost(inputs, growing, felt_behind, today_d),
        doors=[_rounded(plan) for plan in door_plans(situation, checkpoint, outside, today_d, DAYS, limits.hot_c)],
        covered=watched.covered() if cover else None,
    )


def _after_frost(
    inputs: ForecastInputs, growing: list[Growing], felt_c: NDArray[np.float64], today_d: int
) -> list[FrostedSowing]:
    """What the coldest of the last nights did to each sowing that is up, where it was cold enough to hurt anything."""
    nights_ = {back: felt_c[(today_d - back) * 24 - 7 : (today_d - back) * 24 + 9].min(axis=0) for back in range(NIGHTS_BACK)}
    back = min(nights_, key=lambda each: float(np.median(nights_[each])))
    coldest = nights_[back]
    if np.quantile(coldest, BAND[0]) > FROST_BELOW_C:
        return []
    frosted = []
    for plant in growing:
        if plant.stage is not Stage.LYING:
            crop = crop_here(inputs, plant.crop_key)
            what, chance = likeliest(crop, plant.stage, coldest)
            limit = cold_c(crop, plant.stage)
            low, middle, high = (round(float(v), 1) for v in np.quantile(coldest, BAND))
            morning = inputs.today - timedelta(days=back)
            frosted.append(
                FrostedSowing(
                    plant.number, plant.crop_key, plant.stage, what, round(chance, 2), (low, middle, high), limit, morning
                )
            )
    return frosted


class _Watched:
    """The ways in which the next days can go, run side by side."""

    def __init__(
        self,
        inputs: ForecastInputs,
        checkpoint: Checkpoint,
        growing: list[Growing],
        limits: Limits,
        cover: CoverPeriod | None,
        housed: bool,
    ) -> None:
        self.ahead_c = checkpoint.ahead.air_c
        self.checkpoint = [(crop_here(inputs, plant.crop_key), plant.stage) for plant in growing]
        self.tallest_m = max(
            (
                _height_m(crop, plant.up_d) if plant.height_m is None else plant.height_m
                for (crop, _), plant in zip(self.checkpoint, growing, strict=True)
            ),
            default=0.0,
        )
        self.roof_m = 0.0 if cover is None else cover.kind.gap_m * ARCH_OVER_MEAN
        self.limits, self.cover, self.housed = limits, cover, housed
        self.away, self.bring_in_c = _by_the_sun(inputs), inputs.bring_in_c
        volume = checkpoint.place.bed.volume
        self.ball_m = volume.depth_m / 2 if volume else 0.0
        ahead = checkpoint.ahead.cut(0, DAYS + 1)
        self.outside_c, self.sun_w_m2 = ahead.air_c, ahead.sun_w_m2
        self.night_ways = _night_ways(inputs, cover)
        mulch = tuple(c for c in checkpoint.place.covers if c.kind.lies_on_soil and c is not cover)
        openings = [] if cover is None else [(_opened(cover, share), *mulch) for share in ventilation.OPENINGS]
        trajectories = checkpoint.simulate_covers([*openings, *(way for _, way in self.night_ways)], DAYS + 1)
        self.openings, self.by_night = trajectories[: len(openings)], trajectories[len(openings) :]

    def nights(self) -> list[NightPlan]:
        """The coming nights; nothing where frost can hurt nobody."""
        if self.limits.cold_c is None:
            return []
        ways = [way for way, _ in self.night_ways]
        felt = [felt_c(trajectory, bool(way)) for trajectory, (_, way) in zip(self.by_night, self.night_ways, strict=True)]
        movable = ways[-1] is NightWay.BRING_IN
        limit = max(self.limits.cold_c, self.bring_in_c) if movable else self.limits.cold_c
        plans = []
        for number in range(DAYS):
            coldest = np.stack([nights.coldest_c(course, number) for course in felt])
            if movable:
                frozen = np.where(self._ball_freezes(number), limit - FROZEN_BALL_K, np.inf)
                coldest = np.vstack([np.minimum(coldest[:-1], frozen), np.full_like(coldest[:1], 10.0)])
            plan = nights.plan_night(coldest, limit)
            low, left = ((round(ends[0], 1), round(ends[1], 1)) for ends in (plan.coldest_c, plan.coldest_left_c))
            plans.append(NightPlan(ways[plan.way], round(plan.risk, 3), round(plan.risk_left, 3), low, left, plan.holds))
        return plans

    def _ball_freezes(self, night: int) -> NDArray[np.bool_]:
        """Whether the root ball is frozen through in a night, (members,): small volumes lose their heat on all sides."""
        trajectory = self.by_night[0]
        depth = min(trajectory.depths_m, key=lambda d: abs(d - self.ball_m))
        return np.asarray(nights.coldest_c(trajectory.at(depth).astype(np.float64), night) < FROZEN_C)

    def covered(self) -> CoveredDays:
        """Inside air shut and by the plan, and the plans."""
        inside = np.stack([trajectory.air_c.astype(np.float64) for trajectory in self.openings])
        outside = np.broadcast_to(self.outside_c, inside.shape[1:])
        days, planned = [], inside[0].copy()
        for number in range(DAYS):
            hours = slice(number * 24, number * 24 + 24)
            tried = ventilation.Tried(ventilation.OPENINGS, inside[:, hours], outside[hours])
            plan = ventilation.plan_day(tried, self.limits.hot_c)
            open_h = slice(number * 24 + plan.from_h, number * 24 + plan.to_h)
            planned[open_h] = inside[ventilation.OPENINGS.index(plan.opening), open_h]
            day = OpeningDay(_rounded(plan), self._pick(planned[hours], hours))
            days.append(self._with_away(day, tried, number))
        lasting = slice(0, HOURS)
        return CoveredDays(
            outside_c=short(np.median(outside[lasting], axis=1), 1),
            shut_c=[short(row, 1) for row in np.quantile(inside[0][lasting], BAND, axis=1)],
            planned_c=[short(row, 1) for row in np.quantile(planned[lasting], BAND, axis=1)],
            days=days,
            off=self._off(),
        )

    def on_d(self) -> int | None:
        """Days until a night is likelier than not to be colder than what stands in the open bears, None: not in sight."""
        if self.cover is not None or self.limits.cold_c is None:
            return None
        lows = self._nights_ahead(OFF_LOOKED_D) - OPEN_COLDER_K
        cold = np.flatnonzero((lows < self.limits.cold_c).mean(axis=1) > 0.5)
        return int(cold[0]) if len(cold) else None

    def _off(self) -> Uncovering:
        """When each rule would take the cover off: nights, in days (None: not in sight); the others now or not yet."""
        wanted = max((off_night_c(crop) for crop, _ in self.checkpoint), default=0.0)
        day = off_day(self._nights_ahead(OFF_LOOKED_D + 7), wanted)
        wide = self.openings[-1].air_c[: 2 * 24].max(axis=0)
        grows = bool(self.checkpoint)
        return Uncovering(
            nights=int(day) if grows and day < OFF_LOOKED_D else None,
            night_c=round(wanted, 1),
            established=grows and all(stage is Stage.GROWN for _, stage in self.checkpoint),
            heat=grows and float((wide > self.limits.hot_c).mean()) > 0.5,
            height=self.tallest_m >= self.roof_m and grows,
        )

    def _nights_ahead(self, days: int) -> NDArray[np.float64]:
        """Lows of the coming nights, (days, members)."""
        air = self.ahead_c[12 : 12 + days * 24]
        return np.asarray(air.reshape(-1, 24, air.shape[1]).min(axis=1))

    def _with_away(self, day: OpeningDay, tried: ventilation.Tried, number: int) -> OpeningDay:
        """With the one opening for the hours nobody is there, and what each other risks: cooking, freezing."""
        if self.away is None:
            return day
        plan = ventilation.plan_away(tried, self.limits.hot_c, self.away)
        every = ventilation.choices(tried, self.limits.hot_c, self.away)
        choices = []
        hours = slice(number * 24 + self.away[0], number * 24 + self.away[1])
        for way, trajectory in zip(every, self.openings, strict=True):
            cold = felt_c(trajectory, True)[hours].min(axis=0)
            limit = self.limits.cold_c
            freezes = 0.0 if limit is None else round(float((cold < limit).mean()), 3)
            choices.append(AwayChoice(_rounded(way), freezes))
        return replace(day, away=_rounded(plan), choices=choices)

    def water_d(self) -> int | None:
        """Days until the top is dry enough to water, None: not within sight. The sky waters what lies open."""
        trajectory = self.by_night[0]
        if self.cover is None and not self.housed:
            return None
        daily = np.median(trajectory.moist[: LOOKED_DRY_D * 24].reshape(-1, 24, trajectory.moist.shape[1]).mean(axis=1), axis=1)
        dry = np.flatnonzero(daily < DRY)
        return int(dry[0]) if len(dry) else None

    def _pick(self, inside: NDArray[np.float64], hours: slice) -> tuple[float, float] | None:
        """The hour to open it for picking and the air inside then, in cold weather only."""
        outside, sun = np.median(self.outside_c[hours], axis=1), np.median(self.sun_w_m2[hours], axis=1)
        if outside.mean() > PICKED_BELOW_C or all(stage is not Stage.GROWN for _, stage in self.checkpoint):
            return None
        middle = np.median(inside, axis=1)
        fit = [h for h in range(PICKED_FROM_H, PICKED_TO_H) if sun[h + 2] >= SUN_AFTER_W_M2 and middle[h] > 2.0]
        best = max(fit, key=lambda h: middle[h], default=None)
        return None if best is None else (float(best), round(float(middle[best]), 1))


def _by_the_sun(inputs: ForecastInputs) -> tuple[int, int] | None:
    """The hours away in the clock that the engine keeps."""
    if inputs.away is None:
        return None
    today = inputs.today
    noon = datetime(today.year, today.month, today.day, 12, tzinfo=inputs.timezone)
    summer_h = (noon.utcoffset() or timedelta()) / timedelta(hours=1) - standard_offset_h(inputs.timezone, today)
    start, end = (round(min(max(hour - summer_h, 0), 24)) for hour in inputs.away)
    return (start, end) if start < end else None


def _opened(cover: CoverPeriod, share: float) -> CoverPeriod:
    return replace(cover, start_h=min(cover.start_h, 0.0), vent=Vent(share) if share else Vent(), blanket=None)


def _night_ways(inputs: ForecastInputs, cover: CoverPeriod | None) -> list[tuple[NightWay | None, Covers]]:
    """What can be done at night, in the order of the work it makes."""
    if cover is None:
        if place_kinds()[inputs.kind].movable:
            return [(None, ()), (NightWay.BRING_IN, ())]
        fleece = CoverPeriod(kind("thick_fleece"), 0.0, ALWAYS_H)
        return [
            (None, ()),
            (NightWay.FLEECE, (fleece,)),
            (NightWay.FLEECE_AND_BLANKET, (replace(fleece, blanket=NIGHT),)),
        ]
    shut = _opened(cover, 0.0)
    capped = [] if cover.ends_capped else [(NightWay.CAP_ENDS, (replace(shut, ends_capped=True),))]
    return [(None, (shut,)), *capped, (NightWay.BLANKET, (replace(shut, ends_capped=True, blanket=NIGHT),))]


def _warnings(inputs: ForecastInputs, covered: bool) -> list[WeatherWarning]:
    """Gales, rain that stands in slack film, snow on covers."""
    warnings: list[WeatherWarning] = []
    for row in inputs.weather:
        if covered and 0 <= (row.day - inputs.today).days < DAYS:
            warnings += [WeatherWarning(row.day, what, value) for what, value in _of_day(row)]
    return sorted(warnings, key=lambda warning: (warning.day, warning.what))


def _of_day(row: Day) -> list[tuple[str, float]]:
    rain, wind, snow = row.rain_mm or 0.0, row.wind_m_s or 0.0, row.snow_m or 0.0
    text = [("gale", wind)] if wind >= GALE_M_S else []
    if snow > 0 or (rain >= SNOW_WET_MM and row.high_c <= SNOW_HIGH_C):
        return [*text, ("snow", max(snow, rain / 100))]
    return [*text, ("rain", rain)] if rain >= POOLS_MM else text


def _rounded(plan: ventilation.Plan) -> ventilation.Plan:
    """For storage only: what is judged is judged before."""
    hottest, shut = ((round(ends[0], 1), round(ends[1], 1)) for ends in (plan.hottest_c, plan.hottest_shut_c))
    risks = {name: round(getattr(plan, name), 3) for name in ("risk", "risk_shut", "given_away")}
    look_c = None if plan.look_c is None else round(plan.look_c, 3)
    return replace(plan, hottest_c=hottest, hottest_shut_c=shut, look_c=look_c, **risks)
