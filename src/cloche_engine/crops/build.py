"""Builds data/catalogue.json from the tables: `python -m cloche_engine.crops.build`. Run again after any change to them."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

import numpy as np

from cloche_engine.crops import knots, raising, table
from cloche_engine.crops.curves import FIELD_FACTOR, ShareCurve
from cloche_engine.crops.table import Row
from cloche_engine.quantities import celsius_from_fahrenheit

HARRINGTON = "Harrington and Minges 1954, from memory"
CONDITIONS = "Harrington in Knott's Handbook, from memory"
BIERHUIZEN = "Bierhuizen and Wagenvoort 1974, from memory"
ASSUMPTION = "assumption"
PRACTICE = "common practice, no source"

TABLE_NAME = {"corn_salad": "corn salad", "broad_bean": "broad bean", "snap_bean": "snap bean"}
LEAST_IN_COMFORT = 0.6
"""Of a crop's best share, what comes up at least everywhere in its own ideal range."""
TUBER_D = 20.0
SPROUT_EDGE_K = 3.0
"""What is planted rather than sown shoots within this much of its printed limits, at their pace inside them (assumption)."""


def build() -> dict[str, Any]:
    """Build the whole catalogue in the order of crops.csv.

    Raises
    ------
    BadTable
        Where a row says what cannot be; the message names row and column.
    """
    conditions = {row["crop"]: row for row in knots.rows("conditions_f.csv")}
    entries: dict[str, Any] = {}
    for key, row in table.crops().items():
        if row["of"]:
            entry = _wintering(row, entries[row["of"]])
        else:
            entry = _crop(row, conditions) | raising.raised(row) | raising.of(row)
        entries[key] = entry | _names(entry, row)
    return entries


def _names(entry: dict[str, Any], row: Row) -> dict[str, Any]:
    """Return the singular and plural names in American and British English."""
    usual = [entry["name"], entry["name_plural"]]
    return {side: [row[side], row[f"{side}_plural"]] if row[side] else usual for side in ("american", "british")}


def _wintering(row: Row, of: dict[str, Any]) -> dict[str, Any]:
    """Return the overwintered form of a crop.

    It is sown from the same seed and has its own time to harvest, counted from the return of the light.
    """
    winter = {name: row[name] for name in ("plant_below_c", *table.WINTERING)}
    method = "planted" if of["usual_method"] == "planted" else "direct"
    names = {"name": row["name"], "name_plural": row["name_plural"]}
    return of | names | {"winter": winter, "usual": False, "usual_method": method}


def _crop(row: Row, conditions: dict[str, dict[str, str]]) -> dict[str, Any]:
    printed = TABLE_NAME.get(row["key"], row["key"].replace("_", " "))
    advice = _advice(row, printed, conditions)
    heat_sum = knots.heat_sums().get(printed)
    return {
        "name": row["name"],
        "name_plural": row["name_plural"],
        "botanical_name": row["botanical_name"],
        "family": row["family"],
        "usual": row["usual"],
        "start": row["start"],
        **advice,
        **_rates(row, printed, advice),
        **_share(row, printed, advice),
        "spread_log_sd": row["spread_log_sd"],
        "field_times": row["field_times"],
        "heat_sum": heat_sum and {"base_c": heat_sum.base_c, "heat_sum_cd": heat_sum.heat_sum_cd, "source": BIERHUIZEN},
        "usual_method": row["method"],
        "sowing_depth_m": row["sowing_depth_m"],
        "hardiness": row["hardiness"],
        "frost_limit_c": row["frost_limit_c"],
        "maturity_d": row["maturity_d"],
        "heat_limit_c": row["heat_limit_c"],
        "row_m": row["row_m"],
        "plant_m": row["plant_m"],
        "per_station": row["per_station"],
        "raise_weeks": row["raise_weeks"],
        "season": row["season"],
        "light": row["light"],
        "height_m": row["height_m"],
        "winter": None,
        "growing_source": PRACTICE,
    }


def _advice(row: Row, printed: str, conditions: dict[str, dict[str, str]]) -> dict[str, Any]:
    """Return the published advice of a crop, or else what was decided for it, or else that of its nearest relative."""
    columns = ("minimum", "optimum_from", "optimum_to", "optimum", "maximum")
    own, kin = conditions.get(printed), conditions.get(row["kin"])
    if own:
        values, source = [float(own[f"{c}_f"]) for c in columns], CONDITIONS
    elif row["minimum_f"] is not None:
        values = [row[column] for column in table.OPTIMUM_F]
        source = PRACTICE if row["sprout_d"] else f"{ASSUMPTION}: as its nearest relatives"
    elif kin:
        values, source = [float(kin[f"{c}_f"]) for c in columns], f"{ASSUMPTION}: as {row['kin']} ({CONDITIONS})"
    else:
        raise LookupError(f"{row['key']}: no conditions, no decision, no kin")
    if row["sown_from_f"] is not None:
        # Growers sow well below the printed minimum, as the days table bears out (common practice, no source).
        values[0] = row["sown_from_f"]
        source = f"{source}; the minimum as growers sow ({PRACTICE})"
    return {f"{c}_c": celsius_from_fahrenheit(v) for c, v in zip(columns, values, strict=True)} | {"advice_source": source}


