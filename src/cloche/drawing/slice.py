"""A place as a slice of ground: its cover above the line, soil coloured by temperature below, the probe at seed depth."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from typing import NamedTuple

from cloche.drawing import scale

WIDTH, HEIGHT = 120.0, 236.0
GROUND_Y = 92.0
DEEPEST_M = 0.45
DEPTH_POWER = 0.62


ABOVE = {"fleece": 24.0, "sheet": 14.0, "bell": 52.0}
"""Where what is written of the air under a cover does not fit into its drawing it stands so far above the ground."""


STYLES = {"film": "film", "lines": "line", "dashed": "line dash", "mulch": "mulch"}
"""Class of each part of a drawing, by its name; film: closed light shapes; lines: outlines."""


class Stop(NamedTuple):
    """A stop of a gradient: offset 0-1 and colour."""

    offset: float
    colour: str


@dataclass(frozen=True)
class Slice:
    """One place in cross-section: `shapes` above ground with class and path, `heat` as lines below."""

    stops: tuple[Stop, ...]
    probe_y: float
    ink: str
    deep_ink: str
    shapes: tuple[tuple[str, str], ...] = ()
    heat: tuple[str, ...] = ()
    ground_y: float = GROUND_Y
    number_y: float = GROUND_Y
    air_y: float = GROUND_Y - 9


def depth_y(depth_m: float) -> float:
    """Convert depth to drawing units. The upper 10 cm, where seed lies, take most of the height."""
    return GROUND_Y + (min(depth_m, DEEPEST_M) / DEEPEST_M) ** DEPTH_POWER * (HEIGHT - GROUND_Y)


def slice_of(
    kind: str,
    seed_depth_m: float,
    depths_m: Sequence[float],
    soil_c: Sequence[float],
    also: Sequence[str] = (),
    coming: Sequence[str] = (),
) -> Slice:
    """Draw a place of a kind with its soil temperatures from the surface down.

    `also` holds further kinds drawn into it; of those in `coming` only the outline is drawn, because they are not there yet.
    """
    height = HEIGHT - GROUND_Y
    stops = tuple(
        Stop(round((depth_y(depth) - GROUND_Y) / height, 3), colour)
        for depth, colour in zip(depths_m, scale.colours(soil_c), strict=True)
    )
    probe_y = depth_y(seed_depth_m)
    near = min(range(len(depths_m)), key=lambda i: abs(depths_m[i] - max(seed_depth_m, 0.08)))
    shapes, heat = _drawn(tuple(dict.fromkeys((kind, *also))), tuple(coming))
    return Slice(
        stops=stops,
        probe_y=round(probe_y, 1),
        number_y=round(min(probe_y + 27, HEIGHT - 44), 1),
        ink=scale.ink_on(soil_c[near]),
        deep_ink=scale.ink_on(soil_c[-2]),
        air_y=GROUND_Y - max(ABOVE.get(item, 9.0) for item in (kind, *also)),
        shapes=shapes,
        heat=heat,
    )


@cache
def _drawn(there: tuple[str, ...], coming: tuple[str, ...]) -> tuple[tuple[tuple[str, str], ...], tuple[str, ...]]:
    """Return the shapes with their classes in drawing order, and the heat. Of kinds in `coming`, only the outline."""

    def paths(kinds: tuple[str, ...], name: str) -> list[str]:
        return [path for kind in kinds for path in _SHAPES.get(kind, {}).get(name, [])]

    shapes = [(style, path) for name, style in STYLES.items() if name != "mulch" for path in paths(there, name)]
    shapes += [("line coming", path) for name in ("lines", "dashed") for path in paths(coming, name)]
    shapes += [(STYLES["mulch"], path) for path in paths(there, "mulch")]
    return tuple(shapes), tuple(paths(there, "heat"))


def _tunnel(height: float, x0: float = 9, x1: float = 111) -> str:
    top, middle = GROUND_Y - height, (x0 + x1) / 2
    wall = GROUND_Y - height * 0.4
    return f"M{x0} {GROUND_Y}V{wall}Q{x0} {top} {middle} {top}Q{x1} {top} {x1} {wall}V{GROUND_Y}"


def _arch(height: float, inset: float = 0) -> str:
    return f"M{9 + inset} {GROUND_Y}Q60 {GROUND_Y - 2 * height + inset} {111 - inset} {GROUND_Y}"


def _frame(back: float = 62, front: float = 34) -> str:
    return f"M9 {GROUND_Y}V{GROUND_Y - back}L111 {GROUND_Y - front}V{GROUND_Y}"


def _bell(middle: float) -> str:
    top, wall, left, right = GROUND_Y - 40, GROUND_Y - 20, middle - 14, middle + 14
    return f"M{left} {GROUND_Y}V{wall}Q{left} {top} {middle} {top}Q{right} {top} {right} {wall}V{GROUND_Y}"


def _zigzag(y: float, rise: float) -> str:
    steps = "".join(f"l8 {-rise if i % 2 else rise}" for i in range(13))
    return f"M8 {y}{steps}"


_BELLS = [_bell(24), _bell(60), _bell(96)]
_FLEECE = (
    f"M6 {GROUND_Y}Q10 {GROUND_Y - 17} 22 {GROUND_Y - 15}q13 -7 26 0q13 6 26 0q13 -7 26 0Q110 {GROUND_Y - 17} 114 {GROUND_Y}"
)
_SHEET = f"M5 {GROUND_Y}V{GROUND_Y - 6}H115V{GROUND_Y}"
_BARS = f"M42 {GROUND_Y - 53}V{GROUND_Y}M77 {GROUND_Y - 43}V{GROUND_Y}"
_STRAW = [f"M{4 + 9 * i} {GROUND_Y - 1 - (i * 7) % 5}l{9 - (i * 5) % 7} {-4 + (i * 3) % 6}" for i in range(13)]
_BOARDS = f"M3 {GROUND_Y + 30}V{GROUND_Y - 3}M117 {GROUND_Y + 30}V{GROUND_Y - 3}"
_TRAY = f"M12 {GROUND_Y - 2}V{GROUND_Y - 17}M108 {GROUND_Y - 2}V{GROUND_Y - 17}M12 {GROUND_Y - 14}H108"
_ROOM = f"M22 {GROUND_Y - 34}V{GROUND_Y - 42}L60 {GROUND_Y - 60}L98 {GROUND_Y - 42}V{GROUND_Y - 34}"
_TUB = f"M3 {GROUND_Y - 7}H14L22 {HEIGHT - 6}H98L106 {GROUND_Y - 7}H117"
_SPROUTS = "".join(f"M{22 + 15 * i} {GROUND_Y - 14}v-8m0 4q-4 0 -4 -4m4 4q4 0 4 -4" for i in range(6))

_SHAPES: dict[str, dict[str, list[str]]] = {
    "raised": {"lines": [_BOARDS]},
    "mulched": {"mulch": _STRAW},
    "fleece": {"film": [_FLEECE + "Z"], "dashed": [_FLEECE]},
    "sheet": {"film": [_SHEET + "Z"], "lines": [_SHEET]},
    "tunnel": {"film": [_tunnel(58) + "Z"], "lines": [_tunnel(58)]},
    "arch": {"film": [_arch(50) + "Z"], "lines": [_arch(50), _arch(50, 6)]},
    "frame": {"film": [_frame() + "Z"], "lines": [_frame(), _BARS]},
    "bell": {"film": [b + "Z" for b in _BELLS], "lines": [*_BELLS, *(f"M{x} {GROUND_Y - 40}v-6" for x in (24, 60, 96))]},
    "tub": {"lines": [_TUB]},
    "cells": {"lines": [_TRAY, _SPROUTS]},
    "tray": {"lines": [_TRAY, _SPROUTS, _ROOM]},
    "mat": {"lines": [_TRAY, _SPROUTS], "heat": [_zigzag(HEIGHT - 16, 5)]},
    "box": {"lines": [_TRAY, _SPROUTS], "heat": [_zigzag(HEIGHT - 40, 4)]},
    "cable": {"heat": [_zigzag(depth_y(0.22), 4)]},
    "hotbed": {
        "film": [_frame() + "Z"],
        "lines": [_frame(), _BARS],
        "heat": [_zigzag(HEIGHT - 30, 7), _zigzag(HEIGHT - 14, 7)],
    },
}
