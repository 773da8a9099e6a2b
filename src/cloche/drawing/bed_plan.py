"""A bed from above, to scale, in centimetres: its patches with what stands in each, the squares, north, and shade."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import cos, radians, sin, sqrt

from cloche.drawing.geometry import path

MARGIN_CM, HANDLE_CM = 6.0, 6.0
LEAST_DOT_CM = 1.6
SCATTER = 0.618034
FEW, MOST_SCATTERED = 12, 160
SCALES, PAPER_CM = (10, 20, 25, 50, 100, 200, 400), 18.5
"""Scales of plans, and what a sheet upright has room for."""
ARROW, LETTERS = 10.0, 0.0235
MARKS = {
    "umbellifers": "tuft",
    "alliums": "tuft",
    "grasses": "tuft",
    "legumes": "staked",
    "nightshades": "staked",
    "cucurbits": "wide",
    "brassicas": "ring",
    "beets": "ring",
}
"""By family; what is not listed is a full dot. Nothing but temperature has a colour, so plants differ by their shape."""


@dataclass(frozen=True)
class Box:
    """A rectangle measured from the corner of the bed [cm]."""

    x: float
    y: float
    width: float
    height: float


@dataclass(frozen=True)
class DrawnPatch:
    """A patch of plants, in centimetres of the bed.

    The stations are one path of dots with round ends `size` wide; `hole` makes them rings. `stems` are the lines of tufts
    and stakes, `mark` is the shape of the crop and `shade` the outline of its shadow. The name is drawn in letters of size
    `font` on a plate, `letters` of which fit. `handle` is where the patch can be resized.
    """

    box: Box
    dots: str
    size: float
    stems: str
    mark: str
    shade: str
    font: float
    hole: float

    @property
    def name_x(self) -> float:
        """Left end of its name."""
        return round(self.box.x + 0.35 * self.font, 1)

    @property
    def name_y(self) -> float:
        """Baseline of its name."""
        return round(self.box.y + self.box.height - 0.4 * self.font, 1)

    @property
    def plate(self) -> float:
        """Height of the plate behind its name."""
        return round(min(1.45 * self.font, self.box.height), 1)

    @property
    def plate_y(self) -> float:
        """Top of that plate."""
        return round(self.box.y + self.box.height - self.plate, 1)

    @property
    def letters(self) -> int:
        """Number of letters that fit."""
        return max(int(self.box.width / (0.54 * self.font)), 2)

    @property
    def handle(self) -> tuple[float, float]:
        """Corner of the square for resizing."""
        return round(self.box.x + self.box.width - HANDLE_CM, 1), round(self.box.y + self.box.height - HANDLE_CM, 1)


@dataclass(frozen=True)
class BedPlan:
    """A bed drawn from above.

    `width` and `height` include the margin, `bed` is the ground, `grid` the path of its squares and `north` an arrow around
    (0, 0).
    """

    width: float
    height: float
    bed: Box
    grid: str
    north: str

    @property
    def scale(self) -> int:
        """Reduction at which the bed fits on a printed sheet."""
        return next((scale for scale in SCALES if self.width <= scale * PAPER_CM), SCALES[-1])

    @property
    def paper(self) -> tuple[str, str]:
        """Width and height in print."""
        return f"{self.width / self.scale:.2f}cm", f"{self.height / self.scale:.2f}cm"


def bed_plan(length_m: float, width_m: float, square_m: float, runs_deg: float) -> BedPlan:
    """Draw the ground, with the direction of the bed to the right."""
    long, broad, step = (100 * value for value in (length_m, width_m, square_m))
    lines = [((x, 0.0), (x, broad)) for x in _steps(long, step)] + [((0.0, y), (long, y)) for y in _steps(broad, step)]
    size = ARROW
    tip, left, right = (_turned(point, runs_deg, size) for point in ((0.0, 1.0), (-0.45, -0.7), (0.45, -0.7)))
    return BedPlan(
        round(long + 2 * MARGIN_CM, 1),
        round(broad + 2 * MARGIN_CM, 1),
        Box(0.0, 0.0, round(long, 1), round(broad, 1)),
        "".join(path(line) for line in lines),
        path([tip, left, _turned((0.0, -0.3), runs_deg, size), right], closed=True),
    )


def patch_of(
    box_m: tuple[float, float, float, float],
    stations_m: Sequence[tuple[float, float]],
    plant_m: float,
    family: str,
    grown: float,
    shadow: tuple[float, float] | None = None,
    runs_deg: float = 90.0,
    font: float = 6.0,
) -> DrawnPatch:
    """Draw a patch.

    `box_m` holds corner, length and width. `stations_m` is None for broadcast seed, which is scattered. `grown` is the
    fraction of the growth, 0-1, and `shadow` the distance of the top's shadow from its foot, east and north [m].
    """
    x, y, long, broad = (100 * value for value in box_m)
    points = [(x + 100 * px, y + 100 * py) for px, py in stations_m] or _scattered(x, y, long, broad, plant_m)
    size = max(LEAST_DOT_CM, 100 * plant_m * 0.86 * sqrt(max(grown, 0.02)))
    mark = MARKS.get(family, "dot") if stations_m else "dot"
    return DrawnPatch(
        Box(*(round(value, 1) for value in (x, y, long, broad))),
        "".join(f"M{px:.1f} {py:.1f}h0" for px, py in points),
        round(min(size, 100 * plant_m) if stations_m else LEAST_DOT_CM, 1),
        "".join(_stem(px, py, size, mark) for px, py in points) if mark in ("tuft", "staked") else "",
        mark,
        _shade((x, y, long, broad), shadow, runs_deg) if shadow else "",
        round(min(font, broad / 2.2), 1),
        round(0.6 * size, 1),
    )


def font_cm(length_m: float, width_m: float) -> float:
    """Return the size of letters on a plan, equal on all its patches [cm]."""
    return max(100 * length_m, 130 * width_m) * LETTERS


def _steps(until: float, step: float) -> list[float]:
    return [round(step * i, 2) for i in range(1, int(until / step + 1e-6) + 1) if step * i < until - 1e-6]


def _turned(point: tuple[float, float], runs_deg: float, size: float) -> tuple[float, float]:
    """Rotate east and north to right and down in the drawing."""
    east, north = point
    turn = radians(runs_deg)
    right = east * sin(turn) + north * cos(turn)
    down = east * cos(turn) - north * sin(turn)
    return round(size * right, 2), round(size * down, 2)


def _scattered(x: float, y: float, long: float, broad: float, plant_m: float) -> list[tuple[float, float]]:
    """Scatter points evenly without visible rows, by the golden ratio."""
    number = int(min(max(long * broad / (100 * plant_m) ** 2, FEW), MOST_SCATTERED))
    return [
        (x + long * (0.03 + 0.94 * (i * SCATTER % 1)), y + broad * (0.04 + 0.7 * (i + 0.5) / number)) for i in range(number)
    ]


def _stem(x: float, y: float, size: float, mark: str) -> str:
    reach = max(size / 2, LEAST_DOT_CM)
    if mark == "staked":
        return f"M{x:.1f} {y - reach:.1f}v{2 * reach:.1f}"
    return f"M{x - reach:.1f} {y:.1f}h{2 * reach:.1f}M{x:.1f} {y - reach:.1f}v{2 * reach:.1f}"


def _shade(box: tuple[float, float, float, float], shadow: tuple[float, float], runs_deg: float) -> str:
    """Return the hull of the patch and of the shadow of its top."""
    x, y, long, broad = box
    right, down = (100 * value for value in _turned(shadow, runs_deg, 1.0))
    corners = [(x, y), (x + long, y), (x + long, y + broad), (x, y + broad)]
    every = corners + [(px + right, py + down) for px, py in corners]
    return path(_hull(every), closed=True)


def _hull(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """Return the convex hull in order (Andrew's monotone chain)."""
    ordered = sorted(set(points))

    def half(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
        chain: list[tuple[float, float]] = []
        for px, py in points:
            while len(chain) > 1 and (
                (chain[-1][0] - chain[-2][0]) * (py - chain[-2][1]) - (chain[-1][1] - chain[-2][1]) * (px - chain[-2][0]) <= 0
            ):
                chain.pop()
            chain.append((px, py))
        return chain[:-1]

    return half(ordered) + half(ordered[::-1])
