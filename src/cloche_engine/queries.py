"""Questions that need the engine, and their answers, as plain values: whoever asks need not load the engine."""

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
    """Raised when a stored snapshot was written by another version, or does not reach far enough ahead.

    The forecast of the place has to be computed again.
    """


@dataclass(frozen=True)
class WhatIfQuery:
    """What would covers do for a place?

    Attributes
    ----------
    on_d : int
        Days from today until the cover goes on.
    warm_d : int
        Days for which the soil is warmed before sowing.
    covers : tuple of CoverSpan
        The covers to compare.
    crops : tuple of str
        Keys of the crops to judge.
    comfortable : bool
        Whether to wait for the ideal range instead of the minimum.
    """

    on_d: int
    warm_d: int
    covers: tuple[CoverSpan, ...]
    crops: tuple[str, ...]
    comfortable: bool = True


@dataclass(frozen=True)
class ForCrop:
    """A crop under one cover, or without any.

    Attributes
    ----------
    crop_key : str
        Key of the crop.
    ready_d : int or None
        Days from today until the soil is ready; None if not in sight.
    gained_d : int or None
        Days gained over the bed without a cover; None where either is not in sight.
    half_d : list of float or None
        Days from sowing until half are up, as quantiles 0.1, 0.5 and 0.9; None for never.
    share : float
        Share of viable seed that comes up, 0 to 1.
    off_d : int or None
        Days from today until the nights outside are warm enough for the crop.
    """

    crop_key: str
    ready_d: int | None
    gained_d: int | None
    half_d: list[float | None]
    share: float
    off_d: int | None


@dataclass(frozen=True)
class CoverGain:
    """Effect of one cover; the first of a list is the bed without a cover.

    Attributes
    ----------
    soil_c : list
        Daily mean soil temperature at seed depth [°C], (quantiles, days).
    gain_k : list of float
        Quantiles of the mean gain over the bed without a cover in the first two weeks [K].
    profile_c : list of float
        Soil temperature by depth in the second week [°C].
    hottest_c, coldest_c : list of float
        Quantiles of the extremes among the plants in the first two weeks, if it stays closed [°C].
    open_h : float
        Hours a day for which it has to be open.
    crops : list of ForCrop
        The crops that were asked about.
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
    """Settings of the sandbox.

    Attributes
    ----------
    on : date
        The day.
    low_c, high_c : float
        Lowest and highest air temperature [°C].
    sun : float
        Share of a cloudless day's sun, 0 to 1.
    wind_m_s : float
        Wind speed at 2 m [m/s].
    cover : str
        Key of a kind of cover; empty for none.
    opening : float
        Opening of the cover, 0 to 1.
    grounds : tuple of str
        Keys of `covers.GROUNDS`.
    """

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
    """Hourly temperatures of the sandbox's last day [°C].

    Attributes
    ----------
    outside_c, inside_c : list of float
        Air outside, and among the plants.
    soil_c : list
        Soil at the depths SANDBOX_M.
    bare_c : list of float
        Soil at 5 cm without the cover.
    profile_c, bare_profile_c : list
        Soil by hour and the depths PROFILE_M, with and without the cover.
    half_d, bare_half_d : float or None
        Days until half are up if all days were like this one, with and without the cover; None for never.
    share : float
        Share of viable seed that comes up, 0 to 1.
    """

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
    """Effect of one way of heating a tray.

    Attributes
    ----------
    way : str
        "nothing" or "lid" without heat; "own" and "own_open", the heater that is there with and without a lid, or where none
        is "mat", "open" and "self", a usual mat with, without a lid, and self-regulating; "low" and "high", the same heater on
        a thermostat; "corner" and "room", where the air is warmed.
    set_c : float or None
        Set-point of the thermostat or of the air [°C]; None without one.
    roots_c : (float, float, float)
        Quantiles of the mean root temperature in the first two weeks [°C].
    half_d : list of float or None
        Quantiles of the days from sowing until half are up; None for never.
    most_d : float or None
        Days until nearly all that come up are up.
    share : float
        Share of viable seed that comes up, 0 to 1.
    kwh_half, kwh_all : float or None
        Electricity used until half are up, and until all are [kWh].
    duty : float or None
        Share of the time for which the heat is on.
    """

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
    """What would heat do for a tray?

    Attributes
    ----------
    crop_key : str
        Key of the crop.
    sown : SownBatch or None
        The sowing in the tray; None to sow today.
    area_m2 : float
        Heated area of the tray [m²].
    """

    crop_key: str
    sown: SownBatch | None = None
    area_m2: float = TRAY_M2


def site_of(latitude_deg: float, longitude_deg: float, elevation_m: float, timezone: ZoneInfo, today: date) -> Site:
    """Return the site of a garden."""
    return Site(latitude_deg, longitude_deg, elevation_m, standard_offset_h(timezone, today))
