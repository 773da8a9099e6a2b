"""Hotbeds: materials, stages of use, and how evenly a heat source warms."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from cloche.bridge.values.texts import say
from cloche_engine.heat.faults import EVEN_K, layer_for, spread_k
from cloche_engine.heat.hotbed import core_m
from cloche_engine.results import PlaceForecast


def materials() -> list[tuple[str, str]]:
    """Return keys and names of the filling materials."""
    return [
        ("horse", say("strawy horse manure")),
        ("hay", say("hay and dung")),
        ("leaves", say("leaves")),
        ("compost", say("garden compost and green material")),
    ]


def moistures() -> list[tuple[str, str]]:
    """Return keys and names of the moisture levels at filling."""
    return [
        ("dry", say("dry: a squeezed handful falls apart")),
        ("moist", say("moist: holds together, no water comes out")),
        ("wet", say("wet: water runs out")),
    ]


def treads() -> list[tuple[str, str]]:
    """Return keys and names of the degrees of compaction."""
    return [("loose", say("loose")), ("firm", say("trodden firm in layers")), ("hard", say("trodden hard"))]


LASTS_D, PEAKS_D = 90, 45
"""Days for which a hotbed's own heat is looked at, and within which of its filling it is hottest: later it is the season."""
TRAYS_FROM_C, TOO_HOT_C, USEFUL_C = 18.0, 27.0, 15.0
"""Soil for trays on top, too hot for roots, and no longer worth a hotbed (common practice, no source)."""


@dataclass(frozen=True)
class Times:
    """Days on which the use of a hotbed changes, None where its own heat is not the cause.

    Warm enough for trays; fit for planting; no longer worth using; and the hottest day with its mean [°C].
    """

    trays: date | None
    plant: date | None
    fades: date | None
    peak_c: float
    peak_on: date

    @property
    def gets_too_hot(self) -> bool:
        """Return whether the bed is hot enough for a time to damage roots."""
        return self.peak_c > TOO_HOT_C


def times_of(ground: PlaceForecast, today: date, filled_on: date | None = None) -> Times:
    """Return the stages of a hotbed from its stored forecast: hourly for past weeks and daily ahead.

    `filled_on` is the latest filling, None where unknown.
    """
    hours = ground.near_mid_c
    behind = 21
    past = [sum(hours[24 * i : 24 * i + 24]) / 24 for i in range(behind)]
    trajectory = [*past, *ground.far_mid_c]
    days = [today + timedelta(days=i - behind) for i in range(len(trajectory))]
    filled = 0 if filled_on is None else (filled_on - days[0]).days
    first, last = max(filled, 0), min(max(filled + PEAKS_D, 1), len(trajectory))
    top = max(range(min(first, last - 1), last), key=trajectory.__getitem__)
    # Later it is the season that warms and cools it.
    end = min(top + LASTS_D, len(trajectory))
    fades = next((i for i in range(top, end) if trajectory[i] < USEFUL_C), None)
    trays = next((i for i in range(first, top + 1) if trajectory[i] >= TRAYS_FROM_C), None)
    hot = trajectory[top] > TOO_HOT_C
    plant = next((i for i in range(top, end) if trajectory[i] <= TOO_HOT_C), None) if hot else trays
    at = [None if i is None else days[i] for i in (trays, plant, fades)]
    return Times(at[0], at[1], at[2], trajectory[top], days[top])


__all__ = ["EVEN_K", "core_m", "layer_for", "spread_k"]
