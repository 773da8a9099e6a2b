"""What a hotbed gives and needs, and how evenly a source of heat warms."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from cloche.bridge.values.texts import say
from cloche_engine.heat.faults import EVEN_K, layer_for, spread_k
from cloche_engine.results import PlaceForecast


def materials() -> list[tuple[str, str]]:
    """What it may be built of, for choosing."""
    return [
        ("horse", say("strawy horse manure")),
        ("hay", say("hay and dung")),
        ("leaves", say("leaves")),
        ("compost", say("garden compost and green material")),
    ]


def moistures() -> list[tuple[str, str]]:
    """How moist it was when filled, for choosing."""
    return [
        ("dry", say("dry: a squeezed handful falls apart")),
        ("moist", say("moist: holds together, no water comes out")),
        ("wet", say("wet: water runs out")),
    ]


def treads() -> list[tuple[str, str]]:
    """How firm it was trodden, for choosing."""
    return [("loose", say("loose")), ("firm", say("trodden firm in layers")), ("hard", say("trodden hard"))]


LASTS_D, PEAKS_D = 90, 45
"""Days for which a hotbed's own heat is looked at, and within which of its filling it is hottest: later it is the season."""
TRAYS_FROM_C, TOO_HOT_C, USEFUL_C = 18.0, 27.0, 15.0
"""Soil for trays on top, too hot for roots, and no longer worth a hotbed (common practice, no source)."""


@dataclass(frozen=True)
class Times:
    """Days on which its use changes, None: not by its own heat. trays: warm enough for trays on top; plant: warm enough and not
    too hot to plant into; fades: cooler than is worth it; peak: the hottest day's mean [°C] and its day."""

    trays: date | None
    plant: date | None
    fades: date | None
    peak_c: float
    peak_on: date

    @property
    def gets_too_hot(self) -> bool:
        """Whether roots would suffer in it for a time."""
        return self.peak_c > TOO_HOT_C


def times_of(ground: PlaceForecast, today: date, filled_on: date | None = None) -> Times:
    """From a stored forecast (see cloche_engine.results.PlaceForecast): the weeks behind by the hour, the weeks ahead by the
    day. filled_on: when it was filled last, None where nobody said."""
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


__all__ = ["EVEN_K", "layer_for", "spread_k"]
