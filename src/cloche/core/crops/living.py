"""A crop's life from emergence to harvest, where its row is silent, the rule of its season (assumptions)."""

from __future__ import annotations

from typing import Any

from cloche.core.crops.table import Row

CARDINAL_C = {"cool": (2.0, 18.0, 31.0, 14.0), "warm": (9.0, 27.0, 40.0, 20.0)}
"""Day's mean air at which growth begins, is best and ends, and for which days to harvest are printed [°C] (assumption, within
what handbooks give for each season)."""
NAMES = ("begins_c", "best_c", "ends_c", "printed_c")


def of(row: Row) -> dict[str, Any]:
    """The catalogue's entries about growth; a row's frost limit of grown plants and years of keeping overrule other rules'.

    Parameters
    ----------
    row : Row
        A crop's row of the table.

    Returns
    -------
    dict[str, Any]
    """
    cardinal = dict(zip(NAMES, CARDINAL_C[row["season"]], strict=True))
    own = {name: row[name] for name in NAMES if row[name] is not None}
    chill = {"below_c": row["chill_c"], "days": row["chill_d"], "within_d": row["chill_within_d"]}
    life = {
        **(cardinal | own),
        "flower_frost_c": row["flower_frost_c"],
        "chill": None if row["chill_c"] is None else chill,
        "long_days": row["long_days"],
        "bulb_lead_d": row["bulbs"],
        "regrows": row["regrows"],
        "perennial": row["perennial"],
    }
    overruled = {"frost_grown_c": row["grown_frost_c"], "keeps_y": row["keeps_y"]}
    return {"life": life} | {name: value for name, value in overruled.items() if value is not None}
