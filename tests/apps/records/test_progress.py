"""How far an archive is read is seen while the reading itself is one transaction that nobody sees into."""

import pytest
from django.db import transaction

from cloche.apps.gardens.models import User
from cloche.apps.records.archive.progress import Reported
from cloche.apps.records.models import IncomingArchive


@pytest.mark.django_db(transaction=True)
def test_progress_is_told_through_a_connection_of_its_own() -> None:
    person = User.objects.create_user("rowan", password="spade-and-fork")
    archive = IncomingArchive.objects.create(user=person, name="garden.zip", size=1)
    progress = Reported(archive)
    progress.begin(1_200)
    try:
        with transaction.atomic():
            for _ in range(600):
                progress.step()
            transaction.set_rollback(True)
    finally:
        progress.close()
    archive.refresh_from_db()
    assert (archive.done, archive.total) == (500, 1_200)
