"""An enclosure within another: the weather that a bed feels inside an unheated house, once the house has been run, and a tray
upon a bed beneath the bed's own cover."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.soil.simulate import Trajectory
from cloche_engine.weather.record import HourlyWeather
from cloche_engine.weather.sky import KELVIN, STEFAN_BOLTZMANN, saturation_kpa

INSIDE_WIND = 0.15
"""Wind inside a closed house over wind outside (assumption)."""
INSIDE_HUMIDITY = 0.8
SHADED_M = 0.03
"""Ground beneath a tray never sees the sun: it is as warm as bare ground so deep (assumption)."""
FELT = ("air_c", "sun_w_m2", "diffuse_w_m2", "sky_w_m2", "wind_m_s", "vapour_kpa", "rain_mm", "snow_m")

Flags = NDArray[np.bool_]


def upon(
    covers: Sequence[CoverPeriod], trajectory: Trajectory, around: HourlyWeather, outside: HourlyWeather, hours: Flags
) -> HourlyWeather:
    """Return the weather of a tray on a bed: the air under its cover, and the surface of the bed below.

    Parameters
    ----------
    covers : Sequence[CoverPeriod]
        What stands over the bed.
    trajectory : Trajectory
        The bed, hours and members as outside, SHADED_M among its depths.
    around : HourlyWeather
        What the tray feels elsewhere.
    outside : HourlyWeather
        Weather outdoors.
    hours : ndarray
        (hours,) whether it stands there.
    """
    there = outside
    for cover in covers:
        there = inside(cover, trajectory, there)
    on = hours[:, None]
    mixed = {name: np.where(on, getattr(there, name), getattr(around, name)) for name in FELT}
    return replace(around, **mixed, below_c=np.where(on, trajectory.at(SHADED_M).astype(np.float64), np.nan))


def inside(house: CoverPeriod, trajectory: Trajectory, outside: HourlyWeather) -> HourlyWeather:
    """Return the weather inside a house.

    It has the house's air, the light and infrared of its roof, little wind, and no rain or snow.

    Parameters
    ----------
    house : CoverPeriod
        The house as a cover period.
    trajectory : Trajectory
        The house's ground run under its cover, hours and members as outside.
    outside : HourlyWeather
        Weather outdoors.
    """
    kind = house.kind
    air = trajectory.air_c.astype(np.float64)
    roof = STEFAN_BOLTZMANN * (trajectory.cover_c.astype(np.float64) + KELVIN) ** 4
    stands = (np.arange(len(outside)) >= house.start_h) & (np.arange(len(outside)) < house.end_h)
    on = stands[:, None]
    infrared = kind.infrared * outside.sky_w_m2 + (1 - kind.infrared) * roof
    vapour = np.maximum(np.minimum(outside.vapour_kpa, saturation_kpa(air)), INSIDE_HUMIDITY * saturation_kpa(air))
    light = np.where(on, kind.solar, 1.0)
    return replace(
        outside,
        air_c=np.where(on, air, outside.air_c),
        sun_w_m2=outside.sun_w_m2 * light,
        diffuse_w_m2=outside.diffuse_w_m2 * light,
        sky_w_m2=np.where(on, infrared, outside.sky_w_m2),
        wind_m_s=np.where(on, INSIDE_WIND * outside.wind_m_s, outside.wind_m_s),
        vapour_kpa=np.where(on, vapour, outside.vapour_kpa),
        rain_mm=np.where(on, 0.0, outside.rain_mm),
        snow_m=np.where(on, np.nan, outside.snow_m),
    )
