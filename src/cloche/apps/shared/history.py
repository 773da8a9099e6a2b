"""History of tables, and notices with an undo button."""

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
    """Date history by the application's clock, so that the demo's history lies on the demo's day."""
    history_instance.history_date = clock.now()


@receiver([pre_save, pre_delete], dispatch_uid="first-state-before-first-change")
def keep_first_state(sender: Any, instance: Any, raw: bool = False, **kwargs: Any) -> None:
    """Write the first state of a bulk-created record to its history before its first change."""
    if raw or instance._state.adding or not hasattr(sender._meta, "simple_history_manager_attribute"):
        return
    if not sender.history.filter(id=instance.pk).exists():
        stored = sender._base_manager.get(pk=instance.pk)
        sender.history.bulk_history_create([stored], default_date=_came(stored))


def before_it(change: Any) -> Any:
    """Return the state before a change, or None before the first.

    Ordered by number, since two changes may have the same date.
    """
    earlier = type(change).objects.filter(id=change.id, history_id__lt=change.history_id)
    return earlier.order_by("-history_id").first()


def _came(row: Any) -> datetime:
    """Return when a record was created as far as known: a reading's own time, otherwise now."""
    taken: datetime | None = getattr(row, "taken_at", None)
    return taken or clock.now()


def done(request: HttpRequest, text: str, undo_url: str) -> None:
    """Add a notice to the next page whose button posts to the URL that undoes the action."""
    messages.success(request, text, extra_tags=undo_url)
