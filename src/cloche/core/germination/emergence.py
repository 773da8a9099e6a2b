"""Emergence: development integrated over hourly soil temperature at sowing depth, never over a daily mean.

One idea carries all of it. Development advances by `rate(T)` a day; the middle seed shows when one unit is done, a slower
or faster seed when exp(spread * z) units are done (log-normal between seeds). The share that comes up is the published
share at each temperature weighted by the progress made there.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import NormalDist

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche.core.crops.catalogue import Crop
from cloche.core.errors import OutOfRange
from cloche.core.germination.curves import GridPosition
from cloche.core.quantities import SOIL_C

FIELD_FACTOR = 1.2
"""Garden soil is slower than the laboratory's by about this much (assumption)."""
LABORATORY = 1.0
NORMAL = NormalDist()
ICE_C = 0.0
"""Nothing advances while the soil at depth holds ice. The 0 °C cells of the table were unfrozen, hence strictly below."""
HOURS_PER_DAY = 24.0


@dataclass(frozen=True)
class Development:
    """Cumulative development of seed lying in the soil from hour 0 on.

    progress: (hours + 1, members), development since hour 0 in units of the middle seed's need
    yield_weight: (hours + 1, members), integral of share times rate; divided by progress it is the share
    """

    progress: NDArray[np.float64]
    yield_weight: NDArray[np.float64]


@dataclass(frozen=True)
class SeedBed:
    """Hourly soil at one depth, checked and placed on the curves' grid, ready for any crop.

    position: of (hours, members); asleep: hours that hold ice or are missing.
    """

    position: GridPosition
    asleep: NDArray[np.bool_]

    @classmethod
    def of(cls, temperature_c: ArrayLike) -> SeedBed:
        """temperature_c: (hours,) or (hours, members), soil at sowing depth [°C]; hourly means; nan: missing.

        Raises OutOfRange outside -30..60 °C: usually °F sent by mistake.
        """
        temperature = np.atleast_2d(np.asarray(temperature_c, dtype=np.float64).T).T
        _refuse_wrong_unit(temperature)
        position = GridPosition.of(temperature)
        return cls(position, position.missing | (temperature < ICE_C))


def develop(bed: SeedBed, crop: Crop, field_factor: float = FIELD_FACTOR) -> Development:
    """Integrate a crop's rate over hourly soil temperature; a missing or frozen hour makes no progress.

    Dry soil and depth beyond the table's 13 mm are not covered.
    """
    rate = crop.rate.on(bed.position) / (HOURS_PER_DAY * field_factor)
    rate[bed.asleep] = 0.0
    return Development(_cumulative(rate), _cumulative(rate * crop.share.on(bed.position)))


def hours_to_emergence(
    development: Development, sown_at_hour: ArrayLike, crop: Crop, fractions: Sequence[float] = (0.5,)
) -> NDArray[np.float64]:
    """Hours from sowing until each of `fractions` of those that come up have shown.

    sown_at_hour: (sowings,) whole hours into the series. Returns (fractions, sowings, members) [h]; inf: not within it.
    """
    need = np.exp([crop.spread_log_sd * NORMAL.inv_cdf(fraction) for fraction in fractions])[:, None]
    sown = np.asarray(sown_at_hour, dtype=np.intp)
    result = np.empty((len(fractions), len(sown), development.progress.shape[1]))
    for member, progress in enumerate(development.progress.T):
        result[:, :, member] = _crossings(np.ascontiguousarray(progress), progress[sown] + need) - sown
    return result


def share_by(development: Development, sown_at_hour: ArrayLike, until_hour: NDArray[np.float64]) -> NDArray[np.float64]:
    """Share of live seed that comes up when emergence ends at until_hour: (sowings, members), 0-1; 0 where it never does."""
    sown = np.asarray(sown_at_hour, dtype=np.intp)
    hours, members = development.progress.shape
    end = np.where(np.isfinite(until_hour), np.minimum(np.ceil(np.nan_to_num(until_hour, posinf=0)), hours - 1), 0)
    end = end.astype(np.intp)
    column = np.arange(members)[None, :]
    made = development.progress[end, column] - development.progress[sown]
    weight = development.yield_weight[end, column] - development.yield_weight[sown]
    with np.errstate(invalid="ignore", divide="ignore"):
        share = weight / made
    # Rounding in the running sums may leave a share a hair above one.
    return np.where(np.isfinite(until_hour) & (made > 0), np.minimum(share, 1.0), 0.0)


def days_to_emergence(temperature_c: ArrayLike, crop: Crop, field_factor: float = FIELD_FACTOR) -> NDArray[np.float64]:
    """Days until half the seedlings show in steadily warm soil: the shape of temperature_c [d]; inf: never.

    Swinging soil needs `develop` over hourly temperatures: the curve is not straight, so a mean is not enough.
    """
    temperature = np.asarray(temperature_c, dtype=np.float64)
    _refuse_wrong_unit(temperature)
    rate = np.where(temperature < ICE_C, 0.0, crop.rate.at(temperature))
    with np.errstate(divide="ignore"):
        return np.where(rate == 0.0, np.inf, field_factor / rate)


def _refuse_wrong_unit(temperature: NDArray[np.float64]) -> None:
    present = temperature[~np.isnan(temperature)]
    if present.size and (present.min() < SOIL_C[0] or present.max() > SOIL_C[1]):
        raise OutOfRange(
            f"Soil temperatures from {present.min():g} to {present.max():g} °C are outside "
            f"{SOIL_C[0]:g} to {SOIL_C[1]:g} °C. Are they in °F?"
        )


def _cumulative(per_hour: NDArray[np.float64]) -> NDArray[np.float64]:
    total = np.zeros((len(per_hour) + 1, per_hour.shape[1]))
    np.cumsum(per_hour, axis=0, out=total[1:])
    return total


def _crossings(progress: NDArray[np.float64], target: NDArray[np.float64]) -> NDArray[np.float64]:
    """Fractional hour at which a rising series first reaches each target; inf where it never does."""
    # A target that differs from the last value by rounding alone counts as reached.
    index = np.searchsorted(progress, target - 1e-12)
    reached = index < len(progress)
    after = np.clip(index, 1, len(progress) - 1)
    step = progress[after] - progress[after - 1]
    part = np.where(step > 0, (target - progress[after - 1]) / np.where(step > 0, step, 1.0), 1.0)
    return np.where(reached, after - 1 + np.clip(part, 0.0, 1.0), np.inf)
