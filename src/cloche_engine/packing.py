"""Tables of numbers as short text."""

from __future__ import annotations

import base64
import math
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray


def short(values: NDArray[np.floating], digits: int = 2) -> list[Any]:
    """Return numbers rounded for storage, with None for inf; hundredths are finer than any probe."""
    rounded = np.round(np.asarray(values, dtype=np.float64), digits)
    whole: list[Any] = rounded.tolist()
    if not np.isfinite(rounded).all():
        whole = [value if math.isfinite(value) else None for value in whole]
    return whole


@dataclass(frozen=True)
class Grain:
    """Resolution of a stored table: `step` between two numbers; the largest count of steps means never."""

    step: float
    bytes_each: Literal[1, 2]

    @property
    def _kind(self) -> type[np.unsignedinteger]:
        return np.uint8 if self.bytes_each == 1 else np.uint16

    def pack(self, values: NDArray[np.floating]) -> str:
        """Return numbers from 0 up as base64 of whole steps; inf and numbers that are too large become never."""
        never = np.iinfo(self._kind).max
        steps = np.minimum(np.round(np.asarray(values) / self.step), never)
        return base64.b64encode(steps.astype(self._kind).tobytes()).decode("ascii")

    def unpack(self, text: str, *shape: int) -> NDArray[np.float64]:
        """Return packed numbers in a shape (one length may be -1); never becomes inf."""
        steps = np.frombuffer(base64.b64decode(text), dtype=self._kind).reshape(shape)
        return np.where(steps == np.iinfo(self._kind).max, np.inf, steps * self.step)


DAYS, TENTHS, SHARES = Grain(1.0, 1), Grain(0.1, 2), Grain(0.005, 1)
"""Whole days up to 254; tenths of days up to 6553; shares 0-1 to half of a hundredth."""
