"""From the day of planting out back to the day of sowing on the bench."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil

from cloche.core.crops.catalogue import Crop
from cloche.core.crops.raising import HARDEN_D
from cloche.core.germination.steady import LABORATORY, days_to_emergence, in_soil


@dataclass(frozen=True)
class Raising:
    """Days before planting out: sow_d, up_d, harden_d; emergence_d of them until half are up."""

    sow_d: int
    up_d: int
    harden_d: int
    emergence_d: float


def raising(crop: Crop, bench_c: float | Sequence[float], plant_day: int = 0) -> Raising | None:
    """Count back through hardening, growing on and emergence. None: it does not come up on that bench.

    Weeks of raising are told of a bench at the crop's own germination temperature; what a colder one costs is added. Sowing
    days before day 0 take the first day's soil.

    Parameters
    ----------
    crop : Crop
        The crop.
    bench_c : float | Sequence[float]
        Soil of the bench [°C], one for all days or one a day from day 0, on the last of which it stays.
    plant_day : int
        The day of planting out.

    Returns
    -------
    Raising | None
    """
    usual_d = _up_in(crop, crop.germinate_c)
    grow_d = max(round(crop.raise_weeks * 7 - usual_d), HARDEN_D)
    up = plant_day - grow_d
    emergence_d = _counted_back(crop, bench_c, up)
    if emergence_d is None:
        return None
    return Raising(grow_d + ceil(emergence_d), grow_d, HARDEN_D, emergence_d)


def _counted_back(crop: Crop, bench_c: float | Sequence[float], up: int) -> float | None:
    if isinstance(bench_c, float | int):
        days = _up_in(crop, float(bench_c))
        return days if days < 200 else None
    made, day = 0.0, up
    while made < 1.0:
        day -= 1
        soil = bench_c[min(max(day, 0), len(bench_c) - 1)]
        made += 1.0 / _up_in(crop, soil)
        if up - day > 200:
            return None
    return float(up - day)


def _up_in(crop: Crop, soil_c: float) -> float:
    # Watered mix on a bench is the laboratory's soil rather than the garden's.
    return float(days_to_emergence(soil_c, crop, in_soil(crop, LABORATORY), crop.sowing_depth_m))
