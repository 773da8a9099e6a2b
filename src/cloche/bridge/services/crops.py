"""Crops as a garden knows them: their names, values of its own, and crops of its own."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from contextvars import ContextVar
from dataclasses import dataclass, replace
from functools import lru_cache
from types import MappingProxyType

import numpy as np

from cloche.bridge.values.texts import say
from cloche_engine.crops import catalogue
from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.grown import Own, Values, chosen_of, custom_crops
from cloche_engine.errors import UnknownCrop
from cloche_engine.germination.steady import FIELD_FACTOR, days_to_emergence
from cloche_engine.windows.limits import longest_in_soil_d
from cloche_engine.windows.readiness import Readiness, SteadyOutlook, sowable, steady_outlook

__all__ = [
    "FIELD_FACTOR",
    "Crop",
    "Readiness",
    "Speed",
    "SteadyOutlook",
    "UnknownCrop",
    "at_minimum",
    "chosen",
    "comfortable",
    "crop",
    "crops",
    "days_to_emergence",
    "longest_in_soil_d",
    "of_garden",
    "speeds",
    "steady_outlooks",
    "usual_of",
    "winter_kinds_of",
    "with_winter_kinds",
]


AMERICAN, BRITISH, TRANSLATED = "american", "british", "translated"
_spoken: ContextVar[str] = ContextVar("names", default="")
_own: ContextVar[Mapping[str, Crop]] = ContextVar("own", default=MappingProxyType({}))
"""Whose garden a request or a task is about. Pages ask by these; what the engine needs is handed to it."""


def set_spoken_names(names: str) -> None:
    """Set which crop names are used: American, British, translated, or the catalogue's own if empty."""
    _spoken.set(names)


def usual_names(language: str) -> str:
    """Return the default set of crop names for a language code such as en-us; other languages have their own file."""
    if not language.lower().startswith("en"):
        return TRANSLATED
    return AMERICAN if language.lower() == "en-us" else BRITISH


def named(crop: Crop) -> Crop:
    """Return a crop under the name in use."""
    names = _spoken.get()
    if not names:
        return crop
    name, plural = crop.american if names == AMERICAN else crop.british
    if names == TRANSLATED:
        name, plural = say(name), say(plural)
        return replace(crop, name=name, name_plural=plural, american=(name, plural), british=(name, plural))
    return crop if crop.name == name else replace(crop, name=name, name_plural=plural)


def crops() -> list[Crop]:
    """Return all crops in catalogue order, followed by the garden's own."""
    return [*(named(crop) for crop in catalogue.catalogue().values()), *_own.get().values()]


def chosen(keys: Iterable[str] = (), values: Mapping[str, Values] | None = None) -> list[Crop]:
    """Return the crops a garden has chosen in catalogue order, or the most widely grown ones before it has chosen any."""
    return chosen_of(crops(), keys, values)


def of_garden(keys: Iterable[str], values: Mapping[str, Values] | None = None) -> list[Crop]:
    """Return a garden's crops together with their overwintered forms, in catalogue order."""
    return chosen(with_winter_kinds(keys), values)


def with_winter_kinds(keys: Iterable[str]) -> tuple[str, ...]:
    """Return keys of a garden's crops with the overwintered form of each, its second window of the year."""
    wanted = list(keys) or [crop.key for crop in crops() if crop.usual]
    return tuple(dict.fromkeys([*wanted, *(kind for key in wanted for kind in winter_kinds_of(key))]))


@lru_cache(maxsize=512)
def winter_kinds_of(key: str) -> tuple[str, ...]:
    """Return keys of a crop's overwintered forms."""
    return tuple(crop.key for crop in catalogue.catalogue().values() if crop.winter and crop.key.rpartition("_")[0] == key)


def usual_of(key: str) -> str:
    """Return the key of the crop that an overwintered form belongs to; other crops are returned unchanged."""
    parent = key.rpartition("_")[0]
    return parent if key in winter_kinds_of(parent) else key


def crop(key: str) -> Crop:
    """Return a crop by its key. Raises UnknownCrop."""
    return named(catalogue.crop(key, _own.get()))


def steady_outlooks(soil_c: float, among: list[Crop]) -> list[SteadyOutlook]:
    """Return how each crop would emerge in soil at a constant temperature."""
    return [steady_outlook(crop, soil_c) for crop in among]


def comfortable(soil_c: float, among: list[Crop]) -> list[SteadyOutlook]:
    """Return the crops that can be sown in comfort at a soil temperature, earliest emergence first."""
    return sowable(among, soil_c)


def at_minimum(soil_c: float, among: list[Crop]) -> list[SteadyOutlook]:
    """Return the further crops that sowing at the bare minimum would allow, with the cost in days and seedlings."""
    both = sowable(among, soil_c, comfortable_only=False)
    return [v for v in both if v.readiness is Readiness.AT_MINIMUM]


@dataclass(frozen=True)
class Speed:
    """Rate of emergence against soil temperature, relative to the crop's own maximum, for drawing."""

    crop: Crop
    soil_c: list[float]
    pace: list[float]


def speeds(low_c: float, high_c: float, among: list[Crop], step_c: float = 0.5) -> list[Speed]:
    """Return the rate curve of each crop, ordered by the soil temperature at which it starts to grow."""
    soil = np.arange(low_c, high_c + step_c / 2, step_c)
    rows = []
    for crop in sorted(among, key=lambda c: (_wakes_c(c), c.optimum_from_c, c.name)):
        rate = crop.rate.at(soil)
        rows.append(Speed(crop, soil.tolist(), (rate / rate.max()).tolist()))
    return rows


def _wakes_c(crop: Crop) -> float:
    """Return the soil temperature at which a crop reaches a fifth of its maximum rate [°C]."""
    soil = np.arange(-1.0, 40.0, 0.1)
    rate = crop.rate.at(soil)
    return float(soil[np.argmax(rate >= 0.2 * rate.max())])


PICKED_ON_D = {"nightshades": 50, "cucurbits": 45, "legumes": 25, "beets": 35, "daisies": 14}
PICKED_USUAL_D = 14
"""Days that a crop stands and is picked from its first harvest on, by family (assumption)."""


def picked_for_d(key: str) -> int:
    """Return the length of a crop's harvest period in days."""
    return PICKED_ON_D.get(crop(key).family, PICKED_USUAL_D)


KEY = re.compile(r"own_[0-9a-f]{8}")
MOST = 60


def set_custom_crops(own: Own) -> None:
    """Register a garden's own crops for the current request."""
    _own.set(custom_crops(own))