def _rates(row: Row, printed: str, advice: dict[str, Any]) -> dict[str, Any]:
    if row["start"] == "tuber":
        rates = [(c, rate * FIELD_FACTOR * TUBER_D / row["sprout_d"]) for c, rate in knots.TUBER_RATES]
        return {"rate_knots_c_per_d": rates, "rate_source": f"{PRACTICE}: 35 days to shoots at 8 °C, 24 at 12, 16 at 18"}
    if row["sprout_d"]:
        # Told of garden soil, unlike the tables' laboratory.
        points = knots.sprout_knots(row["sprout_d"] / FIELD_FACTOR, advice["minimum_c"], advice["maximum_c"], SPROUT_EDGE_K)
        return {
            "rate_knots_c_per_d": points,
            "rate_source": f"{PRACTICE}: {row['sprout_d']:g} days to shoots in soil that suits it",
        }
    named = row["rates_from"] or (row["kin"] if printed not in knots.heat_sums() else "") or printed
    own = named in (row["rates_from"], printed)
    pace = row["pace"]
    heat_sum, days = knots.heat_sums().get(named), knots.decided_days(named)
    if days:
        points = [(c, rate / pace) for c, rate in knots.rate_knots(days, advice["maximum_c"], heat_sum)]
        decided = any(cell["crop"] == named for cell in knots.rows("decided_cells.csv"))
        source = HARRINGTON + ("; contradictory cells decided, see decided_cells.csv" if decided else "")
    elif heat_sum:
        slowed = knots.HeatSum(heat_sum.base_c, heat_sum.heat_sum_cd * pace)
        points = knots.heat_sum_knots(slowed, advice["optimum_c"], advice["maximum_c"])
        source = f"{BIERHUIZEN}; above the optimum an assumption"
    else:
        raise LookupError(f"{row['key']}: no emergence row, no heat sum, no kin")
    if not own:
        times = "" if pace == 1 else f" in {pace:g} times the days"
        source = f"{ASSUMPTION}: as {named}{times} ({source})"
    return {"rate_knots_c_per_d": points, "rate_source": source}


def _share(row: Row, printed: str, advice: dict[str, Any]) -> dict[str, Any]:
    if row["sprout_d"]:
        edges = (advice["minimum_c"], advice["maximum_c"])
        points = [(edges[0] - SPROUT_EDGE_K, 0.0), (edges[0], 1.0), (edges[1], 1.0), (edges[1] + SPROUT_EDGE_K, 0.0)]
        source = f"{ASSUMPTION}: all of them where they shoot"
        if row["start"] == "tuber":
            points, source = knots.TUBER_SHARES, f"{PRACTICE}: what lies cold waits, in hot soil seed pieces rot"
        return {"share_knots_c": points, "share_source": source}
    for named in (printed, row["kin"]):
        if published := knots.published_share(named):
            source = HARRINGTON if named == printed else f"{ASSUMPTION}: as {named} ({HARRINGTON})"
            points = sorted((dict(knots.relative_share(published)) | knots.decided_shares(named)).items())
            if named != printed and _least_in(points, advice) < LEAST_IN_COMFORT:
                # A relative's share that contradicts the crop's own range is not its own.
                break
            if knots.decided_shares(named):
                source += "; cells that are noise decided, see decided_shares.csv"
            return {"share_knots_c": points, "share_source": source}
    optimum = (advice["optimum_from_c"], advice["optimum_to_c"])
    points = knots.advised_share(advice["minimum_c"], optimum, advice["maximum_c"])
    return {"share_knots_c": points, "share_source": f"{ASSUMPTION}: full inside the optimum range, half at its limits"}


def _least_in(points: list[tuple[float, float]], advice: dict[str, Any]) -> float:
    curve = ShareCurve.through(points)
    return float(curve.at(np.linspace(advice["optimum_from_c"], advice["optimum_to_c"], 40)).min())


def main() -> None:
    """Write the catalogue next to the tables."""
    target = Path(str(knots.DATA / "catalogue.json"))
    catalogue = build()
    target.write_text(json.dumps(catalogue, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
    sys.stdout.write(f"{len(catalogue)} crops written to {target.name}\n")


if __name__ == "__main__":
    main()
