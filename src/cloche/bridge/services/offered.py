"""What a grower can choose for a place, and what is taken for granted there. Light: pages need it, and no engine."""

from __future__ import annotations

from cloche.bridge.values.texts import say
from cloche.core.covers.kinds import kinds
from cloche.core.places.kinds import place_kinds

USUAL_COVER = {key: kind.usual_cover for key, kind in place_kinds().items() if kind.usual_cover}
"""What stands over a place of a kind when no dated cover is noted."""
NEVER_OPENED = tuple(key for key, kind in kinds().items() if not kind.opened or kind.goes_over == "tray")
"""Of these, what nobody opens on a sunny day: cloth lets the air pass, a lid stays on until the seed is up."""
INDOORS = tuple(key for key, kind in place_kinds().items() if kind.indoors)
"""Kinds of place where nobody opens or covers anything."""
OPENED_ABOVE_C, OPENED_BY = 26.0, 0.4
"""An undated frame, tunnel, arch or bell is taken to be aired on sunny days (assumption)."""


def cover_names() -> list[tuple[str, str]]:
    """Keys and names of the covers that go over a bed, for choosing."""
    return [(one.key, say(one.name)) for one in kinds().values() if not one.is_house]


def place_names() -> list[tuple[str, str]]:
    """Keys and names of the kinds of place, for choosing."""
    return [(one.key, say(one.name)) for one in place_kinds().values()]


def films() -> list[str]:
    """Keys of the films that lie on the soil itself: another cover may stand over them."""
    return [one.key for one in kinds().values() if one.lies_on_soil]
