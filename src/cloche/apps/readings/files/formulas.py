"""Cells that go out are no formulas to the program that opens them, and come in again as they were."""

from __future__ import annotations

FORMULA_SIGNS = ("=", "+", "-", "@", "\t", "\r")
QUOTE = "'"


def inert(cell: str) -> str:
    """A cell that a spreadsheet would take for a formula, with the quote before it that makes it text. Numbers stay numbers."""
    if not cell.startswith((*FORMULA_SIGNS, QUOTE)) or _is_number(cell):
        return cell
    return QUOTE + cell


def _is_number(cell: str) -> bool:
    try:
        float(cell)
    except ValueError:
        return False
    return True


def as_meant(cell: str) -> str:
    """A cell as it was before `inert`: our own files come in again as they were."""
    return cell[1:] if cell.startswith(QUOTE) and cell[1:].startswith((*FORMULA_SIGNS, QUOTE)) else cell
