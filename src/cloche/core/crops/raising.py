"""What a crop wants from the bench to the bed, and how hardy it is at each stage: rules of thumb by kind (assumptions).

Where crops.csv says something of a crop, that overrules the rule.
"""

from __future__ import annotations

from typing import Any

from cloche.core.crops.table import Row

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
    """The catalogue's entries about raising, planting out and hardiness by stage.

    Parameters
    ----------
    row : Row
        A crop's row of the table.

    Returns
    -------
    dict[str, Any]
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
