"""Whether windows hold as often as they say, from now to harvest: over synthetic springs at one site and in four climates, over
thirty real years, and at the real soil station.

Each spring is known up to a morning, as a grower knows it; forty members go on from there, and one more course, the truth, is
drawn or replayed beside them and not shown to them. The truth's soil is the engine's own, of its own weather: what is tested
is the doubt about weather and seed, not the engine (see bench.accuracy for that).
"""

from __future__ import annotations

import os
from collections.abc import Callable, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cache
from multiprocessing import get_context
from pathlib import Path

import numpy as np
import pandas as pd

from bench import accuracy
from bench.calendars import SITES, read_sites
from cloche_engine.crops.catalogue import Crop, crop
from cloche_engine.germination.emergence import SeedBed, develop, hours_to_emergence
from cloche_engine.germination.steady import FIELD_FACTOR, FIELD_LOG_SD, field_factors
from cloche_engine.soil.bed import Bed as Ground
from cloche_engine.soil.bed import Parameters
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.normals import Normals, from_record, guess_from_latitude, spread_by_range
from cloche_engine.weather.record import DailyRecord, Site
from cloche_engine.weather.scenarios import Known, Past, scenarios
from cloche_engine.windows.outlook import planting_outlook, sowing_outlook
from cloche_engine.windows.season import Bed, Season

DAILY = Path(__file__).parent / "data" / "daily_1976_2005.csv"
SITE = Site(50.8, 4.35, 100.0, 1.0)
MEMBERS, BEHIND_D, SOIL_D, AIR_D = 40, 30, 130, 300
CANDIDATES = np.arange(0, 75, 2)
SOWN = ("spinach", "pea", "carrot", "lettuce", "onion", "beet", "potato_first_early", "snap_bean", "sweet_corn", "cucumber")
PLANTED = ("cabbage", "tomato", "squash")
PLANTS_COLDER_K = 1.5
SPRINGS = 300
TELLS_D = 7
BINS = ((0.0, 0.2), (0.2, 0.5), (0.5, 0.75), (0.75, 0.85), (0.85, 0.95), (0.95, 1.01))


@dataclass(frozen=True)
class Stated:
    """What was said of candidate days and what happened. stated, held: (days,), 0-1; one crop in one spring."""

    crop: str
    stated: np.ndarray
    held: np.ndarray


@dataclass(frozen=True)
class Climate:
    """Where springs are made up: by whose months, and under which sun."""

    name: str
    normals: Normals
    site: Site


@cache
def climates() -> list[Climate]:
    """The four ordinary sites of the calendars."""
    rows = []
    for row in read_sites(SITES).values():
        low, high = (np.array([float(v) for v in row[side].split()]) for side in ("low_c", "high_c"))
        latitude, longitude, elevation = (float(row[part]) for part in ("latitude_deg", "longitude_deg", "elevation_m"))
        months = Normals(low, high, spread_by_range((low + high) / 2), "typed")
        rows.append(Climate(row["name"], months, Site(latitude, longitude, elevation, round(longitude / 15))))
    return rows


@cache
def usual() -> Climate:
    """Where the thirty years are from."""
    return Climate("thirty years", normals(), SITE)


@cache
def record() -> DailyRecord:
    """The thirty years."""
    data = pd.read_csv(DAILY, parse_dates=["date"])
    low, high = data.air_min_c.to_numpy(float), data.air_max_c.to_numpy(float)
    rain = data.precipitation_mm.to_numpy(float)
    return DailyRecord.of(data.date[0].date(), np.minimum(low, high - 0.1), high, None, rain)


@cache
def normals() -> Normals:
    """Of the thirty years."""
    own, guess = record(), guess_from_latitude(SITE.latitude_deg, SITE.elevation_m)
    month = np.array([(own.first + timedelta(days=i)).month for i in range(len(own))])
    return from_record(month, own.low_c, own.high_c, guess)


class Without(Past):
    """Past years but one, and the one that runs into it."""

    def __init__(self, past: DailyRecord, year: int) -> None:
        super().__init__(past)
        object.__setattr__(self, "left_out", year)

    @property
    def years(self) -> list[int]:
        """All but those that touch the year left out."""
        return [year for year in super().years if year not in (self.left_out, self.left_out - 1)]  # type: ignore[attr-defined]


def synthetic_in(job: tuple[int, int]) -> list[Stated]:
    """One made-up spring in one of the four climates: its number among them, and of the spring."""
    return synthetic(job[1], climates()[job[0]])


