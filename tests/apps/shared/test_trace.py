"""Numbers of requests, what is logged of them, and what of safety."""

import io
import json
import logging
import logging.config
from typing import Any

import pytest
from django.http import HttpResponse
from django.test import Client, RequestFactory
from django.urls import reverse
from django.utils.functional import SimpleLazyObject

from cloche.apps.gardens.models import Garden, User
from cloche.apps.shared import trace
from tests.factories import make_person


class Heard(logging.Handler):
    """Keeps what is logged, as it is handed on."""

    def __init__(self) -> None:
        super().__init__()
        self.records: list[logging.LogRecord] = []
        self.addFilter(trace.WithRequest())

    def emit(self, record: logging.LogRecord) -> None:
        self.records.append(record)


@pytest.fixture
def heard() -> Any:
    handler, loggers = Heard(), [logging.getLogger(name) for name in ("cloche.requests", "cloche.security")]
    levels = [level.level for level in loggers]
    for logger in loggers:
        logger.addHandler(handler)
        logger.setLevel(logging.INFO)
    yield handler
    for logger, level in zip(loggers, levels, strict=True):
        logger.removeHandler(handler)
        logger.setLevel(level)


def test_every_answer_has_a_number_that_is_in_the_log(signed_in: Client, garden: Garden, person: User, heard: Heard) -> None:
    answers = [signed_in.get(reverse("help")), signed_in.get("/nothing/here/")]
    numbers = [answer["X-Request-ID"] for answer in answers]
    assert len(set(numbers)) == 2
    assert [record.request_id for record in heard.records] == numbers  # type: ignore[attr-defined]
    first = vars(heard.records[0])
    assert (first["method"], first["route"], first["status"], first["person"]) == ("GET", "help/", 200, person.pk)


def test_noting_an_answer_asks_the_database_nothing(rf: RequestFactory, heard: Heard) -> None:
    """Whoever asked it then would wait for one that hangs, and nobody would let them go."""
    request = rf.get("/g/1/today/")
    request.session = {}
    request.user = SimpleLazyObject(lambda: pytest.fail("the database was asked who it is"))
    assert trace.RequestIdMiddleware(lambda _request: HttpResponse(status=503))(request).status_code == 503
    assert vars(heard.records[0])["person"] is None


def test_no_secret_of_an_address_is_logged(client: Client, garden: Garden, heard: Heard) -> None:
    client.get(reverse("join", args=["a-secret-of-an-invitation"]))
    client.get(reverse("feed", args=["a-secret-of-a-calendar"]))
    assert [vars(record)["route"] for record in heard.records] == ["join/<str:token>/", "calendar/<str:token>.ics"]
    assert all("a-secret" not in str(vars(record)) for record in heard.records)


def test_who_comes_in_who_does_not_and_as_what_is_noted(client: Client, garden: Garden, person: User, heard: Heard) -> None:
    client.post(reverse("sign_in"), {"username": "rowan", "password": "not this one"})
    client.post(reverse("sign_in"), {"username": "rowan", "password": "a-long-password"})
    client.post(reverse("people", args=[garden.pk]), {"role": "helper"})
    garden.memberships.create(user=make_person("hazel"), role="helper")
    client.post(reverse("sign_out"))
    events = [vars(record) for record in heard.records if record.name == "cloche.security"]
    assert [event["event"] for event in events] == ["sign_in_failed", "signed_in", "invited", "role", "signed_out"]
    assert events[0]["address"] == "127.0.0.1"
    assert all("not this one" not in str(event) and "a-long-password" not in str(event) for event in events)
    assert events[1]["request_id"] != "-"


def test_as_json_each_line_is_an_object(settings: Any) -> None:
    chosen = settings.LOGGING["formatters"]["json"]
    logging.config.dictConfig({"version": 1, "disable_existing_loggers": False, "formatters": {"json": chosen}})
    out = io.StringIO()
    handler = logging.StreamHandler(out)
    handler.addFilter(trace.WithRequest())
    from pythonjsonlogger.json import JsonFormatter

    handler.setFormatter(JsonFormatter(chosen["format"], style="{", rename_fields=chosen["rename_fields"]))
    logger = logging.getLogger("cloche.test-of-json")
    logger.addHandler(handler)
    logger.error("Bed “%s”\nis gone", "North", extra={"place": 7})
    logger.removeHandler(handler)
    (line,) = out.getvalue().splitlines()
    line_read = json.loads(line)
    assert (line_read["level"], line_read["from"], line_read["message"]) == (
        "ERROR",
        "cloche.test-of-json",
        "Bed “North”\nis gone",
    )
    assert (line_read["place"], line_read["request_id"]) == (7, "-")
