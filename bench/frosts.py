"""Frost dates of the shipped climate against weather stations: `./run bench frosts STATIONS.csv`.

Columns station, latitude_deg, longitude_deg, elevation_m, last_spring and first_autumn, the median days (MM-DD) of the last and
first night at or below 0 °C at 2 m. Without a file: what site.frost_reach is fitted on, each station left out in turn.
"""

from __future__ import annotations

import csv
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cached_property
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from cloche_engine.forecast.frosts import frosts_of
from cloche_engine.site.estimate import LAPSE_K_PER_M, normals_at
from cloche_engine.site.frost_reach import LATE_K, TERMS, crossings, terms_of
from cloche_engine.site.region import region_at
from cloche_engine.site.towns import people_near
from cloche_engine.weather.frosts import midsummer
from cloche_engine.weather.normals import through_the_year

FITTED_ON = Path(__file__).parent / "data" / "frost_stations_from_memory.csv"
RANGES, MID_JANUARY = Path(__file__).parent / "data" / "ranges_from_memory.csv", 15.5
"""Mean highs and lows of January, April, July and October at most of them."""
YEAR = 2027
WITHIN_D = 10
RIDGE = 0.3
USUAL_SLOPE_K_PER_D, LEAST_SLOPE_K_PER_D = 0.2, 0.06
"""A residual counts in days, as many as the season takes to make it good."""
SEASONS = ("spring", "autumn")


@dataclass(frozen=True)
class Station:
    """A weather station and the days [of the year] of its usual last and first frost."""

    name: str
    latitude_deg: float
    longitude_deg: float
    elevation_m: float
    frost_days: tuple[int, int]

    @cached_property
    def terms(self) -> NDArray[np.float64]:
        """What its frosts are told from, (2, terms)."""
        region = region_at(self.latitude_deg, self.longitude_deg)
        assert region is not None, self.name
        people = people_near(self.latitude_deg, self.longitude_deg)
        return terms_of(region, self.mean_c, self.latitude_deg, self.elevation_m, people)

    @cached_property
    def mean_c(self) -> NDArray[np.float64]:
        """Monthly means of its region at its height [°C]."""
        region = region_at(self.latitude_deg, self.longitude_deg)
        assert region is not None, self.name
        return np.asarray(region.mean_c - LAPSE_K_PER_M * (self.elevation_m - region.height_m))

    def given(self) -> tuple[date | None, date | None]:
        """The dates that the application gives."""
        normals = normals_at(self.latitude_deg, self.longitude_deg, self.elevation_m)
        frosts = frosts_of(None, normals, self.latitude_deg, date(YEAR, 1, 1)).frosts
        middle = midsummer(YEAR, self.latitude_deg)
        spring, autumn = (
            None if days is None else middle + timedelta(days=round(days[1])) for days in (frosts.spring, frosts.autumn)
        )
        return spring, autumn

    def off_d(self, season: int, day: date) -> int:
        """By how much a date is late."""
        return (day.timetuple().tm_yday - self.frost_days[season] + 182) % 365 - 182


def read(path: Path) -> list[Station]:
    """All rows of a file."""
    rows = csv.DictReader(path.read_text(encoding="utf-8").splitlines())
    return [_station(row) for row in rows]


def _station(row: dict[str, str]) -> Station:
    lies = [float(row[name]) for name in ("latitude_deg", "longitude_deg", "elevation_m")]
    spring, autumn = (date.fromisoformat(f"{YEAR}-{row[name]}").timetuple().tm_yday for name in ("last_spring", "first_autumn"))
    return Station(row["station"], lies[0], lies[1], lies[2], (spring, autumn))


def fit(stations: list[Station], season: int) -> NDArray[np.float64]:
    """Coefficients of frost_reach.TERMS for the normal mean on the day of frost [°C]."""
    return _least_squares(stations, season, np.array([_mean_on_the_day(station, season)[0] for station in stations]))


def fit_lows(stations: list[Station], season: int) -> NDArray[np.float64]:
    """The same for the normal low, of those whose lows are known."""
    rows = csv.DictReader(RANGES.read_text(encoding="utf-8").splitlines())
    lows = {row["station"]: np.array(row["low_c"].split(), dtype=float) for row in rows}
    known = [station for station in stations if station.name in lows]
    on_the_day = [_through_four_months(lows[station.name], station.frost_days[season]) for station in known]
    return _least_squares(known, season, np.array(on_the_day))


