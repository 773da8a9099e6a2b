"""How fast the engine runs: a garden, a what-if, and the same column by SciPy's general solver."""

from __future__ import annotations

import time
from concurrent.futures import ProcessPoolExecutor
from datetime import date
from functools import cache
from multiprocessing import get_context

import numpy as np
from scipy.integrate import solve_ivp

from cloche.bridge.services import crops
from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.crops.grown import grown
from cloche_engine.forecast import outlooks
from cloche_engine.germination.steady import field_factors
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.cases import CaseBatch
from cloche_engine.soil.conduction import WORK_ROWS, prepare, step
from cloche_engine.soil.grid import open_ground
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import Segment, Trajectory, simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, HourlyWeather, Site
from cloche_engine.windows.season import Bed as WindowBed
from cloche_engine.windows.season import Season

PLACES, MEMBERS, DAYS, CROPS = 12, 40, 150, 60
SITE, WAVE = Site(48.0, 15.0, 300.0, 1.0), AnnualWave(10.0, 9.5, 203.0)
COVERS = ("fleece", "film_tunnel", "glass_frame", "bell", "twin_wall_arch", "bent_sheet", "film_raised")
SPRING = date(2026, 3, 15)
DRIVEN_W_M2K = 15.0


def spring(members: int, days: int) -> HourlyWeather:
    """A changeable spring and summer."""
    rng = np.random.default_rng(1)
    season = 10 - 9 * np.cos(2 * np.pi * (74 + np.arange(days) - 20) / 365.25)[:, None]
    mean = season + 0.7 * np.cumsum(rng.normal(0, 1.5, (days, members)), axis=0) / np.sqrt(1 + np.arange(days))[:, None]
    half = rng.uniform(2, 7, (days, members))
    return hours_of(DailyRecord.of(SPRING, mean - half, mean + half), SITE)


def seconds(places: int, covered: int, days: int) -> float:
    """Wall seconds of one run."""
    weather = spring(MEMBERS, days)
    covers = [(CoverPeriod(kind(COVERS[i % len(COVERS)]), 0.0, 1e6),) if i < covered else () for i in range(places)]
    cases = [Place(Bed(), WAVE, cover).case(weather, Parameters.typical(MEMBERS)) for cover in covers]
    start = time.perf_counter()
    simulate(cases, [0.025, 0.05])
    return time.perf_counter() - start


@cache
def _trajectory() -> tuple[DailyRecord, Trajectory]:
    """A place's coming year in all members, from which windows are worked out."""
    rng, days = np.random.default_rng(0), 430
    season = 9 + 9.5 * np.cos(2 * np.pi * (74 + np.arange(days) - 203) / 365.25)[:, None]
    strays = np.zeros((days, MEMBERS))
    for day in range(1, days):
        strays[day] = 0.75 * strays[day - 1] + rng.normal(0, 2.2, MEMBERS)
    half = rng.uniform(2, 7, (days, MEMBERS))
    record = DailyRecord.of(SPRING, season + strays - half, season + strays + half)
    case = Place(Bed(), WAVE).case(hours_of(record.cut(0, 310), SITE), Parameters.typical(MEMBERS))
    return record, simulate([case], list(outlooks.SOWING_DEPTHS_M))[0]


def windows_of(crops_count: int) -> float:
    """Wall seconds for the windows of one place, its soil known: sown in place and planted out."""
    record, trajectory = _trajectory()
    keys = [crop.key for crop in crops.crops()][:crops_count]
    start = time.perf_counter()
    season = Season.of(record, SITE.latitude_deg, trajectory.moist.astype(float))
    pace = field_factors(1.2, 0.15, MEMBERS, 1)
    beds = {depth: WindowBed.of(trajectory.at(depth).astype(float), season, pace) for depth in outlooks.SOWING_DEPTHS_M}
    days = outlooks.crop_days(grown(keys, {}, {}), outlooks.Ground(beds, 20.0, bench=False), SPRING)
    assert len({row.crop_key for row in days}) == crops_count
    return time.perf_counter() - start


