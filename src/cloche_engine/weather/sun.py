"""Day length and the sun's daily energy by latitude [FAO56, ch. 3]: geometric, without refraction.

Refraction and the disc's width would lengthen the day by about eleven minutes at 50°; nothing here is that fine.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

SOLAR_CONSTANT_W_M2 = 1367.0
HARGREAVES = 0.17
"""Share of the extraterrestrial sun that arrives, per square root of the daily range [K^-0.5] [HargreavesSamani1982]."""


def declination_rad(day_of_year: ArrayLike) -> NDArray[np.float64]:
    """Return the solar declination [rad], any shape [FAO56 eq. 24].

    Parameters
    ----------
    day_of_year : array_like
        Day of the year from 1, any shape.

    Returns
    -------
    ndarray
        [rad].

    References
    ----------
    FAO56 eq. 24: see :doc:`/sources`.
    """
    return 0.409 * np.sin(2 * np.pi / 365 * np.asarray(day_of_year, dtype=np.float64) - 1.39)


def sunset_angle_rad(day_of_year: ArrayLike, latitude_deg: float) -> NDArray[np.float64]:
    """Return the hour angle at sunset [rad]; 0 in polar night, pi under the midnight sun [FAO56 eq. 25].

    Parameters
    ----------
    day_of_year : array_like
        Day of the year from 1, any shape.
    latitude_deg : float
        Latitude, north positive [°].

    References
    ----------
    FAO56 eq. 25: see :doc:`/sources`.
    """
    cosine = -np.tan(np.radians(latitude_deg)) * np.tan(declination_rad(day_of_year))
    return np.arccos(np.clip(cosine, -1.0, 1.0))


def day_length_h(day_of_year: ArrayLike, latitude_deg: float) -> NDArray[np.float64]:
    """Return the hours from sunrise to sunset, any shape [FAO56 eq. 34].

    Parameters
    ----------
    day_of_year : array_like
        Day of the year from 1, any shape.
    latitude_deg : float
        Latitude, north positive [°].

    References
    ----------
    FAO56 eq. 34: see :doc:`/sources`.
    """
    return 24 / np.pi * sunset_angle_rad(day_of_year, latitude_deg)


def extraterrestrial_w_m2(day_of_year: ArrayLike, latitude_deg: float) -> NDArray[np.float64]:
    """Return the daily mean of extraterrestrial sun on a level plane [W/m²], any shape [FAO56 eq. 21].

    Parameters
    ----------
    day_of_year : array_like
        Day of the year from 1, any shape.
    latitude_deg : float
        Latitude, north positive [°].

    References
    ----------
    FAO56 eq. 21: see :doc:`/sources`.
    """
    day = np.asarray(day_of_year, dtype=np.float64)
    distance = 1 + 0.033 * np.cos(2 * np.pi / 365 * day)
    phi, delta, omega = np.radians(latitude_deg), declination_rad(day), sunset_angle_rad(day, latitude_deg)
    height = omega * np.sin(phi) * np.sin(delta) + np.cos(phi) * np.cos(delta) * np.sin(omega)
    return SOLAR_CONSTANT_W_M2 / np.pi * distance * height
