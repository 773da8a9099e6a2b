"""What a grower can choose for a place, and what is taken for granted there. Light: pages need it, and no engine."""

from __future__ import annotations

from collections.abc import Iterator

from cloche.bridge.values.texts import say
from cloche_engine.covers.bend import bend
from cloche_engine.covers.kinds import kinds
from cloche_engine.crops.catalogue import catalogue
from cloche_engine.heat.source import MOST_W_M2
from cloche_engine.places.kinds import place_kinds


def cover_names() -> list[tuple[str, str]]:
    """Keys and names of the covers that go over a bed, for choosing."""
    return [(kind.key, say(kind.name)) for kind in kinds().values() if not kind.is_house]


def place_names() -> list[tuple[str, str]]:
    """Keys and names of the kinds of place, for choosing."""
    return [(place_kind.key, say(place_kind.name)) for place_kind in place_kinds().values()]


def place_name(key: str) -> str:
    """Name of a kind of place; of one that is not known, its key."""
    known = place_kinds().get(key)
    return say(known.name) if known else key


def most_watts(source: str, area_m2: float) -> float | None:
    """The most that a heat source below plants may draw over its area [W]; None for a heater of the air."""
    return None if source == "house" else MOST_W_M2 * area_m2


def refuse_shape(key: str, sheet_m: float, spread_m: float) -> None:
    """Raise OutOfRange unless a sheet of this kind can stand with its edges so far apart."""
    if kinds()[key].bends:
        bend(sheet_m, spread_m)


def is_box(key: str) -> bool:
    """Whether a cover is a lid on walls."""
    return kinds()[key].is_box


def films() -> list[str]:
    """Keys of the films that lie on the soil itself: another cover may stand over them."""
    return [kind.key for kind in kinds().values() if kind.lies_on_soil]


def cover_heights_m() -> dict[str, float]:
    """Mean height of the air under each kind of cover, by key: what is lower stands beneath what is higher [m]."""
    return {kind.key: kind.gap_m for kind in kinds().values()}


def layered() -> list[str]:
    """Keys of what is two covers already, one over the other."""
    return [kind.key for kind in kinds().values() if kind.parts]


def named_in_tables() -> Iterator[tuple[str, str]]:
    """Every name that stands in a table rather than in the program, and the table: for those who translate."""
    for crop in catalogue().values():
        yield from ((name, "cloche_engine/crops/data/crops.csv") for name in crop.british)
    for cover in kinds().values():
        table = "layered.csv" if cover.parts else "kinds.csv"
        yield from ((name, f"cloche_engine/covers/data/{table}") for name in (cover.name, cover.with_article))
    yield from ((place.name, "cloche_engine/places/data/kinds.csv") for place in place_kinds().values())
