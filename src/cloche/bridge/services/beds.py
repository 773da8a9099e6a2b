"""Plants in a bed: how they stand and grow, what follows what, and why nothing came up."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from cloche.bridge.services import crops
from cloche.bridge.services.crops import crop
from cloche_engine.covers.bend import ARCH_OVER_MEAN, LEAN_RISE, bend
from cloche_engine.covers.kinds import kind
from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.potatoes import WEEKS, Chitting, chitting, lifting, tubers_in
from cloche_engine.crops.seeds import FRESH_RATE, Viability, by_age, viability
from cloche_engine.germination.pooling import pooled_pace, pooled_stand
from cloche_engine.germination.silent import Advice, Cause, Dug, Finding, silent
from cloche_engine.plants import shade, spacing, stature
from cloche_engine.plants.rotation import Before, TooSoon, too_soon
from cloche_engine.plants.spacing import Layout, Spacing, Thinning
from cloche_engine.plants.stature import SET_OUT_M, UP_M, Room

__all__ = [
    "WEEKS",
    "Advice",
    "Before",
    "Cause",
    "Chitting",
    "Course",
    "Dug",
    "Finding",
    "Layout",
    "Patch",
    "Room",
    "Shadow",
    "Thinning",
    "TooSoon",
    "came_so_far",
    "chitting",
    "come_too_soon",
    "course",
    "finding",
    "groups",
    "lifting",
    "on_trellis",
    "patch",
    "pooled_pace",
    "pooled_stand",
    "room_over",
    "shadow_of",
    "tubers_in",
    "usual_spacing",
    "viability_of",
]


Shadow = shade.Shadow
ROOFED = {"arch": "arch", "tunnel": "arch", "bell": "arch", "frame": "lean"}
"""Others lie on the plants, which push them up, or are rooms."""


@dataclass(frozen=True)
class Patch:
    """What goes into a patch. stations: from its corner [m]; plants: that are to stand there; seeds: that it takes."""

    spacing: Spacing
    stations: list[tuple[float, float]]
    plants: int
    seeds: int


@dataclass(frozen=True)
class Course:
    """A crop through its days from the first on: height [m] and share of its growth by the day; ripe: day of the first harvest,
    None where it is not in sight."""

    first: date
    height_m: list[float]
    grown: list[float]
    ripe: date | None

    def height_on(self, day: date) -> float:
        """Height on a day within them, the nearest end outside [m]."""
        at = min(max((day - self.first).days, 0), len(self.height_m) - 1)
        return self.height_m[at]

    def grown_on(self, day: date) -> float:
        """Share of its growth on a day, 0-1."""
        return self.grown[min(max((day - self.first).days, 0), len(self.grown) - 1)]

    def touches(self, room_m: float) -> date | None:
        """Day on which it reaches what is over it; None: not in sight."""
        return stature.touches(self.height_m, self.first, room_m)


def usual_spacing(crop_key: str, layout: str) -> Spacing:
    """A crop's own distances."""
    return spacing.usual(crops.crop(crop_key), Layout(layout))


def patch(
    crop_key: str,
    size_m: tuple[float, float],
    layout: str,
    own: tuple[float | None, float | None, int | None] = (None, None, None),
    thinning: str = "none",
) -> Patch:
    """A crop in a patch of size_m, along and across. own: distances of plants and rows and seeds a station, None for the crop's
    own. Raises cloche_engine.errors.OutOfRange where more would go in than anybody plants."""
    way, usual = Layout(layout), usual_spacing(crop_key, layout)
    chosen = Spacing(
        own[0] or usual.plant_m,
        own[1] or (own[0] if way is not Layout.ROWS else None) or usual.row_m,
        own[2] or usual.per_station,
    )
    stations = spacing.stations(*size_m, way, chosen)
    plants = spacing.stand(*size_m, way, chosen, Thinning(thinning))
    return Patch(chosen, stations, plants, spacing.seeds(*size_m, way, chosen))


