"""Background jobs that read archives."""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.records import incoming
from cloche.apps.records.models import IncomingArchive
from cloche.apps.work import queue


@app.task(name=incoming.TAKE_ARCHIVE)
def take_archive(archive_id: int) -> None:
    """Read an archive; one that was read, refused or deleted is ignored."""
    archive = IncomingArchive.objects.filter(pk=archive_id, state__in=incoming.OPEN).select_related("user").first()
    if archive is not None:
        incoming.take(archive)


def archive_round() -> int:
    """Queue all waiting archives in case a job was lost; return how many."""
    due = IncomingArchive.objects.filter(state__in=incoming.OPEN).values_list("pk", flat=True)
    return queue.put_due(incoming.TAKE_ARCHIVE, {incoming.key_of(pk): {"archive_id": pk} for pk in due}, queue.LATER)
