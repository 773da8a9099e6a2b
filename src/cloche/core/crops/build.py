"""Builds data/catalogue.json from the tables: `python -m cloche.core.crops.build`. Run again after any change to them."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

from cloche.core.crops import knots
from cloche.core.quantities import celsius_from_fahrenheit

HARRINGTON = "Harrington and Minges 1954, from memory"
CONDITIONS = "Harrington in Knott's Handbook, from memory"
BIERHUIZEN = "Bierhuizen and Wagenvoort 1974, from memory"
ASSUMPTION = "assumption"
PRACTICE = "common practice, no source"

TABLE_NAME = {"corn_salad": "corn salad", "broad_bean": "broad bean", "snap_bean": "snap bean"}
KIN = {"squash": "cucumber", "pumpkin": "cucumber", "chard": "beet"}
"""Crops without any row of their own, and the relative whose rates they borrow (assumption)."""
WIDE_SPREAD = {"onion", "muskmelon", "watermelon"}
"""Sources disagree by 1.7 to 4 times: the time to emerge is spread wider."""
ADVISED = {
    # minimum, optimum from, to, optimum, maximum in °F where the conditions table has no row (assumption: as its kin)
    "broad_bean": (40, 45, 75, 70, 85),
    "kale": (40, 45, 95, 85, 100),
    "leek": (35, 50, 95, 75, 95),
    "endive": (35, 40, 80, 75, 85),
    "corn_salad": (35, 40, 68, 60, 80),
}


def build() -> dict[str, Any]:
    """The whole catalogue, crop by crop in the order of growing.csv."""
    conditions = {row["crop"]: row for row in knots.rows("conditions_f.csv")}
    return {row["key"]: _crop(row, conditions) for row in knots.rows("growing.csv")}


def _crop(row: dict[str, str], conditions: dict[str, dict[str, str]]) -> dict[str, Any]:
    table = TABLE_NAME.get(row["key"], row["key"].replace("_", " "))
    advice = _advice(row["key"], conditions.get(table))
    heat_sum = knots.heat_sums().get(table)
    return {
        "name": row["name"],
        "name_plural": row["name_plural"],
        "botanical_name": row["botanical_name"],
        "family": row["family"],
        **advice,
        **_rates(row, advice, heat_sum),
        **_share(row, table, advice),
        "spread_log_sd": 0.35 if row["key"] in WIDE_SPREAD else 0.15,
        "heat_sum": heat_sum and {"base_c": heat_sum.base_c, "heat_sum_cd": heat_sum.heat_sum_cd, "source": BIERHUIZEN},
        "method": row["method"],
        "sowing_depth_m": float(row["sowing_depth_m"]),
        "hardiness": row["hardiness"],
        "frost_limit_c": float(row["frost_limit_c"]),
        "maturity_d": float(row["maturity_d"]),
        "heat_limit_c": float(row["heat_limit_c"]) if row["heat_limit_c"] else None,
        "growing_source": PRACTICE,
    }


def _advice(key: str, published: dict[str, str] | None) -> dict[str, Any]:
    columns = ("minimum", "optimum_from", "optimum_to", "optimum", "maximum")
    values = [float(published[f"{c}_f"]) for c in columns] if published else list(ADVISED[key])
    celsius = {f"{c}_c": celsius_from_fahrenheit(float(v)) for c, v in zip(columns, values, strict=True)}
    return celsius | {"advice_source": CONDITIONS if published else f"{ASSUMPTION}: as its nearest relatives"}


def _rates(row: dict[str, str], advice: dict[str, Any], heat_sum: knots.HeatSum | None) -> dict[str, Any]:
    table = row["rates_from"] or KIN.get(row["key"], "")
    if table:
        sums = knots.heat_sums().get(table)
        points = knots.rate_knots(knots.decided_days(table), advice["maximum_c"], sums)
        decided = any(cell["crop"] == table for cell in knots.rows("decided_cells.csv"))
        source = HARRINGTON if table == row["rates_from"] else f"{ASSUMPTION}: as {table} ({HARRINGTON})"
        source += "; contradictory cells decided, see decided_cells.csv" if decided else ""
    elif heat_sum:
        points = knots.heat_sum_knots(heat_sum, advice["optimum_c"], advice["maximum_c"])
        source = f"{BIERHUIZEN}; above the optimum an assumption"
    else:
        raise LookupError(f"{row['key']}: no emergence row, no heat sum, no kin")
    return {"rate_knots_c_per_d": points, "rate_source": source}


def _share(row: dict[str, str], table: str, advice: dict[str, Any]) -> dict[str, Any]:
    published = knots.published_share(table) or knots.published_share(KIN.get(row["key"], ""))
    if published:
        source = HARRINGTON if knots.published_share(table) else f"{ASSUMPTION}: as {KIN[row['key']]}"
        return {"share_knots_c": knots.relative_share(published), "share_source": source}
    optimum = (advice["optimum_from_c"], advice["optimum_to_c"])
    points = knots.advised_share(advice["minimum_c"], optimum, advice["maximum_c"])
    return {"share_knots_c": points, "share_source": f"{ASSUMPTION}: full inside the optimum range, half at its limits"}


def main() -> None:
    """Write the catalogue beside the tables."""
    target = Path(str(knots.DATA / "catalogue.json"))
    catalogue = build()
    target.write_text(json.dumps(catalogue, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
    sys.stdout.write(f"{len(catalogue)} crops written to {target.name}\n")


if __name__ == "__main__":
    main()
