"""A row that stays silent, dug up: what the seed looks like tells what went wrong, and whether waiting is any use."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

TOO_DEEP, DEEP_M = 2.0, 0.01
"""Seed found at twice its depth, and a finger's width more than that, has too far to go (common practice, no source)."""
COLD_SHARE = 0.4
"""Where warmth has brought it less than this far, cold alone explains the silence (assumption)."""
MOST = 0.5
"""Share of the seeds found that settles it (assumption)."""


class Cause(StrEnum):
    """Reason why nothing has emerged."""

    COLD = "cold"
    COMING = "coming"
    DRY = "dry"
    CRUST = "crust"
    DEEP = "deep"
    ROTTEN = "rotten"
    EATEN = "eaten"
    OLD = "old"
    UNKNOWN = "unknown"


class Advice(StrEnum):
    """What to do now."""

    WAIT = "wait"
    WATER = "water"
    BREAK = "break"
    AGAIN = "again"
    LOOK = "look"


ADVICE = {
    Cause.COLD: Advice.WAIT,
    Cause.COMING: Advice.WAIT,
    Cause.DRY: Advice.WATER,
    Cause.CRUST: Advice.BREAK,
    Cause.DEEP: Advice.AGAIN,
    Cause.ROTTEN: Advice.AGAIN,
    Cause.EATEN: Advice.AGAIN,
    Cause.OLD: Advice.AGAIN,
    Cause.UNKNOWN: Advice.LOOK,
}
"""Common practice, no source."""


@dataclass(frozen=True)
class Dug:
    """Result of digging along a hand's length of the row.

    Attributes
    ----------
    sound, swollen, rotten, eaten : int
        Seeds found hard as sown, firm and sprouting, soft or mouldy, and as husks or holes in the row.
    dry, crusted : bool
        State of the soil around and above them.
    depth_m : float or None
        Depth at which they lay, None if not measured.
    """

    sound: int = 0
    swollen: int = 0
    rotten: int = 0
    eaten: int = 0
    dry: bool = False
    crusted: bool = False
    depth_m: float | None = None

    @property
    def seeds(self) -> int:
        """Number of seeds found or missing."""
        return self.sound + self.swollen + self.rotten + self.eaten


@dataclass(frozen=True)
class Finding:
    """Causes, the most likely first.

    `teaches` says whether the number that emerged is evidence about the seed's viability.
    """

    causes: tuple[Cause, ...]
    advice: Advice
    teaches: bool


def silent(dug: Dug, sown_depth_m: float, came: float, alive: float) -> Finding:
    """Find the likely causes from what was dug up.

    Parameters
    ----------
    dug : Dug
        What was found.
    sown_depth_m : float
        Usual depth of the crop [m].
    came : float
        How far warmth has brought the middle seed towards the surface, 1: it should be up.
    alive : float
        Share of the lot thought to be alive, 0-1.
    """
    weighed: list[tuple[float, Cause]] = []
    seeds = max(dug.seeds, 1)
    if dug.eaten:
        weighed.append((dug.eaten / seeds, Cause.EATEN))
    if dug.rotten:
        weighed.append((dug.rotten / seeds, Cause.ROTTEN if alive >= MOST else Cause.OLD))
    if dug.swollen:
        weighed.append((dug.swollen / seeds, Cause.CRUST if dug.crusted and came >= 1 else Cause.COMING))
    if dug.sound:
        why = Cause.DRY if dug.dry else Cause.COLD if came < COLD_SHARE else Cause.COLD if came < 1 else Cause.OLD
        weighed.append((dug.sound / seeds, why))
    if dug.depth_m is not None and dug.depth_m > TOO_DEEP * sown_depth_m + DEEP_M:
        weighed.append((0.9 if came >= 1 else 0.3, Cause.DEEP))
    if not dug.seeds and dug.crusted:
        weighed.append((0.6, Cause.CRUST))
    if not weighed:
        return Finding((Cause.UNKNOWN,), Advice.LOOK, False)
    weighed.sort(key=lambda entry: -entry[0])
    causes = tuple(dict.fromkeys(cause for _, cause in weighed))
    return Finding(causes, ADVICE[causes[0]], causes[0] in (Cause.OLD, Cause.ROTTEN))
