"""How well the emergence curves hold against tables: every cell, every cell left out once, and the second source."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cloche_engine.crops import knots
from cloche_engine.crops.catalogue import Crop, catalogue
from cloche_engine.crops.curves import RateCurve
from cloche_engine.germination.emergence import SeedBed, develop, hours_to_emergence
from cloche_engine.germination.steady import LABORATORY


@dataclass(frozen=True)
class Cell:
    """A cell of the published table and what the pipeline makes of it. days: inf where nothing comes up."""

    crop: str
    soil_c: float
    published_d: float
    computed_d: float


def table_crops() -> dict[str, Crop]:
    """Catalogue crops by their name in the emergence table."""
    named = {key.replace("_", " "): crop for key, crop in catalogue().items()}
    return {name: named[name] for name in sorted({row["crop"] for row in knots.rows("emergence_days.csv")})}


def through_the_pipeline(crop: Crop, soil_c: float) -> float:
    """Days to half emergence in steady soil, integrated hour by hour as everywhere else [d]."""
    bed = SeedBed.of(np.full(250 * 24, soil_c))
    development = develop(bed, crop, LABORATORY)
    return float(hours_to_emergence(development, [0], crop)[0, 0, 0]) / 24


def cells() -> list[Cell]:
    """Every cell of the published table."""
    grid = []
    for name, crop in table_crops().items():
        for soil_c, days in knots.published_days(name).items():
            published = np.inf if days is None else days
            grid.append(Cell(name, soil_c, published, through_the_pipeline(crop, soil_c)))
    return grid


def left_out() -> list[Cell]:
    """Every inner positive cell predicted from the others: the honest error of the interpolation."""
    held_out = []
    for name, crop in table_crops().items():
        days = knots.decided_days(name)
        positive = [c for c, d in days.items() if d is not None]
        for soil_c in positive[1:-1]:
            rest = {c: d for c, d in days.items() if c != soil_c}
            curve = RateCurve.through(knots.rate_knots(rest, crop.maximum_c, crop.heat_sum))
            held_out.append(Cell(name, soil_c, float(days[soil_c] or np.inf), 1 / max(float(curve.at(soil_c)), 1e-9)))
    return held_out


def second_source() -> list[Cell]:
    """The heat sums over their own range, 3 K above the base to 17 °C (25 °C for warm crops), beside our curves."""
    grid = []
    for name, crop in table_crops().items():
        if crop.heat_sum is None:
            continue
        top = 25.0 if crop.heat_sum.base_c > 5 else 17.0
        warmths = np.arange(np.ceil(crop.heat_sum.base_c + 3), top + 0.1, 2.0)
        grid += [Cell(name, float(c), crop.heat_sum.days_at(c), 1 / max(float(crop.rate.at(c)), 1e-9)) for c in warmths]
    return grid


def print_tables() -> None:
    """All three, short."""
    exact = [c for c in cells() if c.crop not in ("turnip", "celery")]
    met = [c for c in exact if meets(c)]
    print(f"Published cells met within 5 % or half a day: {len(met)} of {len(exact)} (turnip and celery follow the heat sums).")
    ratio = np.array([c.computed_d / c.published_d for c in left_out()])
    low, middle, high = np.quantile(ratio, [0.1, 0.5, 0.9])
    print(f"Each inner cell left out and predicted ({len(ratio)}): ratio {middle:.2f}, 10-90 % {low:.2f}-{high:.2f}.\n")
    print("| crop | second source over ours, days, median | range |\n|---|---|---|")
    by_crop: dict[str, list[float]] = {}
    for cell in second_source():
        by_crop.setdefault(cell.crop, []).append(cell.published_d / cell.computed_d)
    for crop, ratios in by_crop.items():
        print(f"| {crop} | {np.median(ratios):.2f} | {min(ratios):.2f}-{max(ratios):.2f} |")


def meets(cell: Cell) -> bool:
    """Within 5 % or half a day; none where the table says none."""
    if np.isinf(cell.published_d) or np.isinf(cell.computed_d):
        return bool(np.isinf(cell.published_d) and np.isinf(cell.computed_d))
    return abs(cell.computed_d - cell.published_d) <= max(0.5, 0.05 * cell.published_d) + 1e-9
