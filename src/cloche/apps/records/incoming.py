"""Upload of an archive: received in pieces, read by a worker, then linked to its garden or to an error."""

from __future__ import annotations

import tempfile
from typing import IO

from django.core.exceptions import ValidationError
from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import User
from cloche.apps.records.archive.progress import Reported
from cloche.apps.records.archive.read import NotTaken, read_archive
from cloche.apps.records.models import ArchivePart, IncomingArchive
from cloche.apps.shared.quota import refuse_beyond
from cloche.apps.work import queue

TAKE_ARCHIVE = "records.take_archive"
MOST_WAITING = 3
OPEN = (IncomingArchive.State.WAITING, IncomingArchive.State.READING)


class TooMany(ValueError):
    """Raised where a person already has the maximum number of archives waiting."""


def key_of(archive_id: int) -> str:
    """Return the key of an archive in the job queue and the list of failures."""
    return f"archive-{archive_id}"


@transaction.atomic
def receive(person: User, upload: UploadedFile) -> IncomingArchive:
    """Store an uploaded file and queue its reading. Raises TooMany."""
    User.objects.select_for_update().only("pk").get(pk=person.pk)
    person.incoming_archives.exclude(state__in=OPEN).delete()
    if person.incoming_archives.count() >= MOST_WAITING:
        raise TooMany(
            _("{most_waiting} archives of yours are already being imported. Wait until one is finished.").format(
                most_waiting=MOST_WAITING
            )
        )
    try:
        refuse_beyond("gardens", person.gardens.count() + person.incoming_archives.count() + 1)
    except ValidationError as full:
        raise TooMany(full.message) from full
    archive = IncomingArchive.objects.create(user=person, name=(upload.name or "garden.zip")[-200:], size=upload.size or 0)
    for number, piece in enumerate(upload.chunks(1_000_000)):
        ArchivePart.objects.create(archive=archive, number=number, data=piece)
    queue.put(TAKE_ARCHIVE, key_of(archive.pk), priority=queue.LATER, archive_id=archive.pk)
    return archive


def take(archive: IncomingArchive) -> None:
    """Read an archive into a new garden or store why it failed; an interrupted worker leaves nothing half done."""
    IncomingArchive.objects.filter(pk=archive.pk).update(state=IncomingArchive.State.READING)
    progress = Reported(archive)
    try:
        with tempfile.TemporaryFile() as whole, transaction.atomic():
            _put_together(archive, whole)
            archive.garden = read_archive(whole, archive.user, progress)
            archive.state, archive.text = IncomingArchive.State.TAKEN, ""
            _close(archive)
    except NotTaken as why:
        archive.garden, archive.state, archive.text = None, IncomingArchive.State.REFUSED, str(why)[:300]
        _close(archive)
    finally:
        progress.close()


def _put_together(archive: IncomingArchive, whole: IO[bytes]) -> None:
    for data in archive.parts.values_list("data", flat=True).iterator(chunk_size=4):
        whole.write(bytes(data))
    whole.seek(0)


@transaction.atomic
def _close(archive: IncomingArchive) -> None:
    archive.save(update_fields=["garden", "state", "text"])
    archive.parts.all().delete()
