"""From published tables to the knots of a crop's rate and share curves.

Only the building of the catalogue uses this; the application reads the built catalogue.
"""

from __future__ import annotations

import csv
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from importlib.resources import files
from typing import TypeAlias

DATA = files("cloche_engine.crops") / "data"
Days: TypeAlias = dict[float, float | None]
"""Days to emergence by soil temperature [°C]; None: tried, nothing came up."""


def rows(name: str) -> list[dict[str, str]]:
    """Return the rows of one shipped table as text.

    Parameters
    ----------
    name : str
        File name of the table.
    """
    return list(csv.DictReader((DATA / name).read_text(encoding="utf-8").splitlines()))


def published_days(crop: str) -> Days:
    """Return the published days to emergence of one crop, in whole days [Harrington1954].

    Parameters
    ----------
    crop : str
        Name of the crop in the published tables.

    References
    ----------
    Harrington1954: see :doc:`/sources`.
    """
    return _days(row for row in rows("emergence_days.csv") if row["crop"] == crop)


def decided_days(crop: str) -> Days:
    """Return the published days with known decimals and with contradictions settled (decided_cells.csv).

    Parameters
    ----------
    crop : str
        Name of the crop in the published tables.
    """
    days = published_days(crop)
    for table in ("emergence_days_decimal.csv", "decided_cells.csv"):
        days |= _days(row for row in rows(table) if row["crop"] == crop)
    return dict(sorted(days.items()))


def published_share(crop: str) -> dict[float, float]:
    """Return the fraction of normal seedlings by soil temperature, 0-1 [Harrington1954].

    Parameters
    ----------
    crop : str
        Name of the crop in the published tables.

    References
    ----------
    Harrington1954: see :doc:`/sources`.
    """
    table = [row for row in rows("normal_seedlings_percent.csv") if row["crop"] == crop]
    return {float(row["soil_temp_c"]): float(row["percent"]) / 100 for row in table}


def decided_shares(crop: str) -> dict[float, float]:
    """Return the replacements for values that are noise, relative to the table's best (decided_shares.csv).

    Parameters
    ----------
    crop : str
        Name of the crop in the published tables.
    """
    return {float(row["soil_temp_c"]): float(row["share"]) for row in rows("decided_shares.csv") if row["crop"] == crop}


@dataclass(frozen=True)
class HeatSum:
    """Base temperature [°C] and heat sum [°C d] to half emergence, below the optimum [Bierhuizen1974]."""

    base_c: float
    heat_sum_cd: float

    def days_at(self, temperature_c: float) -> float:
        """Return the days to half emergence, valid above base_c and below the optimum.

        Parameters
        ----------
        temperature_c : float
            Temperature [°C].
        """
        return self.heat_sum_cd / (temperature_c - self.base_c)


def heat_sums() -> dict[str, HeatSum]:
    """Return the heat sums of the second, independent source by the crop's name there."""
    return {
        row["crop"]: HeatSum(float(row["base_temp_c"]), float(row["heat_sum_degree_days_c"])) for row in rows("heat_sums.csv")
    }


def rate_knots(days: Days, maximum_c: float, heat_sum: HeatSum | None) -> list[tuple[float, float]]:
    """Return knots (temperature [°C], rate [1/d]) through every published value.

    Beyond the table: a crop that moves at 0 °C stops at -1; otherwise the cold end runs straight to the heat-sum base where no
    colder cell was tried; the hot end stops 5 K above the last cell or at the published maximum, whichever is higher
    (assumption).

    Parameters
    ----------
    days : Days
        Days to emergence by soil temperature.
    maximum_c : float
        Published maximum [°C].
    heat_sum : HeatSum | None
        Base temperature and heat sum; None: not known.
    """
    knots = [(c, 0.0 if d is None else 1.0 / d) for c, d in sorted(days.items())]
    coldest_c, coldest_rate = knots[0]
    if coldest_rate > 0:
        knots.insert(0, (_cold_end(coldest_c, coldest_rate, knots[1], heat_sum), 0.0))
    hottest_c, hottest_rate = knots[-1]
    if hottest_rate > 0:
        knots.append((max(hottest_c + 5.0, maximum_c), 0.0))
    return knots


