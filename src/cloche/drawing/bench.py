"""A bench drawn from the side, and a bench to build from above."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cloche.drawing import scale
from cloche.drawing.geometry import Linear, Tick, band, path, spread

HEIGHT, TRAY_TOP, TRAY_FOOT = 152.0, 104.0, 134.0
LEFT, RIGHT = 30.0, 246.0
DEEPER = 22.0
"""A box is so much deeper than a tray."""
OPEN_SKY = 48.0
"""Where neither window nor lamp is above it, so much is left out of the drawing."""
MOST_PLANTS, TALLEST, LEANS = 9, 46.0, 0.45
DAY_H = 24.0


@dataclass(frozen=True)
class Stand:
    """A sowing in its tray: `width` is its share of the tray, `up` the emerged fraction; `height` and `lean` are 0-1."""

    width: float
    up: float
    height: float
    lean: float


@dataclass(frozen=True)
class Tray:
    """One tray: stems with two leaves, seeds still in the soil, and walls between sowings."""

    colour: str
    ink: str
    top: float
    foot: float
    tall: float
    number_y: float
    sky: float
    high: float
    plants: list[str]
    seeds: list[tuple[float, float]]
    walls: list[float]
    heat: str
    lamp: str
    light: str
    window: str
    sun: str
    lit: list[tuple[float, float]]


def tray(
    temperature_c: float,
    stands: Sequence[Stand],
    heat: str = "",
    lamp_near: float | None = None,
    lit: Sequence[tuple[float, float]] = (),
    window: bool = False,
) -> Tray:
    """Draw a tray.

    `heat` is mat, base, cable, wire or nothing. `lamp_near` is the closeness of the lamp, 0-1, None without one; `lit` are
    its hours.
    """
    sky = 0.0 if window or lamp_near is not None else OPEN_SKY
    top = TRAY_TOP - (DEEPER if heat in ("cable", "wire", "hotbed") else 0.0)
    plants, seeds, walls, x = [], [], [], LEFT
    whole = sum(stand.width for stand in stands) or 1.0
    for number, stand in enumerate(stands):
        wide = (RIGHT - LEFT) * stand.width / whole
        count = max(round(MOST_PLANTS * stand.width / whole), 2)
        for i in range(count):
            at = x + wide * (i + 0.5) / count
            if i < round(stand.up * count):
                plants.append(_plant(at, top, stand))
            else:
                seeds.append((round(at, 1), round(top + 7.0, 1)))
        x += wide
        if number < len(stands) - 1:
            walls.append(round(x, 1))
    return Tray(
        colour=scale.colour(temperature_c),
        ink=scale.ink_on(temperature_c),
        top=top,
        foot=TRAY_FOOT,
        tall=TRAY_FOOT - top,
        number_y=top + 22.0,
        sky=sky,
        high=HEIGHT - sky,
        plants=plants,
        seeds=seeds,
        walls=walls,
        heat=_heat(heat),
        lamp="" if lamp_near is None else f"M{LEFT + 8} {_lamp_y(lamp_near)}H{RIGHT - 8}",
        light="" if lamp_near is None else _light(_lamp_y(lamp_near), top),
        window="M8 10H92V100H8ZM50 10V100M8 55H92" if window else "",
        sun=f"M14 16L86 16L{RIGHT - 40} {top}L{LEFT + 10} {top}Z" if window else "",
        lit=[part for start, end in lit for part in _hours(start, end)],
    )


def _lamp_y(near: float) -> float:
    return round(14 + 34 * near, 1)


def _light(y: float, top: float) -> str:
    return f"M{LEFT + 12} {y + 3}H{RIGHT - 12}L{RIGHT + 2} {top}H{LEFT - 2}Z"


def _plant(x: float, top: float, stand: Stand) -> str:
    tall = 10.0 + (TALLEST - 10.0) * stand.height
    tip = x + tall * stand.lean * LEANS
    y = top - tall
    leaf = 5.0 + 3.0 * stand.height
    stem = f"M{x:.1f} {top:.1f}Q{x:.1f} {(top + y) / 2:.1f} {tip:.1f} {y:.1f}"
    return f"{stem}q{-leaf:.1f} {-leaf:.1f} {-1.6 * leaf:.1f} 0M{tip:.1f} {y:.1f}q{leaf:.1f} {-leaf:.1f} {1.6 * leaf:.1f} 0"


def _heat(heat: str) -> str:
    if heat in ("cable", "wire"):
        waves = "".join(f"q6 {-8 if i % 2 else 8} 12 0" for i in range(18))
        return f"M{LEFT} {TRAY_FOOT - 11}{waves}"
    if heat == "hotbed":
        rows = (TRAY_FOOT - 18, TRAY_FOOT - 7)
        return "".join(f"M{LEFT} {y}" + "".join(f"l6 {-5 if i % 2 else 5}" for i in range(36)) for y in rows)
    if heat in ("mat", "base"):
        teeth = "".join(f"l6 {-5 if i % 2 else 5}" for i in range(36))
        return f"M{LEFT} {TRAY_FOOT + 3}{teeth}"
    return ""


def _hours(start: float, end: float) -> list[tuple[float, float]]:
    """Return a daily period as x and width on a line of 24 hours, in two parts if it crosses midnight."""
    unit = (RIGHT - LEFT) / DAY_H
    spans = [(start, end)] if start <= end else [(start, DAY_H), (0.0, end)]
    return [(round(LEFT + a * unit, 1), round((b - a) * unit, 1)) for a, b in spans]


@dataclass(frozen=True)
class Dot:
    """A sowing in the picture of light and warmth."""

    x: float
    y: float
    label: str
    label_y: float
    left: bool
    leggy: bool


@dataclass(frozen=True)
class LightWarmth:
    """Paths and marks; `across` and `up` are the marks of the axes."""

    too_warm: str
    edge: str
    dots: list[Dot]
    across: list[Tick]
    up: list[Tick]


PLOT = (44.0, 14.0, 430.0, 236.0)
"""Left, top, right and bottom of the picture of light against warmth."""
MOST_MOL, COLDEST, HOTTEST = 18.0, 4.0, 30.0
LABEL_GAP = 15.0
Labelled = Sequence[tuple[float, str]]


def light_warmth(
    dots: Sequence[tuple[float, float, str, bool]], edge: Sequence[tuple[float, float]], marks: Labelled, mols: Labelled
) -> LightWarmth:
    """Draw sowings by warmth and light.

    `dots` holds (warmth [°C], light [mol/m² a day], name, whether it stretches), `edge` the light that is just enough at
    each warmth, `marks` and `mols` labelled values of the axes.
    """
    left, top, right, foot = PLOT
    across, up = Linear(COLDEST, HOTTEST, left, right), Linear(0.0, MOST_MOL, foot, top)

    def spot(celsius: float, mol: float) -> tuple[float, float]:
        return across(min(max(celsius, COLDEST), HOTTEST)), up(min(mol, MOST_MOL))

    line = [spot(c, mol) for c, mol in edge]
    placed = sorted(((*spot(c, mol), name, leggy) for c, mol, name, leggy in dots), key=lambda dot: dot[1])
    wanted = spread([y for _, y, _, _ in placed], LABEL_GAP, top + 8, foot - 4)
    return LightWarmth(
        too_warm=path([*line, (line[-1][0], foot), (line[0][0], foot)], closed=True),
        edge=path(line),
        dots=[
            Dot(round(x, 1), round(y, 1), name, round(at, 1), x > left + 0.6 * (right - left), leggy)
            for (x, y, name, leggy), at in zip(placed, wanted, strict=True)
        ],
        across=[Tick(round(across(c), 1), label) for c, label in marks],
        up=[Tick(round(up(mol), 1), label) for mol, label in mols],
    )


@dataclass(frozen=True)
class HeaterDay:
    """Days of a heated place: band and median at the roots, set points, and labels of the axes."""

    band: str
    line: str
    rules: list[Tick]
    hours: list[Tick]
    degrees: list[Tick]
    now_x: float


DAY_PLOT = (40.0, 12.0, 470.0, 132.0)


def heater_day(
    courses: tuple[Sequence[float], Sequence[float], Sequence[float]],
    rules: Labelled,
    hours: Labelled,
    degrees: Labelled,
    now: float,
) -> HeaterDay:
    """Draw heated days from hourly low, middle and high.

    `rules` are set points with labels [°C], `hours` (index, label), `degrees` labelled values, `now` an index.
    """
    left, top, right, foot = DAY_PLOT
    values = [*courses[0], *courses[2], *(value for value, _ in (*rules, *degrees))]
    x = Linear(0.0, max(len(courses[1]) - 1, 1), left, right)
    y = Linear(min(values) - 0.5, max(values) + 0.5, foot, top)
    at = [x(i) for i in range(len(courses[1]))]
    low, middle, high = ([y(value) for value in course] for course in courses)
    return HeaterDay(
        band=band(at, low, high),
        line=path(zip(at, middle, strict=True)),
        rules=[Tick(round(y(value), 1), label) for value, label in rules],
        hours=[Tick(round(x(index), 1), label) for index, label in hours],
        degrees=[Tick(round(y(value), 1), label) for value, label in degrees],
        now_x=round(x(now), 1),
    )


WIDTH, MARGIN = 520.0, 10.0


@dataclass(frozen=True)
class BenchPlan:
    """Plan of a bench: its size, the box of its inside, the path of the cable and the boxes of trays."""

    width: float
    height: float
    box: tuple[float, float, float, float]
    cable: str
    trays: list[tuple[float, float, float, float]]


def bench_plan(
    size_m: tuple[float, float], corners: Sequence[tuple[float, float]], trays: int, tray_m: tuple[float, float]
) -> BenchPlan:
    """Draw a bench from above.

    `size_m` is its inside, `corners` the cable [m], `trays` the number of trays of size `tray_m`, in rows from one corner.
    """
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
