"""Queries on packets and on the crops a garden grows."""

from __future__ import annotations

from typing import Any

from django.http import Http404

from cloche.apps.gardens.models import Garden
from cloche.apps.seed.models import CropChoice, Packet
from cloche.bridge.services.crops import crop
from cloche_engine.crops.catalogue import Crop
from cloche_engine.errors import UnknownCrop


def values_in_use(garden: Garden) -> dict[str, dict[str, float]]:
    """Return the crop values stated by the packets in use, in one query."""
    return {packet.crop_key: packet.values for packet in _current(garden).filter(in_use=True).only("crop_key", "values")}


def prices_in_use(garden: Garden) -> dict[str, float]:
    """Return the prices of the packets in use where known, in one query."""
    rows = _current(garden).filter(in_use=True, price__isnull=False)
    return dict(rows.values_list("crop_key", "price"))


def varieties_in_use(garden: Garden) -> dict[str, str]:
    """Return the varieties of the packets in use by crop, in one query."""
    return dict(_current(garden).filter(in_use=True).values_list("crop_key", "variety"))


def packets_of(garden: Garden, crop_key: str) -> list[Packet]:
    """Return a crop's packets, the one in use first."""
    return list(_current(garden).filter(crop_key=crop_key))


def choices_of(garden: Garden) -> dict[str, CropChoice]:
    """Return a garden's choices by crop, in one query."""
    return {choice.crop_key: choice for choice in CropChoice.objects.filter(garden=garden)}


def sowing_rule_for(garden: Garden, choice: CropChoice | None) -> str:
    """Return the sowing rule a garden uses for a crop."""
    return (choice.sowing_rule if choice else "") or garden.sowing_rule


def _current(garden: Garden) -> Any:
    return Packet.objects.filter(garden=garden, removed_at__isnull=True)


def crop_or_404(crop_key: str) -> Crop:
    """Return a crop of the catalogue, or answer 404."""
    try:
        return crop(crop_key)
    except UnknownCrop as unknown:
        raise Http404 from unknown
