"""Write places, what stood over them, and what was done there."""

from __future__ import annotations

from datetime import date, datetime, timedelta

from django.db import transaction
from django.db.models import F, Max
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Cover, CoverPeriod, HeatPeriod, Operation, Place
from cloche.apps.places.selectors import first_overlap
from cloche.apps.shared import clock
from cloche.apps.shared.quota import refuse_beyond
from cloche.apps.work import failures, queue

WORK_OUT = "forecasts.work_out"


@transaction.atomic
def note_change_at(place: Place, by_itself: bool = False) -> None:
    """Record a change of one place. `by_itself` means that nobody is waiting for the result."""
    Place.objects.filter(pk=place.pk).update(input_revision=F("input_revision") + 1)
    place.refresh_from_db(fields=["input_revision"])
    failures.inputs_changed([key_of(place.pk)])
    ask_for(place.pk, 0 if by_itself else queue.SOON)


@transaction.atomic
def set_thermostat(period: HeatPeriod, start_c: float, on: date) -> HeatPeriod:
    """Change the temperature at which a thermostat starts from a day on, with the same span up to its stop."""
    changed = HeatPeriod.objects.get(pk=period.pk)
    changed.stop_c += start_c - changed.start_c
    changed.start_c = start_c
    if period.first < on:
        changed.pk, changed.first = None, on
        changed._state.adding = True
        period.last = on - timedelta(days=1)
        period.save()
    changed.save()
    note_change_at(period.place)
    return changed


def note_site(sender: type, garden: Garden, **kwargs: object) -> None:
    """Receives gardens.signals.site_changed."""
    note_change_in(garden)


@transaction.atomic
def note_change_in(garden: Garden) -> None:
    """Record a change of weather or site, which affects every place."""
    Place.objects.filter(garden=garden).update(input_revision=F("input_revision") + 1)
    current = list(garden.places.values_list("pk", flat=True))
    failures.inputs_changed([key_of(pk) for pk in current])
    for pk in current:
        ask_for(pk)


def ask_for(place_id: int, priority: int = 0) -> bool:
    """Queue the forecast of a place, once for many changes in a row."""
    return queue.put(WORK_OUT, key_of(place_id), priority, place_id=place_id)


def key_of(place_id: int) -> str:
    """Return the key of a place's forecast in the queue and among failures."""
    return f"place-{place_id}"


class OnAnotherBed(ValueError):
    """Raised when a cover would be on two beds; `period` says where it is."""

    def __init__(self, period: CoverPeriod) -> None:
        super().__init__(
            _("{item} is on {name} on those days. One cover cannot be on two beds.").format(
                item=period.item, name=period.place.name
            )
        )


@transaction.atomic
def save_cover(period: CoverPeriod, usual: CoverPeriod | None = None) -> CoverPeriod:
    """Save a cover period, with the place's usual cover if that stays beside it.

    Raises OnAnotherBed, also when two people use the same cover at once.
    """
    if period.item_id:
        own = Cover.objects.select_for_update().get(pk=period.item_id)
        elsewhere = own.periods.exclude(pk=period.pk).exclude(place=period.place).filter(place__removed_at__isnull=True)
        other = first_overlap(elsewhere, period.first, period.last)
        if other is not None:
            raise OnAnotherBed(other)
    if usual is not None:
        usual.save()
    period.save()
    note_change_at(period.place)
    return period


@transaction.atomic
def remove_cover(place: Place, period_id: int) -> CoverPeriod | None:
    """Delete a cover period and return it unsaved for restoring."""
    period = place.cover_periods.filter(pk=period_id).first()
    if period is not None:
        period.delete()
        note_change_at(place)
    return period


@transaction.atomic
def note_operation(place: Place, work: str, at: datetime, amount: float = 0.0) -> Operation:
    """Record work on a place."""
    operation = Operation.objects.create(place=place, work=work, at=at, amount=amount)
    note_change_at(place)
    return operation


@transaction.atomic
def remove_operation(place: Place, operation_id: int) -> bool:
    """Delete a record of work and return whether it existed."""
    gone, _unused = place.operations.filter(pk=operation_id).delete()
    if gone:
        note_change_at(place)
    return bool(gone)


@transaction.atomic
def save_place(place: Place) -> Place:
    """Save a place; a new one goes last in the walking order. Raises ValidationError if the garden is full."""
    if place.pk is None:
        refuse_beyond("places", place.garden.places.count() + 1)
        last = place.garden.places.aggregate(last=Max("walking_order"))["last"]
        place.walking_order = 0 if last is None else last + 1
    place.save()
    note_change_at(place)
    return place


def move_place(place: Place, step: int) -> None:
    """Move a place earlier (-1) or later (+1) in the walking order."""
    order = list(place.garden.places.all())
    old = order.index(place)
    order.insert(max(0, min(len(order) - 1, old + step)), order.pop(old))
    for position, each in enumerate(order):
        each.walking_order = position
    Place.objects.bulk_update(order, ["walking_order"])


def remove_place(place: Place) -> None:
    """Hide a place from all pages. Its readings are kept until it is restored."""
    place.removed_at = clock.now()
    place.save(update_fields=["removed_at"])


def put_back_place(place: Place) -> bool:
    """Restore a place unless another has its name, and return whether that was possible."""
    if Place.objects.filter(garden=place.garden, name__iexact=place.name).exists():
        return False
    place.removed_at = None
    place.save(update_fields=["removed_at"])
    return True
