"""What could be sown into soil of a measured temperature, by the two rules that go by the soil.

*At the minimum*: sow as soon as the crop wakes at all. *Comfortable*: wait until the soil lies inside the printed optimum
range. Both are judged on the same numbers, so that what the first one costs can be said.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from cloche_engine.crops.catalogue import Crop
from cloche_engine.germination.pooling import stands
from cloche_engine.germination.steady import FIELD_FACTOR, days_to_emergence, in_soil
from cloche_engine.windows.limits import longest_in_soil_d, never_up_d


class Readiness(StrEnum):
    """How a crop responds to soil of a given temperature."""

    ASLEEP = "asleep"
    AT_MINIMUM = "at the minimum"
    COMFORTABLE = "comfortable"
    TOO_HOT = "too hot"


@dataclass(frozen=True)
class SteadyOutlook:
    """Outlook of one crop at constant soil temperature.

    Attributes
    ----------
    days : float
        Days to half emergence, inf for never.
    share : float
        Fraction of viable seed, 0-1.
    cost_days : float
        Days lost compared with the near edge of the optimum range.
    """

    crop: Crop
    readiness: Readiness
    days: float
    share: float
    cost_days: float
    cost_share: float


def steady_outlook(crop: Crop, soil_c: float, field_factor: float = FIELD_FACTOR, stand: float | None = None) -> SteadyOutlook:
    """Return how one crop would do in soil that stays at `soil_c`. Seed that would take too long counts as never coming up, as
    in windows.

    Parameters
    ----------
    soil_c : float
        Soil [°C].
    field_factor : float
        Garden soil's days against the laboratory's.
    stand : float | None
        Share of what lives that comes through, 0-1; None: as in a garden's bed.
    """
    times, through = in_soil(crop, field_factor), stands(crop) if stand is None else stand
    days = float(days_to_emergence(soil_c, crop, times, crop.sowing_depth_m))
    days = days if days <= never_up_d(crop) else float("inf")
    share = float(crop.share.at(soil_c)) * through if days < float("inf") else 0.0
    edge_c = min(max(soil_c, crop.optimum_from_c), crop.optimum_to_c)
    edge_days = float(days_to_emergence(edge_c, crop, times, crop.sowing_depth_m))
    cost_share = max(0.0, float(crop.share.at(edge_c)) * through - share)
    ready = readiness(crop, soil_c)
    if ready is Readiness.COMFORTABLE and days > longest_in_soil_d(crop):
        # The printed range begins where seed still lies for months: nobody is comfortable with that.
        ready = Readiness.AT_MINIMUM
    return SteadyOutlook(crop, ready, days, share, days - edge_days, cost_share)


def readiness(crop: Crop, soil_c: float) -> Readiness:
    """Return the readiness: below the printed minimum, at the minimum, comfortable within the ideal range, or too hot.

    Parameters
    ----------
    soil_c : float
        Soil [°C].
    """
    if crop.comfortable_at(soil_c):
        return Readiness.COMFORTABLE
    if soil_c > crop.optimum_to_c:
        return Readiness.TOO_HOT
    return Readiness.AT_MINIMUM if crop.awake_at(soil_c) else Readiness.ASLEEP


def sowable(crops: list[Crop], soil_c: float, comfortable_only: bool = True) -> list[SteadyOutlook]:
    """Return the crops that can be sown in place in soil of this temperature, the fastest first.

    comfortable_only False adds those that have only just reached their minimum; crops that are raised and planted out are never
    listed, nor those that would lie there for good: the printed advice and the measured rates come from different tables.

    Parameters
    ----------
    soil_c : float
        Soil [°C].
    comfortable_only : bool
        False adds those that have only just reached their minimum.
    """
    wanted = {Readiness.COMFORTABLE} if comfortable_only else {Readiness.COMFORTABLE, Readiness.AT_MINIMUM}
    steady_outlooks = [steady_outlook(crop, soil_c) for crop in crops if crop.sown_direct]
    return sorted((v for v in steady_outlooks if v.readiness in wanted and v.share > 0), key=lambda v: (v.days, v.crop.name))
