"""What one person or garden may have, said where it is asked for, and nothing that is there is lost."""

import json
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, User
from cloche.apps.loggers.flows.devices import deploy, let_device_in
from cloche.apps.loggers.models import LoggedReading
from cloche.apps.readings.models import Reading
from cloche.apps.records import incoming
from tests.apps.readings.test_files import answer, upload
from tests.factories import make_place


def body(response: Any) -> str:
    return response.content.decode()


@pytest.fixture
def at_most(settings: Any) -> Any:
    def set_limits(**most: int) -> None:
        settings.CLOCHE_MOST = settings.CLOCHE_MOST | most

    return set_limits


def test_a_second_garden_beyond_the_limit(signed_in: Client, garden: Garden, person: User, at_most: Any) -> None:
    at_most(gardens=1)
    point = {"latitude_deg": "48", "longitude_deg": "15"}
    site = point | {"name": "Second", "height": "300 m", "timezone_name": "Europe/Vienna"}
    refused = signed_in.post(reverse("new_garden"), site)
    assert refused.status_code == 422
    assert "One person can have at most 1 gardens here." in body(refused)
    with pytest.raises(incoming.TooMany, match="can have at most 1 gardens"):
        incoming.receive(person, SimpleUploadedFile("garden.zip", b"x"))
    at_most(gardens=2)
    assert signed_in.post(reverse("new_garden"), site).status_code == 302
    assert person.gardens.count() == 2


def test_links_that_wait_count_as_people(signed_in: Client, garden: Garden, at_most: Any) -> None:
    at_most(people=2)
    people = reverse("people", args=[garden.pk])
    assert "shown only once" in body(signed_in.post(people, {"role": "viewer"}))
    refused = signed_in.post(people, {"role": "viewer"})
    assert refused.status_code == 422
    assert "can have at most 2 people here" in body(refused)
    assert garden.invitations.count() == 1


def test_places_one_by_one_and_many_at_once(signed_in: Client, garden: Garden, at_most: Any) -> None:
    at_most(places=2)
    make_place(garden)
    refused = signed_in.post(reverse("first_places", args=[garden.pk]), {"open": "3"})
    assert refused.status_code == 422
    assert "can have at most 2 places here" in body(refused)
    assert garden.places.count() == 1, "none by half"
    signed_in.post(reverse("first_places", args=[garden.pk]), {"open": "1"})
    assert garden.places.count() == 2


def test_values_of_loggers_and_rows_of_files(signed_in: Client, garden: Garden, at_most: Any) -> None:
    at_most(values=3)
    place = make_place(garden)
    device, token = let_device_in(garden, "Logger", "C", None)
    deploy(device, "1", place, 0.05)

    def send(*hours: int) -> Any:
        rows = [{"channel": "1", "temperature": 8.0, "at": f"2026-04-21T{hour:02}:00:00Z"} for hour in hours]
        headers = {"Authorization": f"Bearer {token}"}
        url = "/api/v1/readings"
        return signed_in.post(url, json.dumps({"readings": rows}), content_type="application/json", headers=headers).json()

    assert send(1, 2)["kept"] == 2
    full = send(3, 4, 5, 6)
    assert full["kept"] == 0
    assert {refusal["code"] for refusal in full["refused"]} == {"full"}
    assert "can have at most 3 readings" in full["refused"][0]["message"]
    assert LoggedReading.objects.count() == 2

    rows = "".join(f"2026-04-{day:02},08:00,8.5\n" for day in range(10, 15))
    upload(signed_in, garden, f"date,time,temp\n{rows}".encode())
    refused = answer(signed_in, garden)
    assert "can have at most 3 readings" in body(signed_in.get(refused["Location"]))
    assert Reading.objects.count() == 0
    assert garden.incoming_files.exists(), "the file still waits"
