"""Saying that what a forecast rests on has changed: it is worked out again, outside the request."""

from __future__ import annotations

from django.db import transaction
from django.db.models import F

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.work import failures, queue

WORK_OUT = "forecasts.work_out"


@transaction.atomic
def note_change_at(place: Place, by_itself: bool = False) -> None:
    """Readings or the description of one place changed; by_itself: nobody did it, nobody waits for what follows."""
    Place.objects.filter(pk=place.pk).update(input_revision=F("input_revision") + 1)
    place.refresh_from_db(fields=["input_revision"])
    failures.inputs_changed([key_of(place.pk)])
    ask_for(place.pk, 0 if by_itself else queue.SOON)


def note_site(sender: type, garden: Garden, **kwargs: object) -> None:
    """Receives gardens.signals.site_changed."""
    note_change_in(garden)


@transaction.atomic
def note_change_in(garden: Garden) -> None:
    """Weather or site changed: every place is affected."""
    Place.objects.filter(garden=garden).update(input_revision=F("input_revision") + 1)
    current = list(garden.places.values_list("pk", flat=True))
    failures.inputs_changed([key_of(pk) for pk in current])
    for pk in current:
        ask_for(pk)


def ask_for(place_id: int, priority: int = 0) -> bool:
    """Have a place worked out; many changes in a row ask once."""
    return queue.put(WORK_OUT, key_of(place_id), priority, place_id=place_id)


def key_of(place_id: int) -> str:
    """Under which a place's forecast stands in the queue and among the failures."""
    return f"place-{place_id}"
