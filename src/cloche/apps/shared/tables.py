"""What tables pasted from a spreadsheet have in common."""

from __future__ import annotations

from cloche.bridge.services import crops


def delimiter(text: str) -> str:
    """Return the separator of cells: tabs and semicolons win over commas, which may be decimal."""
    return next((sign for sign in ("\t", ";") if sign in text), ",")


def crop_keys() -> dict[str, str]:
    """Return keys of all crops by their names in lower case: singular, plural, and the key itself."""
    return {name.lower(): crop.key for crop in crops.crops() for name in (crop.name, crop.name_plural, crop.key)}
