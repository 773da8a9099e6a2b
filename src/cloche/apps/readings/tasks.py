"""Asking the weather provider, and taking long files, outside requests."""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.readings.flows import watched
from cloche.apps.readings.flows.bring_in import TAKE_FILE, key_of_file
from cloche.apps.readings.flows.watched import TAKE_WATCHED
from cloche.apps.readings.models import IncomingFile
from cloche.apps.work import queue


@app.task(name=TAKE_FILE)
def take_file(file_id: int) -> None:
    """Take a long file; one that was given up or is in already is left alone."""
    from cloche.apps.readings.flows import bring_in

    incoming = IncomingFile.objects.filter(pk=file_id, state=IncomingFile.State.TAKING).first()
    if incoming is not None:
        bring_in.take_long(incoming)


@app.task(name=TAKE_WATCHED)
def take_watched(garden_id: int, name: str) -> None:
    """Take a file of the folder that is watched."""
    watched.take_file(garden_id, name)


def file_round() -> int:
    """Queue every long file that is still to be taken, should its job have been lost. Returns how many."""
    due = IncomingFile.objects.filter(state=IncomingFile.State.TAKING).values_list("pk", flat=True)
    return queue.put_due(TAKE_FILE, {key_of_file(pk): {"file_id": pk} for pk in due})
