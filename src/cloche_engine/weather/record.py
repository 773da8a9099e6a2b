"""Weather as it is known: by the day, as growers note it, and by the hour, as the ground feels it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta
from enum import StrEnum
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from cloche_engine.weather.sky import SunPath, sun_path

Array = NDArray[np.float64]


class Sky(StrEnum):
    """Sunshine of a day in a word, where nothing else was recorded."""

    CLEAR = "clear"
    BROKEN = "broken"
    OVERCAST = "overcast"


SUN_SHARE = {Sky.CLEAR: 0.97, Sky.BROKEN: 0.65, Sky.OVERCAST: 0.25}
"""Share of a cloudless day's sun (assumption: middle of what stations measure under each word)."""


@dataclass(frozen=True)
class Site:
    """Position of a site, in degrees with north and east positive.

    Hours are in standard time, `utc_h` ahead of UTC throughout the year. `wind_m_s` is the usual wind at 2 m where none is
    recorded.
    """

    latitude_deg: float
    longitude_deg: float
    elevation_m: float = 100.0
    utc_h: float = 0.0
    wind_m_s: float = 2.0

    def sun(self, first: date, days: int) -> SunPath:
        """Return the path of the sun over whole days from midnight of `first`.

        Parameters
        ----------
        first : date
            First day.
        days : int
            Number of days.
        """
        return sun_path(self.latitude_deg, self.longitude_deg, self.elevation_m, self.utc_h, first, days)


@dataclass(frozen=True)
class DailyRecord:
    """Daily weather from the day `first` on, arrays of (days,) or (days, members).

    nan marks missing values.
    """

    first: date
    low_c: Array
    high_c: Array
    sun_share: Array
    rain_mm: Array
    wind_m_s: Array
    snow_m: Array

    @classmethod
    def of(
        cls, first: date, low_c: Array, high_c: Array, sun_share: Array | None = None, rain_mm: Array | None = None
    ) -> DailyRecord:
        """Build a record from little more than lows and highs.

        Parameters
        ----------
        first : date
            First day.
        low_c : ndarray
            Lows of the days [°C].
        high_c : ndarray
            Highs of the days [°C].
        sun_share : ndarray | None
            Share of a cloudless day's sun, 0-1; None or nan: not known.
        rain_mm : ndarray | None
            Rain [mm]; nan: not measured.
        """
        shape = np.shape(low_c)
        sun = np.full(shape, np.nan) if sun_share is None else sun_share
        rain = np.full(shape, np.nan) if rain_mm is None else rain_mm
        unknown = np.full(shape, np.nan)
        return cls(first, np.asarray(low_c, float), np.asarray(high_c, float), sun, rain, unknown, unknown.copy())

    def __len__(self) -> int:
        return len(self.low_c)

    @property
    def values(self) -> dict[str, Array]:
        """Return all arrays by name."""
        return {name: getattr(self, name) for name in self.__dataclass_fields__ if name != "first"}

    @cached_property
    def day_of_year(self) -> Array:
        """Day of the year of each row, 1-366."""
        return np.array([(self.first + timedelta(days=i)).timetuple().tm_yday for i in range(len(self))], dtype=np.float64)

    @cached_property
    def mean_c(self) -> Array:
        """Mean of low and high [°C]."""
        return (self.low_c + self.high_c) / 2

    @cached_property
    def range_k(self) -> Array:
        """High minus low [K]."""
        return self.high_c - self.low_c

    def cut(self, start: int, stop: int | None = None, members: slice | NDArray[np.intp] = slice(None)) -> DailyRecord:
        """Days start to stop, of some members.

        Parameters
        ----------
        start : int
            Index of the first day.
        stop : int | None
            Index after the last.
        """
        parts = {}
        for name, whole in self.values.items():
            values = whole[start:stop]
            parts[name] = values[:, members] if values.ndim == 2 else values
        return replace(self, first=self.first + timedelta(days=start), **parts)


@dataclass(frozen=True)
class HourlyWeather:
    """Weather over level open ground from midnight of `first`, arrays of (hours, members) or (hours, 1).

    Hours are in standard time.

    Attributes
    ----------
    sun : SunPath
        Position of the sun, (hours,).
    air_c, vapour_kpa, wind_m_s : ndarray
        Air temperature [°C], vapour pressure [kPa] and wind at 2 m [m/s].
    sun_w_m2, diffuse_w_m2, sky_w_m2 : ndarray
        Global and diffuse sun, and infrared from above [W/m²].
    rain_mm, snow_m : ndarray
        Rain of the hour [mm], and recorded snow depth [m], nan where none was recorded.
    below_c : ndarray or None
        Temperature of the ground under a tray [°C], nan in hours in which the tray stands free; None if it always does.
    """

    first: date
    sun: SunPath
    air_c: Array
    sun_w_m2: Array
    diffuse_w_m2: Array
    sky_w_m2: Array
    wind_m_s: Array
    vapour_kpa: Array
    rain_mm: Array
    snow_m: Array
    below_c: Array | None = None

    def __len__(self) -> int:
        return len(self.air_c)

    def cut(self, start_d: int, stop_d: int) -> HourlyWeather:
        """Whole days from start_d to stop_d.

        Parameters
        ----------
        start_d : int
            First day.
        stop_d : int
            Day after the last.
        """
        hours = slice(start_d * 24, stop_d * 24)
        named = ((name, getattr(self, name)) for name in self.__dataclass_fields__ if name not in ("first", "sun"))
        parts = {name: values[hours] for name, values in named if values is not None}
        sun = self.sun.cut(start_d * 24, stop_d * 24)
        return HourlyWeather(first=self.first + timedelta(days=start_d), sun=sun, **parts)

    @property
    def members(self) -> int:
        """Number of members."""
        return max(getattr(self, n).shape[1] for n in ("air_c", "sun_w_m2", "sky_w_m2", "wind_m_s"))
