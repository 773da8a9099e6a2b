"""Builds data/catalogue.json from the tables: `python -m cloche.core.crops.build`. Run again after any change to them."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

import numpy as np

from cloche.core.crops import knots, living, raising
from cloche.core.germination.curves import ShareCurve
from cloche.core.germination.steady import FIELD_FACTOR
from cloche.core.quantities import celsius_from_fahrenheit

HARRINGTON = "Harrington and Minges 1954, from memory"
CONDITIONS = "Harrington in Knott's Handbook, from memory"
BIERHUIZEN = "Bierhuizen and Wagenvoort 1974, from memory"
ASSUMPTION = "assumption"
PRACTICE = "common practice, no source"

TABLE_NAME = {"corn_salad": "corn salad", "broad_bean": "broad bean", "snap_bean": "snap bean"}
SPREAD = {
    # Sources disagree by 1.7 to 4 times: the time to emerge is spread wider.
    "onion": 0.35, "muskmelon": 0.35, "watermelon": 0.35,
    # Known to come up over a long time (common practice, no source).
    "parsnip": 0.28, "celery": 0.28, "parsley": 0.28, "carrot": 0.22, "pepper": 0.22, "beet": 0.22, "spinach": 0.22,
}  # fmt: skip
USUAL_SPREAD = 0.15
FIELD_TIMES = {"onion": 2.1, "lettuce": 1.45, "snap bean": 0.85, "pea": 0.85}
"""The published rows have onions up twice as fast as the heat sums, lettuce half as fast again, beans and peas a sixth slower;
gardens side with the heat sums (common practice, no source): 219 degree days above 1.4 °C, 71 above 3.5 °C
[Bierhuizen1974]."""
PRACTICAL_MINIMUM_F = {"snap_bean": 54, "climbing_bean": 54, "runner_bean": 52, "soybean": 52}
"""Growers sow well below the printed minimum, as the days table bears out (common practice, no source)."""
ADVISED = {
    # minimum, optimum from, to, optimum, maximum in °F where the conditions table has no row and kin will not do (assumption)
    "broad_bean": (40, 45, 75, 70, 85),
    "kale": (40, 45, 95, 85, 100),
    "leek": (35, 50, 75, 70, 86),
    "endive": (35, 40, 80, 75, 85),
    "corn_salad": (35, 40, 68, 60, 80),
    "basil": (60, 65, 90, 80, 100),
    "purslane": (60, 70, 95, 85, 105),
    "new_zealand_spinach": (50, 60, 85, 75, 95),
    "chicory": (40, 45, 80, 75, 90),
    "radicchio": (40, 45, 80, 75, 88),
    "potato_first_early": (45, 50, 70, 65, 85),
    "potato_second_early": (45, 50, 70, 65, 85),
    "potato_maincrop": (45, 50, 70, 65, 85),
    "jerusalem_artichoke": (40, 50, 75, 65, 90),
    "onion_sets": (35, 45, 80, 70, 95),
    "shallot_sets": (35, 45, 80, 70, 95),
    "garlic": (33, 40, 70, 60, 90),
    "sweet_potato": (60, 65, 95, 80, 105),
    "swede": (40, 50, 84, 75, 95),
    "cowpea": (60, 75, 95, 90, 104),
    "winter_squash": (60, 70, 95, 90, 100),
    "coriander": (45, 55, 70, 65, 82),
    "chickpea": (40, 50, 80, 70, 95),
    "lentil": (38, 45, 78, 68, 90),
    "nasturtium": (48, 55, 75, 65, 85),
    "buckwheat": (45, 55, 90, 78, 100),
}
LEAST_IN_COMFORT = 0.6
"""Of a crop's best share, what comes up at least everywhere in its own ideal range."""
TUBER_D = 20.0
SPROUT_EDGE_K = 3.0
"""What is planted rather than sown shoots within this much of its printed limits, at their pace inside them (assumption)."""


def build() -> dict[str, Any]:
    """The whole catalogue, crop by crop in the order of growing.csv."""
    conditions = {row["crop"]: row for row in knots.rows("conditions_f.csv")}
    spacing = {row["key"]: row for row in knots.rows("standing.csv")}
    planting = {row["key"]: row for row in knots.rows("planting.csv")}
    lives = {row["key"]: row for row in knots.rows("life.csv")}
    found = {}
    for row in knots.rows("growing.csv"):
        key = row["key"]
        stages = raising.raised(row, spacing[key], planting.get(key, {}))
        found[key] = _crop(row, spacing[key], conditions) | stages | living.of(lives.get(key, {}), spacing[key]["season"])
    found |= {row["key"]: _wintering(row, found[row["of"]]) for row in knots.rows("wintering.csv")}
    names = {row["key"]: row for row in knots.rows("names.csv")}
    return {key: entry | _names(entry, names.get(key)) for key, entry in found.items()}


def _names(entry: dict[str, Any], row: dict[str, str] | None) -> dict[str, Any]:
    """One and many, as Americans and as Britons say it."""
    usual = [entry["name"], entry["name_plural"]]
    return {side: [row[side], row[f"{side}_plural"]] if row else usual for side in ("american", "british")}


def _wintering(row: dict[str, str], of: dict[str, Any]) -> dict[str, Any]:
    """The same seed put in to stand the winter; from the light's return it has its own time to harvest."""
    winter = {
        "plant_below_c": float(row["plant_below_c"]) if row["plant_below_c"] else None,
        **{name: float(row[name]) for name in ("grown_from_d", "grown_to_d", "winter_limit_c", "ripe_weeks")},
        "rooted": row["rooted"] == "yes",
    }
    method = "planted" if of["usual_method"] == "planted" else "direct"
    names = {"name": row["name"], "name_plural": row["name_plural"]}
    return of | names | {"winter": winter, "usual": False, "usual_method": method}


