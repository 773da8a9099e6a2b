"""Kinds of cover and their shapes as the rooms see them. Light: pages use it."""

from __future__ import annotations

from cloche.bridge.services.offered import cover_names as names
from cloche.core.covers.bend import Bend, bend
from cloche.core.covers.kinds import kind, kinds

DRAWN_AS = {"film_on_soil": "sheet", "film_raised": "tunnel", "film_tunnel": "tunnel", "thermal_tunnel": "tunnel"}
DRAWN_AS |= {"fleece": "fleece", "thick_fleece": "fleece", "glass_pane": "frame", "plastic_pane": "frame", "bell": "bell"}
DRAWN_AS |= {"bin": "bell", "bent_sheet": "arch", "twin_wall_arch": "arch", "glass_frame": "frame", "twin_wall_frame": "frame"}
DRAWN_AS |= {"bubble": "sheet", "lid": "frame", "black_film": "sheet", "white_film": "sheet", "green_film": "sheet"}
"""The shape in which a kind is drawn over a slice of ground."""
FOR_TRAYS = ("lid",)
OFTEN = ("film_tunnel", "glass_frame", "bent_sheet", "fleece", "twin_wall_arch", "film_on_soil", "bell", "bin")
"""What growers could get, the commonest first."""
SELF_AIRING = ("fleece", "thick_fleece", "film_on_soil", "black_film", "white_film", "green_film")
"""What nobody opens on a sunny day."""
GROUNDS = [("mulch", "straw on it"), ("stones", "dark stones on it"), ("heap", "over a compost heap")]
GROUNDS += [("film_on_soil", "clear film on it"), ("black_film", "black film on it")]
"""What can be done to the sandbox's bed, any of it at once."""

__all__ = ["DRAWN_AS", "GROUNDS", "OFTEN", "SELF_AIRING", "bends", "lasts_y", "light", "name_of", "names", "shape"]
__all__ += ["for_beds", "with_article"]


def name_of(key: str) -> str:
    """What a kind is called."""
    return kind(key).name if key in kinds() else key


def for_beds() -> list[tuple[str, str]]:
    """Keys and names of the covers that go over a bed in the open."""
    return [(key, name) for key, name in names() if key not in FOR_TRAYS]


def with_article(key: str) -> str:
    """A cold frame with glass; clear film on the soil."""
    name = name_of(key)
    if name.startswith(("clear film", "fleece", "bubble", "black", "white", "infrared")):
        return name
    return f"{'an' if name[0] in 'aeiou' else 'a'} {name}"


def bends(key: str) -> bool:
    """Whether it is bent over the bed."""
    return kind(key).bends


def shape(key: str, sheet_m: float, spread_m: float | None) -> Bend | None:
    """How a bent sheet stands; None for what is not bent, or where its spread is not told. Raises OutOfRange."""
    return bend(sheet_m, spread_m) if bends(key) and spread_m else None


def light(key: str, age_y: float, dirty: bool) -> float:
    """Share of the sun that it lets through by now, 0-1."""
    return kind(key).aged(age_y, dirty).solar


def lasts_y(key: str) -> float:
    """Years it usually lasts."""
    return kind(key).lasts_y
