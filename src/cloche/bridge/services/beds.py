"""Plants in a bed: spacing, growth, rotation and reasons for failed emergence."""

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
    """Contents of a patch: positions of the stations from its corner [m], plants wanted and seeds needed."""

    spacing: Spacing
    stations: list[tuple[float, float]]
    plants: int
    seeds: int


@dataclass(frozen=True)
class Course:
    """Growth of a crop by the day: height [m], share of full growth and day of the first harvest (None if out of sight)."""

    first: date
    height_m: list[float]
    grown: list[float]
    ripe: date | None

    def height_on(self, day: date) -> float:
        """Return the height on a day, or at the nearest end of the course [m]."""
        at = min(max((day - self.first).days, 0), len(self.height_m) - 1)
        return self.height_m[at]

    def grown_on(self, day: date) -> float:
        """Return the share of full growth on a day, 0-1."""
        return self.grown[min(max((day - self.first).days, 0), len(self.grown) - 1)]

    def touches(self, room_m: float) -> date | None:
        """Return the day on which the plants reach the cover, or None if not in sight."""
        return stature.touches(self.height_m, self.first, room_m)


def usual_spacing(crop_key: str, layout: str) -> Spacing:
    """Return a crop's default spacing for a layout."""
    return spacing.usual(crops.crop(crop_key), Layout(layout))


def patch(
    crop_key: str,
    size_m: tuple[float, float],
    layout: str,
    own: tuple[float | None, float | None, int | None] = (None, None, None),
    thinning: str = "none",
) -> Patch:
    """Lay a crop out in a patch of the given length and width.

    `own` overrides plant distance, row distance and seeds per station. Raises cloche_engine.errors.OutOfRange for an
    impossible number of plants.
    """
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
    """Return the number of plants of each crop that alternate along a trellis at their row spacing."""
    return spacing.on_trellis(length_m, [crops.crop(key).plant_m for key in crop_keys])


def course(
    crop_key: str, start: date, mean_c: Sequence[float], latitude_deg: float, planted: bool, height_m: float | None = None
) -> Course:
    """Simulate a crop's growth from emergence or planting out, from daily mean temperatures."""
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
    """Return the room under a cover, or None where plants lift it, grow through it or stand in it as in a room.

    `bent_m` is sheet width and spread, `box_m` the front and back heights of a frame; None takes the usual ones.
    """
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
    """Return the most recent crop of the same family grown there too recently for rotation, or None."""
    family = crops.crop(crop_key).family
    return too_soon(family, year, [Before(key, crops.crop(key).family, when) for key, when in past])


def shadow_of(day: date, solar_h: float, latitude_deg: float) -> Shadow | None:
    """Return the direction and length of shadows per metre of height, east and north; None without sun."""
    return shade.shadow(day.timetuple().tm_yday, solar_h, latitude_deg)


ROOM_BENCH_C = 18.0
"""Soil of a tray in a heated room where none is measured (assumption)."""


def groups() -> list[tuple[str, str]]:
    """Return keys and names of the crop families."""
    return [(key, crop(key).name) for key in WEEKS]


def came_so_far(crop_key: str, soil_c: Sequence[float | None]) -> float:
    """Return progress towards half emergence since sowing, 1 at emergence.

    Missing days take the mean of the others; 0 without any.
    """
    crop = crops.crop(crop_key)
    known = [value for value in soil_c if value is not None]
    if not known:
        return 0.0
    rates = [float(crop.rate.at(value)) for value in known]
    return sum(rates) / len(known) * len(soil_c) / crop.field_times


def finding(crop_key: str, dug: Dug, soil_c: Sequence[float | None], alive: float) -> Finding:
    """Return the diagnosis of a row that was dug up."""
    return silent(dug, crops.crop(crop_key).sowing_depth_m, came_so_far(crop_key, soil_c), alive)


def viability_of(crop: Crop, age_y: int | None, trials: Iterable[tuple[int, int, float]]) -> Viability:
    """Return the viability of a seed lot; see cloche_engine.crops.lots.

    An unknown age (None) counts as fresh.
    """
    return viability(FRESH_RATE if age_y is None else by_age(crop, age_y), trials)
