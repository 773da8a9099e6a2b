"""Places made, changed, moved and removed."""

from __future__ import annotations

from django.db import transaction
from django.db.models import Max

from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.shared import clock
from cloche.apps.shared.quota import refuse_beyond


@transaction.atomic
def save_place(place: Place) -> Place:
    """Save a new or changed place; a new one goes to the end of the walk. Raises ValidationError where the garden is full."""
    if place.pk is None:
        refuse_beyond("places", place.garden.places.count() + 1)
        last = place.garden.places.aggregate(last=Max("walking_order"))["last"]
        place.walking_order = 0 if last is None else last + 1
    place.save()
    note_change_at(place)
    return place


def move_place(place: Place, step: int) -> None:
    """Move a place earlier (-1) or later (+1) in the walk."""
    order = list(place.garden.places.all())
    old = order.index(place)
    order.insert(max(0, min(len(order) - 1, old + step)), order.pop(old))
    for position, each in enumerate(order):
        each.walking_order = position
    Place.objects.bulk_update(order, ["walking_order"])


def remove_place(place: Place) -> None:
    """Take a place off every page; its readings stay with it until it is put back."""
    place.removed_at = clock.now()
    place.save(update_fields=["removed_at"])


def put_back_place(place: Place) -> bool:
    """Undo a removal; not while another place has taken its name. Returns whether it was done."""
    if Place.objects.filter(garden=place.garden, name__iexact=place.name).exists():
        return False
    place.removed_at = None
    place.save(update_fields=["removed_at"])
    return True
