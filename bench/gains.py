"""What covers buy by the priors alone, beside what was measured: `./run bench gains CONDITIONS.csv`.

Each row of the file: a place, so many days alike, a cover that stays shut, a quantity and the range in which it was measured.
"""

from __future__ import annotations

import csv
import io
import sys
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from cloche_engine.forecast.places import situation_of
from cloche_engine.inputs import CoverSpan, ForecastInputs
from cloche_engine.layout import MEMBERS
from cloche_engine.local_time import midnight_of
from cloche_engine.soil.calibrate import learn
from cloche_engine.soil.physical import run
from cloche_engine.soil.readings import Readings
from cloche_engine.soil.simulate import Trajectory
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.normals import guess_from_latitude
from cloche_engine.weather.record import DailyRecord, HourlyWeather, Site

Array = NDArray[np.float64]
Row = dict[str, str]

YEAR, SEED, DEPTHS_M = 2026, 1, (0.05, 0.10)
ENDS = (0.1, 0.5, 0.9)
ADDED = ("median", "low", "high", "lies")
CONDITIONS = ("latitude_deg", "elevation_m", "date", "days", "low_c", "high_c", "sun_share", "wind_m_s", "rain_mm", "every_d")
LAST = slice(-24, None)


def quantities(bare: Trajectory, covered: Trajectory, outside_c: Array) -> dict[str, Array]:
    """Of the last day, (members,) each; outside_c: (hours, members)."""
    soil = {depth: (covered.at(depth)[LAST], bare.at(depth)[LAST]) for depth in DEPTHS_M}
    inside, outside = covered.air_c[LAST], outside_c[LAST]
    by_name = {}
    for depth, (under, beside) in soil.items():
        name = f"soil{depth * 100:.0f}"
        by_name[f"{name}_mean"] = under.mean(axis=0) - beside.mean(axis=0)
        by_name[f"{name}_max"] = under.max(axis=0) - beside.max(axis=0)
    by_name["air_night"] = inside.min(axis=0) - outside.min(axis=0)
    by_name["air_day"] = inside.max(axis=0) - outside.max(axis=0)
    by_name["air_over_soil5"] = inside.max(axis=0) - soil[0.05][0].max(axis=0)
    return by_name


def weather_of(row: Row) -> tuple[HourlyWeather, Site]:
    """Days alike, with rain on every so many of them."""
    month, day = (int(part) for part in row["date"].split("-"))
    count, every = int(row["days"]), int(row["every_d"])
    low, high, sun, wind = (np.full((count, 1), float(row[name])) for name in ("low_c", "high_c", "sun_share", "wind_m_s"))
    rain = np.zeros((count, 1))
    if every:
        rain[every - 1 :: every] = float(row["rain_mm"])
    site = Site(float(row["latitude_deg"]), 0.0, float(row["elevation_m"]), 0.0)
    record = DailyRecord(date(YEAR, month, day), low, high, sun, rain, wind, np.zeros((count, 1)))
    return hours_of(record, site), site


def trajectory(site: Site, weather: HourlyWeather, covers: list[CoverSpan]) -> Trajectory:
    """An open bed of loam that nobody has read yet, in all its members."""
    given = {"kind": "open", "seed_depth_m": 0.05, "readings": [], "weather": [], "typed_normals": None, "seed": SEED}
    inputs = ForecastInputs(
        latitude_deg=site.latitude_deg,
        longitude_deg=site.longitude_deg,
        elevation_m=site.elevation_m,
        timezone=ZoneInfo("UTC"),
        today=weather.first,
        covers=covers,
        **given,  # type: ignore[arg-type]
    )
    place = situation_of(
        inputs, guess_from_latitude(site.latitude_deg, site.elevation_m), midnight_of(weather.first, 0.0)
    ).place
    nothing = Readings(*(np.empty(0) for _ in range(3)))
    return run(place, learn(place, weather, nothing), weather, DEPTHS_M, MEMBERS, SEED)


def scored(rows: list[Row]) -> Iterator[Row]:
    """Each row with the prior's median, its 10 and 90 % ends, and whether the median lies in the row's range."""
    known: dict[tuple[str, ...], Trajectory] = {}
    for row in rows:
        weather, site = weather_of(row)
        spell = tuple(row[name] for name in CONDITIONS)
        if spell not in known:
            known[spell] = trajectory(site, weather, [])
        if (*spell, row["cover"]) not in known:
            known[*spell, row["cover"]] = trajectory(site, weather, [CoverSpan(row["cover"])])
        modelled = quantities(known[spell], known[*spell, row["cover"]], weather.air_c)[row["quantity"]]
        low, median, high = np.quantile(modelled, ENDS)
        inside = float(row["from_k"]) <= median <= float(row["to_k"])
        yield row | dict(zip(ADDED, (f"{median:.2f}", f"{low:.2f}", f"{high:.2f}", "in" if inside else "out"), strict=True))


def main(path: str) -> int:
    """Print the rows as CSV, then how many lie within."""
    file = Path(path)
    if not file.exists():
        print(f"There is no file “{path}”.", file=sys.stderr)
        return 64
    rows = list(csv.DictReader(io.StringIO(file.read_text(encoding="utf-8"))))
    table = csv.DictWriter(sys.stdout, [*rows[0], *ADDED], lineterminator="\n")
    table.writeheader()
    within = 0
    for row in scored(rows):
        table.writerow(row)
        within += row["lies"] == "in"
    print(f"gains: {within} of {len(rows)}")
    return 0
