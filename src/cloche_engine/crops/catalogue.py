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
    """How far developed an overwintering crop should be before winter.

    Attributes
    ----------
    plant_below_c : float or None
        Soil temperature above which it is not planted yet [°C].
    grown_from_d, grown_to_d : float
        Days of full growth needed before days become shorter than ten hours.
    winter_limit_c : float
        Coldest night it survives once rooted [°C].
    ripe_weeks : float
        Weeks from the return of the light to harvest.
    rooted : bool
        Whether roots alone are enough, with shoots appearing during winter.
    """

    plant_below_c: float | None
    grown_from_d: float
    grown_to_d: float
    winter_limit_c: float
    ripe_weeks: float
    rooted: bool


@dataclass(frozen=True)
class Chill:
    """Cold that makes young plants bolt: daily mean air below `below_c` [°C] on a number of the first `within_d` days."""

    below_c: float
    days: float
    within_d: int


@dataclass(frozen=True)
class Life:
    """Growth from emergence to harvest.

    Attributes
    ----------
    begins_c, best_c, ends_c : float
        Daily mean air at which growth begins, is fastest and ends [°C].
    printed_c : float
        Daily mean air of the season for which the days to harvest are printed [°C].
    flower_frost_c : float or None
        Lowest night for buds, flowers and pods [°C].
    long_days : LongDays
        Whether lengthening or long days make it flower or bolt.
    bulb_lead_d : float or None
        Days of full growth needed before the longest days start the bulb.
    regrows : Regrows
        How it recovers from frost: by new shoots, or from a growing point below ground.
    """

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
    """One crop. Temperatures are of the soil at sowing depth [°C] unless named otherwise; each source is a sentence.

    Attributes
    ----------
    usual : bool
        Whether nearly everyone grows it; shown until a garden has chosen its own crops.
    rate, share : RateCurve, ShareCurve
        Curves of seed; sets, cloves and tubers sprout by soil temperature alone.
    maturity_d, maturity_planted_d : float
        Days to harvest from emergence and from planting out, in the season for which they are printed.
    heat_limit_c : float or None
        Mean daily high during flowering, fruit set or heading at which half of the harvest is lost [°C].
    field_times : float
        Factor of the table's days that it takes in garden soil in addition to what slows all seed.
    protected : bool
        Whether the seed is treated against rot.
    row_m, plant_m : float
        Distance between rows and between plants [m].
    per_station : int
        Seeds sown together.
    raise_weeks : float
        Weeks from sowing indoors to planting out, 0 where that is not done.
    germinate_c, grow_on_c : float
        Soil to germinate and air to grow on indoors [°C].
    plant_soil_c, plant_night_c : float
        Soil and mean night needed for planting out [°C].
    setback_d : float
        Days of growth lost by transplanting.
    frost_limit_c, frost_planted_c, frost_grown_c : float
        Coldest air that seedlings, hardened plants and grown plants survive [°C].
    light : Light
        Whether germination needs light or darkness.
    keeps_y : int
        Years the seed keeps well.
    winter : Wintering or None
        Only for crops that overwinter.
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
        """First of its two botanical names."""
        return self.botanical_name.partition(" ")[0]

    @property
    def other_names(self) -> list[str]:
        """Further names under which growers may look for it."""
        return [name for name in dict.fromkeys((self.american[0], self.british[0])) if name != self.name]

    @property
    def maturity_sown_d(self) -> float:
        """Days to harvest from sowing in suitable soil, as packets count them."""
        return self.maturity_d + self.coming_up_d

    @property
    def coming_up_d(self) -> float:
        """Days to emergence in suitable soil, as packets assume them."""
        rate = float(self.rate.at(min(max(PRINTED_SOIL_C[self.season], self.optimum_from_c), self.optimum_to_c)))
        return self.field_times / rate if rate > 0 else 0.0

    @property
    def sown_direct(self) -> bool:
        """Whether some growers sow it in place."""
        return self.usual_method != "raised"

    @property
    def planted_out(self) -> bool:
        """Whether it may be raised elsewhere and planted out."""
        return self.start == "seed" and self.raise_weeks > 0 and not self.winter

    def awake_at(self, temperature_c: float) -> bool:
        """Return whether this soil is within the published minimum and maximum.

        Parameters
        ----------
        temperature_c : float
            Temperature [°C].
        """
        return self.minimum_c - HALF_A_DEGREE_F <= temperature_c <= self.maximum_c + HALF_A_DEGREE_F

    def comfortable_at(self, temperature_c: float) -> bool:
        """Return whether this soil is within the published optimum range.

        Parameters
        ----------
        temperature_c : float
            Temperature [°C].
        """
        return self.optimum_from_c - HALF_A_DEGREE_F <= temperature_c <= self.optimum_to_c + HALF_A_DEGREE_F


@cache
def catalogue() -> dict[str, Crop]:
    """Return all crops by key in catalogue order, read once."""
    text = (files("cloche_engine.crops") / "data" / "catalogue.json").read_text(encoding="utf-8")
    return {key: _crop(key, entry) for key, entry in json.loads(text).items()}


def crop(key: str, own: Mapping[str, Crop] = MappingProxyType({})) -> Crop:
    """Return one crop by its key, from the garden's own or the catalogue.

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
