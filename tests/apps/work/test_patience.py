"""A database that hangs: whoever waits is let go, the next callers are told at once, and it recovers by itself."""

from __future__ import annotations

import socket
import threading
import time
from typing import Any

import psycopg
import pytest
from django.db import OperationalError, connection
from django.test import Client

from cloche.apps.work import patience
from cloche.apps.work.patience import PATIENCE, Patience, awaited
from cloche.apps.work.postgres.base import DatabaseWrapper

A_WHILE_S = 30


@pytest.fixture(autouse=True)
def at_rest() -> Any:
    yield
    PATIENCE.recovered()


def test_a_command_that_is_not_answered_is_given_up(db: None) -> None:
    """The server sleeps for a minute, as one that is stopped would for ever; a short patience ends the wait long before."""
    short = Patience(waits_s=0.3)
    results: list[Any] = []

    def ask() -> None:
        def slow() -> str:
            try:
                with connection.cursor() as cursor:
                    cursor.execute("SELECT pg_sleep(60)")
            except OperationalError:
                return "ended"
            return "answered"

        try:
            results.append(awaited(slow, short))
        finally:
            connection.close()

    thread = threading.Thread(target=ask)
    thread.start()
    thread.join(A_WHILE_S)
    assert results == [("ended", True)]
    assert short.is_resting()


def test_shutting_a_connection_down_ends_its_wait() -> None:
    ours, other = socket.socketpair()
    with ours, other:
        patience.shut_down(ours.fileno())
        assert other.recv(1) == b""


def test_after_the_rest_one_caller_tries_it_again() -> None:
    short = Patience(rests_s=0.0)
    short.rest()
    assert not short.is_resting()
    long = Patience(rests_s=60.0)
    long.rest()
    assert long.is_resting()
    long.recovered()
    assert not long.is_resting()


def test_pages_say_so_at_once_while_health_goes_on_answering(client: Client, db: None) -> None:
    PATIENCE.rest()
    page = client.get("/sign-in/")
    assert page.status_code == 503
    assert "not responding" in page.content.decode()
    assert client.get("/api/v1/device").json()["detail"]
    assert client.get("/readyz/").status_code == 503
    assert client.get("/healthz/").status_code == 200


def test_a_server_that_takes_a_connection_and_says_nothing_is_asked_once(db: None) -> None:
    """Whoever was let go would else wait for each further connection that its page opens."""
    with socket.create_server(("127.0.0.1", 0)) as silent:
        usual = connection.settings_dict
        options = usual["OPTIONS"] | {"connect_timeout": 2}
        at = {"HOST": "127.0.0.1", "PORT": silent.getsockname()[1], "OPTIONS": options}
        hung = DatabaseWrapper(usual | at, alias="hung")
        with pytest.raises(OperationalError):
            hung.ensure_connection()
        assert PATIENCE.is_resting()
        with pytest.raises(OperationalError, match="did not answer a moment ago"):
            hung.ensure_connection()


def test_only_the_thread_that_tries_it_again_may_open_a_connection() -> None:
    short = Patience(rests_s=60.0)
    assert not short.is_shut()
    short.rest()
    assert short.is_shut()
    short.rests_until = time.monotonic()
    assert not short.is_resting()
    others: list[bool] = []
    thread = threading.Thread(target=lambda: others.append(short.is_shut()))
    thread.start()
    thread.join(A_WHILE_S)
    assert (short.is_shut(), others) == (False, [True])


def test_the_thread_outlives_a_connection_that_closes_under_its_eyes(db: None) -> None:
    class Gone:
        closed = False

        class pgconn:  # noqa: N801 - as psycopg names it
            transaction_status = psycopg.pq.TransactionStatus.ACTIVE

        def fileno(self) -> int:
            raise psycopg.OperationalError("the connection is closed")

    class Session:
        connection = Gone()

    short = Patience(waits_s=0.0)
    waiting = patience.Waiting(Session(), busy_since=time.monotonic() - 1)
    short._look_at(waiting)
    assert waiting.cut
