"""The doors and vents of an unheated house for the coming days, by the narrowest limit of what grows in a place there."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from cloche.bridge.services.places import ALWAYS_H, Situation
from cloche.core.covers.periods import Vent
from cloche.core.hazards import ventilation
from cloche.core.soil.bed import Bed, Parameters
from cloche.core.soil.physical import Checkpoint
from cloche.core.soil.place import Place
from cloche.core.soil.simulate import simulate
from cloche.core.weather.record import HourlyWeather

RUN_UP_D = 10
"""Days that a house's ground is run before today; its air follows within hours."""


def door_plans(
    situation: Situation, checkpoint: Checkpoint, outside: HourlyWeather, today_d: int, days: int, hot_c: float
) -> list[ventilation.Plan]:
    """One plan a day for the house that a place stands in; empty in the open. outside: open sky's weather, today_d days into
    it."""
    if situation.house is None:
        return []
    behind = min(RUN_UP_D, today_d)
    weather = outside.cut(today_d - behind, min(today_d + days, len(outside) // 24))
    members, begins_h = len(checkpoint.drawn.elsewhere.sun), behind * 24.0
    parameters = replace(
        Parameters.typical(members),
        **{name: getattr(checkpoint.drawn.elsewhere, name) for name in ("light", "exchange", "loss")},
    )
    usual = replace(situation.house, start_h=0.0, end_h=begins_h)
    case = Place(Bed(), situation.place.wave).case(weather, parameters)
    ways = [
        (usual, replace(situation.house, start_h=begins_h, end_h=ALWAYS_H, vent=Vent(o) if o else Vent()))
        for o in ventilation.OPENINGS
    ]
    inside = np.stack([c.air_c.astype(np.float64) for c in simulate([replace(case, covers=way) for way in ways], [0.05])])
    air = np.broadcast_to(weather.air_c, inside.shape[1:])
    plans = []
    for number in range(days):
        hours = slice(int(begins_h) + number * 24, int(begins_h) + number * 24 + 24)
        plans.append(ventilation.plan_day(ventilation.Tried(ventilation.OPENINGS, inside[:, hours], air[hours]), hot_c))
    return plans
