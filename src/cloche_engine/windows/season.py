"""A place's coming year as seed and plants feel it, in all scenarios: what every crop there is judged by."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.germination.emergence import Development, SeedBed, develop, rotting_per_h
from cloche_engine.germination.steady import FIELD_FACTOR, felt_by_lots, in_soil
from cloche_engine.weather.record import DailyRecord
from cloche_engine.weather.sun import day_length_h
from cloche_engine.windows import series
from cloche_engine.windows.growth import Daylight, development_index, growth_index, light_share
from cloche_engine.windows.limits import RANGE_K, SURE, WORK_WITHIN_D
from cloche_engine.windows.stages import mean_between, next_day

Array = NDArray[np.float64]
Days = NDArray[np.intp]

TOO_WET = 1.04
"""Water in the top, as a share of what it holds once it has drained, above which soil smears rather than crumbles (assumption):
hours on sand, some days on clay."""


@dataclass(frozen=True)
class Season(Daylight):
    """Air and light of a season from day 0 on.

    Attributes
    ----------
    air : DailyRecord
        Air at the plants, at their height and under their cover, (days, members).
    light_h, light : ndarray
        Hours from sunrise to sunset, and fraction of the best growth that light allows, (days,).
    moist : ndarray
        Water near the surface relative to field capacity, (soil days, members).
    mean_c : ndarray
        Mean temperature for growth, (days, members) [°C].
    """

    air: DailyRecord
    light_h: Array
    light: Array
    moist: Array
    mean_c: Array

    @classmethod
    def of(
        cls, air: DailyRecord, latitude_deg: float, hourly_moist: Array | None = None, mean_c: Array | None = None
    ) -> Season:
        """The season of a site from its daily air.

        Parameters
        ----------
        air : DailyRecord
            Daily air of the season.
        latitude_deg : float
            Latitude, north positive [°].
        hourly_moist : ndarray | None
            (hours, members); None: never too wet to work.
        mean_c : ndarray | None
            (days, members), None: halfway from low to high.
        """
        if hourly_moist is None:
            moist = np.full((1, air.low_c.shape[1]), 0.5)
        else:
            moist = hourly_moist.reshape(-1, 24, hourly_moist.shape[1]).mean(axis=1)
        doy = air.day_of_year
        return cls(
            air,
            day_length_h(doy, latitude_deg),
            light_share(doy, latitude_deg),
            moist,
            air.mean_c if mean_c is None else mean_c,
        )

    @property
    def days(self) -> int:
        """Number of days of air."""
        return len(self.air)

    @cached_property
    def _coldest(self) -> dict[int, Array]:
        return {}

    def coldest(self, days: int) -> Array:
        """Return the coldest night of each day and the days - 1 after it [°C].

        Parameters
        ----------
        days : int
            Number of days.
        """
        if days not in self._coldest:
            self._coldest[days] = series.lowest_ahead(self.air.low_c, days)
        return self._coldest[days]

    @cached_property
    def nights_c(self) -> Array:
        """Mean low of each day and the nine after it [°C]: one cold night sets heat-loving crops back little, many do."""
        return series.mean_ahead(self.air.low_c, 10)

    @cached_property
    def _heats(self) -> dict[float, Array]:
        return {}

    def heat_c(self, start: Days, end: Days, by_night: float) -> Array:
        """Return the mean high from start to before end [°C], reduced where nights are cool; (days, members) each.

        Parameters
        ----------
        start : Days
            The day it begins.
        end : Days
            Day before which it ends, (sowings, members).
        by_night : float
            How much less it counts for each kelvin by which the night is more than RANGE_K cooler, 0-1.
        """
        if by_night not in self._heats:
            high = self.air.high_c
            cooler_k = high - 2 * (high - self.mean_c) - (high - RANGE_K)
            self._heats[by_night] = series.running(high + by_night * cooler_k)
        return mean_between(self._heats[by_night], start, end)

    @cached_property
    def _lit(self) -> Array:
        return np.repeat(series.running(self.light)[:, None], self.mean_c.shape[1], axis=1)

    def mean_light(self, start: Days, end: Days) -> Array:
        """Return the mean share of best growth that light allows from start to before end.

        Parameters
        ----------
        start : Days
            The day it begins.
        end : Days
            Day before which it ends, (sowings, members).
        """
        return mean_between(self._lit, start, end)

    @cached_property
    def _frosts(self) -> dict[float, Days]:
        return {}

    def next_frost(self, limit_c: float) -> Days:
        """Return, for each day, the first day with a colder night, (days + 1, members); `days` if there is none.

        Parameters
        ----------
        limit_c : float
            Temperature of the air among the plants that is not to be passed [°C].
        """
        if limit_c not in self._frosts:
            self._frosts[limit_c] = next_day(self.air.low_c < limit_c)
        return self._frosts[limit_c]

    @cached_property
    def _chilled(self) -> dict[float, Array]:
        return {}

    def chilled_d(self, below_c: float) -> Array:
        """Return the number of days colder than `below_c` from day 0 until each day, (days + 1, members).

        Parameters
        ----------
        below_c : float
            Day's mean below which a day counts as cold [°C].

        Returns
        -------
        ndarray
            (days + 1, members).
        """
        if below_c not in self._chilled:
            self._chilled[below_c] = series.running((self.mean_c < below_c).astype(np.float64))
        return self._chilled[below_c]

    @cached_property
    def _grown(self) -> dict[tuple[float, ...], tuple[Array, Array]]:
        return {}

    def _growth(self, crop: Crop) -> tuple[Array, Array]:
        key = (crop.life.begins_c, crop.life.best_c, crop.life.ends_c)
        if key not in self._grown:
            growth, light = growth_index(self.mean_c, crop), self.light[:, None]
            pace = development_index(growth, self.mean_c, crop)
            self._grown[key] = series.running(pace * light), series.running(growth * light)
        return self._grown[key]

    def grown_d(self, crop: Crop) -> Array:
        """Return the days of full growth from day 0 until each day, (days + 1, members).

        Returns
        -------
        ndarray
            (days + 1, members).
        """
        return self._growth(crop)[0]

    def growth(self, crop: Crop, start: Days, end: Days) -> Array:
        """Return the mean growth index from start to before end, reduced by heat; (days, members) each.

        Parameters
        ----------
        start : Days
            The day it begins.
        end : Days
            Day before which it ends, (sowings, members).
        """
        return mean_between(self._growth(crop)[1], start, end)


@dataclass(frozen=True)
class Bed:
    """One place at one depth in all members, shared by all crops sown at that depth.

    Attributes
    ----------
    soil_c : ndarray
        Daily means, (soil days, members) [°C].
    field_factor : float or ndarray
        Factor of the published days, one value or one per member.
    """

    seed_bed: SeedBed
    soil_c: Array
    season: Season
    field_factor: float | Array = FIELD_FACTOR

    @classmethod
    def of(
        cls,
        hourly_soil_c: Array,
        season: Season,
        field_factor: float | Array = FIELD_FACTOR,
        hourly_moist: Array | None = None,
    ) -> Bed:
        """A bed through the season from its hourly soil.

        Parameters
        ----------
        hourly_soil_c : ndarray
            (days * 24, members) from the first day of the season.
        season : Season
            The season's air and light at the site.
        field_factor : float | ndarray
            Garden soil's days against the laboratory's.
        hourly_moist : ndarray | None
            Share of what the top can hold, (hours, members), where nobody waters it; None: it is watered.
        """
        daily = hourly_soil_c.reshape(len(hourly_soil_c) // 24, 24, -1).mean(axis=1)
        felt_c = felt_by_lots(hourly_soil_c, np.broadcast_to(field_factor, hourly_soil_c.shape[1:]))
        return cls(SeedBed.of(felt_c, hourly_moist), daily, season, field_factor)

    @cached_property
    def week_c(self) -> Array:
        """Mean soil temperature of each day and the six after it [°C]."""
        return series.mean_ahead(self.soil_c, 7)

    @cached_property
    def _developed(self) -> dict[tuple[object, ...], Development]:
        return {}

    def develop(self, crop: Crop) -> Development:
        """Return the development of seed in this bed; related crops with the same curves share it."""
        key = (crop.rate.grid.tobytes(), crop.share.grid.tobytes(), rotting_per_h(crop), crop.field_times)
        if key not in self._developed:
            self._developed[key] = develop(self.seed_bed, crop, in_soil(crop, self.field_factor))
        return self._developed[key]

    def coldest_soil_c(self, days: int) -> Array:
        """Return the coldest daily mean of each day and the days - 1 after it [°C].

        Parameters
        ----------
        days : int
            Number of days.
        """
        return series.lowest_ahead(self.soil_c, days)

    @cached_property
    def week_mid_c(self) -> Array:
        """Median of `week_c`, (soil days,)."""
        return np.asarray(np.median(self.week_c, axis=1))

    @cached_property
    def week_sure_c(self) -> Array:
        """What `week_c` exceeds in `SURE` of the members, (soil days,)."""
        return np.asarray(np.quantile(self.week_c, 1 - SURE, axis=1))

    @cached_property
    def ten_days_c(self) -> Array:
        """Mean soil temperature of each day and the nine after it [°C]."""
        return series.mean_ahead(self.soil_c, 10)

    @cached_property
    def frozen(self) -> NDArray[np.bool_]:
        """Whether the ground is frozen on each day and in the week after it."""
        return _all_week(self.soil_c <= 0.0)

    @cached_property
    def too_wet(self) -> NDArray[np.bool_]:
        """Whether the ground cannot be worked on any day of the week from each day on, for other reasons than frost."""
        days = min(len(self.soil_c), len(self.season.moist))
        bad = self.soil_c <= 0.0
        bad[:days] |= self.season.moist[:days] > TOO_WET
        return _all_week(bad) & ~self.frozen


def _all_week(bad: NDArray[np.bool_]) -> NDArray[np.bool_]:
    return np.asarray(series.lowest_ahead(bad.astype(np.float64), WORK_WITHIN_D) > 0)
