"""Kinds of place as data: one row each, checked when loaded."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Literal, get_args

from cloche_engine import tables
from cloche_engine.covers.kinds import kinds as cover_kinds

Ground = Literal["bed", "raised", "mulched", "tub", "tray"]
Heat = Literal["", "mat", "cable", "hotbed"]
Raises = Literal["no", "also", "only"]
Caution = Literal["", "electric", "hotbed", "cover", "fleece"]


@dataclass(frozen=True)
class PlaceKind:
    """A kind of place in a grower's words and what follows from it.

    Attributes
    ----------
    ground : Ground
        What the place is made of.
    usual_cover : str
        Key of the cover assumed where none is recorded, empty for none.
    heat : Heat
        What warms it.
    raises : Raises
        Whether it is for raising plants that are planted out elsewhere, only or among other things.
    movable : bool
        Whether it can be brought in on a cold night.
    caution : Caution
        Cautions to show on its page.
    """

    key: str
    name: str
    ground: Ground
    usual_cover: str
    heat: Heat
    raises: Raises
    indoors: bool
    movable: bool
    caution: Caution


def _cover_or_none(value: str) -> str:
    return tables.one_of("", *cover_kinds())(value) if value else ""


COLUMNS: dict[str, tables.Check] = {
    "key": tables.text,
    "name": tables.text,
    "ground": tables.one_of(*get_args(Ground)),
    "usual_cover": _cover_or_none,
    "heat": tables.one_of(*get_args(Heat)),
    "raises": tables.one_of(*get_args(Raises)),
    "indoors": tables.yes_or_no,
    "movable": tables.yes_or_no,
    "caution": tables.one_of(*get_args(Caution)),
}


@cache
def place_kinds() -> dict[str, PlaceKind]:
    """Return all kinds by key, in the order of the file.

    Raises
    ------
    BadTable
        Where a row says what cannot be; the message names row and column.
    """
    return {key: PlaceKind(**row) for key, row in tables.rows("cloche_engine.places", "kinds.csv", COLUMNS).items()}


USUAL_COVER = {key: kind.usual_cover for key, kind in place_kinds().items() if kind.usual_cover}
"""Key of the cover assumed over each kind of place where no cover is recorded."""


def usual_cover(kind: str, within: str) -> str | None:
    """Return the key of the cover assumed over a place where none is recorded, None for none.

    Nobody sets a glass frame over a heated bed inside a house (common practice, no source).

    Parameters
    ----------
    kind : str
        Kind of the place.
    within : str
        Kind of the house it stands in, empty in the open.
    """
    return None if within and place_kinds()[kind].heat in ("cable", "hotbed") else USUAL_COVER.get(kind)


NEVER_OPENED = tuple(key for key, kind in cover_kinds().items() if not kind.opened or kind.goes_over == "tray")
"""Of these, what nobody opens on a sunny day: cloth lets the air pass, a lid stays on until the seed is up."""


INDOORS = tuple(key for key, kind in place_kinds().items() if kind.indoors)
"""Kinds of place where nobody opens or covers anything."""


OPENED_ABOVE_C, OPENED_BY = 26.0, 0.4
"""An undated frame, tunnel, arch or bell is taken to be aired on sunny days (assumption)."""


BENCHES = tuple(key for key, kind in place_kinds().items() if kind.raises == "only")
"""Kinds of place that only raise what is planted out elsewhere."""


BENCH_KINDS = tuple(key for key, kind in place_kinds().items() if kind.raises != "no")
"""Kinds of place on which plants are raised."""
