"""One person never sees another's garden."""

from datetime import timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, Membership, User
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, make_reading


@pytest.fixture
def other(db: None, now: object) -> Garden:
    garden = make_garden(make_person("hazel"), "Their plot")
    make_place(garden, "Their bed")
    return garden


def urls(garden: Garden) -> list[tuple[str, str]]:
    place = garden.places.get()
    reading = make_reading(place, NOW - timedelta(hours=3))
    inside = [garden.pk, place.pk]
    return [
        ("get", reverse("today", args=[garden.pk])),
        ("get", reverse("ground", args=[garden.pk])),
        ("get", reverse("what_wakes", args=[garden.pk])),
        ("get", reverse("weather", args=[garden.pk])),
        ("get", reverse("files", args=[garden.pk])),
        ("get", reverse("garden", args=[garden.pk])),
        ("get", reverse("place", args=inside)),
        ("get", reverse("place_ground", args=inside)),
        ("get", reverse("crop_in_place", args=[*inside, "carrot"])),
        ("get", reverse("edit_place", args=inside)),
        ("get", reverse("take_out", args=[garden.pk, "readings"])),
        ("post", reverse("add_reading", args=inside)),
        ("post", reverse("edit_reading", args=[*inside, reading.pk])),
        ("post", reverse("remove_reading", args=[*inside, reading.pk])),
        ("post", reverse("people", args=[garden.pk])),
    ]


def test_every_address_of_a_strange_garden_does_not_exist(signed_in: Client, other: Garden) -> None:
    for method, url in urls(other):
        assert getattr(signed_in, method)(url).status_code == 404, url


def test_a_place_cannot_be_reached_through_ones_own_garden(signed_in: Client, garden: Garden, other: Garden) -> None:
    strange = other.places.get()
    assert signed_in.get(reverse("place", args=[garden.pk, strange.pk])).status_code == 404
    assert signed_in.post(reverse("add_reading", args=[garden.pk, strange.pk]), {}).status_code == 404
    assert strange.readings.count() == 0


def test_without_signing_in_one_is_asked_to(client: Client, other: Garden) -> None:
    for method, url in urls(other):
        response = getattr(client, method)(url)
        assert response.status_code == 302
        assert response["Location"].startswith(reverse("sign_in"))


def test_one_person_may_belong_to_two_gardens(signed_in: Client, person: User, garden: Garden, other: Garden) -> None:
    Membership.objects.create(garden=other, user=person)
    page = signed_in.get(reverse("today", args=[garden.pk])).content.decode()
    assert "Go to Their plot" in page
    assert signed_in.get(reverse("today", args=[other.pk])).status_code == 200
    assert signed_in.get("/")["Location"] == reverse("today", args=[other.pk])