def synthetic(number: int, climate: Climate | None = None) -> list[Stated]:
    """One made-up spring: its truth by the weather generator, told a week ahead with the error that forecasts have."""
    climate = climate or usual()
    rng = np.random.default_rng(10_000 + number)
    today = date(2026, 3, 1) + timedelta(days=int(rng.integers(0, 70)))
    first = today - timedelta(days=BEHIND_D)
    nothing = np.full(BEHIND_D + AIR_D, np.nan)
    truth = scenarios(Known(DailyRecord.of(first, nothing, nothing), np.zeros(len(nothing))), climate.normals, 1, rng)
    return _judge(truth, today, None, number, climate)


def replayed(job: tuple[int, int]) -> list[Stated]:
    """One real spring, foretold from the others: year, and days after 1 March of the morning."""
    year, after = job
    today = date(year, 3, 1) + timedelta(days=after)
    start = (today - timedelta(days=BEHIND_D) - record().first).days
    own = record().cut(start, start + BEHIND_D + AIR_D)
    truth = DailyRecord(own.first, **{name: values[:, None] for name, values in own.values.items()})
    return _judge(truth, today, Without(record(), year), year, usual())


def _judge(truth: DailyRecord, today: date, past: Past | None, seed: int, climate: Climate) -> list[Stated]:
    rng = np.random.default_rng(seed)
    known = _known(truth, past, rng)
    members = scenarios(known, climate.normals, MEMBERS, rng)
    both = {name: np.concatenate([values, getattr(truth, name)], axis=1) for name, values in members.values.items()}
    weather = DailyRecord(truth.first, **both)
    place = Place(Ground(), AnnualWave.of_months(climate.normals.mean_c))
    hourly = hours_of(weather.cut(0, BEHIND_D + SOIL_D), climate.site)
    trajectory = simulate([place.case(hourly, Parameters.typical(MEMBERS + 1))], [0.013, 0.025, 0.045, 0.10])[0]
    ahead = weather.cut(BEHIND_D)
    air = DailyRecord.of(ahead.first, ahead.low_c - PLANTS_COLDER_K, ahead.high_c)
    factor = field_factors(FIELD_FACTOR, FIELD_LOG_SD, MEMBERS, seed)
    own = FIELD_FACTOR * np.exp(FIELD_LOG_SD * rng.standard_normal())

    def bed(depth_m: float, columns: slice, pace: np.ndarray) -> Bed:
        cut = BEHIND_D * 24
        record = DailyRecord.of(air.first, air.low_c[:, columns], air.high_c[:, columns])
        moist, mean = trajectory.moist[cut:, columns].astype(float), ahead.mean_c[:, columns]
        season = Season.of(record, climate.site.latitude_deg, moist, mean)
        return Bed.of(np.clip(trajectory.at(depth_m)[cut:, columns].astype(float), -29, 59), season, pace)

    pairs = {
        depth: (bed(depth, slice(0, MEMBERS), factor), bed(depth, slice(MEMBERS, None), np.array([own])))
        for depth in (0.013, 0.025, 0.045, 0.10)
    }
    judged = [_stated(crop(key), pairs, sowing_outlook) for key in SOWN]
    return judged + [_stated(crop(key), pairs, planting_outlook, 0.10) for key in PLANTED]


def _stated(
    grown: Crop, pairs: dict[float, tuple[Bed, Bed]], outlook: Callable[..., object], depth_m: float | None = None
) -> Stated:
    depth = depth_m or min(pairs, key=lambda each: abs(each - grown.sowing_depth_m))
    members, truth = (outlook(grown, bed, CANDIDATES) for bed in pairs[depth])
    return Stated(grown.key, members.success, truth.succeeds[:, 0].astype(float))  # type: ignore[attr-defined]


def _known(truth: DailyRecord, past: Past | None, rng: np.random.Generator) -> Known:
    """What a grower has in the morning: the days behind as they were; a week foretold, where it is made up, with its error."""
    low, high = truth.low_c[:, 0].copy(), truth.high_c[:, 0].copy()
    lead = np.zeros(len(low))
    told_d = TELLS_D if past is None else 0
    ahead = np.arange(told_d)
    error = np.zeros(told_d)
    for i in range(told_d):
        sd = 0.9 + 0.35 * i
        fresh = rng.standard_normal()
        error[i] = sd * fresh if i == 0 else 0.6 * error[i - 1] + sd * np.sqrt(1 - 0.36) * fresh
    rows = BEHIND_D + ahead
    low[rows] += error
    high[rows] += error
    lead[rows] = ahead + 1
    low[BEHIND_D + told_d :] = high[BEHIND_D + told_d :] = np.nan
    rain = np.where(np.arange(len(low)) < BEHIND_D, truth.rain_mm[:, 0], np.nan)
    return Known(DailyRecord.of(truth.first, low, high, None, rain), lead, past)


