"""Covers on and off, and what is done to a place."""

from __future__ import annotations

from datetime import datetime

from django.db import transaction
from django.utils.translation import gettext as _

from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Cover, CoverPeriod, Operation, Place
from cloche.apps.places.selectors import first_overlap


class OnAnotherBed(ValueError):
    """One cover cannot be on two beds; period: where it is."""

    def __init__(self, period: CoverPeriod) -> None:
        super().__init__(
            _("{item} is on {name} on those days: one cover cannot be on two beds.").format(
                item=period.item, name=period.place.name
            )
        )


@transaction.atomic
def save_cover(period: CoverPeriod, usual: CoverPeriod | None = None) -> CoverPeriod:
    """Save a new or changed cover period, and with it the place's usual cover where that stays beside it; raises OnAnotherBed,
    also where two people put the same one on at once."""
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
    """Remove a cover period; returns it, unsaved, so that it can be put back."""
    period = place.cover_periods.filter(pk=period_id).first()
    if period is not None:
        period.delete()
        note_change_at(place)
    return period


@transaction.atomic
def note_operation(place: Place, work: str, at: datetime, amount: float = 0.0) -> Operation:
    """Write down what was done."""
    operation = Operation.objects.create(place=place, work=work, at=at, amount=amount)
    note_change_at(place)
    return operation


@transaction.atomic
def remove_operation(place: Place, operation_id: int) -> bool:
    """Take back what was written down; returns whether it was there."""
    gone, _unused = place.operations.filter(pk=operation_id).delete()
    if gone:
        note_change_at(place)
    return bool(gone)
