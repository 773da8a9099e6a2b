"""Benches, growth, sowing rules and hedges as the rooms see them. Light: pages use it."""

from __future__ import annotations

from cloche.core.crops.raising import HARDEN_D
from cloche.core.windows.bench import Raising, raising
from cloche.core.windows.growth import growth_words
from cloche.core.windows.hedge import MISHAP, Candidate, Hedge, hedge

ROOM_BENCH_C = 18.0
"""Soil of a tray in a heated room where none is measured (assumption)."""
BENCHES = ("tray", "mat", "cells")
"""Kinds of place that only raise what is planted out elsewhere."""
BENCH_KINDS = (*BENCHES, "cable", "hotbed")
"""Kinds of place on which plants are raised."""

__all__ = [
    "BENCHES",
    "BENCH_KINDS",
    "HARDEN_D",
    "MISHAP",
    "ROOM_BENCH_C",
    "Candidate",
    "Hedge",
    "Raising",
    "growth_words",
    "hedge",
]
__all__ += ["raising"]
