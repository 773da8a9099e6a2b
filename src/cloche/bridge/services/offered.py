"""Choices offered for a place and its default values. Imports no engine code that is slow to load."""

from __future__ import annotations

from collections.abc import Iterator

from cloche.bridge.values.texts import say
from cloche_engine.covers.bend import bend
from cloche_engine.covers.kinds import kinds
from cloche_engine.crops.catalogue import catalogue
from cloche_engine.heat.source import MOST_W_M2
from cloche_engine.places.kinds import place_kinds


def cover_names() -> list[tuple[str, str]]:
    """Return keys and names of the covers that can be laid over a bed."""
    return [(kind.key, say(kind.name)) for kind in kinds().values() if not kind.is_house]


def place_names() -> list[tuple[str, str]]:
    """Return keys and names of the kinds of place."""
    return [(place_kind.key, say(place_kind.name)) for place_kind in place_kinds().values()]


def place_name(key: str) -> str:
    """Return the name of a kind of place, or the key itself where the kind is unknown."""
    known = place_kinds().get(key)
    return say(known.name) if known else key


def most_watts(source: str, area_m2: float) -> float | None:
    """Return the highest plausible power of a heat source below plants for its area [W]; None for air heaters."""
    return None if source == "house" else MOST_W_M2 * area_m2


def refuse_shape(key: str, sheet_m: float, spread_m: float) -> None:
    """Raise OutOfRange unless a sheet of this kind can stand with its edges that far apart."""
    if kinds()[key].bends:
        bend(sheet_m, spread_m)


def is_box(key: str) -> bool:
    """Return whether a cover is a lid on walls, such as a cold frame."""
    return kinds()[key].is_box


def films() -> list[str]:
    """Return keys of the films that lie on the soil and can have another cover above them."""
    return [kind.key for kind in kinds().values() if kind.lies_on_soil]


def cover_heights_m() -> dict[str, float]:
    """Return the mean height of the air under each kind of cover by key [m]; lower covers stand beneath higher ones."""
    return {kind.key: kind.gap_m for kind in kinds().values()}


def layered() -> list[str]:
    """Return keys of the cover kinds that consist of two covers, one over the other."""
    return [kind.key for kind in kinds().values() if kind.parts]


def named_in_tables() -> Iterator[tuple[str, str]]:
    """Yield every translatable name that is kept in a data table, with the name of its table."""
    for crop in catalogue().values():
        yield from ((name, "cloche_engine/crops/data/crops.csv") for name in crop.british)
    for cover in kinds().values():
        table = "layered.csv" if cover.parts else "kinds.csv"
        yield from ((name, f"cloche_engine/covers/data/{table}") for name in (cover.name, cover.with_article))
    yield from ((place.name, "cloche_engine/places/data/kinds.csv") for place in place_kinds().values())
