"""One person never sees another's garden."""

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, Membership, User
from tests.factories import make_garden, make_person, make_place


@pytest.fixture
def other(db: None, now: object) -> Garden:
    garden = make_garden(make_person("hazel"), "Their plot")
    make_place(garden, "Their bed")
    return garden


def test_one_person_may_belong_to_two_gardens(signed_in: Client, person: User, garden: Garden, other: Garden) -> None:
    Membership.objects.create(garden=other, user=person)
    page = signed_in.get(reverse("today", args=[garden.pk])).content.decode()
    assert "Switch to Their plot" in page
    assert signed_in.get(reverse("today", args=[other.pk])).status_code == 200
    assert signed_in.get("/")["Location"] == reverse("today", args=[other.pk])