def table(judged: Sequence[Stated]) -> list[tuple[str, int, float, float]]:
    """(bin, days, stated on average, held) over all crops and springs."""
    stated, held = (np.concatenate([getattr(row, side) for row in judged]) for side in ("stated", "held"))
    rows = []
    for low, high in BINS:
        inside = (stated >= low) & (stated < high)
        if inside.any():
            rows.append(
                (
                    f"{low:.0%} to {min(high, 1):.0%}",
                    int(inside.sum()),
                    float(stated[inside].mean()),
                    float(held[inside].mean()),
                )
            )
    return rows


def windows_hold(judged: Sequence[Stated]) -> tuple[float, float]:
    """Over the days of all windows (stated at least eight times in ten): stated on average, and how often it held."""
    stated, held = (np.concatenate([getattr(row, side) for row in judged]) for side in ("stated", "held"))
    inside = stated >= 0.8
    return float(stated[inside].mean()), float(held[inside].mean())


def over(job: Callable, jobs: Sequence) -> list[Stated]:  # type: ignore[type-arg]
    """What all jobs found, one after another."""
    return [result for many in over_each(job, jobs) for result in many]


def over_each(job: Callable, jobs: Sequence) -> list[list[Stated]]:  # type: ignore[type-arg]
    """All jobs, one process a core."""
    os.environ["OPENBLAS_NUM_THREADS"] = "1"
    with ProcessPoolExecutor(os.cpu_count(), mp_context=get_context("spawn")) as pool:
        return list(pool.map(job, jobs, chunksize=4))


def years() -> list[tuple[int, int]]:
    """Every real spring that has the days before and after it, from three mornings."""
    return [(year, after) for year in range(1976, 2005) for after in (0, 21, 42)]


def at_the_station(path: Path) -> tuple[int, float, float]:
    """Quick crops sown at each fold's start under the station's soil at 5 cm: how many came up by the measured soil or by the
    middle member within the fortnight, share of the measured days inside the band of 80 %, and the middle's mean error [d]."""
    inside, errors = [], []
    for run in accuracy.run_all(path, accuracy.SEASON, ("B",), ["5 cm"]):
        measured = run.fold.truth.interpolate(limit_direction="both").to_numpy()
        for key in ("radish", "lettuce", "turnip", "pea", "cucumber"):
            grown = crop(key)
            both = SeedBed.of(np.column_stack([run.members, measured]))
            days = hours_to_emergence(develop(both, grown), [0], grown)[0, 0] / 24
            low, middle, high = np.quantile(days[:-1], (0.1, 0.5, 0.9), method="higher")
            if np.isfinite(days[-1]) and np.isfinite(middle):
                inside.append(low - 1 / 24 <= days[-1] <= high + 1 / 24)
                errors.append(middle - days[-1])
    return len(inside), float(np.mean(inside)), float(np.mean(np.abs(errors)))


def print_tables(path: Path) -> None:
    """As Markdown."""
    in_each = [
        (f"{SPRINGS // 3} synthetic springs, {climate.name}", over(synthetic_in, [(at, n) for n in range(SPRINGS // 3)]))
        for at, climate in enumerate(climates())
    ]
    for name, judged in (
        (f"{SPRINGS} synthetic springs, a week foretold", over(synthetic, range(SPRINGS))),
        *in_each,
        ("The real springs of 1976 to 2004, each foretold from the others", over(replayed, years())),
    ):
        print(f"{name}:\n\n| stated | sowing days | on average | held |\n|---|---|---|---|")
        for row in table(judged):
            print(f"| {row[0]} | {row[1]} | {row[2]:.1%} | {row[3]:.1%} |")
        stated, held = windows_hold(judged)
        print(f"\nInside windows: stated {stated:.1%}, held {held:.1%}.\n")
    count, inside, error = at_the_station(path)
    print(
        f"At the station, 5 cm: {count} emergences, {inside:.0%} within the 80 % band, middle off by {error:.1f} d on average."
    )
