"""Read packets and the crops a garden grows."""

from __future__ import annotations

from typing import Any

from django.http import Http404

from cloche.apps.gardens.models import Garden
from cloche.apps.seed.models import CropChoice, Packet
from cloche.bridge.services.crops import crop
from cloche_engine.crops.catalogue import Crop
from cloche_engine.errors import UnknownCrop


def values_in_use(garden: Garden) -> dict[str, dict[str, float]]:
    """What is said of each crop by the packet in use: one query."""
    return {packet.crop_key: packet.values for packet in _current(garden).filter(in_use=True).only("crop_key", "values")}


def prices_in_use(garden: Garden) -> dict[str, float]:
    """What the packets in use cost, where that is told: one query."""
    rows = _current(garden).filter(in_use=True, price__isnull=False)
    return dict(rows.values_list("crop_key", "price"))


def varieties_in_use(garden: Garden) -> dict[str, str]:
    """Names of the packets in use by crop: one query."""
    return dict(_current(garden).filter(in_use=True).values_list("crop_key", "variety"))


def packets_of(garden: Garden, crop_key: str) -> list[Packet]:
    """A crop's packets, the one in use first."""
    return list(_current(garden).filter(crop_key=crop_key))


def choices_of(garden: Garden) -> dict[str, CropChoice]:
    """By crop: one query."""
    return {choice.crop_key: choice for choice in CropChoice.objects.filter(garden=garden)}


def sowing_rule_for(garden: Garden, choice: CropChoice | None) -> str:
    """By which rule this garden sows this crop."""
    return (choice.sowing_rule if choice else "") or garden.sowing_rule


def _current(garden: Garden) -> Any:
    return Packet.objects.filter(garden=garden, removed_at__isnull=True)


def crop_or_404(crop_key: str) -> Crop:
    """A crop of the catalogue."""
    try:
        return crop(crop_key)
    except UnknownCrop as unknown:
        raise Http404 from unknown
