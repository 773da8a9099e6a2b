"""Crops as a garden grows them: with its own values, and crops that it has added."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Any

from cloche_engine.crops import catalogue
from cloche_engine.crops.catalogue import Crop

PACKET_SOURCE = "your packet, where it says so; else the table"
WHOLE = {"per_station", "keeps_y"}
GROWS = ("begins_c", "best_c", "ends_c")
LEAST_MATURITY_D = 10.0


Values = Mapping[str, float]
"""What a packet or a grower says of a crop instead of the catalogue, by name of the value."""


@dataclass(frozen=True)
class Grown:
    """A crop as a garden grows it.

    Attributes
    ----------
    method : str
        "direct" or "transplanted", empty to derive it.
    usual_depth_m : float
        Sowing depth in the catalogue [m].
    sowing_rule : str
        "minimum", "comfortable" or "calendar", empty for every suitable day.
    """

    crop: Crop
    method: str
    usual_depth_m: float
    sowing_rule: str = ""


def grown(
    keys: Iterable[str],
    values: Mapping[str, Values],
    methods: Mapping[str, str],
    sowing_rule: str = "",
    sowing_rules: Mapping[str, str] | None = None,
    own: Own = MappingProxyType({}),
) -> list[Grown]:
    """Return the crops of a garden with its own values.

    own: crops that the garden has added.
    """
    rules, custom = sowing_rules or {}, custom_crops(own)
    return [
        Grown(
            crop, methods.get(crop.key, ""), catalogue.crop(crop.key, custom).sowing_depth_m, rules.get(crop.key) or sowing_rule
        )
        for crop in chosen_of([*catalogue.catalogue().values(), *custom.values()], keys, values)
    ]


def chosen_of(every: Iterable[Crop], keys: Iterable[str], values: Mapping[str, Values] | None) -> list[Crop]:
    """Return the crops that a garden grows, with its values; the usual ones until it has chosen any."""
    wanted = set(keys)
    mine = (crop for crop in every if (crop.key in wanted if wanted else crop.usual))
    return [with_values(crop, (values or {}).get(crop.key)) for crop in mine]


def with_values(crop: Crop, values: Values | None) -> Crop:
    """Return a crop with other values than the catalogue's. `pace` multiplies the days of the table.

    An ideal range that begins above its end, or below the minimum, moves the limit that was not given.
    """
    if not values:
        return crop
    stated = dict(values)
    pace = stated.pop("pace", 1.0)
    for name in WHOLE & stated.keys():
        stated[name] = int(stated[name])
    start = stated.setdefault("optimum_from_c", max(crop.optimum_from_c, stated.get("minimum_c", -50.0)))
    stated["optimum_to_c"] = max(stated.get("optimum_to_c", crop.optimum_to_c), start)
    stated.setdefault("minimum_c", min(crop.minimum_c, start))
    stated["maximum_c"] = max(stated.get("maximum_c", crop.maximum_c), stated["optimum_to_c"])
    grows = {name: stated.pop(name) for name in GROWS if name in stated}
    if grows:
        stated["life"] = dataclasses.replace(crop.life, **grows)  # type: ignore[assignment, arg-type]
    if "maturity_sown_d" in stated:
        # As it is printed: from sowing, in a season that suits it.
        from_sowing = stated.pop("maturity_sown_d") - crop.coming_up_d
        stated.setdefault("maturity_d", max(from_sowing, LEAST_MATURITY_D))
    if "maturity_d" in stated:
        stated.setdefault("maturity_planted_d", crop.maturity_planted_d * stated["maturity_d"] / crop.maturity_d)
    changed = dataclasses.replace(crop, advice_source=PACKET_SOURCE, **stated)  # type: ignore[arg-type]
    if pace == 1.0:
        return changed
    source = f"{crop.rate_source}; in {pace:g} times the days, as you say"
    return dataclasses.replace(changed, rate=crop.rate.slowed(pace), rate_source=source)


SOURCE = "your own word, else as its relative"


Own = Mapping[str, Mapping[str, Any]]
"""By key: of, the relative's key; name and plural; values by name (see bridge.services.crops.with_values)."""


def custom_crops(own: Own) -> dict[str, Crop]:
    """Return a garden's added crops by key: each is a relative from the catalogue with other values."""
    return {key: _made(key, entry) for key, entry in own.items() if entry["of"] in catalogue.catalogue()}


def crop_of(own: Own, key: str) -> Crop:
    """Return one crop of a garden under its catalogue name.

    Raises UnknownCrop if there is none.
    """
    return catalogue.crop(key, custom_crops({key: own[key]} if key in own else {}))


def _made(key: str, entry: Mapping[str, Any]) -> Crop:
    both = (str(entry["name"]), str(entry["plural"]))
    own = with_values(catalogue.catalogue()[entry["of"]], entry["values"])
    return replace(
        own, key=key, name=both[0], name_plural=both[1], american=both, british=both, usual=False, growing_source=SOURCE
    )
