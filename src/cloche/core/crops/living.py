"""A crop's life from emergence to harvest, out of life.csv: where a row is silent, the rule of its season (assumptions)."""

from __future__ import annotations

from typing import Any

CARDINAL_C = {"cool": (2.0, 18.0, 31.0, 14.0), "warm": (9.0, 27.0, 40.0, 20.0)}
"""Day's mean air at which growth begins, is best and ends, and for which days to harvest are printed [°C] (assumption, within
what handbooks give for each season)."""
NAMES = ("begins_c", "best_c", "ends_c", "printed_c")


def of(row: dict[str, str], season: str) -> dict[str, Any]:
    """The catalogue's entries about growth; a row's frost limit of grown plants and years of keeping overrule other rules'."""
    cardinal = dict(zip(NAMES, CARDINAL_C[season], strict=True))
    own = {name: float(row[name]) for name in NAMES if row.get(name)}
    chill = {name: float(row[f"chill_{end}"]) for name, end in (("below_c", "c"), ("days", "d")) if row.get("chill_c")}
    life = {
        **(cardinal | own),
        "flower_frost_c": float(row["flower_frost_c"]) if row.get("flower_frost_c") else None,
        "chill": chill | {"within_d": int(row["chill_within_d"])} if chill else None,
        "long_days": row.get("long_days", ""),
        "bulb_lead_d": float(row["bulbs"]) if row.get("bulbs") else None,
        "regrows": row.get("regrows", ""),
        "perennial": row.get("perennial") == "yes",
    }
    found: dict[str, Any] = {"life": life}
    if row.get("grown_frost_c"):
        found["frost_grown_c"] = float(row["grown_frost_c"])
    if row.get("keeps_y"):
        found["keeps_y"] = int(row["keeps_y"])
    return found
