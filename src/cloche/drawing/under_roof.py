"""The section under a cover, with each crop's height every fortnight."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cloche.drawing.geometry import path, spread

WIDTH, LEFT, RIGHT, GROUND_Y, TOP_Y = 420.0, 14.0, 406.0, 190.0, 14.0
STEPS, FORTNIGHT_D = 5, 14
ARC = 24
GAP = 64.0


@dataclass(frozen=True)
class Stand:
    """Bars of a crop every fortnight from today with x, top and whether it touches, and its name."""

    name: str
    x: float
    name_y: float
    bars: list[tuple[float, float, bool]]


@dataclass(frozen=True)
class UnderRoof:
    """The crops under the outline of a roof."""

    roof: str
    stands: list[Stand]
    ground_y: float


def under_roof(middle_m: float, side_m: float, shape: str, rows: Sequence[tuple[str, float, Sequence[float]]]) -> UnderRoof:
    """Draw rows of name, position across 0-1 and heights every fortnight from today [m]."""
    tallest = max([middle_m, *(height for _, _, heights in rows for height in heights)])
    unit = (GROUND_Y - TOP_Y) / tallest
    shares = [i / ARC for i in range(ARC + 1)]
    top = [(LEFT + (RIGHT - LEFT) * s, GROUND_Y - unit * _roof_m(middle_m, side_m, shape, s)) for s in shares]
    at = [LEFT + (RIGHT - LEFT) * min(max(across, 0.06), 0.94) for _, across, _ in rows]
    order = sorted(range(len(rows)), key=lambda i: at[i])
    gap = min(GAP, (RIGHT - LEFT - 60) / len(rows))
    placed = dict(zip(order, spread([at[i] for i in order], gap, LEFT + 30, RIGHT - 30), strict=True))
    stands = []
    for i, (name, _, heights) in enumerate(rows):
        x, name_y = placed[i], GROUND_Y + 16 * (1 + order.index(i) % 2)
        room = _roof_m(middle_m, side_m, shape, (at[i] - LEFT) / (RIGHT - LEFT))
        bars = [
            (round(x + 7 * (n - (STEPS - 1) / 2), 1), round(GROUND_Y - unit * height, 1), height >= 0.95 * room)
            for n, height in enumerate(heights)
        ]
        stands.append(Stand(name, round(x, 1), name_y, bars))
    return UnderRoof(path([(LEFT, GROUND_Y), *top, (RIGHT, GROUND_Y)]), stands, GROUND_Y)


def _roof_m(middle_m: float, side_m: float, shape: str, share: float) -> float:
    if shape == "lean":
        return side_m + (middle_m - side_m) * share
    if shape == "flat":
        return middle_m
    return side_m + (middle_m - side_m) * max(1 - (2 * share - 1) ** 2, 0.0) ** 0.5
