"""The catalogue: every crop with its curves, limits and where each value comes from."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from cloche.core.crops.knots import HeatSum
from cloche.core.errors import UnknownCrop
from cloche.core.germination.curves import RateCurve, ShareCurve

Method = Literal["direct", "raised", "either", "planted"]
Start = Literal["seed", "set", "clove", "tuber"]
Light = Literal["light", "dark", "either"]
Season = Literal["cool", "warm"]
Hardiness = Literal["hardy", "half-hardy", "tender"]

HALF_A_DEGREE_F = 0.5 / 1.8
"""The advice is printed in whole °F: a soil within half a degree of a printed limit meets it [K]."""


@dataclass(frozen=True)
class Crop:
    """One crop. Temperatures of the soil at sowing depth [°C] unless named otherwise; every source is a sentence.

    usual: grown by nearly everyone, shown until a garden has chosen its own. rate, share: of seed; what is planted shoots by
    soil temperature alone. maturity_d: from emergence. row_m, plant_m: between rows and plants; per_station: seeds put
    together; raise_weeks: from sowing on the bench to planting out, 0 where that is not done. light: what germination wants.
    """

    key: str
    name: str
    name_plural: str
    botanical_name: str
    family: str
    usual: bool
    start: Start
    minimum_c: float
    optimum_from_c: float
    optimum_to_c: float
    optimum_c: float
    maximum_c: float
    advice_source: str
    rate: RateCurve
    rate_source: str
    share: ShareCurve
    share_source: str
    spread_log_sd: float
    heat_sum: HeatSum | None
    heat_sum_source: str
    method: Method
    sowing_depth_m: float
    hardiness: Hardiness
    frost_limit_c: float
    maturity_d: float
    heat_limit_c: float | None
    row_m: float
    plant_m: float
    per_station: int
    raise_weeks: float
    season: Season
    light: Light
    height_m: float
    growing_source: str

    @property
    def sown_direct(self) -> bool:
        """Whether growers put it into the ground in place, at least some of them."""
        return self.method != "raised"

    def awake_at(self, temperature_c: float) -> bool:
        """Whether this soil meets the printed minimum and does not pass the printed maximum."""
        return self.minimum_c - HALF_A_DEGREE_F <= temperature_c <= self.maximum_c + HALF_A_DEGREE_F

    def comfortable_at(self, temperature_c: float) -> bool:
        """Whether this soil lies inside the printed optimum range."""
        return self.optimum_from_c - HALF_A_DEGREE_F <= temperature_c <= self.optimum_to_c + HALF_A_DEGREE_F


@cache
def catalogue() -> dict[str, Crop]:
    """All crops by key, in catalogue order. Read once."""
    text = (files("cloche.core.crops") / "data" / "catalogue.json").read_text(encoding="utf-8")
    return {key: _crop(key, entry) for key, entry in json.loads(text).items()}


def crop(key: str) -> Crop:
    """One crop; raises UnknownCrop."""
    try:
        return catalogue()[key]
    except KeyError:
        raise UnknownCrop(f"There is no crop “{key}” in the catalogue.") from None


def _crop(key: str, entry: dict[str, Any]) -> Crop:
    values = dict(entry)
    heat_sum = values.pop("heat_sum")
    return Crop(
        key=key,
        rate=RateCurve.through(values.pop("rate_knots_c_per_d")),
        share=ShareCurve.through(values.pop("share_knots_c")),
        heat_sum=HeatSum(heat_sum["base_c"], heat_sum["heat_sum_cd"]) if heat_sum else None,
        heat_sum_source=heat_sum["source"] if heat_sum else "",
        **values,
    )