def _through_four_months(values: NDArray[np.float64], day: float) -> float:
    """On a day of the year, from the middles of January, April, July and October by two harmonics."""
    turn = 2 * np.pi * (day - MID_JANUARY) / 365
    january, april, july, october = values
    halves = (january - april + july - october) / 4
    return float(
        values.mean() + (january - july) / 2 * np.cos(turn) + (april - october) / 2 * np.sin(turn) + halves * np.cos(2 * turn)
    )


def _least_squares(stations: list[Station], season: int, values: NDArray[np.float64]) -> NDArray[np.float64]:
    """A little held towards none; a residual counts in days."""
    terms = np.array([station.terms[season] for station in stations])
    weights = np.array([_mean_on_the_day(station, season)[1] for station in stations])
    held = RIDGE * np.eye(len(TERMS))
    held[0, 0] = 0.0
    return np.asarray(np.linalg.solve(terms.T @ (terms * weights[:, None]) + held, terms.T @ (weights * values)))


def _mean_on_the_day(station: Station, season: int) -> tuple[float, float]:
    """Normal mean on the day of its frost [°C], and how much its residual counts."""
    day = station.frost_days[season]
    on = through_the_year(station.mean_c, np.array([day - 10, day, day + 10]))
    return float(on[1]), USUAL_SLOPE_K_PER_D / max(abs(float(on[2] - on[0])) / 20, LEAST_SLOPE_K_PER_D)


def left_out(stations: list[Station]) -> NDArray[np.float64]:
    """Days off of each station's two dates, told from all others, (stations, 2); NaN where no frost is expected."""
    off = np.full((len(stations), 2), np.nan)
    for at, station in enumerate(stations):
        others = stations[:at] + stations[at + 1 :]
        means = [float(station.terms[season] @ fit(others, season)) for season in (0, 1)]
        crossed = crossings(station.mean_c, np.array([means[0] + LATE_K, means[1]]), station.latitude_deg)
        for season, crossing in enumerate(crossed):
            if crossing is not None:
                shift = 0 if station.latitude_deg >= 0 else 181
                off[at, season] = station.off_d(season, date(YEAR, 1, 1) + timedelta(days=int(crossing.day + shift) % 365))
    return off


def main(path: str = "") -> int:
    """A row a station and the two lines of the score; without a file the fit and its leave-one-out score."""
    if not path:
        return _fitted()
    stations, off = read(Path(path)), []
    print("| station | last frost | off, d | first frost | off, d |\n|---|---|---|---|---|")
    for station in stations:
        row = [np.nan if day is None else float(station.off_d(s, day)) for s, day in enumerate(station.given())]
        off.append(row)
        cells = [
            f"{'none' if day is None else day.strftime('%d %b')} | {o:+.0f}"
            for day, o in zip(station.given(), row, strict=True)
        ]
        print(f"| {station.name} | {' | '.join(cells)} |")
    score(np.array(off))
    return 0


def _fitted() -> int:
    stations = read(FITTED_ON)
    for season, name in enumerate(SEASONS):
        for what, fitted in (("mean", fit(stations, season)), ("low", fit_lows(stations, season))):
            print(f"{name}, {what}: " + ", ".join(f"{term} {c:+.2f}" for term, c in zip(TERMS, fitted, strict=True)))
    print(f"\n{len(stations)} stations, each told from the others:")
    score(left_out(stations))
    return 0


def score(off_d: NDArray[np.float64]) -> None:
    """Two lines: how far spring is off, and how many dates are met. (stations, 2)."""
    spring, within = off_d[:, 0], np.abs(off_d) <= WITHIN_D
    size, early = np.nanmean(np.abs(spring)), np.nanmin(spring)
    print(f"\nspring bias {np.nanmean(spring):+.1f} d, mean absolute {size:.1f} d, earliest {early:+.0f} d")
    print(f"frosts: {within.sum()} of {within.size} within {WITHIN_D} days ({100 * within.mean():.0f} %)")
