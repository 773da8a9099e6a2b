"""What a grower can choose for a place, and what is taken for granted there. Light: pages need it, and no engine."""

from __future__ import annotations

from cloche.core.covers.kinds import kinds

USUAL_COVER = {"fleece": "fleece", "tunnel": "film_tunnel", "arch": "bent_sheet", "frame": "glass_frame", "bell": "bell"}
USUAL_COVER |= {"cable": "glass_frame", "hotbed": "glass_frame", "mat": "lid"}
"""What stands over a place of a kind when no dated cover is noted."""
NEVER_OPENED = ("fleece", "lid")
"""Of these, what nobody opens on a sunny day: cloth lets the air pass, a lid stays on until the seed is up."""
OPENED_ABOVE_C, OPENED_BY = 26.0, 0.4
"""An undated frame, tunnel, arch or bell is taken to be aired on sunny days (assumption)."""


def cover_names() -> list[tuple[str, str]]:
    """Keys and names of the covers that go over a bed, for choosing."""
    return [(one.key, one.name) for one in kinds().values() if not one.is_house]


def films() -> list[str]:
    """Keys of the films that lie on the soil itself: another cover may stand over them."""
    return [one.key for one in kinds().values() if one.lies_on_soil]
