"""Places by their address."""

from __future__ import annotations

from django.http import Http404

from cloche.apps.gardens.access import GardenRequest
from cloche.apps.places.models import Place


def place_or_404(request: GardenRequest, place_id: int) -> Place:
    """A place of this garden; those of others do not exist."""
    place = request.garden.places.filter(pk=place_id).first()
    if place is None:
        raise Http404
    return place
