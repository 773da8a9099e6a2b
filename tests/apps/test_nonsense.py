"""Addresses and bodies that nobody means: each is answered, none with a fault of our own."""

import json
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden
from cloche.apps.readings.models import Visit
from tests.factories import make_place

FAR = ["2026-13-45T00:00:00Z", "0001-01-01T00:00:00Z", "9999-12-31T23:59:59Z", "²", "\x00", "-1", "9" * 40, "nan", "\ud7ff"]


@pytest.fixture
def bed(garden: Garden) -> Any:
    return make_place(garden)


@pytest.mark.parametrize("value", FAR)
def test_addresses(signed_in: Client, garden: Garden, bed: Any, value: str) -> None:
    queries = [
        (reverse("round_summary", args=[garden.pk]), {"since": value}),
        (reverse("what_wakes", args=[garden.pk]), {"place": value, "in": value, "only": value}),
        (reverse("crop_in_place", args=[garden.pk, bed.pk, "pea"]), {"in": value, "sow": value, "way": value, "chance": value}),
        (reverse("hedge", args=[garden.pk, bed.pk, "pea"]), {"chance": value, "by": value}),
        (reverse("history", args=[garden.pk]), {"before": value}),
        (reverse("sandbox", args=[garden.pk]), {"low": value, "high": value, "month": value, "sun": value}),
        (reverse("covers", args=[garden.pk]), {"place": value, "on": value, "warm": value, "crop": value}),
        (reverse("put_on", args=[garden.pk, bed.pk]), {"cover": value, "first": value, "crop": value, "sow_on": value}),
        (reverse("weather", args=[garden.pk]), {"day": value}),
        (reverse("place", args=[garden.pk, bed.pk]), {"also": value}),
        (reverse("new_sowing", args=[garden.pk]), {"place": value, "crop": value}),
    ]
    for url, query in queries:
        assert signed_in.get(url, query).status_code < 500, (url, query)


def test_sliders_beyond_their_ends_are_taken_as_their_ends(signed_in: Client, garden: Garden) -> None:
    url = reverse("sandbox", args=[garden.pk])
    shown = signed_in.get(url, {"low": "-200", "high": "5000"})
    assert shown.status_code == 200
    assert "of the seedlings are up in" in shown.content.decode()


@pytest.mark.parametrize("token", ["%00", "a", "%ff", "x" * 300, "%ud800", "..%2f.."])
def test_secrets_that_are_none(client: Client, db: None, token: str) -> None:
    assert client.get(f"/calendar/{token}.ics").status_code == 404
    assert client.get(f"/join/{token}/").status_code == 404


@pytest.mark.parametrize("numbers", ["²", "1,²", "9" * 30, "-", ",,,", "\x00"])
def test_words_on_flags_that_are_none(signed_in: Client, garden: Garden, numbers: str) -> None:
    assert signed_in.post(reverse("flags", args=[garden.pk]), {"review": "right", "numbers": numbers}).status_code == 404


def stop(bed: Any, **more: Any) -> dict[str, Any]:
    return {"key": "6f0a4b0e-0000-4000-8000-000000000001", "place": str(bed.pk), "temperature": "9.5"} | more


@pytest.mark.parametrize(
    "body",
    [
        b"[" * 100_000,
        b'{"stops": ' + b'[{"a":' * 3_000,
        b"\xff\xfe",
        b'{"stops": NaN}',
        b'{"stops": [NaN]}',
        b'{"stops": "\\ud800"}',
        b'{"stops": 5}',
        b"5",
        b"",
        json.dumps({"stops": [{}] * 201}).encode(),
    ],
)
def test_rounds_that_are_none(signed_in: Client, garden: Garden, body: bytes) -> None:
    answer = signed_in.post(reverse("send_round", args=[garden.pk]), body, content_type="application/json")
    assert answer.status_code == 400
    assert answer.json()["message"]


@pytest.mark.parametrize(
    ("more", "said"),
    [
        ({"at": "2026-13-45T07:30:00Z"}, "not a time"),
        ({"at": "0001-01-01T00:00:00Z"}, "1900 to 2100"),
        ({"at": "0001-01-01T00:00:00+14:00"}, "1900 to 2100"),
        ({"at": "9999-12-31T23:59:59-12:00"}, "1900 to 2100"),
        ({"at": "9999-12-31T23:59:59"}, "1900 to 2100"),
        ({"photo": "data:image/png;base64,AAAA"}, "picture cannot be read"),
        ({"photo": "²"}, "picture cannot be read"),
        ({"note": "a\u202eb"}, "cannot be displayed"),
        ({"temperature": "9" * 400}, "outside"),
        ({"temperature": {"a": [1]}}, "not a number"),
        ({"place": {"a": 1}}, "no longer in the garden"),
        ({"key": "x"}, "valid UUID"),
        ({"works": "watered"}, "list"),
    ],
)
def test_stops_that_cannot_be_kept_come_back_with_a_reason(
    signed_in: Client, garden: Garden, bed: Any, more: dict[str, Any], said: str
) -> None:
    body = json.dumps({"sent_at": "9999-99-99T00:00:00Z", "stops": [stop(bed, **more), stop(bed, key=None)]})
    answer = signed_in.post(reverse("send_round", args=[garden.pk]), body, content_type="application/json")
    bad, good = answer.json()["results"]
    assert (bad["state"], good["state"]) == ("refused", "kept")
    assert said in bad["message"]
    assert Visit.objects.count() == 1
