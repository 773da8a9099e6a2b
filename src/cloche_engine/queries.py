"""Heavy questions and their answers: plain values, so that whoever asks need not load the engine that answers."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from zoneinfo import ZoneInfo

from cloche_engine.inputs import CoverSpan, SownBatch
from cloche_engine.local_time import standard_offset_h
from cloche_engine.results import Triple
from cloche_engine.weather.record import Site

TRAY_M2 = 0.14
"""A seed tray of usual size (assumption)."""


class OutdatedSnapshot(LookupError):
    """What was kept does not do for the question: another version kept it, or it does not reach so far. The place wants to be
    worked out anew."""


@dataclass(frozen=True)
class WhatIfQuery:
    """on_d: days from today on which it goes on; warm_d: days the ground is warmed before sowing; comfortable: the rule that
    waits for the ideal range."""

    on_d: int
    warm_d: int
    covers: tuple[CoverSpan, ...]
    crops: tuple[str, ...]
    comfortable: bool = True


@dataclass(frozen=True)
class ForCrop:
    """A crop under a cover, or bare. ready_d: days from today until its soil is ready, None: not in sight; gained_d: sooner
    than bare, None: where bare is not in sight or it never is; half_d: band of days from sowing, None: never; share: of live
    seed. off_d: days from today from which the nights outside are warm enough for it."""

    crop_key: str
    ready_d: int | None
    gained_d: int | None
    half_d: list[float | None]
    share: float
    off_d: int | None


@dataclass(frozen=True)
class CoverGain:
    """A cover's purchase, the first of a list being the bare bed. soil_c: daily mean at seed depth, (band, days); gain_k:
    band of the first fortnight's mean over bare; profile_c: soil by depth in its second week; hottest_c, coldest_c: bands of
    the fortnight's extremes among the plants, closed all along; open_h: hours a day it has to stand open.
    """

    soil_c: list[list[float]]
    gain_k: list[float]
    profile_c: list[float]
    hottest_c: list[float]
    coldest_c: list[float]
    open_h: float
    crops: list[ForCrop]


@dataclass(frozen=True)
class Set:
    """What one sets: the day's low and high [°C], share of a cloudless day's sun, wind [m/s], opening 0-1; cover: a kind's key
    or empty; grounds: keys of covers.GROUNDS."""

    on: date
    low_c: float
    high_c: float
    sun: float
    wind_m_s: float
    cover: str
    opening: float
    grounds: tuple[str, ...]


@dataclass(frozen=True)
class Day:
    """The last day by the hour [°C]: outside; inside among the plants; soil by SANDBOX_M; bare: soil at 5 cm without the cover.
    profile_c, bare_profile_c: soil by hour and PROFILE_M, under the cover and bare. half_d: days until half are up in such
    days, None: never; bare_half_d: in the bare bed; share: of live seed."""

    outside_c: list[float]
    inside_c: list[float]
    soil_c: list[list[float]]
    bare_c: list[float]
    profile_c: list[list[float]]
    bare_profile_c: list[list[float]]
    half_d: float | None
    bare_half_d: float | None
    share: float


@dataclass(frozen=True)
class HeatGain:
    """One way to go on. way: nothing, lid, mat, low, high, corner or room; set_c: of its thermostat or of the air, None: none.
    roots_c: mean at the roots over the first fortnight, band; half_d: days from sowing until half are up, band, None: never;
    most_d: until nearly all that come are up; share of live seed; kwh_half, kwh_all: of electricity until heat goes off by
    either school; duty: share of the time that it is on."""

    way: str
    set_c: float | None
    roots_c: Triple
    half_d: list[float | None]
    most_d: float | None
    share: float
    kwh_half: float | None
    kwh_all: float | None
    duty: float | None


@dataclass(frozen=True)
class HeatQuery:
    """crop_key: what is sown today, or the sowing that lies there; area_m2: of the tray that is heated."""

    crop_key: str
    sown: SownBatch | None = None
    area_m2: float = TRAY_M2


def site_of(latitude_deg: float, longitude_deg: float, elevation_m: float, timezone: ZoneInfo, today: date) -> Site:
    """Where a garden lies."""
    return Site(latitude_deg, longitude_deg, elevation_m, standard_offset_h(timezone, today))
