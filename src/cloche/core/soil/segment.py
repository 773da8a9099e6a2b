"""What stays the same over a segment of hours: the columns' make-up, their surfaces, the covers over them."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from cloche.core.covers.periods import NOT_KNOWN, CoverPeriod
from cloche.core.soil.batch import BY_AIR, Top
from cloche.core.soil.bed import Surface
from cloche.core.soil.cases import CaseBatch, sun_on_sides
from cloche.core.soil.covered_air import FACTORS_OF_COVER, Cover
from cloche.core.soil.layers import Columns

BLANKET = {"solar": 0.05, "infrared": 0.02, "emissivity": 0.9, "conductance": 5.0}
"""A woven blanket laid over a cover at night (assumption, low confidence)."""


Array = NDArray[np.float64]


class Segment:
    """The batch as it stands from an hour on: columns, top; covers (24, cases, fields of `Cover` but its factors) by hour."""

    def __init__(self, batch: CaseBatch, hour: int) -> None:
        surfaces = batch.surfaces_at(hour)
        self.columns = batch.make_up(surfaces, hour)
        current = [case.cover_at(hour) for case in batch.cases]
        self.covers = np.zeros((24, len(current), len(Cover._fields) - FACTORS_OF_COVER))
        for case, cover in enumerate(current):
            if cover is not None:
                self.covers[:, case] = [_row(cover, of_day + 0.5) for of_day in range(24)]
        self.top = _top(batch, surfaces, self.columns, current, hour)


def _top(batch: CaseBatch, surfaces: list[Surface], columns: Columns, current: list[CoverPeriod | None], hour: int) -> Top:
    is_covered = batch.spread([cover is not None for cover in current]) > 0
    resistance = batch.spread([s.resistance_m2k_w for s in surfaces]) * batch.factor("surface_resistance")
    follows = is_covered & (batch.neighbour != np.arange(batch.columns))
    return Top(
        sun=batch.spread([s.sun for s in surfaces]),
        absorbs=batch.spread([1 - s.albedo for s in surfaces]),
        conductance=1.0 / (1.0 / columns.top + resistance),
        convection=batch.spread([s.convection for s in surfaces]) * batch.factor("convection"),
        wetness=batch.spread([s.wetness for s in surfaces]),
        evaporation=batch.factor("evaporation"),
        supply=batch.factor("supply"),
        **_of_cover(batch, current),
        passes=batch.spread([1.0 if cover is None else cover.kind.permeable for cover in current]),
        side_sun=batch.spread([sun_on_sides(case, hour) for case in batch.cases]),
        pool=batch.spread([texture.pool_mm for texture in batch.textures]),
        store=batch.spread([texture.store_mm for texture in batch.textures]),
        above=batch.spread([texture.above_mm for texture in batch.textures]),
        drains=batch.spread([np.exp(-1.0 / texture.drains_h) for texture in batch.textures]),
        heat=batch.factor("heat"),
        rise=batch.factor("rise"),
        fade=batch.factor("fade"),
        case=batch.spread(list(range(len(batch.cases)))).astype(np.int64),
        beside=np.where(follows, batch.neighbour, BY_AIR),
        is_covered=is_covered,
    )


def _of_cover(batch: CaseBatch, current: list[CoverPeriod | None]) -> dict[str, Array]:
    """The factors of what stands over each column: the members', narrowed and moved by what other beds tell."""
    known = [NOT_KNOWN if cover is None else cover.known for cover in current]
    parts = {}
    for i, name in enumerate(("light", "exchange", "loss")):
        middle, doubt = (batch.spread([cover[i][part] for cover in known]) for part in (0, 1))
        parts[name] = middle * batch.factor(name) ** doubt
    return parts


def _row(cover: CoverPeriod, of_day: float) -> tuple[float, ...]:
    """A cover at an hour of the day, as the fields of `Cover` without its factors."""
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
    at_hour = Cover(
        solar=kind.solar,
        absorbs=kind.absorbs,
        catches=kind.catches,
        infrared=kind.infrared,
        emissivity=kind.emissivity,
        wet_infrared=kind.wet_infrared,
        wet_emissivity=kind.wet_emissivity,
        conductance=kind.conductance_w_m2k,
        gap_m=kind.gap_m,
        area_ratio=kind.area_ratio,
        leans=kind.leans,
        stands=kind.stands,
        leak_m_h=cover.leak_m_h,
        open_m_h=kind.open_m_h,
        permeable=kind.permeable,
        opening=open_now,
        above_c=np.inf if vent.above_c is None else vent.above_c,
        light=1.0,
        exchange=1.0,
        loss=1.0,
    )
    return at_hour[:-FACTORS_OF_COVER]


def _between(hour: float, start: float, end: float) -> bool:
    return start <= hour < end if start <= end else hour >= start or hour < end
