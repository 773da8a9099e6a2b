"""What the rooms need of the core about potatoes."""

from __future__ import annotations

from cloche.bridge.services.crops import crop
from cloche.core.crops.potatoes import WEEKS, Chitting, chitting, lifting, tubers_in


def groups() -> list[tuple[str, str]]:
    """Keys and names, for choosing."""
    return [(key, crop(key).name) for key in WEEKS]


__all__ = ["WEEKS", "Chitting", "chitting", "groups", "lifting", "tubers_in"]
