"""The shipped climate of regions against a record of thirty years and towns' normals: `./run bench climate`."""

from __future__ import annotations

import csv
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from pathlib import Path

import numpy as np
import pandas as pd
from numpy.typing import NDArray

from bench import frosts
from cloche_engine.forecast.frosts import frosts_of
from cloche_engine.site.estimate import LAPSE_K_PER_M, normals_at, range_terms
from cloche_engine.site.region import region_at
from cloche_engine.site.towns import people_near
from cloche_engine.weather.frosts import Frosts, midsummer, of_years
from cloche_engine.weather.normals import Normals
from cloche_engine.weather.record import DailyRecord

TOWNS = Path(__file__).parent / "data" / "normals_from_memory.csv"
QUARTERS = (0, 3, 6, 9)
DAILY = Path(__file__).parent / "data" / "daily_1976_2005.csv"
RECORD_AT = (50.8, 4.35, 100.0)
MIDSUMMER = midsummer(2005, RECORD_AT[0])


@dataclass(frozen=True)
class Town:
    """A town's own normals: monthly means of lows and highs [°C]."""

    name: str
    latitude_deg: float
    longitude_deg: float
    elevation_m: float
    low_c: NDArray[np.float64]
    high_c: NDArray[np.float64]

    @property
    def shipped(self) -> Normals:
        """What the application says of the place."""
        return normals_at(self.latitude_deg, self.longitude_deg, self.elevation_m)

    @property
    def mean_off_k(self) -> NDArray[np.float64]:
        """By how much the shipped means lie above."""
        return np.asarray(self.shipped.mean_c - (self.low_c + self.high_c) / 2)

    @property
    def range_off_k(self) -> NDArray[np.float64]:
        """By how much the shipped daily range is wider."""
        return np.asarray((self.shipped.high_c - self.shipped.low_c) - (self.high_c - self.low_c))


@dataclass(frozen=True)
class Range:
    """A month's daily range at a place [K], and how much it counts: a place as much as any other."""

    place: str
    terms: NDArray[np.float64]
    range_k: float
    weight: float


def ranges() -> list[Range]:
    """Of the towns in all months, of frost stations in four (from memory)."""
    rows = []
    for town in towns():
        rows += _ranges(town, range(12), town.high_c - town.low_c)
    stations = {station.name: station for station in frosts.read(frosts.FITTED_ON)}
    for row in csv.DictReader(frosts.RANGES.read_text(encoding="utf-8").splitlines()):
        high_c, low_c = (np.array(row[name].split(), dtype=float) for name in ("high_c", "low_c"))
        rows += _ranges(stations[row["station"]], QUARTERS, high_c - low_c)
    return rows


def _ranges(place: Town | frosts.Station, months: Iterable[int], range_k: NDArray[np.float64]) -> list[Range]:
    region = region_at(place.latitude_deg, place.longitude_deg)
    assert region is not None
    mean_c = region.mean_c - LAPSE_K_PER_M * (place.elevation_m - region.height_m)
    people = people_near(place.latitude_deg, place.longitude_deg)
    terms = range_terms(region, mean_c, place.latitude_deg, place.elevation_m, people)
    count = len(range_k)
    return [
        Range(place.name, terms[:, month], float(k), len(QUARTERS) / count) for month, k in zip(months, range_k, strict=True)
    ]


def fit_range(rows: list[Range]) -> NDArray[np.float64]:
    """Coefficients of range_terms [K] by least squares, a little held towards none."""
    terms, weights = np.array([row.terms for row in rows]), np.array([row.weight for row in rows])
    held = np.eye(terms.shape[1])
    held[0, 0] = 0.0
    range_k = np.array([row.range_k for row in rows])
    return np.asarray(np.linalg.solve(terms.T @ (terms * weights[:, None]) + held, terms.T @ (weights * range_k)))


def range_left_out(rows: list[Range]) -> float:
    """Root mean square error of ranges told from all other places [K]."""
    off = []
    for place in {row.place for row in rows}:
        fitted = fit_range([row for row in rows if row.place != place])
        off += [float(row.terms @ fitted) - row.range_k for row in rows if row.place == place]
    return rms(np.array(off))


def towns() -> list[Town]:
    """All rows of the file (from memory)."""
    rows = csv.DictReader(TOWNS.read_text(encoding="utf-8").splitlines())
    return [_town(row) for row in rows]


def _town(row: dict[str, str]) -> Town:
    lies = [float(row[name]) for name in ("latitude_deg", "longitude_deg", "elevation_m")]
    low_c, high_c = (np.array(row[name].split(), dtype=float) for name in ("low_c", "high_c"))
    return Town(row["name"], lies[0], lies[1], lies[2], low_c, high_c)


def record() -> Town:
    """The thirty-year daily record as such a row (Brussels, data of the PyPI package aquacrop 3.1.0)."""
    days = pd.read_csv(DAILY, parse_dates=["date"])
    monthly = days.groupby(days.date.dt.month)[["air_min_c", "air_max_c"]].mean()
    return Town("record of thirty years", *RECORD_AT, monthly.air_min_c.to_numpy(), monthly.air_max_c.to_numpy())


def last_frosts() -> tuple[Frosts, Frosts]:
    """Of the thirty years themselves, and as the shipped climate has them."""
    days = pd.read_csv(DAILY, parse_dates=["date"])
    own = of_years(DailyRecord.of(days.date[0].date(), days.air_min_c.to_numpy(), days.air_max_c.to_numpy()), RECORD_AT[0])
    assert own is not None
    return own, frosts_of(None, normals_at(*RECORD_AT), RECORD_AT[0], date(2005, 1, 1)).frosts


def main() -> None:
    """A row a place, and the errors over all."""
    rows = [record(), *towns()]
    print("| place | mean of the year off, K | worst month | daily range off, K | stated doubt, K |\n|---|---|---|---|---|")
    for town in rows:
        off, wider, doubt = town.mean_off_k, town.range_off_k.mean(), town.shipped.off_k
        print(f"| {town.name} | {off.mean():+.1f} | {np.abs(off).max():.1f} | {wider:+.1f} | {doubt:.1f} |")
    means, widths = (np.concatenate([getattr(town, name) for town in rows]) for name in ("mean_off_k", "range_off_k"))
    own, shipped = last_frosts()
    for name in ("spring", "autumn"):
        on = [
            ", ".join(f"{MIDSUMMER + timedelta(days=round(d)):%d %b}" for d in getattr(frosts, name))
            for frosts in (own, shipped)
        ]
        print(f"\nFrost of {name}, one year in ten, usual, nine in ten: record {on[0]}; shipped {on[1]}.")
    print(f"\nMonthly means off by {rms(means):.2f} K (RMS), daily ranges by {rms(widths):.2f} K, of {len(rows)} places.")


def rms(values: NDArray[np.float64]) -> float:
    """Root of the mean square."""
    return float(np.sqrt(np.mean(values**2)))