def on_trellis(length_m: float, crop_keys: Sequence[str]) -> list[int]:
    """Plants of each of several crops that take turns along a trellis, at the distances they have in a row."""
    return spacing.on_trellis(length_m, [crops.crop(key).plant_m for key in crop_keys])


def course(
    crop_key: str, start: date, mean_c: Sequence[float], latitude_deg: float, planted: bool, height_m: float | None = None
) -> Course:
    """How a crop grows from the day it is up, or set out (planted), by the warmth of each day from then on."""
    crop = crops.crop(crop_key)
    begins_m = height_m or (SET_OUT_M if planted else UP_M)
    printed_d = crop.maturity_planted_d if planted else crop.maturity_d
    grown = stature.grown_shares(crop, mean_c, start, latitude_deg, printed_d)
    heights = stature.heights_m(crop, begins_m, grown)
    ripe = np.flatnonzero(grown >= 1.0)
    return Course(
        start,
        np.round(heights, 3).tolist(),
        np.round(np.minimum(grown, 1.0), 3).tolist(),
        start + timedelta(days=int(ripe[0])) if ripe.size and not crop.life.perennial else None,
    )


def room_over(
    cover_key: str,
    width_m: float,
    bent_m: tuple[float | None, float | None] = (None, None),
    box_m: tuple[float | None, float | None] = (None, None),
) -> Room | None:
    """The room under a cover; None where plants push it up, grow through it or stand in it as in a room. bent_m: width of the
    sheet and how far apart its edges are set; box_m: a frame's heights at its front and back; None: as is usual."""
    over = kind(cover_key)
    shape = ROOFED.get(over.drawn_as)
    if shape is None:
        return None
    sheet_m, spread_m = bent_m
    if over.bends and sheet_m and spread_m and spread_m < sheet_m:
        arc = bend(sheet_m, spread_m)
        return Room(arc.height_m, 0.0, arc.spread_m)
    if shape == "lean":
        front_m, back_m = box_m
        low = front_m or 2 * over.gap_m / (1 + LEAN_RISE)
        return Room(back_m or low * LEAN_RISE, low, width_m, "lean")
    return Room(over.gap_m * ARCH_OVER_MEAN, 0.0, width_m)


def come_too_soon(crop_key: str, year: int, past: Iterable[tuple[str, int]]) -> TooSoon | None:
    """Of what stood there, crop and year: the latest of the family that is too near."""
    family = crops.crop(crop_key).family
    return too_soon(family, year, [Before(key, crops.crop(key).family, when) for key, when in past])


def shadow_of(day: date, solar_h: float, latitude_deg: float) -> Shadow | None:
    """Where shadows fall [m/m], east and north; None without sun."""
    return shade.shadow(day.timetuple().tm_yday, solar_h, latitude_deg)


ROOM_BENCH_C = 18.0
"""Soil of a tray in a heated room where none is measured (assumption)."""


def groups() -> list[tuple[str, str]]:
    """Keys and names, for choosing."""
    return [(key, crop(key).name) for key in WEEKS]


def came_so_far(crop_key: str, soil_c: Sequence[float | None]) -> float:
    """How far the soil's warmth since it was sown has brought half of a crop's seed, 1: up. Days that are not known count as
    the mean of those that are; 0 where none is."""
    crop = crops.crop(crop_key)
    known = [value for value in soil_c if value is not None]
    if not known:
        return 0.0
    rates = [float(crop.rate.at(value)) for value in known]
    return sum(rates) / len(known) * len(soil_c) / crop.field_times


def finding(crop_key: str, dug: Dug, soil_c: Sequence[float | None], alive: float) -> Finding:
    """What the dig tells."""
    return silent(dug, crops.crop(crop_key).sowing_depth_m, came_so_far(crop_key, soil_c), alive)


def viability_of(crop: Crop, age_y: int | None, trials: Iterable[tuple[int, int, float]]) -> Viability:
    """See cloche_engine.crops.lots; age_y None: not known, taken as fresh."""
    return viability(FRESH_RATE if age_y is None else by_age(crop, age_y), trials)
