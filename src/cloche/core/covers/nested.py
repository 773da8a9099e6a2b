"""An enclosure within another: the weather that a bed feels inside an unheated house, once the house has been run."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from cloche.core.covers.kinds import CoverPeriod
from cloche.core.soil.simulate import Trajectory
from cloche.core.weather.record import HourlyWeather
from cloche.core.weather.sky import KELVIN, STEFAN_BOLTZMANN, saturation_kpa

INSIDE_WIND = 0.15
"""Wind inside a closed house over wind outside (assumption)."""
INSIDE_HUMIDITY = 0.8


def inside(house: CoverPeriod, trajectory: Trajectory, outside: HourlyWeather) -> HourlyWeather:
    """Weather within a house: its own air, the light it lets through, its roof's infrared, little wind, no rain or snow.

    Parameters
    ----------
    house : CoverPeriod
        The house as a cover period.
    trajectory : Trajectory
        The house's ground run under its cover, hours and members as outside.
    outside : HourlyWeather
        Weather outdoors.

    Returns
    -------
    HourlyWeather
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
