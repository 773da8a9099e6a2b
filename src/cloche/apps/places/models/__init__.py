"""The places of a garden, what stands over them and below them, what was done there, what a hotbed is built of."""

from cloche.apps.places.models.bench import BenchCheck, HeatPeriod, HeatTest, Lamp, RoomAir, TuberTray
from cloche.apps.places.models.covers import (
    Cover,
    CoverDamage,
    CoverPeriod,
    Hotbed,
    HotbedFill,
    HotbedNote,
    HotbedTray,
    Operation,
)
from cloche.apps.places.models.places import ASPECTS, WINDOW_ASPECTS, CurrentPlaces, Place, Room

__all__ = [
    "ASPECTS",
    "WINDOW_ASPECTS",
    "BenchCheck",
    "Cover",
    "CoverDamage",
    "CoverPeriod",
    "CurrentPlaces",
    "HeatPeriod",
    "HeatTest",
    "Hotbed",
    "HotbedFill",
    "HotbedNote",
    "HotbedTray",
    "Lamp",
    "Operation",
    "Place",
    "Room",
    "RoomAir",
    "TuberTray",
]
