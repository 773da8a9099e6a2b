"""Shared ground: a fixed now, people, gardens and a signed-in client."""

from __future__ import annotations

from datetime import UTC, datetime

import pytest
from django.test import Client

from cloche.apps.gardens import clock
from cloche.apps.gardens.models import Garden, User
from tests.factories import make_garden, make_person

NOW = datetime(2026, 4, 22, 6, 0, tzinfo=UTC)


@pytest.fixture
def now(monkeypatch: pytest.MonkeyPatch) -> datetime:
    """22 April 2026, eight in the morning in central Europe."""
    monkeypatch.setattr(clock, "now", lambda: NOW)
    return NOW


@pytest.fixture
def person(db: None) -> User:
    """A grower who thinks in °C and cm."""
    return make_person("rowan")


@pytest.fixture
def garden(person: User, now: datetime) -> Garden:
    """A garden of theirs."""
    return make_garden(person)


@pytest.fixture
def signed_in(client: Client, person: User) -> Client:
    """A client that is them."""
    client.force_login(person, backend="django.contrib.auth.backends.ModelBackend")
    return client
