"""What each role may change, held at the server, and what a page offers it: both from the same table."""

from __future__ import annotations

import re
from datetime import date, timedelta
from typing import Any

import pytest
from django.test import Client
from django.urls import resolve, reverse

from cloche.apps.gardens.access import may_send
from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.plants.models import Planting
from cloche.apps.readings.models import Reading
from cloche.apps.shared import clock
from cloche.apps.sowings.models import Sowing
from tests.factories import make_person, make_place, make_reading

Role = Membership.Role


def member(garden: Garden, role: str) -> tuple[User, Client]:
    person = make_person(f"the-{role}")
    Membership.objects.create(garden=garden, user=person, role=role)
    client = Client()
    client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
    return person, client


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden, "North bed")


@pytest.fixture
def owned(bed: Place, person: User) -> dict[str, Any]:
    """What the owner of the garden entered."""
    return {
        "reading": make_reading(bed, clock.now() - timedelta(hours=3), entered_by=person),
        "sowing": Sowing.objects.create(place=bed, crop_key="pea", sown_on=date(2026, 4, 10), depth_m=0.03, entered_by=person),
        "cover": CoverPeriod.objects.create(place=bed, cover="fleece", first=date(2026, 4, 1)),
        "planting": Planting.objects.create(place=bed, crop_key="lettuce", entered_by=person),
    }


def addresses(bed: Place, owned: dict[str, Any]) -> list[str]:
    garden = bed.garden_id
    return [
        reverse("remove_reading", args=[garden, bed.pk, owned["reading"].pk]),
        reverse("remove_sowing", args=[garden, owned["sowing"].pk]),
        reverse("finish_sowing", args=[garden, owned["sowing"].pk]),
        reverse("remove_cover", args=[garden, bed.pk, owned["cover"].pk]),
        reverse("remove_planting", args=[garden, owned["planting"].pk]),
    ]


def test_a_helper_changes_nothing_of_others(garden: Garden, bed: Place, owned: dict[str, Any]) -> None:
    _, client = member(garden, Role.HELPER)
    for address in addresses(bed, owned):
        answer = client.post(address)
        assert answer.status_code == 403, address
        assert "Someone else entered this" in answer.content.decode()
    assert Reading.objects.current().count() == Sowing.objects.filter(removed_at=None).count() == 1
    assert CoverPeriod.objects.count() == Planting.objects.count() == 1


def test_a_grower_may_change_all_of_it(garden: Garden, bed: Place, owned: dict[str, Any]) -> None:
    _, client = member(garden, Role.GROWER)
    # The sowing is closed before it is removed: a removed one cannot be closed any more.
    reading, removed, closed, cover, planting = addresses(bed, owned)
    for address in (reading, closed, removed, cover, planting):
        assert client.post(address).status_code == 302, address


def test_a_helper_adds_entries_and_corrects_their_own(garden: Garden, bed: Place) -> None:
    person, client = member(garden, Role.HELPER)
    day = clock.today(garden.timezone) - timedelta(days=1)
    sent = {"place": bed.pk, "crop_key": "pea", "sown_on": day.isoformat(), "depth": "3", "seeds": "20"}
    client.post(reverse("new_sowing", args=[garden.pk]), sent)
    sowing = Sowing.objects.get()
    assert sowing.entered_by == person
    client.post(reverse("count", args=[garden.pk, sowing.pk]), {"on": clock.today(garden.timezone).isoformat(), "up": "0"})
    assert sowing.counts.count() == 1
    client.post(reverse("remove_count", args=[garden.pk, sowing.pk]), {"on": clock.today(garden.timezone).isoformat()})
    assert sowing.counts.count() == 0
    assert client.post(reverse("remove_sowing", args=[garden.pk, sowing.pk])).status_code == 302
    assert client.post(reverse("put_back_sowing", args=[garden.pk, sowing.pk])).status_code == 302


FORM = re.compile(r'<form\b([^>]*method="post"[^>]*)>')


@pytest.mark.parametrize("role", list(Role))
def test_a_page_offers_exactly_the_forms_that_the_server_takes(
    garden: Garden, bed: Place, owned: dict[str, Any], role: str, rf: Any
) -> None:
    """Of every form on a page: hidden where it would be refused, and only there."""
    person, client = member(garden, role)
    membership = Membership.objects.get(user=person)
    seen = 0
    for name, words in (
        ("place", [bed.pk]),
        ("sowings", []),
        ("windows", []),
        ("garden", []),
        ("planting", [owned["planting"].pk]),
    ):
        path = reverse(name, args=[garden.pk, *words])
        for tag in FORM.findall(client.get(path).content.decode()):
            action = re.search(r'action="([^"]*)"', tag)
            match = resolve((action.group(1) if action else "") or path)
            if not hasattr(match.func, "writing"):
                continue
            request = rf.get(path)
            assert ("data-not-yours" in tag) is not may_send(request, membership, match.func, match.kwargs), tag
            seen += 1
    assert seen > 5


def test_a_viewer_is_not_led_to_forms_and_may_leave_and_subscribe(garden: Garden, bed: Place) -> None:
    _, client = member(garden, Role.VIEWER)
    windows = client.get(reverse("windows", args=[garden.pk])).content.decode()
    feed = next(tag for tag in FORM.findall(windows) if reverse("make_feed", args=[garden.pk]) in tag)
    assert "data-not-yours" not in feed
    ground = client.get(reverse("ground", args=[garden.pk])).content.decode()
    link = re.search(rf"<a\b[^>]*{reverse('new_place', args=[garden.pk])}[^>]*>", ground)
    assert link
    assert "data-not-yours" in link.group()
