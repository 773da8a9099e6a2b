"""How much seed is needed, as the rooms see it."""

from __future__ import annotations

from cloche.core.crops.seeds import Need, need, per_station, stations_along, stations_for, stations_on

__all__ = ["Need", "need", "per_station", "stations_along", "stations_for", "stations_on"]
