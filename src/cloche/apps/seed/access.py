"""Crops by their address."""

from __future__ import annotations

from django.http import Http404

from cloche.bridge.services.crops import crop
from cloche.core.crops.catalogue import Crop
from cloche.core.errors import UnknownCrop


def crop_or_404(crop_key: str) -> Crop:
    """A crop of the catalogue."""
    try:
        return crop(crop_key)
    except UnknownCrop as unknown:
        raise Http404 from unknown
