"""Covers that a garden owns, and which of them stands where."""

from __future__ import annotations

from django.db import transaction

from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Cover, Place
from cloche.apps.shared import clock


@transaction.atomic
def save_own(cover: Cover) -> Cover:
    """Save a new or changed cover; where it stands is worked out anew."""
    cover.save()
    for place in Place.objects.filter(cover_periods__item=cover).distinct():
        note_change_at(place)
    return cover


def remove_own(cover: Cover) -> None:
    """Take it off the list; where it stood stays written."""
    cover.removed_at = clock.now()
    cover.save(update_fields=["removed_at"])


def put_back_own(cover: Cover) -> bool:
    """Undo a removal; not while another has taken its name. Returns whether it was done."""
    if Cover.objects.filter(garden=cover.garden, name__iexact=cover.name, removed_at__isnull=True).exists():
        return False
    cover.removed_at = None
    cover.save(update_fields=["removed_at"])
    return True
