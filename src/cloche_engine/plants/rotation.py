"""What stood in a bed in the last years, by family, and how long growers wait before the family comes back."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

WAIT_Y = {"brassicas": 3, "alliums": 3, "nightshades": 3, "legumes": 2, "umbellifers": 2, "cucurbits": 2}
"""Full years that a family stays away from a bed: for clubroot, white rot, blight and eelworm the more, the better (common
practice, no source). Others may follow themselves."""


@dataclass(frozen=True)
class Before:
    """An earlier crop of a bed: its family and the last year in which it grew there."""

    crop_key: str
    family: str
    year: int


@dataclass(frozen=True)
class TooSoon:
    """A family that returns too soon: the earlier crop, and the full years growers would wait."""

    before: Before
    wait_y: int
    again_from: int


def too_soon(family: str, year: int, past: Iterable[Before]) -> TooSoon | None:
    """Return the latest crop of the family that grew too recently, None if there is none.

    Parameters
    ----------
    family : str
        Of what is to stand there.
    past : Iterable[Before]
        What stood there. The same year does not count: a second sowing is no rotation.
    """
    wait = WAIT_Y.get(family, 0)
    near = [crop for crop in past if crop.family == family and year - wait <= crop.year < year]
    if not near:
        return None
    latest = max(near, key=lambda crop: crop.year)
    return TooSoon(latest, wait, latest.year + wait + 1)
