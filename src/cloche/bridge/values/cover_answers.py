"""Answers about covers as they are stored, worked out in the queue."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from cloche.bridge.values.stored import Window
from cloche.core.windows.limits import Limit


@dataclass(frozen=True, slots=True)
class CropSeason:
    """One crop's windows on a bed under some cover; limit: what stands in the way where there is none; open_since: the first
    day of a window that was open already when it was worked out, which itself begins with that day."""

    crop_key: str
    sown: bool
    windows: list[Window]
    limit: Limit | None
    open_since: date | None = None

    @property
    def opens(self) -> date | None:
        """The first day of the first window, also where it lies back."""
        return self.open_since or (self.windows[0].earliest if self.windows else None)


@dataclass(frozen=True, slots=True)
class BedGain:
    """What a cover would do on a bed: warmth [K], and by crop the days by which it could be sown sooner."""

    gain_k: float
    gained: list[tuple[str, int]]
