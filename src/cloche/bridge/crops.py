"""The catalogue as the rooms see it, and what soil of a temperature would do to each crop."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

import numpy as np

from cloche.core.crops import catalogue
from cloche.core.crops.catalogue import Crop
from cloche.core.errors import UnknownCrop
from cloche.core.germination.emergence import FIELD_FACTOR, days_to_emergence
from cloche.core.windows.outlook import longest_lie_d
from cloche.core.windows.readiness import Readiness, Verdict, sowable, verdict

MODEL_VERSION = "column-2"
PACKET_SOURCE = "your packet, where it says so; else the table"


def crops() -> list[Crop]:
    """All crops in catalogue order."""
    return list(catalogue.catalogue().values())


@dataclass(frozen=True)
class Packet:
    """What a seed packet says [°C]; None: nothing."""

    minimum_c: float | None = None
    ideal_from_c: float | None = None
    ideal_to_c: float | None = None


def chosen(keys: Iterable[str] = (), packets: Mapping[str, Packet] | None = None) -> list[Crop]:
    """A garden's own crops in catalogue order; until it has chosen any, those that nearly everyone grows."""
    wanted = set(keys)
    found = (one for one in crops() if (one.key in wanted if wanted else one.usual))
    return [by_packet(one, (packets or {}).get(one.key)) for one in found]


def by_packet(one: Crop, packet: Packet | None) -> Crop:
    """The crop with its packet's minimum and ideal range in place of the table's. How fast it comes up stays the table's."""
    if packet is None:
        return one
    start = one.optimum_from_c if packet.ideal_from_c is None else packet.ideal_from_c
    end = max(one.optimum_to_c if packet.ideal_to_c is None else packet.ideal_to_c, start)
    minimum = min(one.minimum_c, start) if packet.minimum_c is None else packet.minimum_c
    return replace(one, minimum_c=minimum, optimum_from_c=start, optimum_to_c=end, advice_source=PACKET_SOURCE)


def crop(key: str) -> Crop:
    """One crop; raises UnknownCrop."""
    return catalogue.crop(key)


def verdicts(soil_c: float, among: list[Crop]) -> list[Verdict]:
    """Every crop in soil that stays at soil_c."""
    return [verdict(one, soil_c) for one in among]


def comfortable(soil_c: float, among: list[Crop]) -> list[Verdict]:
    """What is comfortable to sow in place, soonest up first."""
    return sowable(among, soil_c)


def at_minimum(soil_c: float, among: list[Crop]) -> list[Verdict]:
    """What the school that sows at the bare minimum would add, with its cost."""
    both = sowable(among, soil_c, comfortable_only=False)
    return [v for v in both if v.readiness is Readiness.AT_MINIMUM]


@dataclass(frozen=True)
class Speed:
    """How fast a crop comes up against soil temperature, for drawing: pace 0-1 of its own best."""

    crop: Crop
    soil_c: list[float]
    pace: list[float]


def speeds(low_c: float, high_c: float, among: list[Crop], step_c: float = 0.5) -> list[Speed]:
    """The pace curve of every crop, coldest sleeper first: in the order in which warming soil wakes them."""
    soil = np.arange(low_c, high_c + step_c / 2, step_c)
    rows = []
    for one in sorted(among, key=lambda c: (_wakes_c(c), c.optimum_from_c, c.name)):
        rate = one.rate.at(soil)
        rows.append(Speed(one, soil.tolist(), (rate / rate.max()).tolist()))
    return rows


def _wakes_c(one: Crop) -> float:
    """Soil at which it reaches a fifth of its best pace [°C]."""
    soil = np.arange(-1.0, 40.0, 0.1)
    rate = one.rate.at(soil)
    return float(soil[np.argmax(rate >= 0.2 * rate.max())])


__all__ = ["FIELD_FACTOR", "MODEL_VERSION", "Crop", "Packet", "Readiness", "Speed", "UnknownCrop", "Verdict", "by_packet"]
__all__ += ["at_minimum", "chosen", "comfortable", "crop", "crops", "days_to_emergence", "longest_lie_d", "speeds", "verdicts"]
