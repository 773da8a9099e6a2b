"""The vent plan over made-up springs: each morning a plan from an erring forecast, and then the day comes as it comes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta

import numpy as np

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod, Vent
from cloche_engine.hazards.frost import coldest_c, plan_night
from cloche_engine.hazards.ventilation import OPENINGS, Plan, Tried, plan_day
from cloche_engine.protection.cover_benefit import felt_c
from cloche_engine.soil.batch import Begin
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import Trajectory, simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.normals import Normals, guess_from_latitude
from cloche_engine.weather.record import SUN_SHARE, DailyRecord, HourlyWeather, Site
from cloche_engine.weather.scenarios import Known, scenarios

SITE = Site(48.3, 14.4, 560.0, 1.0)
BEGINS, RUN_UP_D = date(2027, 2, 1), 20
MEMBERS = 40
EVER_H = 1e6
ERROR_K = 0.9
WRONG_SKY = 0.2
"""Of the mornings, those on which the forecast's word for the sky is one too bright or too dull."""


@dataclass(frozen=True)
class Season:
    """One spring's figures. passed: days on which the limit was passed though opening could have held it, so followed and
    left shut; warmth in kelvin-hours above outside: shut, followed, with foresight of the plan's own kind."""

    days: int
    could_hold: int
    passed: int
    passed_shut: int
    opened: int
    needless: int
    warmth_shut: float
    warmth: float
    warmth_foresight: float


@dataclass(frozen=True)
class Nights:
    """One spring's nights: on which something could have held the limit; passed so, followed and left; alarms, and those of
    nights that would have held anyhow."""

    nights: int
    could_hold: int
    passed: int
    passed_left: int
    alarms: int
    needless: int


def spring(seed: int, cover: str = "glass_frame", limit_c: float = 27.0, days: int = 105, unknown: bool = False) -> Season:
    """Follow the plan from March to mid May in one made-up spring. unknown: the place's light and draughts are only guessed."""
    rng = np.random.default_rng(seed)
    normals = guess_from_latitude(SITE.latitude_deg, SITE.elevation_m)
    truth = _truth(normals, days + RUN_UP_D + 2, rng)
    weather, place = hours_of(truth, SITE), Place(Bed(), AnnualWave.of_months(normals.mean_c))
    single, many = _members(1, unknown, rng), _members(MEMBERS, unknown, rng)
    begin = _run(place, weather.cut(0, RUN_UP_D), single, (_cover(cover, 0.0, 0, 0),), None).end
    total = np.zeros(9)
    for day in range(RUN_UP_D, RUN_UP_D + days):
        today = weather.cut(day, day + 1)
        forecast = hours_of(_forecast(truth.cut(day - 1, day + 2), normals, rng), SITE).cut(1, 2)
        there = place.shifted(day * 24)
        plan = plan_day(_tried(there, forecast, many, cover, begin), limit_c)
        real = _tried(there, today, single, cover, begin)
        wise = plan_day(real, limit_c, margin_k=0.0)
        if plan.look_c is not None and real.inside_c[0, plan.from_h - 1, 0] < plan.look_c:
            plan = replace(plan, opening=0.0)
        followed = _run(there, today, single, (_cover(cover, plan.opening, plan.from_h, plan.to_h),), begin)
        total += _scored(real, followed, plan, wise, limit_c)
        begin = followed.end
    return Season(*(int(v) for v in total[:6]), *(float(v) for v in total[6:]))


def _scored(real: Tried, followed: Trajectory, plan: Plan, wise: Plan, limit_c: float) -> np.ndarray:
    hottest = real.inside_c.max(axis=(1, 2))
    could = hottest.min() <= limit_c
    inside = followed.air_c[:, 0].astype(float)
    passed = inside.max() > limit_c
    warmth = np.maximum(inside - real.outside_c[:, 0], 0.0).sum()
    hours = np.arange(24)
    within = (hours >= wise.from_h) & (hours < wise.to_h)
    best = np.where(within, real.warmth_k[OPENINGS.index(wise.opening), :, 0], real.warmth_k[0, :, 0]).sum()
    return np.array(
        [
            1,
            could,
            could and passed,
            could and hottest[0] > limit_c,
            plan.opening > 0,
            plan.opening > 0 and hottest[0] <= limit_c,
            real.warmth_k[0].sum(),
            warmth,
            best,
        ]
    )


def cold_spring(seed: int, cover: str = "glass_frame", limit_c: float = -2.0, days: int = 80) -> Nights:
    """Nights from March on: left as they are, or under a blanket where the plan asks for it."""
    rng = np.random.default_rng(seed)
    normals = guess_from_latitude(SITE.latitude_deg, SITE.elevation_m)
    truth = _truth(normals, days + RUN_UP_D + 3, rng)
    weather, place = hours_of(truth, SITE), Place(Bed(), AnnualWave.of_months(normals.mean_c))
    single, many = Parameters.typical(1), Parameters.typical(MEMBERS)
    bare = replace(_cover(cover, 0.0, 0, 0), blanket=None)
    ways = [(bare,), (replace(bare, blanket=(18.0, 8.0)),)]
    begin = _run(place, weather.cut(0, RUN_UP_D), single, ways[0], None).end
    total = np.zeros(6, dtype=int)
    for day in range(RUN_UP_D, RUN_UP_D + days):
        there = place.shifted(day * 24)
        forecast = hours_of(_forecast(truth.cut(day - 1, day + 3), normals, rng), SITE).cut(1, 3)
        given, real = (
            np.stack([coldest_c(felt_c(trajectory, True), 0) for trajectory in _each(there, when, who, ways, begin)])
            for when, who in ((forecast, many), (weather.cut(day, day + 2), single))
        )
        plan = plan_night(given, limit_c)
        held = real[:, 0] >= limit_c
        could = bool(held.any())
        total += [1, could, could and not held[plan.way], could and not held[0], plan.way > 0, plan.way > 0 and bool(held[0])]
        begin = _run(there, weather.cut(day, day + 1), single, ways[plan.way], begin).end
    return Nights(*total.tolist())


