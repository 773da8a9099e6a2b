"""The catalogue: every crop with its curves, limits and where each value comes from."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from types import MappingProxyType
from typing import Any, Literal

from cloche_engine.crops.curves import RateCurve, ShareCurve
from cloche_engine.crops.knots import HeatSum
from cloche_engine.errors import UnknownCrop

UsualMethod = Literal["direct", "raised", "either", "planted"]
Start = Literal["seed", "set", "clove", "tuber"]
Light = Literal["light", "dark", "either"]
Season = Literal["cool", "warm"]
Hardiness = Literal["hardy", "half-hardy", "tender"]
LongDays = Literal["", "flowers", "bolts"]
Regrows = Literal["", "below_ground", "shoots"]

PRINTED_SOIL_C = {"cool": 15.0, "warm": 21.0}
"""Soil into which packets take their seed to be sown (assumption)."""
HALF_A_DEGREE_F = 0.5 / 1.8
"""The advice is printed in whole °F: a soil within half a degree of a printed limit meets it [K]."""


@dataclass(frozen=True)
class Wintering:
    """How a kind that stands the winter wants to go into it.

    plant_below_c: soil above which it is not yet put in; grown_from_d, grown_to_d: days of full growth wanted before the days
    fall under ten hours; winter_limit_c: coldest night it stands, once rooted; ripe_weeks: from the light's return to harvest;
    rooted: whether roots alone are enough, shoots may come in winter.
    """

    plant_below_c: float | None
    grown_from_d: float
    grown_to_d: float
    winter_limit_c: float
    ripe_weeks: float
    rooted: bool


@dataclass(frozen=True)
class Chill:
    """Cold in youth that makes a plant bolt or button: mean air under below_c [°C] on so many days of the first within_d."""

    below_c: float
    days: float
    within_d: int


@dataclass(frozen=True)
class Life:
    """From emergence to harvest. begins_c, best_c, ends_c: day's mean air at which growth begins, is best and ends [°C];
    printed_c: that of the season for which its days to harvest are printed. flower_frost_c: coldest night for buds, flowers
    and pods. long_days: whether it flowers as it should only in days that lengthen or are long still, or bolts in them.
    bulb_lead_d: days of full growth wanted before the longest days make it bulb. regrows: how it comes back after a frost: it
    shoots anew, or its growing point lies below ground."""

    begins_c: float
    best_c: float
    ends_c: float
    printed_c: float
    flower_frost_c: float | None
    chill: Chill | None
    long_days: LongDays
    bulb_lead_d: float | None
    regrows: Regrows
    perennial: bool


@dataclass(frozen=True)
class Crop:
    """One crop. Temperatures of the soil at sowing depth [°C] unless named otherwise; every source is a sentence.

    usual: grown by nearly everyone, shown until a garden has chosen its own. rate, share: of seed; what is planted shoots by
    soil temperature alone. maturity_d: from emergence, in the season for which it is printed. heat_limit_c: mean daily high
    over the stretch in which it flowers, sets or heads at which half of the harvest is lost. field_times: how many times the
    table's days it is known to take in garden soil, beyond what all seed does. protected: whether it is treated against rot.
    row_m, plant_m: between rows and plants; per_station: seeds put together; raise_weeks: from sowing on the bench to planting
    out, 0 where that is not done; germinate_c, grow_on_c: soil and air on the bench; plant_soil_c, plant_night_c: soil and
    mean night wanted for planting out; setback_d: what the move costs; maturity_planted_d: from planting out. frost_limit_c:
    of seedlings, frost_planted_c of hardened plants, frost_grown_c of grown ones. light: what germination wants. keeps_y:
    years seed keeps well. winter: of kinds that stand the winter."""

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
    usual_method: UsualMethod
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
    germinate_c: float
    grow_on_c: float
    plant_soil_c: float
    plant_night_c: float
    setback_d: float
    maturity_planted_d: float
    frost_planted_c: float
    frost_grown_c: float
    keeps_y: int
    winter: Wintering | None
    growing_source: str
    life: Life
    american: tuple[str, str]
    british: tuple[str, str]
    field_times: float = 1.0
    protected: bool = False

    @property
    def genus(self) -> str:
        """The first of its two botanical names."""
        return self.botanical_name.partition(" ")[0]

    @property
    def other_names(self) -> list[str]:
        """What else it is called, for who looks for it by the other name."""
        return [name for name in dict.fromkeys((self.american[0], self.british[0])) if name != self.name]

    @property
    def maturity_sown_d(self) -> float:
        """Days to harvest as packets count them from sowing, in soil that suits it."""
        return self.maturity_d + self.coming_up_d

    @property
    def coming_up_d(self) -> float:
        """Days until it is up in the soil for which packets are printed: its ideal, as gardens have it in its season."""
        rate = float(self.rate.at(min(max(PRINTED_SOIL_C[self.season], self.optimum_from_c), self.optimum_to_c)))
        return self.field_times / rate if rate > 0 else 0.0

    @property
    def sown_direct(self) -> bool:
        """Whether growers put it into the ground in place, at least some of them."""
        return self.usual_method != "raised"

    @property
    def planted_out(self) -> bool:
        """Whether it may be raised elsewhere and planted out."""
        return self.start == "seed" and self.raise_weeks > 0 and not self.winter

    def awake_at(self, temperature_c: float) -> bool:
        """Whether this soil meets the printed minimum and does not pass the printed maximum.

        Parameters
        ----------
        temperature_c : float
            Temperature [°C].
        """
        return self.minimum_c - HALF_A_DEGREE_F <= temperature_c <= self.maximum_c + HALF_A_DEGREE_F

    def comfortable_at(self, temperature_c: float) -> bool:
        """Whether this soil lies inside the printed optimum range.

        Parameters
        ----------
        temperature_c : float
            Temperature [°C].
        """
        return self.optimum_from_c - HALF_A_DEGREE_F <= temperature_c <= self.optimum_to_c + HALF_A_DEGREE_F


@cache
def catalogue() -> dict[str, Crop]:
    """All crops by key, in catalogue order. Read once."""
    text = (files("cloche_engine.crops") / "data" / "catalogue.json").read_text(encoding="utf-8")
    return {key: _crop(key, entry) for key, entry in json.loads(text).items()}


def crop(key: str, own: Mapping[str, Crop] = MappingProxyType({})) -> Crop:
    """One crop.

    Parameters
    ----------
    key : str
        Its key in the table.
    own : Mapping[str, Crop]
        Crops besides the table's, by their key.

    Raises
    ------
    UnknownCrop
        Where there is no crop of that key.
    """
    known = catalogue().get(key) or own.get(key)
    if known is None:
        raise UnknownCrop(f"There is no crop “{key}” in the catalogue.")
    return known


def _crop(key: str, entry: dict[str, Any]) -> Crop:
    values = dict(entry)
    heat_sum, winter = values.pop("heat_sum"), values.pop("winter")
    life = values.pop("life")
    chill = life.pop("chill")
    american, british = (tuple(values.pop(side)) for side in ("american", "british"))
    return Crop(
        key=key,
        rate=RateCurve.through(values.pop("rate_knots_c_per_d")),
        share=ShareCurve.through(values.pop("share_knots_c")),
        heat_sum=HeatSum(heat_sum["base_c"], heat_sum["heat_sum_cd"]) if heat_sum else None,
        heat_sum_source=heat_sum["source"] if heat_sum else "",
        winter=Wintering(**winter) if winter else None,
        american=american,
        british=british,
        life=Life(**life, chill=Chill(**chill) if chill else None),
        **values,
    )