def windows_of_garden() -> tuple[float, float]:
    """Wall seconds for the windows of 60 crops in 12 places: in one process, and in two side by side as the workers are."""
    alone = sum(windows_of(CROPS) for _ in range(PLACES))
    with ProcessPoolExecutor(2, mp_context=get_context("spawn")) as pool:
        list(pool.map(windows_of, [CROPS] * 2))
        start = time.perf_counter()
        list(pool.map(windows_of, [CROPS] * PLACES))
        return alone, time.perf_counter() - start


def against_solve_ivp(days: int = 20) -> tuple[float, float, float, float]:
    """One column under a linear surface: seconds of ours and of solve_ivp, largest difference at 1 cm and from 5 cm [K]."""
    weather = spring(1, days)
    case = Place(Bed(), WAVE).case(weather, Parameters.typical(1))
    batch = CaseBatch([case])
    columns = Segment(batch, 0).columns
    depths = [0.01, 0.05, 0.10, 0.20]
    above, part = open_ground().between(depths)
    start = batch.start_c()[0]
    air = weather.air_c[:, 0] + weather.sun_w_m2[:, 0] / 40
    deep = case.deep_c
    began = time.perf_counter()
    ready, soil, work, means = prepare(columns, 3600.0), start.copy(), np.zeros((WORK_ROWS, len(start))), []
    for hour in range(len(air)):
        step(0, columns, ready, (DRIVEN_W_M2K * air[hour], DRIVEN_W_M2K, deep[hour]), soil, work)
        means.append(work[0, above] + part * (work[0, above + 1] - work[0, above]))
    our_s = time.perf_counter() - began
    capacity, conductance = columns.capacity[0], columns.conductance[0]

    def slope(seconds_in: float, soil: np.ndarray) -> np.ndarray:
        hour = min(int(seconds_in // 3600), len(air) - 1)
        heat = np.zeros_like(soil)
        between = conductance * np.diff(soil)
        heat[:-1] += between
        heat[1:] -= between
        heat[0] += DRIVEN_W_M2K * (air[hour] - soil[0])
        heat[-1] += columns.bottom[0] * (deep[hour] - soil[-1])
        return np.asarray(heat / capacity)

    began = time.perf_counter()
    parts, soil = [], start
    at = (np.arange(12) + 0.5) * 300.0
    for hour in range(len(air)):
        span = (hour * 3600.0, (hour + 1) * 3600.0)
        solution = solve_ivp(slope, span, soil, method="BDF", t_eval=[*(span[0] + at), span[1] - 1e-6], rtol=1e-6, atol=1e-6)
        mean = solution.y[:, :12].mean(axis=1)
        parts.append(mean[above] + part * (mean[above + 1] - mean[above]))
        soil = solution.y[:, -1]
    scipy_s = time.perf_counter() - began
    apart = np.abs(np.array(means) - np.array(parts))[24:]
    return our_s, scipy_s, float(apart[:, 0].max()), float(apart[:, 1:].max())


def print_tables() -> None:
    """As Markdown. The engine's compiled functions are made ready first."""
    seconds(2, 1, 2)
    print("| run | seconds |")
    print("|---|---|")
    print(f"| {PLACES} open places x {MEMBERS} members x {DAYS} days | {seconds(PLACES, 0, DAYS):.2f} |")
    print(f"| the same, 7 of them covered | {seconds(PLACES, 7, DAYS):.2f} |")
    print(f"| one open place, {DAYS} days | {seconds(1, 0, DAYS):.2f} |")
    print(f"| one covered place, a fortnight (a what-if) | {seconds(1, 1, 14):.2f} |")
    windows_of(CROPS)
    alone, two = windows_of_garden()
    print(f"| windows of {CROPS} crops in {PLACES} places, one process | {alone:.1f} |")
    print(f"| the same, two workers | {two:.1f} |")
    ours, scipy_s, top, below = against_solve_ivp()
    said = f"ours {ours:.2f} s, SciPy's solve_ivp (BDF) {scipy_s:.1f} s: {scipy_s / ours:.0f} times"
    print(f"\nOne column, 20 days: {said}; apart by at most {top:.2f} K at 1 cm and {below:.2f} K from 5 cm down.")