def _members(count: int, unknown: bool, rng: np.random.Generator) -> Parameters:
    plain = Parameters.typical(count)
    if not unknown:
        return plain
    sun, exchange = (np.exp(np.clip(sd * rng.standard_normal(count), -1.2, 1.2)) for sd in (0.10, 0.40))
    return replace(plain, sun=sun, exchange=exchange)


def _truth(normals: Normals, days: int, rng: np.random.Generator) -> DailyRecord:
    nothing = [np.full(days, np.nan) for _ in range(6)]
    return scenarios(Known(DailyRecord(BEGINS - timedelta(days=RUN_UP_D), *nothing), np.zeros(days)), normals, 1, rng)


def _forecast(truth: DailyRecord, normals: Normals, rng: np.random.Generator) -> DailyRecord:
    """Yesterday as it was, today and tomorrow as foretold that morning, in all members."""
    low, high, share = (values[:, 0].copy() for values in (truth.low_c, truth.high_c, truth.sun_share))
    count = len(low)
    error = ERROR_K * rng.standard_normal(count - 1)
    low[1:] += error
    high[1:] += error + 0.4 * rng.standard_normal(count - 1)
    shares = np.array(sorted(SUN_SHARE.values()))
    word = np.abs(shares[None, :] - share[:, None]).argmin(axis=1)
    wrong = rng.random(count) < WRONG_SKY
    word[1:] = np.clip(word + np.where(wrong, rng.choice([-1, 1], count), 0), 0, 2)[1:]
    given = DailyRecord(truth.first, low, high, shares[word], *(np.full(count, np.nan) for _ in range(3)))
    return scenarios(Known(given, np.array([0.0, 1.0, 1.0, 2.0])[:count]), normals, MEMBERS, rng)


def _tried(place: Place, weather: HourlyWeather, parameters: Parameters, cover: str, begin: Begin) -> Tried:
    result = _each(place, weather, parameters, [(_cover(cover, opening, 0, 24),) for opening in OPENINGS], begin)
    outside = np.broadcast_to(weather.air_c, (24, len(parameters.sun)))
    return Tried(OPENINGS, np.stack([trajectory.air_c.astype(float) for trajectory in result]), outside)


def _each(
    place: Place, weather: HourlyWeather, parameters: Parameters, ways: Sequence[tuple[CoverPeriod, ...]], begin: Begin
) -> list[Trajectory]:
    case, begin = place.case(weather, parameters), _spread(begin, len(parameters.sun))
    return simulate([replace(case, covers=way, begin=begin) for way in ways], (0.05,))


def _spread(begin: Begin, members: int) -> Begin:
    return Begin(*(np.repeat(part[:1], members, axis=0) for part in begin))  # type: ignore[arg-type]


def _run(
    place: Place, weather: HourlyWeather, parameters: Parameters, covers: tuple[CoverPeriod, ...], begin: Begin | None
) -> Trajectory:
    case = replace(place.case(weather, parameters), covers=covers, begin=begin)
    return simulate([case], (0.05,))[0]


def _cover(key: str, opening: float, from_h: int, to_h: int) -> CoverPeriod:
    return CoverPeriod(kind(key), 0.0, EVER_H, Vent(opening, from_h, to_h) if opening else Vent())


def table(springs: int = 12) -> None:
    """Print the figures of several covers."""
    print("Vents, followed over made-up springs: days on which the limit was passed though opening could have held it")
    cases = [("glass_frame", 27.0, False), ("film_tunnel", 27.0, False), ("twin_wall_frame", 27.0, False)]
    for cover, limit, unknown in [*cases, ("glass_frame", 35.0, False), ("glass_frame", 27.0, True)]:
        rows = [list(vars(spring(seed, cover, limit, unknown=unknown)).values()) for seed in range(springs)]
        _, could, passed, shut, opened, needless, warm_shut, warm, best = np.sum(rows, axis=0)
        print(
            f"  {cover:16} {limit:.0f}°{' place guessed' if unknown else ''}: {could:.0f} days, passed {passed / could:.1%}, "
            f"left shut {shut / could:.1%}; opened {opened:.0f}, needlessly {needless:.0f}; warmth kept "
            f"{warm / warm_shut:.0%} of shut, {1 - warm / best:.1%} less than with foresight"
        )
    print("Nights: on which the limit was passed though a blanket could have held it")
    for cover, limit in (("glass_frame", -2.0), ("film_tunnel", -2.0), ("film_tunnel", 1.0), ("twin_wall_arch", -2.0)):
        rows = [list(vars(cold_spring(seed, cover, limit)).values()) for seed in range(springs)]
        _, could, passed, left, alarms, needless = np.sum(rows, axis=0)
        print(
            f"  {cover:16} {limit:.0f}°: {could:.0f} nights, passed {passed / could:.1%}, left {left / could:.1%}; "
            f"blankets {alarms:.0f}, needlessly {needless:.0f}"
        )
