"""What the sky sends down: sun by the hour [pvlib] and infrared by vapour and cloud [Prata1996, CrawfordDuchon1999]."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike, NDArray

STEFAN_BOLTZMANN = 5.670374e-8
KELVIN = 273.15
_AEROSOL, _WATER_CM = 0.1, 1.2
"""Aerosol optical depth at 700 nm and precipitable water of an ordinary clear day (assumption)."""


@dataclass(frozen=True)
class SunPath:
    """Position of the sun and clear-sky radiation by hour of standard time, arrays of (hours,).

    Angles are in radians, azimuth from north through east; radiation in W/m².
    """

    elevation_rad: NDArray[np.float64]
    azimuth_rad: NDArray[np.float64]
    clear_w_m2: NDArray[np.float64]
    extraterrestrial_w_m2: NDArray[np.float64]

    @property
    def days(self) -> int:
        """Number of whole days."""
        return len(self.elevation_rad) // 24

    def cut(self, start: int, stop: int) -> SunPath:
        """Return the hours from start to stop.

        Parameters
        ----------
        start : int
            Index of the first hour.
        stop : int
            Index after the last.
        """
        return SunPath(**{name: getattr(self, name)[start:stop] for name in self.__dataclass_fields__})


@lru_cache(maxsize=64)
def sun_path(latitude_deg: float, longitude_deg: float, elevation_m: float, utc_h: float, first: date, days: int) -> SunPath:
    """Return the sun at the centre of each hour from midnight of `first`.

    The clock is `utc_h` ahead of UTC.

    Position by pvlib's NREL algorithm, clear sky by its simplified Solis model at the site's air pressure.

    Parameters
    ----------
    latitude_deg : float
        Latitude, north positive [°].
    longitude_deg : float
        Longitude, east positive [°].
    elevation_m : float
        Height above the sea [m].
    utc_h : float
        Standard time less UTC [h].
    first : date
        First day.
    days : int
        Number of days.
    """
    # Loaded here: pvlib takes a second and a half, and only whoever computes needs it.
    import pandas as pd
    from pvlib import atmosphere, clearsky, irradiance, solarposition

    start = pd.Timestamp(first) + pd.Timedelta(minutes=30) - pd.Timedelta(hours=utc_h)
    times = pd.date_range(start, periods=days * 24, freq="h", tz="UTC")
    position = solarposition.get_solarposition(times, latitude_deg, longitude_deg, altitude=elevation_m)
    elevation = position["apparent_elevation"].to_numpy()
    extra = np.asarray(irradiance.get_extra_radiation(times.dayofyear.to_numpy()), dtype=np.float64)
    pressure = float(atmosphere.alt2pres(elevation_m))
    # Solis is unsteady within a degree of the horizon.
    up = elevation > 0.5
    clear = np.zeros(len(times))
    solis = clearsky.simplified_solis(elevation[up], _AEROSOL, _WATER_CM, pressure, dni_extra=extra[up])
    clear[up] = np.maximum(solis["ghi"], 0.0)
    angle = np.radians(elevation)
    return SunPath(angle, np.radians(position["azimuth"].to_numpy()), clear, extra * np.clip(np.sin(angle), 0, None))


def diffuse_share(sun_w_m2: ArrayLike, extraterrestrial_w_m2: ArrayLike) -> NDArray[np.float64]:
    """Return the diffuse fraction from the clearness index [Erbs1982], any shape; 1 in the dark.

    Parameters
    ----------
    sun_w_m2 : array_like
        Sun on a level plane [W/m²].
    extraterrestrial_w_m2 : array_like
        Sun above the air on a level plane, any shape [W/m²].

    References
    ----------
    Erbs1982: see :doc:`/sources`.
    """
    sun, extra = np.asarray(sun_w_m2, dtype=np.float64), np.asarray(extraterrestrial_w_m2, dtype=np.float64)
    index = np.clip(np.divide(sun, extra, out=np.zeros(np.broadcast(sun, extra).shape), where=extra > 5.0), 0.0, 1.0)
    middle = 0.9511 - 0.1604 * index + 4.388 * index**2 - 16.638 * index**3 + 12.336 * index**4
    return np.where(index <= 0.22, 1 - 0.09 * index, np.where(index <= 0.8, middle, 0.165))


def saturation_kpa(temperature_c: ArrayLike) -> NDArray[np.float64]:
    """Return the saturation vapour pressure over water [kPa], any shape [FAO56 eq. 11].

    Parameters
    ----------
    temperature_c : array_like
        Temperature [°C].

    References
    ----------
    FAO56 eq. 11: see :doc:`/sources`.
    """
    t = np.asarray(temperature_c, dtype=np.float64)
    return 0.6108 * np.exp(17.27 * t / (t + 237.3))


def clear_sky_emissivity(air_c: ArrayLike, vapour_kpa: ArrayLike) -> NDArray[np.float64]:
    """Return the emissivity of a clear sky, any shape [Prata1996].

    Parameters
    ----------
    air_c : array_like
        Air, any shape [°C].
    vapour_kpa : array_like
        Vapour pressure of the air [kPa].

    References
    ----------
    Prata1996: see :doc:`/sources`.
    """
    kelvin = np.asarray(air_c, dtype=np.float64) + KELVIN
    water = 46.5 * np.asarray(vapour_kpa, dtype=np.float64) * 10 / kelvin
    return 1 - (1 + water) * np.exp(-np.sqrt(1.2 + 3.0 * water))


def sky_w_m2(air_c: ArrayLike, vapour_kpa: ArrayLike, cloud: ArrayLike) -> NDArray[np.float64]:
    """Return the infrared from the sky [W/m²], any shape; cloud 0-1 closes the gap to 1 [CrawfordDuchon1999].

    Parameters
    ----------
    air_c : array_like
        Air, any shape [°C].
    vapour_kpa : array_like
        Vapour pressure of the air [kPa].
    cloud : array_like
        Share of the sky that is clouded, 0-1, any shape.

    References
    ----------
    CrawfordDuchon1999: see :doc:`/sources`.
    """
    clear = clear_sky_emissivity(air_c, vapour_kpa)
    share = np.asarray(cloud, dtype=np.float64)
    kelvin = np.asarray(air_c, dtype=np.float64) + KELVIN
    return (share + (1 - share) * clear) * STEFAN_BOLTZMANN * kelvin**4
