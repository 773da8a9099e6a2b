"""Saying that what a forecast rests on has changed; the forecast keeper does the rest."""

from __future__ import annotations

from django.db.models import F

from cloche.apps.gardens.models import Garden, Place


def note_change_at(place: Place) -> None:
    """Readings or the description of one place changed."""
    Place.objects.filter(pk=place.pk).update(evidence=F("evidence") + 1)
    place.refresh_from_db(fields=["evidence"])


def note_change_in(garden: Garden) -> None:
    """Weather or site changed: every place is affected."""
    Place.objects.filter(garden=garden).update(evidence=F("evidence") + 1)
