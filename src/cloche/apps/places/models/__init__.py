"""The places of a garden, what stands over them, what was done there, what a hotbed is built of."""

from cloche.apps.places.models.covers import Cover, CoverPeriod, Hotbed, Operation
from cloche.apps.places.models.places import ASPECTS, CurrentPlaces, Place

__all__ = ["ASPECTS", "Cover", "CoverPeriod", "CurrentPlaces", "Hotbed", "Operation", "Place"]
