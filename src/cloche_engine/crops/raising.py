"""How long plants are raised, grow and stand, from their table."""

from __future__ import annotations

from typing import Any

from cloche_engine.crops.table import Row

NIGHTS_C = {"hardy": -2.0, "half-hardy": 2.0, "tender": 10.0}
SOIL_C = {"hardy": 6.0, "half-hardy": 8.0, "tender": 14.0}
"""Least mean night and least soil at the roots that a hardened plant is set out into [°C]."""
BENCH_C = {"cool": (18.0, 13.0), "warm": (24.0, 18.0)}
"""Soil on the bench to germinate in, and air to grow on in [°C]."""
HARDENED_K = {"hardy": 2.0, "half-hardy": 1.0, "tender": 0.0}
"""How much more frost a hardened plant stands than a seedling [K]."""
GROWN_K = {"hardy": 3.0, "half-hardy": 1.0, "tender": 0.0}
SETBACK_D, ROOTS_SETBACK_D = 5.0, 12.0
DISLIKES_MOVING = {"cucurbits", "legumes", "umbellifers", "beets", "grasses"}
HEAD_START = 0.8
"""Days on the bench count for this share of days in the bed: less light, smaller roots."""
LEAST_SHARE_OUT = 0.4
HARDEN_D = 8
KEEPS_Y = {
    "alliums": 2, "umbellifers": 2, "legumes": 3, "daisies": 5, "brassicas": 5, "beets": 4, "cucurbits": 5,
    "nightshades": 4, "grasses": 2, "mints": 4, "asparagus": 3, "mallows": 2,
}  # fmt: skip
"""Years that seed of a family keeps well in a cool dry place (longevity tables of handbooks, from memory)."""
USUAL_KEEPS_Y = 3


def raised(row: Row) -> dict[str, Any]:
    """Return the catalogue entries about raising, planting out and hardiness by stage.

    Parameters
    ----------
    row : Row
        A crop's row of the table.
    """
    hardiness, frost_c = row["hardiness"], row["frost_limit_c"]
    grown_d = row["maturity_d"]
    germinate_c, grow_on_c = BENCH_C[row["season"]]
    by_rule = {
        "germinate_c": germinate_c,
        "grow_on_c": grow_on_c,
        "plant_soil_c": SOIL_C[hardiness],
        "plant_night_c": NIGHTS_C[hardiness],
        "setback_d": ROOTS_SETBACK_D if row["family"] in DISLIKES_MOVING else SETBACK_D,
    }
    values = {name: rule if row[name] is None else row[name] for name, rule in by_rule.items()}
    bench_d = HEAD_START * max(row["raise_weeks"] * 7 - 7, 0)
    in_bed_d = max(LEAST_SHARE_OUT * grown_d, grown_d - bench_d + values["setback_d"])
    return values | {
        "maturity_planted_d": round(row["maturity_planted_d"] or in_bed_d),
        "frost_planted_c": frost_c - HARDENED_K[hardiness],
        "frost_grown_c": frost_c - GROWN_K[hardiness],
        "keeps_y": KEEPS_Y.get(row["family"], USUAL_KEEPS_Y),
    }


CARDINAL_C = {"cool": (2.0, 18.0, 31.0, 14.0), "warm": (9.0, 27.0, 40.0, 20.0)}
"""Day's mean air at which growth begins, is best and ends, and for which days to harvest are printed [°C] (assumption, within
what handbooks give for each season)."""
NAMES = ("begins_c", "best_c", "ends_c", "printed_c")


def of(row: Row) -> dict[str, Any]:
    """Return the catalogue entries about growth.

    The frost limit of grown plants and the years a seed keeps replace those of other rules where a row gives them.

    Parameters
    ----------
    row : Row
        A crop's row of the table.
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
