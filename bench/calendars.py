"""Windows against what any grower would agree with: `./run bench calendars SITES.csv PROBES.csv`.

Sites are told by where they lie and their monthly normals; probes are days on which sowing or planting a crop is plainly
sensible or plainly not. An open bed nobody has measured: priors and typed normals only."""

from __future__ import annotations

import csv
import os
from collections import defaultdict
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from datetime import date
from multiprocessing import get_context
from pathlib import Path
from zoneinfo import ZoneInfo

import numpy as np

from cloche.bridge.services.crops import crops
from cloche_engine.api import forecast
from cloche_engine.inputs import ForecastInputs
from cloche_engine.results import CropDays

YEAR = 2027
QUARTERS = (1, 4, 7, 10)
SENSIBLE, NOT_SENSIBLE = 0.7, 0.5
"""A sensible day has at least the first chance, one that is not has less than the second."""
SITES = Path(__file__).parent / "data" / "calendar_sites.csv"
PROBES = Path(__file__).parent / "data" / "calendar_probes.csv"
OWN_SITES = Path(__file__).parent / "data" / "calendar_own_sites.csv"
OWN_PROBES = Path(__file__).parent / "data" / "calendar_own_probes.csv"
"""Six more climates, written down before they were tried (common practice, no source)."""
WIDE_SITES = Path(__file__).parent / "data" / "calendar_wide_sites.csv"
WIDE_PROBES = Path(__file__).parent / "data" / "calendar_wide_probes.csv"
"""Mild winters, hot summers and the cool edge: ten climates from the desert to the subarctic (common practice, no source)."""
Method = tuple[str, str]
"""A crop's key and how it gets into the ground: sown, planted (sets, cloves, tubers) or planted_out."""


@dataclass(frozen=True)
class Probe:
    """A day on which it is sensible, or is not, to put a crop into the ground of a site."""

    site: str
    crop: str
    method: str
    day: date
    sensible: bool

    @property
    def told_on(self) -> date:
        """The last first of a quarter before the day."""
        firsts = [date(year, month, 1) for year in (YEAR - 1, YEAR) for month in QUARTERS]
        return max(first for first in firsts if first < self.day)

    def holds(self, chance: float) -> bool:
        """Whether a chance agrees."""
        return chance >= SENSIBLE if self.sensible else chance < NOT_SENSIBLE


def read_probes(path: Path) -> list[Probe]:
    """All days of a file, row by row."""
    probes = []
    for row in csv.DictReader(path.read_text(encoding="utf-8").splitlines()):
        for column, sensible in (("sensible", True), ("not_sensible", False)):
            for text in row[column].split():
                month, day = (int(part) for part in text.split("-"))
                probes.append(Probe(row["site"], row["crop"], row["way"], date(YEAR, month, day), sensible))
    return probes


def read_sites(path: Path) -> dict[str, dict[str, str]]:
    """Rows by the site's letter."""
    return {row["site"]: row for row in csv.DictReader(path.read_text(encoding="utf-8").splitlines())}


def given(job: tuple[dict[str, str], date, tuple[Method, ...]]) -> list[CropDays]:
    """What a site's open bed says of some crops on a morning."""
    site, today, wanted = job
    months = tuple([float(value) for value in site[side].split()] for side in ("low_c", "high_c"))
    inputs = ForecastInputs(
        kind="open",
        seed_depth_m=0.05,
        latitude_deg=float(site["latitude_deg"]),
        longitude_deg=float(site["longitude_deg"]),
        elevation_m=float(site["elevation_m"]),
        timezone=ZoneInfo(site["timezone"]),
        today=today,
        readings=[],
        weather=[],
        typed_normals=(months[0], months[1]) if all(months) else None,
        seed=1,
        crops=tuple(crop for crop, _ in wanted),
        methods={crop: as_judged(method) for crop, method in wanted},
    )
    return forecast(inputs).crops


def as_judged(method: str) -> str:
    """Sets, cloves and tubers are judged like seed: put in place."""
    return "transplanted" if method == "planted_out" else "direct"


def all_told(jobs: Sequence[tuple[dict[str, str], date, tuple[Method, ...]]]) -> list[list[CropDays]]:
    """Every job, one process a core."""
    os.environ["OPENBLAS_NUM_THREADS"] = "1"
    with ProcessPoolExecutor(os.cpu_count(), mp_context=get_context("spawn")) as pool:
        return list(pool.map(given, jobs))


def chances(sites: dict[str, dict[str, str]], probes: Sequence[Probe]) -> list[float]:
    """The chance given for each probe, in their order; 0 where a crop is not grown that way at all."""
    wanted: dict[tuple[str, date], list[dict[str, str]]] = defaultdict(list)
    for probe in probes:
        rounds, method = wanted[probe.site, probe.told_on], as_judged(probe.method)
        # A forecast looks at a crop in the way that is asked for; one that is asked about in both takes another.
        fits = next((methods for methods in rounds if methods.get(probe.crop, method) == method), None)
        if fits is None:
            rounds.append(fits := {})
        fits[probe.crop] = method
    query = [(site, today, methods) for (site, today), rounds in wanted.items() for methods in rounds]
    judged: dict[tuple[str, date, str, str], CropDays] = {}
    answers = all_told([(sites[site], today, tuple(sorted(methods.items()))) for site, today, methods in query])
    for (site, today, methods), rows in zip(query, answers, strict=True):
        judged |= {(site, today, row.method, row.crop_key): row for row in rows if methods.get(row.crop_key) == row.method}
    return [_chance(judged.get((probe.site, probe.told_on, as_judged(probe.method), probe.crop)), probe) for probe in probes]


def _chance(row: CropDays | None, probe: Probe) -> float:
    if row is None:
        return 0.0
    return float(np.interp((probe.day - probe.told_on).days, row.days.day, row.days.success))


def without_normals(sites: dict[str, dict[str, str]]) -> dict[str, dict[str, str]]:
    """The same sites told by where they lie alone: the shipped climate of the region instead of typed normals."""
    return {key: row | {"low_c": "", "high_c": ""} for key, row in sites.items()}


def main(sites_path: str = str(SITES), probes_path: str = str(PROBES)) -> int:
    """Each missed probe, and how many hold."""
    sites, probes = read_sites(Path(sites_path)), read_probes(Path(probes_path))
    known = {crop.key for crop in crops()}
    strange = sorted({probe.crop for probe in probes} - known | {probe.site for probe in probes} - sites.keys())
    if strange:
        print(f"Neither a crop of the catalogue nor a site of the file: {', '.join(strange)}")
        return 64
    score(probes, chances(sites, probes))
    print("by the climate of the region instead of typed normals:")
    return score(probes, chances(without_normals(sites), probes))


def score(probes: Sequence[Probe], given: Sequence[float]) -> int:
    """Print each missed probe with the chance given, and how many hold."""
    held = [probe.holds(chance) for probe, chance in zip(probes, given, strict=True)]
    for probe, chance, holds in zip(probes, given, held, strict=True):
        if not holds:
            word = "sensible" if probe.sensible else "not sensible"
            print(f"{probe.site} {probe.crop} {probe.method} {probe.day:%m-%d}: {word}, chance given {chance:.2f}")
    print(f"calendars: {sum(held)} of {len(held)} ({sum(held) / len(held):.1%})")
    return 0
