"""Messages that could not be taken, kept aside with their reason."""

from __future__ import annotations

import re
from datetime import timedelta

from django.db import transaction

from cloche.apps.loggers.models import Device, RefusedMessage
from cloche.apps.work import moments
from cloche.bridge.values import border

TOKEN = re.compile(r'"token"\s*:\s*"[^"]*"?')
KEPT, MOST_ROWS = timedelta(days=30), 1_000


@transaction.atomic
def keep_aside(payload: bytes, reason: str, device: Device | None) -> RefusedMessage:
    """What came, how it began and why it was not taken. What an unknown sender says is not kept, only that it came."""
    sample = TOKEN.sub('"token": "…"', payload[:1200].decode("utf-8", "replace"))
    sample = border.one_line(sample)[:400] if device else ""
    garden = device.garden if device else None
    return RefusedMessage.objects.create(
        garden=garden, device=device, at=moments.database_now(), reason=border.one_line(reason)[:300], sample=sample
    )


def prune_aside() -> int:
    """Forget what is a month old, and the oldest of too many."""
    old, _ = RefusedMessage.objects.filter(at__lt=moments.database_now() - KEPT).delete()
    beyond = list(RefusedMessage.objects.order_by("-at").values_list("pk", flat=True)[MOST_ROWS:])
    more, _ = RefusedMessage.objects.filter(pk__in=beyond).delete()
    return old + more
