"""The table of crops: one row a crop, with all that is not taken from a published table."""

from __future__ import annotations

from functools import cache
from typing import Any, TypeAlias

from cloche_engine import tables
from cloche_engine.tables import BadTable, anything, number, one_of, or_none, text, yes_or_no

Row: TypeAlias = dict[str, Any]
"""A crop's values by column; None where the cell is empty and a rule or a published table has it."""
FAHRENHEIT, CELSIUS, FROST, DAYS = number(20, 130), number(-5, 60), number(-50, 10), number(0, 400)
METRES, SHORT_M = number(0.02, 5), number(0, 0.3)
OPTIMUM_F = ("minimum_f", "optimum_from_f", "optimum_to_f", "optimum_f", "maximum_f")
COLUMNS: dict[str, tables.Check] = {
    "key": text,
    "of": anything,
    "name": text,
    "name_plural": text,
    "american": anything,
    "american_plural": anything,
    "british": anything,
    "british_plural": anything,
    "botanical_name": anything,
    "family": anything,
    "usual": or_none(yes_or_no),
    "start": one_of("seed", "set", "clove", "tuber", ""),
    "method": one_of("direct", "either", "raised", "planted", ""),
    "season": one_of("cool", "warm", ""),
    "sowing_depth_m": or_none(SHORT_M),
    "light": one_of("light", "either", "dark", ""),
    "row_m": or_none(METRES),
    "plant_m": or_none(METRES),
    "per_station": or_none(int),
    "height_m": or_none(METRES),
    "raise_weeks": or_none(number(0, 30)),
    "rates_from": anything,
    "kin": anything,
    "pace": or_none(number(0.2, 5)),
    "sprout_d": or_none(DAYS),
    "spread_log_sd": or_none(number(0.02, 1)),
    "field_times": or_none(number(0.2, 5)),
    **dict.fromkeys((*OPTIMUM_F, "sown_from_f"), or_none(FAHRENHEIT)),
    "hardiness": one_of("hardy", "half-hardy", "tender", ""),
    "frost_limit_c": or_none(FROST),
    "maturity_d": or_none(DAYS),
    "heat_limit_c": or_none(CELSIUS),
    "germinate_c": or_none(CELSIUS),
    "grow_on_c": or_none(CELSIUS),
    "plant_soil_c": or_none(CELSIUS),
    "plant_night_c": or_none(CELSIUS),
    "setback_d": or_none(DAYS),
    "maturity_planted_d": or_none(DAYS),
    "begins_c": or_none(CELSIUS),
    "best_c": or_none(CELSIUS),
    "ends_c": or_none(CELSIUS),
    "printed_c": or_none(CELSIUS),
    "grown_frost_c": or_none(FROST),
    "flower_frost_c": or_none(FROST),
    "chill_c": or_none(CELSIUS),
    "chill_d": or_none(DAYS),
    "chill_within_d": or_none(int),
    "long_days": one_of("bolts", "flowers", ""),
    "bulbs": or_none(DAYS),
    "regrows": one_of("shoots", "below_ground", ""),
    "perennial": or_none(yes_or_no),
    "keeps_y": or_none(int),
    "plant_below_c": or_none(CELSIUS),
    "grown_from_d": or_none(DAYS),
    "grown_to_d": or_none(DAYS),
    "winter_limit_c": or_none(FROST),
    "ripe_weeks": or_none(number(0, 60)),
    "rooted": or_none(yes_or_no),
}
NEEDED: tuple[str, ...] = (
    "botanical_name",
    "family",
    "usual",
    "start",
    "method",
    "season",
    "sowing_depth_m",
    "light",
    "row_m",
    "plant_m",
)
NEEDED += ("per_station", "height_m", "raise_weeks", "pace", "spread_log_sd", "field_times", "hardiness", "frost_limit_c")
NEEDED += ("maturity_d", "perennial")
"""Of a crop of its own kind."""
WINTERING = ("grown_from_d", "grown_to_d", "winter_limit_c", "ripe_weeks", "rooted")
"""Of one that is another's seed (`of`), put in to stand the winter: all else is that crop's."""


@cache
def crops() -> dict[str, Row]:
    """Return all rows by key in the order of the file. Raises BadTable with row and column."""
    return checked(tables.rows("cloche_engine.crops", "crops.csv", COLUMNS))


def checked(rows: dict[str, Row]) -> dict[str, Row]:
    """Return the rows after checking that required values are present and consistent.

    Parameters
    ----------
    rows : dict[str, Row]
        Rows by key.
    """
    for key, row in rows.items():
        for column in WINTERING if row["of"] else NEEDED:
            if row[column] in (None, ""):
                raise BadTable(f"crops.csv, row {key}, column {column}: it is empty.")
        if row["of"] and row["of"] not in rows:
            raise BadTable(f"crops.csv, row {key}, column of: there is no crop “{row['of']}”.")
        if len({row[column] is None for column in OPTIMUM_F}) > 1:
            raise BadTable(f"crops.csv, row {key}, column {OPTIMUM_F[0]}: the five in °F are given together or not at all.")
    return rows
