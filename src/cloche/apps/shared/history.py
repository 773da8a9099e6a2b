"""Tables that keep their history, and what undoes a change."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.contrib import messages
from django.db.models.signals import pre_delete, pre_save
from django.dispatch import receiver
from django.http import HttpRequest
from simple_history.signals import pre_create_historical_record

from cloche.apps.shared import clock


@receiver(pre_create_historical_record, dispatch_uid="history-by-our-clock")
def date_by_our_clock(sender: Any, history_instance: Any, **kwargs: Any) -> None:
    """One owner of the time: a demo's history lies on the demo's day."""
    history_instance.history_date = clock.now()


@receiver([pre_save, pre_delete], dispatch_uid="first-state-before-first-change")
def keep_first_state(sender: Any, instance: Any, raw: bool = False, **kwargs: Any) -> None:
    """What came in bulk has no history: its first state is written before its first change, whoever makes it."""
    if raw or instance._state.adding or not hasattr(sender._meta, "simple_history_manager_attribute"):
        return
    if not sender.history.filter(id=instance.pk).exists():
        stored = sender._base_manager.get(pk=instance.pk)
        sender.history.bulk_history_create([stored], default_date=_came(stored))


def before_it(change: Any) -> Any:
    """What a record was before one of its changes; None before the first. By number: two changes may bear one date."""
    earlier = type(change).objects.filter(id=change.id, history_id__lt=change.history_id)
    return earlier.order_by("-history_id").first()


def _came(row: Any) -> datetime:
    """When it came, as far as that is known: a reading when it was taken, else now."""
    taken: datetime | None = getattr(row, "taken_at", None)
    return taken or clock.now()


def done(request: HttpRequest, text: str, undo_url: str) -> None:
    """A notice on the next page; its button posts to the address that undoes what was done."""
    messages.success(request, text, extra_tags=undo_url)
