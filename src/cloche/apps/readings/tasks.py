"""Background jobs for long and watched files."""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.readings.flows import watched
from cloche.apps.readings.flows.bring_in import TAKE_FILE, key_of_file
from cloche.apps.readings.flows.watched import TAKE_WATCHED
from cloche.apps.readings.models import IncomingFile
from cloche.apps.work import queue


@app.task(name=TAKE_FILE)
def take_file(file_id: int) -> None:
    """Import a long file; one that was imported or cancelled is ignored."""
    from cloche.apps.readings.flows import bring_in

    incoming = IncomingFile.objects.filter(pk=file_id, state=IncomingFile.State.TAKING).first()
    if incoming is not None:
        bring_in.take_long(incoming)


@app.task(name=TAKE_WATCHED)
def take_watched(garden_id: int, name: str) -> None:
    """Import a file from the watched folder."""
    watched.take_file(garden_id, name)


def file_round() -> int:
    """Queue all long files still to be imported in case a job was lost; return how many."""
    due = IncomingFile.objects.filter(state=IncomingFile.State.TAKING).values_list("pk", flat=True)
    return queue.put_due(TAKE_FILE, {key_of_file(pk): {"file_id": pk} for pk in due})
