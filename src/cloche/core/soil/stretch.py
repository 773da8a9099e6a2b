"""What stays the same over a stretch of hours: the columns' make-up, their surfaces, the covers over them."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cloche.core.covers.air import Covers
from cloche.core.covers.kinds import CoverPeriod
from cloche.core.soil.bed import Surface
from cloche.core.soil.lanes import Batch

Array = NDArray[np.float64]

ABSORBED_BY_COVER = 0.35
"""Of the sun a cover does not let through, the share it takes up rather than reflects (assumption)."""
BLANKET = {"solar": 0.05, "infrared": 0.02, "emissivity": 0.9, "conductance": 5.0}
"""A woven blanket laid over a cover at night (assumption, low confidence)."""


class Stretch:
    """The batch as it stands from an hour on."""

    def __init__(self, batch: Batch, hour: int) -> None:
        self._batch = batch
        surfaces = batch.surfaces_at(hour)
        self.columns = batch.make_up(surfaces)
        self.side_per_s = batch.side_rates(hour)
        self.has_sides = bool(self.side_per_s.any())
        self.follows_neighbour = batch.neighbour != np.arange(batch.columns)
        self._surfaces(surfaces)
        self.covers = [lane.cover_at(hour) for lane in batch.lanes]
        self.is_covered = batch.spread([cover is not None for cover in self.covers]) > 0
        self.covered = np.flatnonzero(self.is_covered)
        self._by_hour: dict[int, Covers] = {}

    def _surfaces(self, surfaces: list[Surface]) -> None:
        batch = self._batch
        self.sun = batch.spread([s.sun for s in surfaces])
        self.absorbs = batch.spread([1 - s.albedo for s in surfaces])
        self.convection = batch.spread([s.convection for s in surfaces]) * batch.factor("convection")
        self.wetness = batch.spread([s.wetness for s in surfaces])
        self.evaporation, self.supply = batch.factor("evaporation"), batch.factor("supply")
        resistance = batch.spread([s.resistance_m2k_w for s in surfaces]) * batch.factor("skin")
        self.conductance = 1.0 / (1.0 / self.columns.top + resistance)

    def covers_at(self, hour: int) -> Covers:
        """Covers over the covered columns in an hour of the day, with openings and blankets as they then are."""
        of_day = hour % 24
        if of_day not in self._by_hour:
            rows = [_row(cover, of_day + 0.5) for cover in self.covers if cover is not None]
            members = [lane.members for lane, cover in zip(self._batch.lanes, self.covers, strict=True) if cover is not None]
            spread = {name: np.repeat([float(row[name]) for row in rows], members) for name in rows[0]}
            self._by_hour[of_day] = Covers(**spread, exchange=self._batch.factor("exchange")[self.covered])
        return self._by_hour[of_day]


def _row(cover: CoverPeriod, of_day: float) -> dict[str, Any]:
    kind, vent = cover.kind, cover.vent
    if cover.blanket and _between(of_day, *cover.blanket):
        kind = replace(
            kind,
            solar=kind.solar * BLANKET["solar"],
            infrared=kind.infrared * BLANKET["infrared"],
            wet_infrared=kind.wet_infrared * BLANKET["infrared"],
            conductance_w_m2k=1 / (1 / kind.conductance_w_m2k + 1 / BLANKET["conductance"]),
        )
    open_now = vent.opening if vent.from_h is None or vent.to_h is None or _between(of_day, vent.from_h, vent.to_h) else 0.0
    return {
        "solar": kind.solar,
        "absorbs": (1 - kind.solar) * ABSORBED_BY_COVER,
        "infrared": kind.infrared,
        "emissivity": kind.emissivity,
        "wet_infrared": kind.wet_infrared,
        "wet_emissivity": kind.wet_emissivity,
        "conductance": kind.conductance_w_m2k,
        "gap_m": kind.gap_m,
        "area_ratio": kind.area_ratio,
        "air_changes_h": cover.closed_changes_h,
        "open_changes_h": kind.open_changes_h,
        "opening": open_now,
        "above_c": np.inf if vent.above_c is None else vent.above_c,
    }


def _between(hour: float, start: float, end: float) -> bool:
    return start <= hour < end if start <= end else hour >= start or hour < end
