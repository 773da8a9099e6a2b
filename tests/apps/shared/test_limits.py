"""Limits are kept where all processes see them, and what must be answered at any time asks nobody."""

from __future__ import annotations

from typing import Any

import pytest
from django.core.management import call_command
from django.test import Client, override_settings

from cloche.apps.loggers import api
from cloche.config.settings import base


@pytest.fixture
def shared(db: None) -> None:
    """The cache of the application itself, its table made as a start makes it."""
    with override_settings(CACHES=base.CACHES):
        call_command("createcachetable", verbosity=0)


def ask(client: Client, address: str) -> int:
    url = "/api/v1/readings"
    answer = client.post(url, b"{}", content_type="application/json", HTTP_AUTHORIZATION="Bearer none", REMOTE_ADDR=address)
    return answer.status_code


def test_guesses_are_counted_by_all_processes_together(
    shared: None, client: Client, now: object, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(api, "MOST_GUESSES_A_MINUTE", 3)
    with override_settings(CACHES=base.CACHES):
        first = [ask(client, "203.0.113.9") for _ in range(2)]
    # Another process begins with no memory of its own.
    with override_settings(CACHES=base.CACHES):
        second = [ask(client, "203.0.113.9") for _ in range(2)]
        elsewhere = ask(client, "203.0.113.10")
    assert first + second == [401, 401, 401, 429]
    assert elsewhere == 401


def test_that_it_is_alive_is_said_without_a_look_into_the_database(signed_in: Client, django_assert_num_queries: Any) -> None:
    """Who asks may carry a session: a database that hangs must not hold the answer up."""
    with django_assert_num_queries(0):
        assert signed_in.get("/healthz/").status_code == 200