def _crop(row: dict[str, str], spacing: dict[str, str], conditions: dict[str, dict[str, str]]) -> dict[str, Any]:
    table = TABLE_NAME.get(row["key"], row["key"].replace("_", " "))
    advice = _advice(row, table, conditions)
    heat_sum = knots.heat_sums().get(table)
    return {
        "name": row["name"],
        "name_plural": row["name_plural"],
        "botanical_name": row["botanical_name"],
        "family": row["family"],
        "usual": row["usual"] == "yes",
        "start": row["start"],
        **advice,
        **_rates(row, table, advice),
        **_share(row, table, advice),
        "spread_log_sd": _spread(row),
        "field_times": FIELD_TIMES.get(row["rates_from"] or row["kin"], 1.0),
        "heat_sum": heat_sum and {"base_c": heat_sum.base_c, "heat_sum_cd": heat_sum.heat_sum_cd, "source": BIERHUIZEN},
        "usual_method": row["method"],
        "sowing_depth_m": float(row["sowing_depth_m"]),
        "hardiness": row["hardiness"],
        "frost_limit_c": float(row["frost_limit_c"]),
        "maturity_d": float(row["maturity_d"]),
        "heat_limit_c": float(row["heat_limit_c"]) if row["heat_limit_c"] else None,
        "row_m": float(spacing["row_m"]),
        "plant_m": float(spacing["plant_m"]),
        "per_station": int(spacing["per_station"]),
        "raise_weeks": float(spacing["raise_weeks"]),
        "season": spacing["season"],
        "light": spacing["light"],
        "height_m": float(spacing["height_m"]),
        "winter": None,
        "growing_source": PRACTICE,
    }


def _spread(row: dict[str, str]) -> float:
    return SPREAD.get(row["key"]) or SPREAD.get(row["kin"], USUAL_SPREAD)


def _advice(row: dict[str, str], table: str, conditions: dict[str, dict[str, str]]) -> dict[str, Any]:
    """Its own published row, else what was decided for it, else its kin's row."""
    columns = ("minimum", "optimum_from", "optimum_to", "optimum", "maximum")
    own, kin = conditions.get(table), conditions.get(row["kin"])
    if own:
        values, source = [float(own[f"{c}_f"]) for c in columns], CONDITIONS
    elif row["key"] in ADVISED:
        values = [float(v) for v in ADVISED[row["key"]]]
        source = PRACTICE if row["sprout_d"] else f"{ASSUMPTION}: as its nearest relatives"
    elif kin:
        values, source = [float(kin[f"{c}_f"]) for c in columns], f"{ASSUMPTION}: as {row['kin']} ({CONDITIONS})"
    else:
        raise LookupError(f"{row['key']}: no conditions, no decision, no kin")
    if row["key"] in PRACTICAL_MINIMUM_F:
        values[0] = PRACTICAL_MINIMUM_F[row["key"]]
        source = f"{source}; the minimum as growers sow ({PRACTICE})"
    return {f"{c}_c": celsius_from_fahrenheit(v) for c, v in zip(columns, values, strict=True)} | {"advice_source": source}


def _rates(row: dict[str, str], table: str, advice: dict[str, Any]) -> dict[str, Any]:
    if row["start"] == "tuber":
        rates = [(c, rate * FIELD_FACTOR * TUBER_D / float(row["sprout_d"])) for c, rate in knots.TUBER_RATES]
        return {"rate_knots_c_per_d": rates, "rate_source": f"{PRACTICE}: 35 days to shoots at 8 °C, 24 at 12, 16 at 18"}
    if row["sprout_d"]:
        # Told of garden soil, unlike the tables' laboratory.
        points = knots.sprout_knots(
            float(row["sprout_d"]) / FIELD_FACTOR, advice["minimum_c"], advice["maximum_c"], SPROUT_EDGE_K
        )
        return {
            "rate_knots_c_per_d": points,
            "rate_source": f"{PRACTICE}: {row['sprout_d']} days to shoots in soil that suits it",
        }
    named = row["rates_from"] or (row["kin"] if table not in knots.heat_sums() else "") or table
    own = named in (row["rates_from"], table)
    pace = float(row["pace"])
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


def _share(row: dict[str, str], table: str, advice: dict[str, Any]) -> dict[str, Any]:
    if row["sprout_d"]:
        edges = (advice["minimum_c"], advice["maximum_c"])
        points = [(edges[0] - SPROUT_EDGE_K, 0.0), (edges[0], 1.0), (edges[1], 1.0), (edges[1] + SPROUT_EDGE_K, 0.0)]
        source = f"{ASSUMPTION}: all of them where they shoot"
        if row["start"] == "tuber":
            points, source = knots.TUBER_SHARES, f"{PRACTICE}: what lies cold waits, in hot soil seed pieces rot"
        return {"share_knots_c": points, "share_source": source}
    for named in (table, row["kin"]):
        if published := knots.published_share(named):
            source = HARRINGTON if named == table else f"{ASSUMPTION}: as {named} ({HARRINGTON})"
            points = sorted((dict(knots.relative_share(published)) | knots.decided_shares(named)).items())
            if named != table and _least_in(points, advice) < LEAST_IN_COMFORT:
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
    """Write the catalogue beside the tables."""
    target = Path(str(knots.DATA / "catalogue.json"))
    catalogue = build()
    target.write_text(json.dumps(catalogue, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
    sys.stdout.write(f"{len(catalogue)} crops written to {target.name}\n")


if __name__ == "__main__":
    main()
