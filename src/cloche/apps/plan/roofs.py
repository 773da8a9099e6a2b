"""What is over a bed, and how much room it leaves each planting."""

from __future__ import annotations

from cloche.apps.places.models import Cover
from cloche.apps.plants.models import BedShape, Planting
from cloche.bridge.services import beds


def room_under(cover_key: str, item: Cover | None, shape: BedShape) -> beds.Room | None:
    """The room under a cover, one's own or of a kind; None where plants push it up or stand in it as in a room."""
    width = min(item.width_m, shape.width_m) if item and item.width_m else shape.width_m
    if item is None:
        return beds.room_over(cover_key, width)
    return beds.room_over(cover_key, width, (item.width_m, item.spread_m), (item.low_m, item.high_m))


def across_m(planting: Planting, shape: BedShape) -> float:
    """How far from the bed's edge the middle of a patch is; of one that is not on the plan, the middle of the bed [m]."""
    return shape.width_m / 2 if planting.y_m is None else planting.y_m + planting.width_m / 2


def clear_m(planting: Planting, shape: BedShape, room: beds.Room) -> float:
    """Height that is free over a patch [m]."""
    return room.height_m(across_m(planting, shape) * room.width_m / shape.width_m)
