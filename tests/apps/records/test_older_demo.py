"""A demo of before the first migrations were written anew is begun afresh."""

import pytest
from django.db import connection
from django.db.migrations.recorder import MigrationRecorder

from cloche.apps.records.management.commands import load_demo


@pytest.mark.django_db
def test_migrations_that_are_gone_are_seen_and_those_that_stand_are_not() -> None:
    assert not load_demo.is_of_older_migrations()
    MigrationRecorder(connection).record_applied("watch", "0001_answers_and_digests")
    assert load_demo.is_of_older_migrations()


@pytest.mark.django_db
def test_so_is_what_was_applied_before_something_it_rests_on_now() -> None:
    MigrationRecorder(connection).record_unapplied("places", "0001_initial")
    assert load_demo.is_of_older_migrations()
