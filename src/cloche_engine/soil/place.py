"""A place’s column of ground and the year’s course that it starts from."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.cases import Case
from cloche_engine.soil.grid import open_ground, small_volume
from cloche_engine.weather.record import HourlyWeather

Array = NDArray[np.float64]

YEAR_D = 365.25
GROUND_ABOVE_AIR_K = 1.0
"""Annual mean of the soil over the air's (assumption)."""


@dataclass(frozen=True)
class AnnualWave:
    """Annual wave of the soil temperature.

    Attributes
    ----------
    mean_c, half_swing_k, warmest_day : float
        Mean [°C], amplitude [K] and warmest day of the year at the surface.
    damping_m : float
        Damping depth of the annual wave [m].
    """

    mean_c: float
    half_swing_k: float
    warmest_day: float
    damping_m: float = 2.2

    @classmethod
    def of_months(cls, monthly_c: Array) -> AnnualWave:
        """Return the first harmonic of twelve monthly means of the air, January first.

        Parameters
        ----------
        monthly_c : ndarray
            Twelve monthly means of the air, January first [°C].
        """
        angle = 2 * np.pi * (np.arange(12) + 0.5) / 12
        wave = 2 * np.mean(np.asarray(monthly_c) * np.exp(-1j * angle))
        warmest = (-np.angle(wave)) % (2 * np.pi) / (2 * np.pi) * YEAR_D
        return cls(float(np.mean(monthly_c)) + GROUND_ABOVE_AIR_K, float(abs(wave)), float(warmest))

    def at(self, day_of_year: ArrayLike, depth_m: ArrayLike) -> Array:
        """Return the temperature for days of the year and depths, broadcast against each other [°C].

        Parameters
        ----------
        day_of_year : array_like
            Day of the year from 1, any shape.
        depth_m : array_like
            Depth below the surface, positive down [m].

        Returns
        -------
        ndarray
            [°C].
        """
        reach = np.asarray(depth_m, dtype=np.float64) / self.damping_m
        phase = 2 * np.pi * (np.asarray(day_of_year, dtype=np.float64) - self.warmest_day) / YEAR_D
        return self.mean_c + self.half_swing_k * np.exp(-reach) * np.cos(phase - reach)


TOP_REACH_M, DEEP_REACH_M = 0.30, 0.40
"""How deep the last weeks' weather is felt, and below what depth the deep ground is (assumption)."""
START_D = 4


@dataclass(frozen=True)
class Place:
    """A place with its bed, its covers and the annual wave of its deep ground.

    Hours of the covers and of the bed's events count from the first midnight of the weather.
    """

    bed: Bed
    wave: AnnualWave
    covers: tuple[CoverPeriod, ...] = field(default=())

    def case(
        self,
        weather: HourlyWeather,
        parameters: Parameters,
        start_k: Array | None = None,
        unlogged_wetness: Array | None = None,
    ) -> Case:
        """Return the case to simulate.

        Parameters
        ----------
        weather : HourlyWeather
            Hourly weather.
        parameters : Parameters
            The place's learned factors, by member.
        start_k : ndarray | None
            (members,) warmer at the top in the first hour than guessed.
        unlogged_wetness : ndarray | None
            Wetness nobody logged, as in `Case`.
        """
        shift = np.zeros(len(parameters.sun)) if start_k is None else start_k
        deep = self.deep_c(weather)
        start = self._start_c(weather, parameters)
        reach = np.exp(-self._depth_m / TOP_REACH_M)
        return Case(self.bed, weather, parameters, start + shift[:, None] * reach, deep, self.covers, unlogged_wetness)

    def shifted(self, hours: float) -> Place:
        """Return the place for weather that starts some hours later.

        Parameters
        ----------
        hours : float
            Hours by which to shift.
        """
        moved = tuple(cover.shifted(hours) for cover in self.covers)
        events = (replace(e, hour=e.hour - hours) for e in self.bed.events)
        heating = tuple(source.shifted(hours) for source in self.bed.heating)
        return replace(self, covers=moved, bed=replace(self.bed, heating=heating).with_events(*events))

    def deep_c(self, weather: HourlyWeather) -> Array:
        """Return the temperature below the column, (hours,) [°C].

        Parameters
        ----------
        weather : HourlyWeather
            Hourly weather.

        Returns
        -------
        ndarray
            (hours,).
        """
        day = weather.first.timetuple().tm_yday + np.arange(len(weather)) / 24
        return self.wave.at(day, open_ground().depth_m)

    @property
    def _depth_m(self) -> Array:
        grid = small_volume(self.bed.volume.depth_m) if self.bed.volume else open_ground()
        return grid.centre_m

    def _start_c(self, weather: HourlyWeather, parameters: Parameters) -> Array:
        """Return the soil profiles at the first hour, (members, cells) [°C].

        They blend from the annual wave in depth to the air of the first days at the top.
        """
        depth, members = self._depth_m, len(parameters.sun)
        air = np.broadcast_to(weather.air_c[: START_D * 24].mean(axis=0), (members,))
        if self.bed.volume:
            return np.repeat(air[:, None], len(depth), axis=1)
        day = float(weather.first.timetuple().tm_yday)
        wave = self.wave.at(day, depth)
        reach = np.exp(-depth / TOP_REACH_M)
        deep_k = parameters.deep_k[:, None] * (1 - np.exp(-depth / DEEP_REACH_M))
        return np.asarray(wave + (air - self.wave.at(day, 0.0))[:, None] * reach + deep_k)
