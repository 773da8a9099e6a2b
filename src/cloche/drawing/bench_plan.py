"""A bench from above, to scale: its boards, the cable's path, the trays that stand on it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cloche.drawing.geometry import path

WIDTH, MARGIN = 520.0, 10.0


@dataclass(frozen=True)
class BenchPlan:
    """width, height of the drawing; box: x, y, width, height of the inside; cable: path; trays: boxes."""

    width: float
    height: float
    box: tuple[float, float, float, float]
    cable: str
    trays: list[tuple[float, float, float, float]]


def bench_plan(
    size_m: tuple[float, float], corners: Sequence[tuple[float, float]], trays: int, tray_m: tuple[float, float]
) -> BenchPlan:
    """size_m: inside; corners: of the cable [m]; trays: how many of tray_m stand there, in rows from one corner."""
    unit = (WIDTH - 2 * MARGIN) / size_m[0]
    height = size_m[1] * unit
    in_row = max(int(size_m[0] / tray_m[0] + 1e-9), 1)
    places = [(i % in_row * tray_m[0], i // in_row * tray_m[1]) for i in range(trays)]
    return BenchPlan(
        WIDTH,
        round(height + 2 * MARGIN, 1),
        (MARGIN, MARGIN, round(size_m[0] * unit, 1), round(height, 1)),
        path([(MARGIN + x * unit, MARGIN + y * unit) for x, y in corners]),
        [
            (round(MARGIN + x * unit, 1), round(MARGIN + y * unit, 1), round(tray_m[0] * unit, 1), round(tray_m[1] * unit, 1))
            for x, y in places
        ],
    )
