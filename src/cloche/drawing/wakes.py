"""What wakes: every crop's pace against soil temperature, with the beds' temperatures drawn through all of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cloche.drawing import scale
from cloche.drawing.geometry import Linear, Tick, band
from cloche.drawing.slice import Stop

WIDTH = 1064.0
LEFT, RIGHT = 118.0, 878.0
NAMES_END, LETTER = 110.0, 8.0
ROW, HEAD = 21.0, 90.0
LABEL_GAP = 15.0
LOW_C, HIGH_C = -1.0, 41.0


@dataclass(frozen=True)
class Row:
    """One crop: its shape, its published optimum range and a text for the chosen bed."""

    key: str
    name: str
    y: float
    outline: str
    optimum_from: float
    optimum_to: float
    words: str
    state: str


@dataclass(frozen=True)
class Line:
    """One bed now and, dashed, in a fortnight, with its label on a level of its own."""

    x: float
    x_later: float
    label_x: float
    label_y: float
    label: str
    chosen: bool


@dataclass(frozen=True)
class Wakes:
    """The whole drawing; `left` is where it begins, below 0 if a name needs more room."""

    left: float
    rows: list[Row]
    lines: list[Line]
    ticks: list[Tick]
    stops: list[Stop]
    height: float

    @property
    def width(self) -> float:
        """Width of the drawing with its names and texts."""
        return WIDTH - self.left


@dataclass(frozen=True)
class CropShape:
    """Relative rate 0-1 over soil temperature [°C], optimum range [°C] and a text."""

    key: str
    name: str
    soil_c: Sequence[float]
    pace: Sequence[float]
    optimum_c: tuple[float, float]
    words: str
    state: str


@dataclass(frozen=True)
class BedLine:
    """Soil temperature of a bed now and in a fortnight [°C], and its text."""

    now_c: float
    later_c: float
    label: str
    chosen: bool


def wakes(crops: Sequence[CropShape], beds: Sequence[BedLine], ticks: Sequence[Tick]) -> Wakes:
    """Draw crops and beds. `ticks` holds temperatures [°C] with labels in the reader's unit."""
    x = Linear(LOW_C, HIGH_C, LEFT, RIGHT)
    rows = []
    for index, crop in enumerate(crops):
        y = HEAD + ROW * (index + 0.5)
        awake = [i for i, pace in enumerate(crop.pace) if pace > 0]
        part = slice(max(0, awake[0] - 1), awake[-1] + 2)
        half = [(ROW / 2 - 2.5) * pace for pace in crop.pace[part]]
        outline = band([x(t) for t in crop.soil_c[part]], [y + h for h in half], [y - h for h in half])
        start, end = (round(x(limit), 1) for limit in crop.optimum_c)
        rows.append(Row(crop.key, crop.name, round(y, 1), outline, start, end, crop.words, crop.state))
    stops = [Stop(round((t - LOW_C) / (HIGH_C - LOW_C), 3), scale.colour(t)) for t in range(-1, 42, 3)]
    marks = [Tick(round(x(tick.at), 1), tick.label) for tick in ticks]
    left = min(0.0, NAMES_END - LETTER * max((len(crop.name) for crop in crops), default=0))
    return Wakes(left, rows, _lines(beds, x), marks, stops, HEAD + ROW * len(crops) + 28)


def _lines(beds: Sequence[BedLine], x: Linear) -> list[Line]:
    """Place the labels on three levels so that neighbours do not touch."""
    lines = []
    ordered = sorted(beds, key=lambda bed: bed.now_c)
    steps = 4
    last_end = [LEFT - 60.0] * steps
    for bed in ordered:
        at = x(bed.now_c)
        width = 6.4 * len(bed.label) + 10
        step = next((s for s in range(steps) if at - 4 >= last_end[s]), min(range(steps), key=lambda s: last_end[s]))
        start = max(at - 4, last_end[step])
        last_end[step] = start + width
        lines.append(
            Line(
                round(at, 1),
                round(x(bed.later_c), 1),
                round(start + 4, 1),
                14 + LABEL_GAP * step,
                bed.label,
                bed.chosen,
            )
        )
    return lines