def _cold_end(coldest_c: float, rate: float, next_knot: tuple[float, float], heat_sum: HeatSum | None) -> float:
    if coldest_c <= 0:
        return -1.0
    if heat_sum and heat_sum.base_c < coldest_c:
        return heat_sum.base_c
    slope = (next_knot[1] - rate) / (next_knot[0] - coldest_c)
    return max(coldest_c - rate / slope, coldest_c - 5.0)


def heat_sum_knots(heat_sum: HeatSum, optimum_c: float, maximum_c: float) -> list[tuple[float, float]]:
    """Return knots for a crop with a heat sum only (assumption).

    The rate rises linearly to the optimum, stays constant for 5 K and then falls to zero.

    Parameters
    ----------
    heat_sum : HeatSum
        Base temperature and heat sum.
    optimum_c : float
        Published optimum [°C].
    maximum_c : float
        Published maximum [°C].
    """
    fastest = 1.0 / heat_sum.days_at(optimum_c)
    middle_c = (heat_sum.base_c + optimum_c) / 2
    cold_side = [(heat_sum.base_c, 0.0), (middle_c, 1.0 / heat_sum.days_at(middle_c)), (optimum_c, fastest)]
    return [*cold_side, (min(optimum_c + 5.0, maximum_c - 2.5), fastest), (maximum_c, 0.0)]


TUBER_RATES = [(2.0, 0.0), (8.0, 1 / 35), (12.0, 1 / 24), (18.0, 1 / 16), (24.0, 1 / 14), (29.0, 1 / 17), (34.0, 0.0)]
"""Shoots of planted tubers in garden soil by its temperature [°C, 1/d] (common practice, no source)."""

TUBER_SHARES = [(0.0, 1.0), (22.0, 1.0), (27.0, 0.4), (31.0, 0.0)]


def sprout_knots(days: float, minimum_c: float, maximum_c: float, edge_k: float) -> list[tuple[float, float]]:
    """Return knots for sets, cloves and tubers: a constant number of days within their limits, none outside.

    Parameters
    ----------
    days : float
        Days until they shoot.
    minimum_c : float
        Published minimum [°C].
    maximum_c : float
        Published maximum [°C].
    edge_k : float
        How far beyond its limits it still moves [K].
    """
    return [(minimum_c - edge_k, 0.0), (minimum_c, 1.0 / days), (maximum_c, 1.0 / days), (maximum_c + edge_k, 0.0)]


def relative_share(share: Mapping[float, float]) -> list[tuple[float, float]]:
    """Return the fraction that emerges by temperature, relative to the table's best value.

    A low best cell (eggplant 60 %) tells of a poor lot, not of the crop.

    Parameters
    ----------
    share : Mapping[float, float]
        Share by soil temperature [°C].
    """
    best = max(share.values())
    return [(c, value / best) for c, value in sorted(share.items())]


def advised_share(minimum_c: float, optimum: tuple[float, float], maximum_c: float) -> list[tuple[float, float]]:
    """Return the curve of a crop without published percentages (assumption).

    It is 1 within the optimum range and one half at the limits.

    Parameters
    ----------
    minimum_c : float
        Published minimum [°C].
    optimum : tuple[float, float]
        Ends of the published optimum range [°C].
    maximum_c : float
        Published maximum [°C].
    """
    knots: dict[float, float] = {minimum_c - 4.0: 0.2, minimum_c: 0.5}
    knots |= {optimum[0]: 1.0, optimum[1]: 1.0}
    if maximum_c > optimum[1]:
        knots[maximum_c] = 0.5
    return sorted((knots | {maximum_c + 4.0: 0.0}).items())


def _days(table: Iterable[dict[str, str]]) -> Days:
    return {
        float(row["soil_temp_c"]): None if row["days_to_emergence"] == "none" else float(row["days_to_emergence"])
        for row in table
    }
